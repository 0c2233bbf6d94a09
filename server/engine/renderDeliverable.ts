import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { CropWindow } from '../../core/exports/reframe'
import type { FrameRate } from '../../core/units/frameRate'
import type { FrameSize } from '../../core/units/frameSize'
import { INPUT } from './tool'
import { transcode, type TranscodeJob } from './transcode'

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
