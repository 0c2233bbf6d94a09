import type { TaskInput } from '../../../contract/taskKinds'
import { checkDelivery } from '../../../core/exports/check'
import { deliveryBitRate, destinationOf, predictedBytes } from '../../../core/exports/destination'
import { levelText, neededLevel } from '../../../core/exports/level'
import { windowFault } from '../../../core/exports/reframe'
import { allPass } from '../../../core/media/check'
import { fileTitle } from '../../../core/units/fileTitle'
import { formatBytes } from '../../../core/units/quantity'
import { addFileProofs } from '../../db/queries/proofs'
import { addDeliverable, deliverableAt } from '../../db/queries/exports'
import { addNote, notesOfTask } from '../../db/queries/journal'
import { measureBars } from '../../engine/picture'
import { probeFile } from '../../engine/probe'
import { publishNew, settlePublished } from '../../engine/publish'
import { renderDeliverable } from '../../engine/renderDeliverable'
import type { Medium } from '../../engine/medium'
import { CannotWork } from '../../media/cannotWork'
import { originalOf, targetVolume } from '../../media/originals'
import { fullPath, partsOf } from '../../media/mediumOf'
import { readFinished } from '../proveFile'
import type { Job, Work, WorkEnd } from '../work'

const NO_BARS = { left: 0, right: 0, top: 0, bottom: 0 }

/** Renders one deliverable from a window of the master and checks the real file against its destination. */
export const render: Job<'render'> = { kind: 'render', run: runRender }

async function runRender(work: Work, input: TaskInput<'render'>): Promise<WorkEnd> {
  const { db, attemptId, control, progress } = work
  const destination = destinationOf(input.destinationId)
  if (!destination) throw new CannotWork('This destination is not known.')
  const { clip, owner, probe: master, video, path } = await originalOf(db, input.clipId)
  const fault = windowFault(input.window, video)
  if (fault) throw new CannotWork(fault)
  const framesPerSecond = video.rate.num / video.rate.den
  const videoBitsPerSecond = deliveryBitRate(destination, framesPerSecond)
  const withSound = master.audio !== undefined
  const predicted = predictedBytes(videoBitsPerSecond, withSound ? destination.audioBitsPerSecond : 0, video.seconds)
  const level = neededLevel({ ...destination, framesPerSecond, bitsPerSecond: videoBitsPerSecond })
  if (level === undefined) throw new CannotWork(`No H.264 level allows ${destination.name} at this frame rate.`)
  const { name, medium } = await targetVolume(db, input.volumeId, predicted * 1.2)
  const parts = partsOf(attemptId)
  const part = Buffer.concat([parts, Buffer.from('/render.mp4')])
  await medium.makeFolder(parts)
  try {
    const left = await leftByEarlierAttempt(work, medium, input.volumeId)
    if (!left)
      await renderDeliverable(
        {
          input: path,
          output: fullPath(medium, part).toString(),
          control,
          onFrames: twoPasses(video.frames, (done, total) => progress.set({ done, total, unit: 'frames' })),
        },
        {
          window: input.window,
          delivery: destination,
          rate: video.rate,
          videoBitsPerSecond,
          audioBitsPerSecond: destination.audioBitsPerSecond,
          level: levelText(level),
          withSound,
        },
      )
    const base = `${fileTitle(clip.name.replace(/\.[^.]*$/, ''))} ${fileTitle(destination.name.toLowerCase())}`
    const final = left ?? (await publishFree(work, medium, part, `${owner.folder}/Output/${base}`, '.mp4'))
    const made = await probeFile(fullPath(medium, Buffer.from(final)), control)
    const bars = made.video ? await measureBars(fullPath(medium, Buffer.from(final)), made.video, control) : NO_BARS
    const { hash, sizeBytes, modifiedMs, pastCache } = await readFinished(medium, Buffer.from(final), control.gate)
    const checks = checkDelivery({ destination, rate: video.rate, seconds: video.seconds, withSound }, made, bars)
    await db.transaction().execute(async (tx) => {
      const { volumeId } = input
      const file = { volumeId, path: final, sizeBytes }
      const { id } = await addDeliverable(tx, {
        ...file,
        productionId: owner.id,
        clipId: clip.id,
        destinationId: destination.id,
        cropWindow: input.window,
        probe: made,
        bars,
        pass: allPass(checks),
      })
      const where = { ...file, deliverableId: id, runId: attemptId }
      await addFileProofs(tx, [{ what: 'deliverable', algorithm: 'xxh64', hash, modifiedMs, pastCache, ...where }])
      const detail = { path: final }
      await addNote(tx, { kind: 'rendered', productionId: owner.id, clipId: clip.id, volumeId, detail })
    })
    return {
      sentence: `${destination.name} on ${name}, ${formatBytes(made.sizeBytes)}: ${allPass(checks) ? 'passes every check' : 'does not pass'}.`,
      troubles: checks
        .filter((check) => !check.pass)
        .map((check) => `${check.name}: ${check.found} instead of ${check.wanted}`),
    }
  } finally {
    await medium.remove(parts).catch(() => undefined)
  }
}

/** Counts frames over both passes: the count starts again with the second. */
function twoPasses(frames: number, tell: (done: number, total: number) => void): (frames: number) => void {
  let before = 0
  let last = 0
  return (now) => {
    if (now < last) before = frames
    last = now
    tell(Math.min(frames * 2, before + now), frames * 2)
  }
}

/** Gives a finished part the first free name: `film.mp4`, `film (2).mp4` … What it is about to do is written down first. */
async function publishFree(
  { db, taskId, control }: Work,
  medium: Medium,
  part: Buffer,
  base: string,
  ending: string,
): Promise<string> {
  const { hash } = await readFinished(medium, part, control.gate)
  for (let turn = 1; ; turn += 1) {
    const path = `${base}${turn === 1 ? '' : ` (${turn})`}${ending}`
    if (await medium.entry(Buffer.from(path))) continue
    await addNote(db, { kind: 'rendering', detail: { taskId, path, hash } })
    if ((await publishNew(medium, part, Buffer.from(path))) === 'named') return path
  }
}

/** A file of this very task that got its name just before its worker died, whole and not known yet. */
async function leftByEarlierAttempt(
  { db, taskId, control }: Work,
  medium: Medium,
  volumeId: string,
): Promise<string | undefined> {
  for (const { detail } of await notesOfTask(db, 'rendering', taskId)) {
    const { path, hash } = detail as { path: string; hash: string }
    const bytes = Buffer.from(path)
    if (!(await medium.entry(bytes)) || (await deliverableAt(db, volumeId, path))) continue
    if ((await readFinished(medium, bytes, control.gate)).hash !== hash) continue
    await settlePublished(medium, bytes)
    return path
  }
  return undefined
}
