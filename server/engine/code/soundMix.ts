import { DOWN_MIX, type SoundPlan } from '../../../core/exports/sound'
import { FFMPEG_BASE, INPUT, runTool, type ToolControl } from '../tool/tool'

/** Filters that make two channels of what a master has; a down-mix is lowered by so many dB. */
export function mixFilters({ mix, track }: Pick<SoundPlan, 'mix' | 'track'>, loweredDb = 0): string[] {
  const channels = {
    both: 'pan=stereo|c0=c0|c1=c0',
    'as is': undefined,
    'first two': 'pan=stereo|c0=c0|c1=c1',
    'down-mix': downMix(track.layout ?? ''),
  }[mix]
  return [...(channels ? [channels] : []), ...(loweredDb > 0 ? [`volume=-${loweredDb.toFixed(2)}dB`] : [])]
}

/** Channels beside left and right that each layout has on its two sides, and whether it has a centre. */
const SURROUNDS: Record<string, readonly string[]> = {
  '5.0': ['BL', 'BR'],
  '5.1': ['BL', 'BR'],
  '5.0(side)': ['SL', 'SR'],
  '5.1(side)': ['SL', 'SR'],
  quad: ['BL', 'BR'],
  'quad(side)': ['SL', 'SR'],
  '7.1': ['SL', 'SR', 'BL', 'BR'],
}
const MIDDLES: Record<string, readonly string[]> = {
  '4.0': ['FC', 'BC'],
  '6.1': ['FC', 'BC'],
  quad: [],
  'quad(side)': [],
}

/** Source: ITU-R BS.775, table 2. */
function downMix(layout: string): string {
  const side = (front: string, at: number) =>
    [
      front,
      ...[...(MIDDLES[layout] ?? ['FC']), ...(SURROUNDS[layout] ?? []).filter((_, turn) => turn % 2 === at)].map(
        (channel) => `${DOWN_MIX}*${channel}`,
      ),
    ].join('+')
  // Whole numbers would be cut at full scale before anything can lower them.
  return `aformat=sample_fmts=fltp,pan=stereo|FL=${side('FL', 0)}|FR=${side('FR', 1)}`
}

/** What coders add to a peak. Source: EBU R 128, maximum true peak −1 dB; here of samples. */
const MOST_PEAK_DB = -1

/**
 * By how many dB the sum of full channels is to be lowered so that it does not clip; 0 for whatever is not mixed down.
 */
export async function loweredDbOf(
  path: Buffer,
  sound: Pick<SoundPlan, 'mix' | 'track'>,
  control?: ToolControl,
): Promise<number> {
  if (sound.mix !== 'down-mix') return 0
  let peakDb = -Infinity
  const measured = 'asetnsamples=48000,astats=metadata=1:measure_perchannel=none:measure_overall=Peak_level'
  await runTool({
    program: 'ffmpeg',
    input: path,
    seconds: 24 * 3600,
    control,
    args: [
      ...[...FFMPEG_BASE, '-i', INPUT, '-map', `0:${sound.track.index}`],
      ...['-af', [...mixFilters(sound), measured, 'ametadata=print:file=-'].join(',')],
      ...['-f', 'null', '-'],
    ],
    onLine: (line) => {
      const peak = Number(/Peak_level=(-?[\d.]+)/.exec(line)?.[1] ?? Number.NaN)
      if (peak > peakDb) peakDb = peak
    },
  })
  return Math.max(0, peakDb - MOST_PEAK_DB)
}
