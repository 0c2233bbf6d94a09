import { checkDelivery } from '../../core/exports/check'
import { deliveryBitRate, destinationOf, predictedBytes } from '../../core/exports/destination'
import { levelText, neededLevel } from '../../core/exports/level'
import { windowFault } from '../../core/exports/reframe'
import { allPass } from '../../core/media/check'
import { fileTitle } from '../../core/shelf/bag'
import { formatBytes } from '../../core/units/quantity'
import type { RenderOrder } from '../../contract/exports'
import { addEvent } from '../db/queries/events'
import { addDeliverable } from '../db/queries/exports'
import { measureBars } from '../engine/picture'
import { probeFile } from '../engine/probe'
import { renderDeliverable } from '../engine/transcode'
import { fullPath } from '../places'
import { originalOf, publishFree, targetVolume } from './originals'
import { CannotWork, type Work, type WorkEnd } from './work'

/** Renders one deliverable from a window of the master and checks the real file against its destination. */
export async function render({ db, taskId, control, progress }: Work, input: RenderOrder): Promise<WorkEnd> {
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
  const parts = Buffer.from(`.yendra/parts/${taskId}`)
  const part = Buffer.from(`.yendra/parts/${taskId}/render.mp4`)
  await medium.makeFolder(parts)
  try {
    const passes = video.frames * 2
    let before = 0
    let last = 0
    await renderDeliverable(
      {
        input: path,
        output: fullPath(medium, part).toString(),
        control,
        onFrames: (frames) => {
          // The count starts again with the second pass.
          if (frames < last) before = video.frames
          last = frames
          progress.set({ done: Math.min(passes, before + frames), total: passes, unit: 'frames' })
        },
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
    const made = await probeFile(fullPath(medium, part))
    const bars = made.video
      ? await measureBars(fullPath(medium, part), made.video)
      : { left: 0, right: 0, top: 0, bottom: 0 }
    await medium.settle()
    const base = `${fileTitle(clip.name.replace(/\.[^.]*$/, ''))} ${fileTitle(destination.name.toLowerCase())}`
    const final = await publishFree(medium, part, `${fileTitle(owner.title)}/Output`, base, '.mp4')
    await addDeliverable(db, {
      productionId: owner.id,
      clipId: clip.id,
      destinationId: destination.id,
      cropWindow: input.window,
      volumeId: input.volumeId,
      path: final,
      sizeBytes: made.sizeBytes,
      probe: made,
      bars,
    })
    await addEvent(db, {
      kind: 'rendered',
      productionId: owner.id,
      clipId: clip.id,
      volumeId: input.volumeId,
      detail: { path: final },
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
