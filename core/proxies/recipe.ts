import type { MediaFacts } from '../media/facts'
import { evenFloor, type FrameSize } from '../units/frameSize'

/** The one recipe so far: H.264 at half the original's size, same rate, same sound channels. */
export const HALF_SIZE = { name: 'Half size, H.264', fraction: 2, bitsPerPixelFrame: 0.12 } as const

/**
 * The frame of a proxy: the original divided by a whole number, aspect kept, both sides even (4:2:0 coding).
 * `proxyFrame({ widthPx: 2704, heightPx: 1520 }, 2)` is 1352×760.
 */
export const proxyFrame = (original: FrameSize, fraction: number): FrameSize => ({
  widthPx: evenFloor(original.widthPx / fraction),
  heightPx: evenFloor(original.heightPx / fraction),
})

/** Bit rate of a proxy from pixels per second; at least 500 kb/s. */
export const proxyBitRate = (frame: FrameSize, framesPerSecond: number, bitsPerPixelFrame: number): number =>
  Math.max(500_000, Math.round(frame.widthPx * frame.heightPx * framesPerSecond * bitsPerPixelFrame))

/** Bytes that a half-size proxy of an original will have, sound not counted; 0 where there is no picture. */
export function expectedProxyBytes({ video }: MediaFacts): number {
  if (!video) return 0
  const frame = proxyFrame(video, HALF_SIZE.fraction)
  const bitsPerSecond = proxyBitRate(frame, video.rate.num / video.rate.den, HALF_SIZE.bitsPerPixelFrame)
  return Math.round((bitsPerSecond * video.seconds) / 8)
}
