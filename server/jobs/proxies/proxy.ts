import type { TaskInput } from '../../../contract/taskKinds'
import { HALF_SIZE, mostProxyBytes, proxyFrame } from '../../../core/proxies/recipe'
import { fileTitle } from '../../../core/units/fileTitle'
import { frameSizeText } from '../../../core/units/frameSize'
import { hasNamesake } from '../../db/queries/cards'
import { addFileProofs } from '../../db/queries/proofs'
import { earlierProxyHash, endEarlierProxies, proxyOf } from '../../db/queries/proxies'
import { makeProxy } from '../../engine/code/makeProxy'
import { publishNew, publishOver } from '../../engine/copy/publish'
import { ToolFailed } from '../../engine/tool/tool'
import { CannotWork } from '../../media/cannotWork'
import { originalOf, targetVolume } from '../../media/originals'
import { fullPath, partsOf } from '../../media/mediumOf'
import { readFinished } from '../steps/proveFile'
import type { Job, Work, WorkEnd } from '../work'
import { inTransaction } from '../../db/connection'
import { withoutEnding } from '../../../core/units/filePath'
import { compareProxy, keepCompared, type Original } from './steps/compared'

/** Makes one proxy, and compares frames, rate and duration with the original before it gets its name. */
export const proxy: Job<'proxy'> = { kind: 'proxy', run: runProxy }

async function runProxy(work: Work, input: TaskInput<'proxy'>): Promise<WorkEnd> {
  const { db, attemptId, control, progress } = work
  const original = await originalOf(db, input.clipId)
  const { clip, video, path } = original
  const frame = proxyFrame(video, HALF_SIZE.fraction)
  const { name, medium } = await targetVolume(db, input.volumeId, mostProxyBytes(original.probe))
  const parts = partsOf(attemptId)
  const part = Buffer.concat([parts, Buffer.from('/proxy.mp4')])
  const final = Buffer.from(await proxyPath(work, original))
  const before = await proxyOf(db, clip.id)
  const own = before?.path === final.toString() && before.volumeId === input.volumeId
  const place = { volumeId: input.volumeId, path: final.toString(), mediaFileId: clip.id }
  const ours = own || (await isOfEarlierVersion())
  const standing = ours ? undefined : await medium.entry(final)
  await medium.makeFolder(parts)
  try {
    progress.set({ done: 0, total: video.frames, unit: 'frames' })
    const found = standing ? await comparedState() : undefined
    if (standing && found?.state !== 'equal')
      throw new CannotWork(`${final.toString()} is there already on ${name} and was not made here. Move it away first.`)
    // One that equals the original in every check may stay: a worker that died after naming it left it so.
    const made = found ?? (await makeIt())
    const { hash, sizeBytes, modifiedMs, pastCache } = await readFinished(medium, final, control.gate)
    await inTransaction(db, async (tx) => {
      await endEarlierProxies(tx, place)
      await keepCompared(tx, { ...place, sizeBytes }, made)
      const where = { ...place, runId: attemptId }
      await addFileProofs(tx, [{ what: 'proxy', algorithm: 'xxh64', hash, sizeBytes, modifiedMs, pastCache, ...where }])
    })
    return {
      sentence:
        `${clip.name}: ${frameSizeText(frame)} proxy on ${name}, ` +
        `${made.state === 'equal' ? 'equal to the original in every check' : 'but it differs from the original'}.`,
      troubles: made.checks
        .filter((check) => !check.pass)
        .map((check) => `${check.name}: ${check.found} instead of ${check.wanted}`),
    }
  } finally {
    await medium.remove(parts).catch(() => undefined)
  }

  /** Whether what lies there is, byte for byte, what was made here of an earlier version. */
  async function isOfEarlierVersion(): Promise<boolean> {
    const known = await earlierProxyHash(db, place)
    if (known === undefined || !(await medium.entry(final))) return false
    return (await readFinished(medium, final, control.gate)).hash === known
  }

  /** How what lies there compares; `undefined` where it is no film at all. */
  function comparedState() {
    return compareProxy(original, fullPath(medium, final), control).catch((error: unknown) => {
      if (error instanceof ToolFailed) return undefined
      throw error
    })
  }

  async function makeIt() {
    await makeProxy(
      {
        input: path,
        output: fullPath(medium, part).toString(),
        control,
        onFrames: (frames) => progress.set({ done: frames, total: video.frames, unit: 'frames' }),
      },
      original.probe,
    )
    const made = await compareProxy(original, fullPath(medium, part), control)
    if (ours) await publishOver(medium, part, final)
    else if ((await publishNew(medium, part, final)) === 'taken')
      throw new CannotWork(`${final.toString()} appeared meanwhile. Move it away and try again.`)
    return made
  }
}

/**
 * The original's folders and base name are kept exactly: editing programs match proxies by them. Two clips that differ
 * only in their ending keep it.
 */
async function proxyPath({ db }: Work, { clip, owner }: Original): Promise<string> {
  const stem = (await hasNamesake(db, clip)) ? clip.pathText : withoutEnding(clip.pathText)
  return `${owner.folder}/Proxies/${fileTitle(clip.loadLabel)}/${stem}.mp4`
}
