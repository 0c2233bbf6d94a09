import type { TaskInput } from '../../../contract/taskKinds'
import { checkDelivery } from '../../../core/exports/check'
import { deliveryBitRate, destinationOf, predictedBytes } from '../../../core/exports/destination'
import { levelText, neededLevel } from '../../../core/exports/level'
import { windowFault } from '../../../core/exports/reframe'
import { allPass } from '../../../core/media/check'
import { fileTitle } from '../../../core/shelf/bag'
import { formatBytes } from '../../../core/units/quantity'
import { addFileProofs } from '../../db/queries/proofs'
import { addDeliverable } from '../../db/queries/exports'
import { addNote } from '../../db/queries/journal'
import { measureBars } from '../../engine/picture'
import { probeFile } from '../../engine/probe'
import { publishNew } from '../../engine/publish'
import { renderDeliverable } from '../../engine/transcode'
import type { Medium } from '../../engine/medium'
import { CannotWork } from '../../media/cannotWork'
import { originalOf, targetVolume } from '../../media/originals'
import { fullPath, partsOf } from '../../media/places'
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
    const made = await probeFile(fullPath(medium, part), control)
    const bars = made.video ? await measureBars(fullPath(medium, part), made.video, control) : NO_BARS
    const base = `${fileTitle(clip.name.replace(/\.[^.]*$/, ''))} ${fileTitle(destination.name.toLowerCase())}`
    const final = await publishFree(medium, part, `${owner.folder}/Output/${base}`, '.mp4')
    const { hash, sizeBytes, modifiedMs, pastCache } = await readFinished(medium, Buffer.from(final), control.gate)
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
      })
      const where = { ...file, deliverableId: id, runId: attemptId }
      await addFileProofs(tx, [{ what: 'deliverable', algorithm: 'xxh64', hash, modifiedMs, pastCache, ...where }])
      const detail = { path: final }
      await addNote(tx, { kind: 'rendered', productionId: owner.id, clipId: clip.id, volumeId, detail })
    })
    const checks = checkDelivery({ destination, rate: video.rate, seconds: video.seconds, withSound }, made, bars)
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

/** Gives a finished part the first free name: `film.mp4`, `film (2).mp4` … */
async function publishFree(medium: Medium, part: Buffer, base: string, ending: string): Promise<string> {
  for (let turn = 1; ; turn += 1) {
    const path = `${base}${turn === 1 ? '' : ` (${turn})`}${ending}`
    if ((await publishNew(medium, part, Buffer.from(path))) === 'named') return path
  }
}
