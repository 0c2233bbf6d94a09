import { decodedChecks, fileCheck, remarked, type FileCheck } from '../media/check'
import { colourTags } from '../media/colour'
import { soundCheck, type SoundCompared } from '../media/compareSound'
import { isVariable, type MeasuredFields, type MediaFacts, type VideoTrack } from '../media/facts'
import { isUpright, orientationText } from '../media/orientation'
import { frameRateLabel, sameRate } from '../units/frameRate'
import { frameSizeText } from '../units/frameSize'
import { counted, formatBitRate, formatBytes } from '../units/quantity'
import { levelAllows, levelText, neededLevel } from './level'
import type { DeliveryPlan } from './plan'
import { isInvented } from './reframe'

/** Bars found on the four sides, in pixels. */
export interface BlackBars {
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
}

/** What was measured on the decoded file, and of the picture that it was made of. */
export interface MeasuredDelivery {
  readonly bars: BlackBars
  /** `undefined` for a file that was made before fields were measured. */
  readonly fields: MeasuredFields | undefined
  /** Bits a second that the picture takes at a good constant quality; `undefined` where it was not measured. */
  readonly detailBitsPerSecond: number | undefined
  /** Whether nothing but black was found; `undefined` for a file that was made before it was asked. */
  readonly black?: boolean
  /** What came out when the file was decoded from end to end, sound and all; `undefined` as above. */
  readonly decoded?: { readonly frames: number; readonly errors: number }
  /** Its sound against the master's; `undefined` as above, or where there is none. */
  readonly sound?: SoundCompared
  /** By how many dB a mix of full channels was lowered. */
  readonly loweredDb?: number
}

/** How far average bit rate and size may lie above the order; muxing and short clips cost a little. */
const SIZE_SLACK = 1.1
const SLACK_WORDS = ', at most a tenth above'
/** Below this share of what the picture asks for its detail suffers visibly. Common practice, no source. */
const DETAIL_SHARE = 0.5
const SAMPLE_RATE_HZ = 48_000
/** A frame of AAC at 48 kHz lasts 21 ms; the last one is never quite full. */
const SOUND_SLACK_SECONDS = 0.025

/** A rendered file against what was planned for its destination. */
export function checkDelivery(plan: DeliveryPlan, file: MediaFacts, measured: MeasuredDelivery): FileCheck[] {
  const { video } = file
  if (!video) return [fileCheck('Picture', false, 'a video track', 'none')]
  return [
    ...decodingChecks(video, measured),
    ...geometryChecks(plan, video, measured),
    ...timeChecks(plan, file, video),
    ...codingChecks(plan, file, video, measured),
    ...soundChecks(plan, file, measured),
  ]
}

/**
 * Whether the frames of a deliverable are looked at for fields: a master that is said to be progressive is believed.
 */
export const isLookedAt = ({ deinterlace, video }: Pick<DeliveryPlan, 'deinterlace' | 'video'>): boolean =>
  deinterlace !== undefined || video.fieldOrder === undefined

function decodingChecks(video: VideoTrack, { black, decoded }: MeasuredDelivery): FileCheck[] {
  return [
    ...(black === undefined
      ? []
      : [fileCheck('Picture', !black, 'not black', black ? 'black all through' : 'not black')]),
    ...(decoded === undefined ? [] : decodedChecks(video.frames, decoded)),
  ]
}

function geometryChecks(
  { destination, scale, deinterlace, video: master }: DeliveryPlan,
  video: VideoTrack,
  { bars, fields }: MeasuredDelivery,
): FileCheck[] {
  const barText = Object.entries(bars)
    .filter(([, px]) => px > 0)
    .map(([side, px]) => `${side} ${px} px`)
    .join(', ')
  const scan =
    (isLookedAt({ deinterlace, video: master }) ? fields?.order : undefined) ?? video.fieldOrder ?? 'progressive'
  return [
    fileCheck(
      'Frame size',
      video.widthPx === destination.widthPx && video.heightPx === destination.heightPx,
      frameSizeText(destination),
      frameSizeText(video),
    ),
    fileCheck('Own pixels', !isInvented(scale), 'none invented', `drawn ${scale.toFixed(2)} times as large`),
    fileCheck('Sample aspect', video.sampleAspect === '1:1', '1:1', video.sampleAspect),
    fileCheck('Rotation flag', isUpright(video), 'none', isUpright(video) ? 'none' : orientationText(video)),
    fileCheck('Bars', barText === '', 'none', barText || 'none'),
    fileCheck(
      'Scan',
      (scan === 'progressive' || scan === 'undecided') && (video.fieldOrder ?? 'progressive') === 'progressive',
      'progressive',
      video.fieldOrder !== undefined && video.fieldOrder !== 'progressive' ? video.fieldOrder : scan,
    ),
  ]
}

