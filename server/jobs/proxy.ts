import { allPass } from '../../core/media/check'
import { checkProxy } from '../../core/proxies/check'
import { HALF_SIZE, proxyBitRate, proxyFrame } from '../../core/proxies/recipe'
import { fileTitle } from '../../core/shelf/bag'
import { frameSizeText } from '../../core/units/frameSize'
import { proxiesOf, putProxy } from '../db/queries/proxies'
import { parentOf } from '../engine/medium'
import { probeFile } from '../engine/probe'
import { makeProxy } from '../engine/transcode'
import { fullPath } from '../places'
import { originalOf, targetVolume } from './originals'
import { CannotWork, type Work, type WorkEnd } from './work'

export interface ProxyInput {
  readonly clipId: string
  readonly volumeId: string
}

/** Makes one proxy, and compares frames, rate and duration with the original before it gets its name. */
export async function proxy({ db, taskId, control, progress }: Work, input: ProxyInput): Promise<WorkEnd> {
  const { clip, owner, probe: original, video, path } = await originalOf(db, input.clipId)
  const frame = proxyFrame(video, HALF_SIZE.fraction)
  const bitsPerSecond = proxyBitRate(frame, video.rate.num / video.rate.den, HALF_SIZE.bitsPerPixelFrame)
  const { name, medium } = await targetVolume(db, input.volumeId, (bitsPerSecond * video.seconds) / 8)
  const parts = Buffer.from(`.yendra/parts/${taskId}`)
  const part = Buffer.from(`.yendra/parts/${taskId}/proxy.mp4`)
  // The original's folders and base name are kept exactly: editing programs match proxies by them.
  const final = Buffer.from(
    `${fileTitle(owner.title)}/Proxies/${fileTitle(clip.loadLabel)}/${clip.pathText.replace(/\.[^.]*$/, '')}.mp4`,
  )
  const ours = (await proxiesOf(db, [clip.id])).some(
    (row) => row.path === final.toString() && row.volumeId === input.volumeId,
  )
  if (!ours && (await medium.entry(final)))
    throw new CannotWork(`${final.toString()} is there already on ${name} and was not made here. Move it away first.`)
  await medium.makeFolder(parts)
  try {
    progress.set({ done: 0, total: video.frames, unit: 'frames' })
    await makeProxy(
      {
        input: path,
        output: fullPath(medium, part).toString(),
        control,
        onFrames: (frames) => progress.set({ done: frames, total: video.frames, unit: 'frames' }),
      },
      {
        frame,
        bitsPerSecond,
        rotationDegrees: video.rotationDegrees,
        sampleAspect: video.sampleAspect,
        timecode: original.timecode,
        withSound: original.audio !== undefined,
      },
    )
    const made = await probeFile(fullPath(medium, part))
    await medium.makeFolder(parentOf(final))
    if (ours) await medium.remove(final)
    if ((await medium.publish(part, final)) === 'taken')
      throw new CannotWork(`${final.toString()} appeared meanwhile. Move it away and try again.`)
    await medium.settle()
    await putProxy(db, {
      clipId: clip.id,
      volumeId: input.volumeId,
      path: final.toString(),
      sizeBytes: made.sizeBytes,
      probe: made,
    })
    const checks = checkProxy(original, made, HALF_SIZE.fraction)
    return {
      sentence: `${clip.name}: ${frameSizeText(frame)} proxy on ${name}, ${allPass(checks) ? 'equal to the original in every check' : 'but it differs from the original'}.`,
      troubles: checks
        .filter((check) => !check.pass)
        .map((check) => `${check.name}: ${check.found} instead of ${check.wanted}`),
    }
  } finally {
    await medium.remove(parts).catch(() => undefined)
  }
}
