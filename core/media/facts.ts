import type { MissingFrames } from '../cards/files/frameRuns'
import type { FrameRate } from '../units/frameRate'
import type { Cadence } from './cadence'

/** Facts of an older reader are read again at the next scan, since it knew less. */
export const FACTS_VERSION = 3

/**
 * What a media file says of itself, and what was measured of it. Lengths in seconds as they are presented (edit lists
 * and start offsets counted), rates exact, sizes in pixels and bytes; `undefined` where the file is silent. What each
 * field is taken from stands in docs/media.md.
 */
export interface MediaFacts {
  readonly version: number
  /** The demuxer's own names: `mov,mp4,m4a,3gp,3g2,mj2`. */
  readonly container: string
  /** Major brand of ISO/IEC 14496-12, `ftyp`. */
  readonly brand: string | undefined
  /** From the first presented instant of any picture or sound track to the last. */
  readonly seconds: number
  /** Where the first presented instant lies on the file's own clock. */
  readonly startSeconds: number
  readonly sizeBytes: number
  readonly bitsPerSecond: number
  /** The track that is worked with: the default one, else the largest; never an attached picture. */
  readonly video: VideoTrack | undefined
  /** The default sound track, else the first. */
  readonly audio: SoundTrack | undefined
  readonly videos: readonly VideoTrack[]
  readonly sounds: readonly SoundTrack[]
  readonly others: readonly OtherTrack[]
  /** ISO 8601 in UTC; a time without a zone is taken as it stands. */
  readonly recordedAt: string | undefined
  readonly recordedFrom: RecordedFrom | undefined
  /** Start address; a semicolon before the frames means drop-frame. */
  readonly timecode: string | undefined
  readonly timecodeFrom: string | undefined
  /** ISO base media only: whether the index (`moov`) stands before the media (`mdat`). */
  readonly indexFirst: boolean | undefined
  /** Broadcast Wave extension. Source: EBU Tech 3285. */
  readonly broadcast: Broadcast | undefined
  /** What a sidecar in XML says; shown, never relied on. */
  readonly sidecar: readonly SidecarField[]
  /** Of a clip that is numbered frames, a file each. */
  readonly sequence?: MissingFrames
  /** Limits that were hit while reading, each a sentence; empty when the whole file was taken into account. */
  readonly bounds: readonly string[]
}

export interface RecordedFrom {
  /** Where in the file it stands, in words. */
  readonly source: string
  /** `+02:00`, `UTC`, or `undefined` when the file does not say. */
  readonly zone: string | undefined
}

export interface Broadcast {
  /** Samples since midnight. */
  readonly timeReference: number
  readonly description: string
}

export interface SidecarField {
  readonly name: string
  readonly value: string
}

export interface Track {
  /** Number of the track in the file, from 0. */
  readonly index: number
  /** ISO 639-2 code. */
  readonly language: string | undefined
  readonly isDefault: boolean
}

export type FieldOrder = 'progressive' | 'top first' | 'bottom first'

export interface VideoTrack extends Track {
  /** A published name or the demuxer's: `h264`. */
  readonly codec: string
  readonly profile: string
  /** As coded: 40 is level 4 of H.264. */
  readonly level: number
  /** As decoded and seen after rotation, before the sample aspect is applied. */
  readonly widthPx: number
  readonly heightPx: number
  /** As stored in the stream, blocks filled up. */
  readonly codedWidthPx: number
  readonly codedHeightPx: number
  /** As it is to be shown: after clean aperture, sample aspect and rotation. */
  readonly displayWidthPx: number
  readonly displayHeightPx: number
  /** The part that is to be seen, in stored pixels before rotation; ISO/IEC 14496-12, `clap`. */
  readonly cleanAperture: CleanAperture | undefined
  /** Width to height of one stored sample, before rotation: `64:45`. */
  readonly sampleAspect: string
  readonly sampleAspectStated: boolean
  /** Against the clock, after mirroring. */
  readonly rotationDegrees: number
  /** Left to right, as it is stored. */
  readonly mirrored: boolean
  /** As the file says; `undefined` where it is silent. */
  readonly fieldOrder: FieldOrder | undefined
  /** As decoded frames show, where the file is silent. */
  readonly measuredFields: MeasuredFields | undefined
  /** Nominal: what a constant rate is, and what a variable one is meant to be. */
  readonly rate: FrameRate
  readonly cadence: Cadence
  /** Presented frames. */
  readonly frames: number
  /** Frames in the file; more than are presented where an edit list trims them. */
  readonly storedFrames: number
  readonly framesFrom: 'index' | 'packets' | 'length and rate' | 'files'
  /** Counted packet by packet, when somebody asked. */
  readonly countedFrames?: number
  readonly seconds: number
  readonly storedSeconds: number
  readonly startSeconds: number
  readonly pixelFormat: string
  readonly bitDepth: number | undefined
  /** `4:2:0`, `RGB` …; `undefined` for a pixel format that is not known. */
  readonly chroma: string | undefined
  readonly range: 'limited' | 'full' | undefined
  readonly primaries: string | undefined
  readonly transfer: string | undefined
  readonly matrix: string | undefined
  /** Longest distance of key frames in frames; 1 is intra. `undefined` when it was not measured. */
  readonly keyDistance: number | undefined
  readonly bitsPerSecond: number
}

export interface CleanAperture {
  readonly x: number
  readonly y: number
  readonly widthPx: number
  readonly heightPx: number
}

export interface MeasuredFields {
  readonly order: FieldOrder | 'undecided'
  readonly frames: number
}

export interface SoundTrack extends Track {
  readonly codec: string
  readonly profile: string
  readonly channels: number
  /** `stereo`, `5.1` …; `undefined` where the file is silent. */
  readonly layout: string | undefined
  readonly sampleRateHz: number
  /** Bits of a sample, for codings that have such. */
  readonly bits: number | undefined
  readonly seconds: number
  readonly startSeconds: number
  readonly bitsPerSecond: number
}

export interface OtherTrack extends Track {
  readonly kind: 'timecode' | 'subtitle' | 'attached picture' | 'empty sound' | 'data'
  readonly codec: string | undefined
}

/** Whether a rate that was measured is not one rate. */
export const isVariable = (video: VideoTrack): boolean => video.cadence.kind === 'variable'

/** What is known of the fields: as stated, else as measured; `undefined` when neither decides. */
export const fieldsOf = ({ fieldOrder, measuredFields }: VideoTrack): FieldOrder | undefined =>
  fieldOrder ?? (measuredFields?.order === 'undecided' ? undefined : measuredFields?.order)

export const isInterlaced = (video: VideoTrack): boolean =>
  fieldsOf(video) !== undefined && fieldsOf(video) !== 'progressive'

/** Seconds by which the sound goes on after the picture; negative when it ends before. */
export const soundOver = ({ video, audio }: MediaFacts): number =>
  video && audio ? audio.startSeconds + audio.seconds - (video.startSeconds + video.seconds) : 0
