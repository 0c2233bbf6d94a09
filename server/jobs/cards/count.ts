import type { TaskInput } from '../../../contract/taskKinds'
import { setFacts } from '../../db/queries/cards'
import { countFrames } from '../../engine/probe/countFrames'
import { originalOf } from '../../media/originals'
import type { Job, Work, WorkEnd } from '../work'

/** Counts the frames of a clip one by one, from a proved copy. */
export const count: Job<'count'> = { kind: 'count', run: runCount }

async function runCount({ db, control, progress }: Work, { clipId }: TaskInput<'count'>): Promise<WorkEnd> {
  const { clip, probe, video, path } = await originalOf(db, clipId)
  progress.set({ done: 0, total: video.storedFrames, unit: 'frames' })
  const countedFrames = await countFrames(path, video, control)
  progress.set({ done: countedFrames, total: countedFrames, unit: 'frames' })
  const counted = { ...video, countedFrames }
  await setFacts(db, clipId, {
    ...probe,
    video: counted,
    videos: probe.videos.map((track) => (track.index === video.index ? counted : track)),
  })
  const same = countedFrames === video.storedFrames
  return {
    sentence:
      `${clip.name} has ${countedFrames} frames, counted one by ` +
      `one${same ? ', as it says' : `; it says ${video.storedFrames}`}.`,
    troubles: [],
  }
}
