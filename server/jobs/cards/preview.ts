import { mkdir, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { TaskInput } from '../../../contract/taskKinds'
import { formatBytes } from '../../../core/units/quantity'
import { INPUT } from '../../engine/tool/tool'
import { transcode } from '../../engine/code/transcode'
import { previewsFolder } from '../../home'
import { CannotWork } from '../../media/cannotWork'
import { previewFile, previewSize } from '../../media/previews'
import { pathAt, watchedClip, watchPlace } from '../../media/watch'
import type { Job, Work, WorkEnd } from '../work'

/** Makes a small film of a clip that browsers cannot play; it is kept beside the pictures and can be made again. */
export const preview: Job<'preview'> = { kind: 'preview', run: runPreview }

async function runPreview(
  { db, control, progress, attemptId }: Work,
  { clipId }: TaskInput<'preview'>,
): Promise<WorkEnd> {
  const clip = await watchedClip(db, clipId)
  if (!clip) throw new CannotWork('This clip is no longer known.')
  const place = await watchPlace(db, clip)
  if (!place) throw new CannotWork(`Neither a copy of ${clip.name} nor its card is connected. Connect one of them.`)
  const { video, audio } = clip.probe
  await mkdir(previewsFolder(), { recursive: true })
  const part = join(previewsFolder(), `${attemptId}.part`)
  const total = video?.frames ?? Math.round(clip.probe.seconds)
  try {
    progress.set({ done: 0, total, unit: 'frames' })
    await transcode(
      {
        input: pathAt(place, clip.pathBytes),
        output: part,
        control,
        onFrames: (frames) => progress.set({ done: Math.min(frames, total), total, unit: 'frames' }),
      },
      [
        ...['-i', INPUT],
        ...(video ? ['-map', `0:${video.index}`, '-vf', previewFilter(video.rate), ...PICTURE] : []),
        ...(audio ? ['-map', `0:${audio.index}`, '-ac', '2', '-c:a', 'aac', '-b:a', '128k'] : []),
        ...['-movflags', '+faststart', '-f', 'mp4', part],
      ],
    )
    await rename(part, previewFile(clipId))
  } finally {
    await rm(part, { force: true })
  }
  return {
    sentence: `${clip.name} can be watched: a preview of ${formatBytes(await previewSize(clipId))}.`,
    troubles: [],
  }
}

/** On the rate that ranges are counted in, so that a frame of the preview is a frame of the clip. */
const previewFilter = ({ num, den }: { num: number; den: number }) =>
  `fps=${num}/${den},scale='min(960,iw)':-2:flags=bicubic,setsar=1,format=yuv420p`

const PICTURE = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '26', '-g', '25']
