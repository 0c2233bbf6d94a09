import type { FrameSize } from '../units/frameSize'

/** A place a film goes to, named by what it is. Bit rates are the ceilings the render aims at. */
export interface Destination extends FrameSize {
  readonly id: string
  readonly name: string
  readonly bitsPerPixelFrame: number
  readonly audioBitsPerSecond: number
  readonly longestSeconds: number | undefined
}

/**
 * Common practice, no source: frames in common use and bits per pixel and frame near the middle of 0.10–0.18 for H.264
 * uploads.
 */
export const DESTINATIONS: readonly Destination[] = [
  {
    id: 'tall-short',
    name: 'Tall short',
    widthPx: 1080,
    heightPx: 1920,
    bitsPerPixelFrame: 0.15,
    audioBitsPerSecond: 192_000,
    longestSeconds: 60,
  },
  {
    id: 'wide-watch',
    name: 'Wide watch page',
    widthPx: 1920,
    heightPx: 1080,
    bitsPerPixelFrame: 0.13,
    audioBitsPerSecond: 192_000,
    longestSeconds: undefined,
  },
  {
    id: 'square-feed',
    name: 'Square feed',
    widthPx: 1080,
    heightPx: 1080,
    bitsPerPixelFrame: 0.15,
    audioBitsPerSecond: 192_000,
    longestSeconds: 600,
  },
  {
    id: 'portrait-feed',
    name: 'Portrait feed',
    widthPx: 1080,
    heightPx: 1350,
    bitsPerPixelFrame: 0.15,
    audioBitsPerSecond: 192_000,
    longestSeconds: 600,
  },
  {
    id: 'landscape-feed',
    name: 'Landscape feed',
    widthPx: 1080,
    heightPx: 608,
    bitsPerPixelFrame: 0.15,
    audioBitsPerSecond: 192_000,
    longestSeconds: 600,
  },
]

export const destinationOf = (id: string): Destination | undefined => DESTINATIONS.find((one) => one.id === id)

/** Video bit rate of a destination at a frame rate: 1080×1920 at 25 and 0.15 is 7.776 Mb/s. */
export const deliveryBitRate = (to: Destination, framesPerSecond: number): number =>
  Math.round(to.widthPx * to.heightPx * framesPerSecond * to.bitsPerPixelFrame)

/** (video + audio) × seconds ÷ 8, in whole bytes. */
export const predictedBytes = (videoBitsPerSecond: number, audioBitsPerSecond: number, seconds: number): number =>
  Math.ceil(((videoBitsPerSecond + audioBitsPerSecond) * seconds) / 8)
