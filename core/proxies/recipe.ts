import { isInterlaced, type CleanAperture, type MediaFacts, type SoundTrack, type VideoTrack } from '../media/facts'
import { hasAlpha } from '../media/pixelFormat'
import type { FrameSize } from '../units/frameSize'

/**
 * The one recipe so far: H.264 at half the original's size. The encoder holds a quality and stays under a ceiling, so
 * that the ceiling is what a proxy has at most; a key frame a second keeps scrubbing quick.
 */
export const HALF_SIZE = { name: 'Half size, H.264', fraction: 2, bitsPerPixelFrame: 0.12, quality: 23 } as const

/** AAC for each channel of a proxy's sound. */
export const SOUND_BITS_PER_CHANNEL = 64_000

const aspectError = (size: FrameSize, original: FrameSize) =>
  size.widthPx / size.heightPx / (original.widthPx / original.heightPx) - 1

const evenAround = (value: number) => {
  const below = Math.max(2, Math.floor(value / 2) * 2)
  return value - below < 1e-9 ? [below] : [below, below + 2]
}

/**
 * The frame of a proxy: the original divided by a whole number, on the even sides (4:2:0 coding) whose aspect is off
 * the least. `proxyFrame({ widthPx: 2704, heightPx: 1520 }, 2)` is 1352×760; of 854×480 it is 426×240, off by 0.23 %.
 */
export function proxyFrame(original: FrameSize, fraction: number): FrameSize {
  const sizes = evenAround(original.heightPx / fraction).flatMap((heightPx) =>
    evenAround(original.widthPx / fraction).map((widthPx) => ({ widthPx, heightPx })),
  )
  const off = (size: FrameSize) => Math.abs(aspectError(size, original))
  // Of two that are off alike the smaller one.
  return sizes.reduce((best, size) => (off(size) < off(best) - 1e-9 ? size : best))
}

/** The clean aperture of an original on the frame of its proxy, in whole pixels; `undefined` where it has none. */
export function proxyAperture(
  { cleanAperture: clean, ...from }: Pick<VideoTrack, 'cleanAperture' | 'widthPx' | 'heightPx' | 'rotationDegrees'>,
  to: FrameSize,
): CleanAperture | undefined {
  if (!clean) return undefined
  // It lies in the frame as it is stored, before rotation.
  const turned = Math.abs(from.rotationDegrees) % 180 === 90
  const across = turned ? to.heightPx / from.heightPx : to.widthPx / from.widthPx
  const down = turned ? to.widthPx / from.widthPx : to.heightPx / from.heightPx
  return {
    x: Math.round(clean.x * across),
    y: Math.round(clean.y * down),
    widthPx: Math.round(clean.widthPx * across),
    heightPx: Math.round(clean.heightPx * down),
  }
}

/** By how much the aspect of a proxy differs from its original's, as a share: −0.0023 of 426×240 for 854×480. */
export const proxyAspectError = (original: FrameSize, fraction: number): number =>
  aspectError(proxyFrame(original, fraction), original)

/** The most bits a second that the picture of a proxy may take, from pixels per second; at least 500 kb/s. */
export const proxyBitRate = (frame: FrameSize, framesPerSecond: number, bitsPerPixelFrame: number): number =>
  Math.max(500_000, Math.round(frame.widthPx * frame.heightPx * framesPerSecond * bitsPerPixelFrame))

/** Bits a second of one sound track of a proxy. */
export const proxySoundBits = ({ channels }: SoundTrack): number => SOUND_BITS_PER_CHANNEL * Math.max(1, channels)

/** Ceiling of the picture of a half-size proxy, in bits a second. */
export const proxyPictureBits = (video: VideoTrack): number =>
  proxyBitRate(
    proxyFrame(video, HALF_SIZE.fraction),
    Math.min(video.rate.num / video.rate.den, video.cadence.average || Infinity),
    HALF_SIZE.bitsPerPixelFrame,
  )

/** The decoder's buffer in seconds of the ceiling: what a short film may take above it. */
const BUFFER_SECONDS = 1
/**
 * What the tables of the container take for itself and for each frame. Common practice, no source; seen in files made
 * here.
 */
const FILE_BYTES = 1500
const FRAME_BYTES = 17
/** Samples in a frame of AAC. Source: ISO/IEC 14496-3. */
const AAC_SAMPLES = 1024

