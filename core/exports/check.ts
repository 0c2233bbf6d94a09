import { fileCheck, type FileCheck } from '../media/check'
import { colourTags } from '../media/colour'
import type { MediaFacts } from '../media/facts'
import { frameRateLabel, sameRate, type FrameRate } from '../units/frameRate'
import { frameSizeText } from '../units/frameSize'
import { formatBitRate, formatBytes } from '../units/quantity'
import { deliveryBitRate, predictedBytes, type Destination } from './destination'
import { levelText, neededLevel } from './level'

export interface DeliveryOrder {
  readonly destination: Destination
  readonly rate: FrameRate
  readonly seconds: number
  readonly withSound: boolean
}

/** Bars found on the four sides, in pixels. */
export interface BlackBars {
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
}

/** How far average bit rate and size may lie above the order; muxing and short clips cost a little. */
const SIZE_SLACK = 1.1

/** A rendered file against what was ordered for its destination. `bars` were measured on the decoded picture. */
export function checkDelivery(order: DeliveryOrder, file: MediaFacts, bars: BlackBars): FileCheck[] {
  const { destination, rate } = order
  const video = file.video
  if (!video) return [fileCheck('Picture', false, 'a video track', 'none')]
  const framesPerSecond = rate.num / rate.den
  const bitRate = deliveryBitRate(destination, framesPerSecond)
  const level = neededLevel({ ...destination, framesPerSecond, bitsPerSecond: bitRate })
  const bytes = predictedBytes(bitRate, order.withSound ? destination.audioBitsPerSecond : 0, order.seconds)
  const sound = file.audio ? `${file.audio.codec.toUpperCase()}, ${file.audio.channels} channels` : 'none'
  const barText = Object.entries(bars)
    .filter(([, px]) => px > 0)
    .map(([side, px]) => `${side} ${px} px`)
    .join(', ')
  return [
    fileCheck(
      'Frame size',
      video.widthPx === destination.widthPx && video.heightPx === destination.heightPx,
      frameSizeText(destination),
      frameSizeText(video),
    ),
    fileCheck('Sample aspect', video.sampleAspect === '1:1', '1:1', video.sampleAspect),
    fileCheck(
      'Rotation flag',
      video.rotationDegrees === 0,
      'none',
      video.rotationDegrees === 0 ? 'none' : `${video.rotationDegrees}°`,
    ),
    fileCheck('Bars', barText === '', 'none', barText || 'none'),
    fileCheck('Frame rate', sameRate(rate, video.rate), frameRateLabel(rate), frameRateLabel(video.rate)),
    fileCheck(
      'Codec',
      video.codec === 'h264' && video.profile === 'High',
      'H.264 High',
      `${video.codec === 'h264' ? 'H.264' : video.codec} ${video.profile}`,
    ),
    fileCheck(
      'Level',
      level !== undefined && video.level <= level,
      level === undefined ? 'none fits' : `${levelText(level)} or lower`,
      levelText(video.level),
    ),
    fileCheck(
      'Pixel format',
      video.pixelFormat === 'yuv420p',
      '8 bit 4:2:0',
      video.pixelFormat === 'yuv420p' ? '8 bit 4:2:0' : video.pixelFormat,
    ),
    fileCheck('Colour tags', colourTags(video) === 'BT.709', 'BT.709', colourTags(video)),
    fileCheck(
      'Bit rate',
      video.bitsPerSecond <= bitRate * SIZE_SLACK,
      `${formatBitRate(bitRate)} or lower`,
      formatBitRate(video.bitsPerSecond),
    ),
    fileCheck(
      'Length',
      Math.abs(video.seconds - order.seconds) <= 0.5 / framesPerSecond + 1e-6,
      `${order.seconds.toFixed(3)} s ± half a frame`,
      `${video.seconds.toFixed(3)} s`,
    ),
    fileCheck(
      'Length limit',
      destination.longestSeconds === undefined || video.seconds <= destination.longestSeconds,
      destination.longestSeconds === undefined ? 'no limit' : `${destination.longestSeconds} s or shorter`,
      `${video.seconds.toFixed(1)} s`,
    ),
    fileCheck('Size', file.sizeBytes <= bytes * SIZE_SLACK, `about ${formatBytes(bytes)}`, formatBytes(file.sizeBytes)),
    fileCheck(
      'Sound',
      order.withSound ? file.audio?.codec === 'aac' && file.audio.channels === 2 : !file.audio,
      order.withSound ? 'AAC, 2 channels' : 'none',
      sound,
    ),
    fileCheck(
      'Index first',
      file.indexFirst === true,
      'before the media',
      file.indexFirst ? 'before the media' : 'after the media',
    ),
  ]
}
