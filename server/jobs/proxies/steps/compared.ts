import { checkProxy, compareTimes, proxyState } from '../../../../core/proxies/check'
import { HALF_SIZE, hasLowChannel, LOW_HZ } from '../../../../core/proxies/recipe'
import type { MediaFacts } from '../../../../core/media/facts'
import { putProxy, type NewProxy } from '../../../db/queries/proxies'
import type { Db } from '../../../db/connection'
import { compareSounds } from '../../../engine/code/compareSounds'
import { frameTimes } from '../../../engine/probe/frameTimes'
import { probeFile } from '../../../engine/probe/probe'
import type { ToolControl } from '../../../engine/tool/tool'
import { decodeWhole } from '../../../engine/code/transcode'
import { CannotWork } from '../../../media/cannotWork'
import type { originalOf } from '../../../media/originals'

export type Original = Awaited<ReturnType<typeof originalOf>>
export type Compared = Awaited<ReturnType<typeof compareProxy>>

/**
 * A finished proxy, decoded from end to end and compared with its original: each frame's time, and all that is heard.
 */
export async function compareProxy(
  { probe: original, video, path: originalPath }: Pick<Original, 'probe' | 'video' | 'path'>,
  path: Buffer,
  control?: ToolControl,
) {
  const probe = await probeFile(path, control)
  const picture = probe.video
  if (!picture) throw new CannotWork('What was made has no picture. Try again.')
  const [from, to] = [
    await frameTimes(originalPath, original, video, control),
    await frameTimes(path, probe, picture, control),
  ]
  const decoded = {
    ...(await decodeWhole(path, picture, control)),
    times: compareTimes(from, to),
    sounds: await soundsCompared({ facts: original, path: originalPath }, { facts: probe, path }, control),
  }
  const checks = checkProxy(original, probe, HALF_SIZE.fraction, decoded)
  return { probe, decoded, checks, state: proxyState(original, checks, decoded) }
}

interface OfFile {
  readonly facts: MediaFacts
  readonly path: Buffer
}

/** Steep enough that what the coder may leave out of a low-frequency channel is silent in both. */
const LOW_ALONE = Array.from({ length: 3 }, () => `lowpass=f=${LOW_HZ}:c=LFE`)

/** Track by track; one that has other channels fails by that, and is not listened to. */
async function soundsCompared(original: OfFile, made: OfFile, control?: ToolControl) {
  const compared = []
  const of = ({ facts, path }: OfFile) => ({ path, pictureStartSeconds: facts.video?.startSeconds ?? 0 })
  for (const [at, track] of original.facts.sounds.entries()) {
    const other = made.facts.sounds[at]
    if (other?.channels !== track.channels) continue
    const filters = hasLowChannel(track) ? LOW_ALONE : []
    compared.push(
      await compareSounds(
        { ...of(original), track, filters },
        { ...of(made), track: other, filters },
        track.channels,
        control,
      ),
    )
  }
  return compared
}

/** Keeps what was found. Runs inside a transaction of the caller. */
export const keepCompared = (
  tx: Db,
  file: Pick<NewProxy, 'mediaFileId' | 'volumeId' | 'path' | 'sizeBytes'>,
  { probe, decoded, state }: Compared,
) =>
  putProxy(tx, {
    ...file,
    probe,
    decodedFrames: decoded.frames,
    decodeErrors: decoded.errors,
    timesCompared: decoded.times.frames,
    worstSeconds: decoded.times.worstSeconds,
    sounds: decoded.sounds,
    state,
  })
