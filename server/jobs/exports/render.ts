import type { TaskInput } from '../../../contract/taskKinds'
import { withoutEscapes } from '../../../core/copies/pathText'
import { checkDelivery, type MeasuredDelivery } from '../../../core/exports/check'
import { destinationOf } from '../../../core/exports/destination'
import { deliveryPlan } from '../../../core/exports/plan'
import { shownFrame, windowFault } from '../../../core/exports/reframe'
import { allPass, checksText } from '../../../core/media/check'
import { sampleParts } from '../../../core/proxies/estimate'
import { fileTitle } from '../../../core/units/fileTitle'
import { formatBytes } from '../../../core/units/quantity'
import { addFileProofs } from '../../db/queries/proofs'
import { addDeliverable, deliverableAt } from '../../db/queries/exports'
import { addNote, notesOfTask } from '../../db/queries/journal'
import { measureDeliverable } from '../../engine/code/measureDeliverable'
import { probeFile } from '../../engine/probe/probe'
import { publishNew, settlePublished } from '../../engine/copy/publish'
import { detailBits, renderDeliverable } from '../../engine/code/renderDeliverable'
import { loweredDbOf } from '../../engine/code/soundMix'
import type { Medium } from '../../engine/medium/medium'
import { CannotWork } from '../../media/cannotWork'
import { originalOf, targetVolume } from '../../media/originals'
import { fullPath, partsOf } from '../../media/mediumOf'
import { readFinished } from '../steps/proveFile'
import type { Job, Work, WorkEnd } from '../work'
import { inTransaction } from '../../db/connection'
import { stemOf } from '../../../core/units/filePath'

const NOTHING: MeasuredDelivery = {
  bars: { left: 0, right: 0, top: 0, bottom: 0 },
  fields: undefined,
  detailBitsPerSecond: undefined,
}

/** Renders one deliverable from a window of the master and checks the real file against its destination. */
export const render: Job<'render'> = { kind: 'render', run: runRender }

async function runRender(work: Work, input: TaskInput<'render'>): Promise<WorkEnd> {
  const { db, attemptId, control, progress } = work
  const destination = destinationOf(input.destinationId)
  if (!destination) throw new CannotWork('This destination is not known.')
  const { clip, owner, probe: master, video, path } = await originalOf(db, input.clipId)
  const fault = windowFault(input.window, shownFrame(video))
  if (fault) throw new CannotWork(fault)
  const { fields, colours, soundTrack } = input
  const plan = deliveryPlan(master, destination, input.window, { fields, colours, soundTrack })
  if (!plan) throw new CannotWork(`${clip.name} has no readable picture.`)
  if (plan.fault) throw new CannotWork(plan.fault)
  const { name, medium } = await targetVolume(db, input.volumeId, plan.sizeBytes * 1.2)
  const parts = partsOf(attemptId)
  const part = Buffer.concat([parts, Buffer.from('/render.mp4')])
  await medium.makeFolder(parts)
  try {
    const loweredDb = plan.sound ? await loweredDbOf(path, plan.sound, control) : 0
    const left = await leftByEarlierAttempt(work, medium, input.volumeId)
    if (!left)
      await renderDeliverable(
        {
          input: path,
          output: fullPath(medium, part).toString(),
          control,
          onFrames: twoPasses(plan.frames, (done, total) => progress.set({ done, total, unit: 'frames' })),
        },
        plan,
        loweredDb,
        master,
      )
    const base = `${fileTitle(stemOf(withoutEscapes(clip.name)))} ${fileTitle(destination.name.toLowerCase())}`
    const final = left ?? (await publishFree(work, medium, part, `${owner.folder}/Output/${base}`, '.mp4'))
    const file = fullPath(medium, Buffer.from(final))
    const made = await probeFile(file, control)
    const measured = made.video
      ? {
          ...(await measureDeliverable(
            { master: path, file, plan, made: { ...made, video: made.video }, loweredDb },
            control,
          )),
          detailBitsPerSecond: await detailBits({ input: path, control }, plan, sampleParts(plan.seconds, 3, 1)),
        }
      : NOTHING
    const { hash, sizeBytes, modifiedMs, pastCache } = await readFinished(medium, Buffer.from(final), control.gate)
    const checks = checkDelivery(plan, made, measured)
    await inTransaction(db, async (tx) => {
      const { volumeId } = input
      const kept = { volumeId, path: final, sizeBytes }
      const { id } = await addDeliverable(tx, {
        ...kept,
        productionId: owner.id,
        mediaFileId: clip.id,
        destinationId: destination.id,
        cropWindow: input.window,
        choice: { fields, colours, soundTrack },
        probe: made,
        measured,
        pass: allPass(checks),
      })
      const where = { ...kept, deliverableId: id, runId: attemptId }
      await addFileProofs(tx, [{ what: 'deliverable', algorithm: 'xxh64', hash, modifiedMs, pastCache, ...where }])
      const detail = { path: final }
      await addNote(tx, { kind: 'rendered', productionId: owner.id, mediaFileId: clip.id, volumeId, detail })
    })
    return {
      sentence: `${destination.name} on ${name}, ${formatBytes(made.sizeBytes)}: ${checksText(checks)}.`,
      troubles: checks
        .filter((check) => !check.pass || check.remark === 'doubt')
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

/**
 * Gives a finished part the first free name: `film.mp4`, `film (2).mp4` … What it is about to do is written down first.
 */
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
