import type { VideoTrack } from '../../../core/media/facts'
import { FFMPEG_BASE, INPUT, runTool, type ToolControl } from '../tool/tool'

export interface TranscodeJob {
  readonly input: Buffer
  readonly output: string
  readonly control: ToolControl
  readonly onFrames: (frames: number, perSecond: number) => void
}

const LONGEST_RUN_SECONDS = 24 * 3600
/** Encoders of large frames look ahead over many of them. */
const CODING_MEMORY_BYTES = 8 * 1024 ** 3

/** Runs the coder with its progress told; a program that fails rejects with ToolFailed. */
export async function transcode(job: TranscodeJob, args: readonly string[]): Promise<void> {
  let frames = 0
  await runTool({
    program: 'ffmpeg',
    input: job.input,
    seconds: LONGEST_RUN_SECONDS,
    memoryBytes: CODING_MEMORY_BYTES,
    control: job.control,
    args: [...FFMPEG_BASE, '-y', '-progress', 'pipe:1', '-nostats', ...args],
    onLine: (line) => {
      const [key, value] = line.split('=')
      if (key === 'frame') frames = Number(value)
      if (key === 'fps') job.onFrames(frames, Number(value))
    },
  })
}

/** Decodes a finished file from end to end: how many frames come out, and how many times the decoder complained. */
export async function decodeWhole(
  input: Buffer,
  video: Pick<VideoTrack, 'index'>,
  control?: ToolControl,
): Promise<{ frames: number; errors: number }> {
  let frames = 0
  const { messages } = await runTool({
    program: 'ffmpeg',
    input,
    seconds: LONGEST_RUN_SECONDS,
    control,
    args: [
      ...FFMPEG_BASE,
      ...['-progress', 'pipe:1', '-nostats', '-i', INPUT, '-map', `0:${video.index}`, '-map', '0:a?'],
      ...['-fps_mode', 'passthrough', '-enc_time_base', '-1', '-f', 'null', '-'],
    ],
    onLine: (line) => {
      if (line.startsWith('frame=')) frames = Number(line.slice(6))
    },
  })
  return { frames, errors: messages.split('\n').filter((line) => line.trim() !== '').length }
}
