import type { FrameRate } from '../units/frameRate'
import type { FrameSize } from '../units/frameSize'

/** What cards and drives are filled with: a camera, a sound recorder, a phone, or a deck that plays tapes. */
export const CAMERA_KINDS = ['camera', 'recorder', 'phone', 'deck'] as const
export type CameraKind = (typeof CAMERA_KINDS)[number]

export const CHROMAS = ['4:2:0', '4:2:2', '4:4:4', 'one sample a pixel'] as const
export type Chroma = (typeof CHROMAS)[number]

/** Coded at a bit rate, or every sample as it is: a sequence of raw frames with a header each. */
export type Coding =
  | { readonly kind: 'coded'; readonly bitsPerSecond: number }
  | { readonly kind: 'raw'; readonly bitsPerSample: number; readonly headerBytes: number }

/** The picture of a recording mode. */
export interface ModePicture extends FrameSize {
  readonly rate: FrameRate
  /** By its published name. */
  readonly codec: string
  readonly bitDepth: number
  readonly chroma: Chroma
  readonly coding: Coding
}

/** One way in which a camera or recorder can record. */
export interface RecordingMode {
  readonly id: string
  readonly name: string
  /** None of a sound recorder. */
  readonly picture: ModePicture | undefined
  readonly audioBitsPerSecond: number
  /** What the camera writes of a proxy beside it; 0 when it writes none. */
  readonly proxyBitsPerSecond: number
  /** Frame of that proxy, where it is known. */
  readonly proxyFrame?: FrameSize | undefined
  /** What real clips of it came to in all; it is reckoned with where there is one. */
  readonly measuredBitsPerSecond: number | undefined
  /** It was put away: where it is planned it counts, and it is offered no more. */
  readonly away?: boolean
}

/**
 * Bytes of a raw frame sequence in a second: width × height × bits ÷ 8 × frames, and a header with each frame.
 * 3840×2160, 12 bit, 25 frames are 311.04 MB/s, in words of 16 bit 414.72 MB/s.
 */
export const rawBytesPerSecond = (
  { widthPx, heightPx }: FrameSize,
  rate: FrameRate,
  { bitsPerSample, headerBytes }: { readonly bitsPerSample: number; readonly headerBytes: number },
): number => (((widthPx * heightPx * bitsPerSample) / 8 + headerBytes) * rate.num) / rate.den

/** What the maker promises: picture, sound and camera proxy in bits per second. */
export function nominalBitsPerSecond(mode: Omit<RecordingMode, 'id' | 'name'>): number {
  const { picture } = mode
  const coded =
    picture === undefined
      ? 0
      : picture.coding.kind === 'coded'
        ? picture.coding.bitsPerSecond
        : rawBytesPerSecond(picture, picture.rate, picture.coding) * 8
  return coded + mode.audioBitsPerSecond + mode.proxyBitsPerSecond
}

/** What is reckoned with: what was measured of real clips, else what the maker promises. */
export const bitsPerSecondOf = (mode: Omit<RecordingMode, 'id' | 'name'>): number =>
  mode.measuredBitsPerSecond ?? nominalBitsPerSecond(mode)
