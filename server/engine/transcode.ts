import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { CropWindow } from '../../core/exports/reframe'
import type { FrameRate } from '../../core/units/frameRate'
import type { FrameSize } from '../../core/units/frameSize'
import { FFMPEG_BASE, INPUT, runTool, type ToolControl } from './tool'

export interface TranscodeJob {
  readonly input: Buffer
  readonly output: string
  readonly control: ToolControl
  readonly onFrames: (frames: number, perSecond: number) => void
}

const LONGEST_RUN_SECONDS = 24 * 3600
/** Encoders of large frames look ahead over many of them. */
const CODING_MEMORY_BYTES = 8 * 1024 ** 3

async function transcode(job: TranscodeJob, args: readonly string[]): Promise<void> {
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

export interface ProxySettings {
  /** As it is seen, after rotation. */
  readonly frame: FrameSize
  readonly rotationDegrees: number
  readonly bitsPerSecond: number
  readonly sampleAspect: string
  readonly timecode: string | undefined
  readonly withSound: boolean
}

/** An H.264 proxy with the original's frames one to one: none dropped, none doubled, and lying as they lie in the original, with its rotation flag. */
export async function makeProxy(job: TranscodeJob, settings: ProxySettings): Promise<void> {
  const { frame, bitsPerSecond, rotationDegrees } = settings
  const [width, height] =
    Math.abs(rotationDegrees) % 180 === 90 ? [frame.heightPx, frame.widthPx] : [frame.widthPx, frame.heightPx]
  await transcode(job, [
    '-noautorotate',
    '-i',
    INPUT,
    '-map',
    '0:v:0',
    ...(settings.withSound ? ['-map', '0:a'] : []),
    '-vf',
    `scale=${width}:${height}:flags=bicubic,setsar=${settings.sampleAspect.replace(':', '/')},format=yuv420p`,
    '-fps_mode',
    'passthrough',
    '-c:v',
    'libx264',
    '-preset',
    'superfast',
    '-b:v',
    String(bitsPerSecond),
    '-maxrate',
    String(bitsPerSecond * 2),
    '-bufsize',
    String(bitsPerSecond * 2),
    '-c:a',
    'aac',
    '-b:a',
    '128k',
    ...(settings.timecode ? ['-timecode', settings.timecode] : []),
    '-map_metadata',
    '0',
    '-movflags',
    '+faststart',
    '-f',
    'mp4',
    job.output,
  ])
}

export interface RenderSettings {
  readonly window: CropWindow
  readonly delivery: FrameSize
  readonly rate: FrameRate
  readonly videoBitsPerSecond: number
  readonly audioBitsPerSecond: number
  readonly level: string
  readonly withSound: boolean
}

/** A deliverable cut from one window of the master, in two passes so that the average bit rate is met. */
export async function renderDeliverable(job: TranscodeJob, settings: RenderSettings): Promise<void> {
  const { window, delivery, rate, videoBitsPerSecond } = settings
  const logs = await mkdtemp(join(tmpdir(), 'yendra-pass-'))
  const picture = [
    '-vf',
    `crop=${window.widthPx}:${window.heightPx}:${window.x}:${window.y},scale=${delivery.widthPx}:${delivery.heightPx}:flags=lanczos:out_color_matrix=bt709,setsar=1,format=yuv420p`,
    '-r',
    `${rate.num}/${rate.den}`,
    '-c:v',
    'libx264',
    '-preset',
    'medium',
    '-profile:v',
    'high',
    '-level:v',
    settings.level,
    '-b:v',
    String(videoBitsPerSecond),
    // Peaks stay near the average, so that players with small buffers follow and short clips keep their size.
    '-maxrate',
    String(Math.round(videoBitsPerSecond * 1.1)),
    '-bufsize',
    String(Math.round(videoBitsPerSecond * 0.5)),
    '-colorspace',
    'bt709',
    '-color_trc',
    'bt709',
    '-color_primaries',
    'bt709',
    '-passlogfile',
    join(logs, 'pass'),
  ]
  try {
    await transcode(job, ['-i', INPUT, '-map', '0:v:0', ...picture, '-pass', '1', '-an', '-f', 'null', '-'])
    await transcode(job, [
      '-i',
      INPUT,
      '-map',
      '0:v:0',
      ...(settings.withSound ? ['-map', '0:a:0'] : []),
      ...picture,
      '-pass',
      '2',
      '-c:a',
      'aac',
      '-ac',
      '2',
      '-ar',
      '48000',
      '-b:a',
      String(settings.audioBitsPerSecond),
      '-map_metadata',
      '-1',
      '-write_tmcd',
      '0',
      '-movflags',
      '+faststart',
      '-f',
      'mp4',
      job.output,
    ])
  } finally {
    await rm(logs, { recursive: true, force: true })
  }
}

/** Decodes a finished file from end to end: how many frames come out, and how many times the decoder complained. */
export async function decodeWhole(input: Buffer, control?: ToolControl): Promise<{ frames: number; errors: number }> {
  let frames = 0
  const { messages } = await runTool({
    program: 'ffmpeg',
    input,
    seconds: LONGEST_RUN_SECONDS,
    control,
    args: [
      ...FFMPEG_BASE,
      ...['-progress', 'pipe:1', '-nostats', '-i', INPUT, '-map', '0:v:0', '-map', '0:a?'],
      ...['-fps_mode', 'passthrough', '-f', 'null', '-'],
    ],
    onLine: (line) => {
      if (line.startsWith('frame=')) frames = Number(line.slice(6))
    },
  })
  return { frames, errors: messages.split('\n').filter((line) => line.trim() !== '').length }
}