function timeChecks(
  { destination, rate, frames, seconds, grid, video: master }: DeliveryPlan,
  file: MediaFacts,
  video: VideoTrack,
) {
  const halfFrame = (0.5 * rate.den) / rate.num
  // A grid begins and ends with a frame that may go either way.
  const slack = grid ? 1 : 0
  return [
    fileCheck(
      'Frame rate',
      sameRate(rate, video.rate) && !isVariable(video),
      `${frameRateLabel(rate)}, constant`,
      isVariable(video) ? `variable, ${video.cadence.average.toFixed(3)} on average` : frameRateLabel(video.rate),
    ),
    fileCheck(
      'Frames',
      Math.abs(video.frames - frames) <= slack,
      `${frames}${slack > 0 ? ' ± 1' : ''}`,
      grid
        ? `${video.frames}, of the master’s ${master.frames} frames ${grid.doubled} doubled and ${grid.dropped} dropped`
        : String(video.frames),
    ),
    fileCheck(
      'Length',
      Math.abs(file.seconds - seconds) <= halfFrame + Math.max(SOUND_SLACK_SECONDS, slack * 2 * halfFrame),
      `${seconds.toFixed(3)} s, the longest track`,
      `${file.seconds.toFixed(3)} s`,
    ),
    fileCheck(
      'Length limit',
      destination.longestSeconds === undefined || file.seconds <= destination.longestSeconds,
      destination.longestSeconds === undefined ? 'no limit' : `${destination.longestSeconds} s or shorter`,
      `${file.seconds.toFixed(1)} s`,
    ),
  ]
}

function levelCheck(video: VideoTrack): FileCheck {
  const stream = { ...video, framesPerSecond: video.rate.num / video.rate.den }
  const needed = neededLevel(stream)
  const allowed = needed !== undefined && levelAllows(video.level, stream) === true
  const check = fileCheck(
    'Level',
    allowed,
    needed === undefined ? 'none fits' : `${levelText(needed)}, what it needs`,
    allowed && video.level !== needed ? `${levelText(video.level)}, higher than needed` : levelText(video.level),
  )
  return allowed && video.level !== needed ? remarked(check, 'note') : check
}

function codingChecks(
  plan: DeliveryPlan,
  file: MediaFacts,
  video: VideoTrack,
  { detailBitsPerSecond: detail }: MeasuredDelivery,
): FileCheck[] {
  const { videoBitsPerSecond, sizeBytes } = plan
  const eightBit = video.pixelFormat === 'yuv420p' || video.pixelFormat === 'yuvj420p'
  const thin = detail !== undefined && video.bitsPerSecond < detail * DETAIL_SHARE
  const detailed =
    detail === undefined
      ? []
      : [
          fileCheck(
            'Detail',
            true,
            `${formatBitRate(detail)} at a good quality`,
            `${formatBitRate(video.bitsPerSecond)}${thin ? ': far below, fine detail will suffer' : ''}`,
          ),
        ]
  return [
    fileCheck(
      'Codec',
      video.codec === 'h264' && video.profile === 'High',
      'H.264 High',
      `${video.codec === 'h264' ? 'H.264' : video.codec} ${video.profile}`,
    ),
    levelCheck(video),
    fileCheck('Pixel format', eightBit, '8 bit 4:2:0', eightBit ? '8 bit 4:2:0' : video.pixelFormat),
    fileCheck('Colour tags', colourTags(video) === 'BT.709', 'BT.709', colourTags(video)),
    fileCheck('Range', video.range !== 'full', 'limited', video.range ?? 'limited, not stated'),
    fileCheck(
      'Bit rate',
      video.bitsPerSecond <= videoBitsPerSecond * SIZE_SLACK,
      `${formatBitRate(videoBitsPerSecond)}${SLACK_WORDS}`,
      formatBitRate(video.bitsPerSecond),
    ),
    ...detailed.map((check) => (thin ? remarked(check, 'doubt') : check)),
    fileCheck(
      'Size',
      file.sizeBytes <= sizeBytes * SIZE_SLACK,
      `${formatBytes(sizeBytes)}${SLACK_WORDS}`,
      formatBytes(file.sizeBytes),
    ),
    fileCheck(
      'Index first',
      file.indexFirst === true,
      'yes',
      file.indexFirst === undefined ? 'cannot be told' : file.indexFirst ? 'yes' : 'no',
    ),
  ]
}

function soundChecks(
  { sound, leftOut }: DeliveryPlan,
  { audio, videos, sounds, others }: MediaFacts,
  { sound: compared, loweredDb = 0 }: MeasuredDelivery,
): FileCheck[] {
  const lowered = loweredDb > 0 ? `, ${loweredDb.toFixed(1)} dB lower so that the mix does not clip` : ''
  const found = audio ? `${audio.codec.toUpperCase()}, ${counted(audio.channels, 'channel')}${lowered}` : 'none'
  const wanted = sound ? 1 : 0
  const tracks = fileCheck(
    'Tracks',
    videos.length === 1 && sounds.length === wanted && others.length === 0,
    `1 picture, ${wanted} sound`,
    `${videos.length} picture, ${sounds.length} ` +
      `sound${others.length > 0 ? `, ${others.length} other` : ''}${leftOut ? `; of the master ${leftOut} left out` : ''}`,
  )
  return [
    fileCheck(
      'Sound',
      sound ? audio?.codec === 'aac' && audio.channels === 2 : !audio,
      sound ? 'AAC, 2 channels' : 'none',
      found,
    ),
    ...(sound
      ? [
          fileCheck(
            'Sample rate',
            audio?.sampleRateHz === SAMPLE_RATE_HZ,
            '48 kHz',
            audio ? `${audio.sampleRateHz / 1000} kHz` : 'none',
          ),
        ]
      : []),
    ...(compared ? [soundCheck('Sound, second by second', compared)] : []),
    leftOut ? remarked(tracks, 'note') : tracks,
  ]
}
