import type { SoundTrack } from '../../../core/media/facts'
import { FFMPEG_BASE, INPUT, runTool, type ToolControl } from '../tool/tool'

/**
 * The loudest sample of each of `pieces` equal pieces of a sound track, 0–1, over all its channels. Source: peak level
 * in dB full scale as ffmpeg's `astats` prints it; 0 dB is 1, −6.02 dB is 0.5.
 */
export async function soundPeaks(
  path: Buffer,
  sound: SoundTrack,
  pieces: number,
  control?: ToolControl,
): Promise<number[]> {
  const samples = Math.max(1, Math.ceil((sound.seconds * sound.sampleRateHz) / pieces))
  const { out } = await runTool({
    program: 'ffmpeg',
    input: path,
    seconds: 600,
    control,
    args: [
      ...[...FFMPEG_BASE, '-i', INPUT, '-map', `0:${sound.index}`, '-vn'],
      '-af',
      `asetnsamples=n=${samples}:p=0,astats=metadata=1:reset=1:measure_perchannel=none:measure_overall=Peak_level,ametadata=mode=print:key=lavfi.astats.Overall.Peak_level:file=-`,
      ...['-f', 'null', '-'],
    ],
  })
  return out
    .toString('latin1')
    .split('\n')
    .flatMap((line) => {
      const level = /Peak_level=(.+)$/.exec(line)?.[1]
      if (level === undefined) return []
      const decibels = Number(level)
      return [Number.isFinite(decibels) ? Math.min(1, 10 ** (decibels / 20)) : 0]
    })
    .slice(0, pieces)
}
