/** A media file as it was read, enough to tell what it belongs to. */
export interface MediaFile {
  readonly path: string
  readonly sizeBytes: number
  readonly hasVideo: boolean
  readonly hasSound: boolean
  readonly seconds: number
  /** Pixels of its frame, 0 without a picture. */
  readonly framePx: number
  readonly rate: number
  /** Of its picture, else of its sound. */
  readonly codec: string
  /** Milliseconds since 1970, as its own clock said. */
  readonly recordedMs: number | undefined
  /** In trouble, cut, or without a picture that could be made: it stays a clip of its own, so that this is said. */
  readonly isWrong: boolean
}
