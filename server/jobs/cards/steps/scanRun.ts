import { isOneSize, type FrameRun } from '../../../../core/cards/files/frameRuns'
import { isFrameCut } from '../../../../core/media/frameEnd'
import type { FrameRate } from '../../../../core/units/frameRate'
import { withBytes } from '../../../engine/medium/byteSource'
import { frameFilePicture, probeFrame, runFacts } from '../../../engine/picture/frameFile'
import type { Medium } from '../../../engine/medium/medium'
import { Stopped } from '../../../engine/tool/stopped'
import type { TreeEntry } from '../../../engine/medium/medium'
import { fullPath } from '../../../media/mediumOf'
import type { TaskControl } from '../../control'
import { troubleOf, type SeenClip } from './scanClip'

/** A run with its files as they were walked. */
export type WalkedRun = FrameRun<{ path: string; sizeBytes: number; modifiedMs: number; entry: TreeEntry }>

/** Where nobody says how fast the frames were taken. */
const ASSUMED: FrameRate = { num: 25, den: 1 }

/**
 * Reads one frame for all, and takes the picture from one of the middle, so that many thousands take no longer than a
 * few.
 */
export async function scanRun(
  medium: Medium,
  run: WalkedRun,
  planned: FrameRate | undefined,
  control: TaskControl,
): Promise<SeenClip> {
  const sizeBytes = run.frames.reduce((sum, frame) => sum + frame.sizeBytes, 0)
  const whole = run.frames.filter((frame) => frame.sizeBytes > 0)
  const nothing = { probe: undefined, cut: undefined, hasPicture: true, picture: undefined }
  const first = whole[0]
  if (!first) return { ...nothing, trouble: 'all of its frames are empty' }
  try {
    const facts = await probeFrame(fullPath(medium, first.entry.path), first.sizeBytes, control)
    const rate = facts.rate ?? planned ?? ASSUMED
    const bounds = facts.rate
      ? []
      : [
          planned
            ? 'The frames do not say how fast they were taken: the rate is that of the plan.'
            : 'Neither the frames nor a plan say how fast they were taken: 25 a second are assumed.',
        ]
    const picture = await pictureOf(medium, whole, control)
    const short = run.short + (await cutFrames(medium, whole, control))
    const probe = runFacts(facts, { ...run, short, files: run.frames.length, sizeBytes }, { rate, bounds })
    // Sensor data that nothing here can develop is no fault of the card.
    return { probe, trouble: undefined, cut: undefined, hasPicture: picture !== undefined || !facts.isRaw, picture }
  } catch (error) {
    if (error instanceof Stopped) throw error
    return { ...nothing, ...troubleOf(error) }
  }
}

/** How many frames lack their end. Where they all take the same bytes, their sizes have told it already. */
async function cutFrames(medium: Medium, frames: WalkedRun['frames'], control: TaskControl): Promise<number> {
  if (isOneSize(frames.map(({ sizeBytes }) => sizeBytes))) return 0
  let cut = 0
  for (const { entry, sizeBytes } of frames) {
    await control.gate()
    if (await withBytes(fullPath(medium, entry.path), sizeBytes, isFrameCut)) cut += 1
  }
  return cut
}

async function pictureOf(
  medium: Medium,
  frames: WalkedRun['frames'],
  control: TaskControl,
): Promise<Buffer | undefined> {
  for (const at of [Math.floor(frames.length / 3), 0]) {
    const frame = frames[at]
    const path = frame && fullPath(medium, frame.entry.path)
    const picture = frame && path && (await frameFilePicture(path, frame.sizeBytes, 480, control))
    if (picture) return picture
  }
  return undefined
}