/**
 * Bytes of a half-size proxy whose picture takes so many bits in all, sound and tables counted; 0 where there is no
 * picture.
 */
export function proxyBytes({ video, sounds }: MediaFacts, pictureBits: number): number {
  if (!video) return 0
  const soundBits = sounds.reduce((sum, track) => sum + proxySoundBits(track) * track.seconds, 0)
  const soundFrames = sounds.reduce((sum, track) => sum + (track.seconds * track.sampleRateHz) / AAC_SAMPLES, 0)
  return Math.ceil((pictureBits + soundBits) / 8 + FILE_BYTES + FRAME_BYTES * (video.frames + soundFrames))
}

/** Bytes that a half-size proxy of an original has at most. */
export const mostProxyBytes = (original: MediaFacts): number =>
  original.video
    ? proxyBytes(original, proxyPictureBits(original.video) * (original.video.seconds + BUFFER_SECONDS))
    : 0

/** What AAC can be sampled at, and what is taken where the original has more. Source: ISO/IEC 14496-3, 1.6.3.4. */
const MOST_AAC_HZ = 96_000
export const PROXY_HZ = 48_000

/** Samples a second of one sound track of a proxy. */
export const proxySampleRate = ({ sampleRateHz }: SoundTrack): number =>
  sampleRateHz > MOST_AAC_HZ ? PROXY_HZ : sampleRateHz

/** Layouts that AAC carries by name. Source: ISO/IEC 14496-3, table 1.19, as the coder in use writes it. */
const CODED_LAYOUTS = new Set(['mono', 'stereo', '2.1', '3.0', '4.0', 'quad', '5.0', '5.1', '7.1'])

/** A layout without which pair of names its surround channels have: those of 5.1 are named in two ways. */
export const plainLayout = (layout: string | undefined): string | undefined => layout?.replace(/\((side|back)\)$/, '')

/** The layout that the sound of a proxy has; `undefined` where its coder has no name for that of the original. */
export function proxyLayout({ layout }: SoundTrack): string | undefined {
  const plain = plainLayout(layout)
  return plain !== undefined && CODED_LAYOUTS.has(plain) ? plain : undefined
}

/** Up to where a low-frequency channel goes. Source: ITU-R BS.775; the coder in use cuts it not far above. */
export const LOW_HZ = 120

/** Whether the sound of a proxy has a low-frequency channel, which is coded as one. */
export const hasLowChannel = (track: SoundTrack): boolean => proxyLayout(track)?.endsWith('.1') === true

/** What differs from the original besides the size, each in words; empty when nothing does. */
export function proxyChanges({ video, sounds }: MediaFacts): string[] {
  if (!video) return []
  const error = proxyAspectError(video, HALF_SIZE.fraction)
  return [
    ...(isInterlaced(video) ? ['Deinterlaced to full frames, one for each frame; no fields are blended.'] : []),
    ...(video.sampleAspect === '1:1' ? [] : [`Samples of ${video.sampleAspect} are kept, not squared.`]),
    ...(Math.abs(error) >= 0.0005 ? [`Even sides put the aspect off by ${Math.abs(error * 100).toFixed(2)} %.`] : []),
    ...(video.chroma === 'RGB' ? ['RGB is coded as BT.709 in limited range.'] : []),
    ...((video.bitDepth ?? 8) > 8 ? [`${video.bitDepth} bits become 8.`] : []),
    ...(hasAlpha(video.pixelFormat)
      ? ['What is transparent in the original is not in the proxy: it has no alpha channel.']
      : []),
    ...sounds.flatMap((track, at) => {
      const which = sounds.length > 1 ? `Sound ${at + 1}` : 'The sound'
      const hertz = proxySampleRate(track)
      return [
        ...(hertz === track.sampleRateHz
          ? []
          : [`${which} has ${hertz / 1000} kHz instead of ${track.sampleRateHz / 1000} kHz.`]),
        ...(hasLowChannel(track)
          ? [`The low-frequency channel of ${which.replace('The', 'the')} keeps what lies below ${LOW_HZ} Hz.`]
          : []),
        ...(track.layout === undefined || proxyLayout(track) !== undefined
          ? []
          : [
              `${which} keeps its ${track.channels} channels in their order, without the name of their layout ` +
                `(${track.layout}).`,
            ]),
      ]
    }),
  ]
}
