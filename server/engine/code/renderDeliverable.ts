import { join } from 'node:path'
import type { MasterColours } from '../../../core/exports/colours'
import { levelText } from '../../../core/exports/level'
import type { DeliveryPlan } from '../../../core/exports/plan'
import type { SoundPlan } from '../../../core/exports/sound'
import { fieldsOf, type MediaFacts } from '../../../core/media/facts'
import type { SamplePart } from '../../../core/proxies/estimate'
import { tagOptions } from './colourOptions'
import { probeFile } from '../probe/probe'
import { mixFilters } from './soundMix'
import { inTemporaryFolder } from '../tool/temporary'
import { INPUT, wholeSamples } from '../tool/tool'
import { transcode, type TranscodeJob } from './transcode'

/**
 * A deliverable as it was planned, in two passes so that the average bit rate is met; a mix is lowered by so many dB.
 */
export async function renderDeliverable(
  job: TranscodeJob,
  plan: DeliveryPlan,
  loweredDb: number,
  master: Pick<MediaFacts, 'container'>,
): Promise<void> {
  const { video, sound, videoBitsPerSecond: bits } = plan
  const input = [...wholeSamples(master), '-i', INPUT, '-map', `0:${video.index}`]
  await inTemporaryFolder('pass', async (logs) => {
    const picture = [
      ...['-vf', pictureFilter(plan), '-fps_mode', 'passthrough', '-c:v', 'libx264', '-preset', 'medium'],
      ...['-profile:v', 'high', ...(plan.level === undefined ? [] : ['-level:v', levelText(plan.level)])],
      // Peaks stay near the average, so that players with small buffers follow and short clips keep their size.
      ...['-b:v', String(bits), '-maxrate', String(Math.round(bits * 1.1)), '-bufsize', String(Math.round(bits * 0.5))],
      ...BT709,
      ...['-passlogfile', join(logs, 'pass')],
    ]
    await transcode(job, [...input, ...picture, '-pass', '1', '-an', '-f', 'null', '-'])
    await transcode(job, [
      ...input,
      ...(sound ? ['-map', `0:${sound.track.index}`] : []),
      ...[...picture, '-pass', '2'],
      ...(sound ? soundCoding(sound, plan, loweredDb) : []),
      ...['-map_metadata', '-1', '-map_chapters', '-1', '-write_tmcd', '0'],
      ...['-movflags', '+faststart', '-f', 'mp4', job.output],
    ])
  })
}

const BT709 = tagOptions({ matrix: 'bt709', transfer: 'bt709', primaries: 'bt709', range: 'limited' })

/** Quality at which detail is held. Common practice, no source. */
const GOOD_QUALITY = '23'

/**
 * Bits a second that the picture of a deliverable takes where its quality is held and its rate is free, from a few of
 * its seconds.
 */
export async function detailBits(
  job: Omit<TranscodeJob, 'output' | 'onFrames'>,
  plan: DeliveryPlan,
  parts: readonly SamplePart[],
): Promise<number> {
  return inTemporaryFolder('detail', async (folder) => {
    let [bits, seconds] = [0, 0]
    for (const [at, part] of parts.entries()) {
      const output = join(folder, `${at}.mp4`)
      await transcode({ ...job, output, onFrames: () => undefined }, [
        ...['-ss', part.atSeconds.toFixed(3), '-t', part.seconds.toFixed(3)],
        ...['-i', INPUT, '-map', `0:${plan.video.index}`],
        ...['-vf', pictureFilter(plan), '-fps_mode', 'passthrough'],
        ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', GOOD_QUALITY, '-f', 'mp4', output],
      ])
      const { video } = await probeFile(Buffer.from(output), job.control)
      bits += (video?.bitsPerSecond ?? 0) * (video?.seconds ?? 0)
      seconds += video?.seconds ?? 0
    }
    return seconds > 0 ? bits / seconds : 0
  })
}

/**
 * The coder has set the picture upright. Fields first, then time, then place, then colour: each works on what the one
 * before left whole.
 */
export function pictureFilter(plan: DeliveryPlan): string {
  const { video, rate, deinterlace, cut, destination } = plan
  // Upside down, the first field is the other one.
  const parity = (fieldsOf(video) === 'bottom first') === (Math.abs(video.rotationDegrees) === 180) ? 'tff' : 'bff'
  const crop = ({ widthPx, heightPx, x, y }: typeof cut.window) => `crop=${widthPx}:${heightPx}:${x}:${y}:exact=1`
  return [
    'setpts=PTS-STARTPTS',
    ...(deinterlace ? [`bwdif=mode=send_${deinterlace}:parity=${parity}:deint=all`] : []),
    `fps=${rate.num}/${rate.den}:round=near`,
    ...(cut.aperture ? [crop(cut.aperture)] : []),
    crop(cut.window),
    ...(video.chroma === 'RGB' ? [`format=${(video.bitDepth ?? 8) > 8 ? 'gbrp16' : 'gbrp'}`] : []),
    `zscale=w=${destination.widthPx}:h=${destination.heightPx}:filter=lanczos:${colourFilter(plan.colours)}`,
    'format=yuv420p',
    'setsar=1',
  ].join(',')
}

const MATRIX_NAMES: Record<string, string> = { gbr: 'gbr', bt2020nc: '2020_ncl', bt2020c: '2020_cl' }

const colourFilter = ({ matrix, primaries, transfer, range }: MasterColours) =>
  [
    `min=${MATRIX_NAMES[matrix] ?? matrix}`,
    `pin=${primaries}`,
    `tin=${transfer}`,
    `rin=${matrix === 'gbr' ? 'full' : range}`,
    'm=709:p=709:t=709:r=limited',
  ].join(':')

function soundCoding(sound: SoundPlan, plan: DeliveryPlan, loweredDb: number): string[] {
  const { offsetSeconds } = sound
  const filters = [
    ...mixFilters(sound, loweredDb),
    'aresample=48000',
    // On the picture's clock: what lies before it is cut, what is missing is silence.
    `asetpts=PTS-STARTPTS${offsetSeconds < 0 ? '' : '+'}${offsetSeconds.toFixed(6)}/TB`,
    'aresample=async=1:first_pts=0',
    'apad',
    `atrim=end=${plan.seconds.toFixed(6)}`,
  ]
  return ['-af', filters.join(','), '-c:a', 'aac', '-ac', '2', '-ar', '48000', '-b:a', String(plan.audioBitsPerSecond)]
}
