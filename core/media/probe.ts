import type { FrameRate } from '../units/frameRate'

/** What a media file says of itself. Sizes are as shown, after rotation; `undefined` where the file is silent. */
export interface Probe {
  readonly container: string
  readonly seconds: number
  readonly sizeBytes: number
  readonly bitsPerSecond: number
  readonly video: VideoTrack | undefined
  readonly audio: AudioTrack | undefined
  readonly recordedAt: string | undefined
  readonly timecode: string | undefined
  /** ISO base media only: whether the index (`moov`) stands before the media (`mdat`). */
  readonly indexFirst: boolean | undefined
}

export interface VideoTrack {
  readonly codec: string
  readonly profile: string
  /** As ffprobe gives it: 40 is level 4 of H.264. */
  readonly level: number
  readonly widthPx: number
  readonly heightPx: number
  readonly rate: FrameRate
  readonly frames: number
  readonly seconds: number
  readonly pixelFormat: string
  readonly sampleAspect: string
  readonly rotationDegrees: number
  readonly bitsPerSecond: number
  readonly colour: string
}

export interface AudioTrack {
  readonly codec: string
  readonly channels: number
  readonly sampleRateHz: number
}
