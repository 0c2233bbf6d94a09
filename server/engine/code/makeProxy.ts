import { fieldsOf, isInterlaced, isVariable, type MediaFacts, type VideoTrack } from '../../../core/media/facts'
import {
  HALF_SIZE,
  proxyAperture,
  proxyFrame,
  proxyLayout,
  proxyPictureBits,
  proxySampleRate,
  proxySoundBits,
} from '../../../core/proxies/recipe'
import type { FrameRate } from '../../../core/units/frameRate'
import { parseTimecode } from '../../../core/units/timecode'
import { addCleanAperture } from './addCleanAperture'
import { tagOptions } from './colourOptions'
import { INPUT, wholeSamples } from '../tool/tool'
import { transcode, type TranscodeJob } from './transcode'

/** A part of the original, in seconds of what is presented. */
export interface Part {
  readonly atSeconds: number
  readonly seconds: number
}

/**
 * An H.264 proxy with the original's frames one to one: none dropped, none doubled, each at its time, lying as they lie
 * in the original with its rotation flag; all its sound tracks. Of `part` alone where it is given.
 */
export async function makeProxy(job: TranscodeJob, original: MediaFacts, part?: Part): Promise<void> {
  const { video } = original
  if (!video) throw new Error('There is no picture to make a proxy of.')
  const aperture = part ? undefined : proxyAperture(video, proxyFrame(video, HALF_SIZE.fraction))
  const coded = aperture ? `${job.output}.coded` : job.output
  const timecode = original.timecode && parseTimecode(original.timecode, Math.round(video.rate.num / video.rate.den))
  await transcode(job, [
    ...(part ? ['-ss', part.atSeconds.toFixed(3), '-t', part.seconds.toFixed(3)] : []),
    ...wholeSamples(original),
    ...['-noautorotate', '-i', INPUT, '-map', `0:${video.index}`],
    ...original.sounds.flatMap((track) => ['-map', `0:${track.index}`]),
    ...['-vf', pictureFilter(video)],
    ...timing(video),
    ...pictureCoding(video),
    ...soundCoding(original),
    ...(timecode && original.timecode && !part ? ['-timecode', original.timecode] : []),
    ...['-map_metadata', '0', '-movflags', '+faststart', '-f', 'mp4', coded],
  ])
  if (aperture) await addCleanAperture(coded, job.output, aperture)
}

/** Sides of the picture as it is stored, before rotation. */
function storedFrame(video: VideoTrack): readonly [number, number] {
  const { widthPx, heightPx } = proxyFrame(video, HALF_SIZE.fraction)
  return Math.abs(video.rotationDegrees) % 180 === 90 ? [heightPx, widthPx] : [widthPx, heightPx]
}

function pictureFilter(video: VideoTrack): string {
  const [width, height] = storedFrame(video)
  const parity = fieldsOf(video) === 'bottom first' ? 'bff' : 'tff'
  const range = video.range === 'full' ? 'full' : 'limited'
  const colours =
    video.chroma === 'RGB' ? ':out_color_matrix=bt709:out_range=limited' : `:in_range=${range}:out_range=${range}`
  return [
    // Scaled first, the lines of two fields would be blended.
    ...(isInterlaced(video) ? [`bwdif=mode=send_frame:parity=${parity}:deint=all`] : []),
    `scale=${width}:${height}:flags=bicubic${colours}`,
    `setsar=${video.sampleAspect.replace(':', '/')}`,
    video.range === 'full' && video.chroma !== 'RGB' ? 'format=yuvj420p' : 'format=yuv420p',
    ...(isVariable(video) ? [] : onItsGrid(video.rate)),
  ].join(',')
}

/**
 * Ticks a second: a whole number for each frame, and fine enough that the first frame keeps its distance to the sound.
 */
const ticksOf = ({ num }: FrameRate) => num * Math.ceil(24_000 / num)

/** Times of a constant rate that a container has rounded go back onto the grid, which begins where the picture does. */
function onItsGrid(rate: FrameRate): string[] {
  const [frames, ticks] = [`${rate.num}/${rate.den}`, ticksOf(rate)]
  return [`settb=1/${ticks}`, `setpts='STARTPTS+round((PTS-STARTPTS)*TB*${frames})*${(ticks * rate.den) / rate.num}'`]
}

/** A constant rate counts in parts of its own frames; a variable one on the clock of the original. */
const timing = (video: VideoTrack): string[] => [
  ...['-fps_mode', 'passthrough'],
  ...(isVariable(video)
    ? ['-enc_time_base:v', '-1']
    : ['-enc_time_base:v', `1:${ticksOf(video.rate)}`, '-video_track_timescale', String(ticksOf(video.rate))]),
]

function pictureCoding(video: VideoTrack): string[] {
  const most = String(proxyPictureBits(video))
  return [
    ...['-c:v', 'libx264', '-preset', 'superfast', '-crf', String(HALF_SIZE.quality)],
    ...['-maxrate', most, '-bufsize', most, '-g', String(Math.max(1, Math.round(video.rate.num / video.rate.den)))],
    ...(video.chroma === 'RGB'
      ? tagOptions({ matrix: 'bt709', transfer: 'bt709', primaries: 'bt709', range: 'limited' })
      : tagOptions(video)),
  ]
}

const soundCoding = ({ sounds }: MediaFacts): string[] => [
  ...['-c:a', 'aac'],
  ...sounds.flatMap((track, at) => [
    ...[`-b:a:${at}`, String(proxySoundBits(track))],
    ...[`-ar:a:${at}`, String(proxySampleRate(track))],
    // The coder has no name for surround channels at the sides, and a player none for what it writes instead.
    ...(proxyLayout(track) && proxyLayout(track) !== track.layout
      ? [`-filter:a:${at}`, `channelmap=${[...Array(track.channels).keys()].join('|')}:${proxyLayout(track)}`]
      : []),
  ]),
]
