import { formatBitRate, formatBytes } from '../units/quantity'
import { frameRateLabel, frameRateText } from '../units/frameRate'
import { levelText } from '../exports/level'
import { parseTimecode, timecodeCount, timecodeRange, timecodeText } from '../units/timecode'
import { codecName } from './codecName'
import { colourName } from './colour'
import { orientationText } from './orientation'
import type { MediaFacts, OtherTrack, SoundTrack, Track, VideoTrack } from './facts'

/** One thing that is known of a file, and where it was read. */
export interface Property {
  readonly name: string
  readonly value: string
  readonly source: string
}

export interface PropertyGroup {
  readonly title: string
  readonly properties: readonly Property[]
}

const HEADER = 'stream header'
const NOT_STATED = 'not stated'
const INDEX = 'index'

const property = (name: string, value: string | undefined, source: string): Property => ({
  name,
  value: value ?? NOT_STATED,
  source: value === undefined ? '' : source,
})

const seconds = (value: number) => `${value.toFixed(3)} s`

/** Everything that was read of a file, track by track, each with its source. */
export function propertiesOf(facts: MediaFacts): PropertyGroup[] {
  const numbered = (title: string, tracks: readonly Track[], at: number) =>
    tracks.length > 1 ? `${title} ${at + 1}` : title
  return [
    ...facts.videos.map((track, at) => ({
      title: numbered('Picture', facts.videos, at),
      properties: pictureProperties(track),
    })),
    ...facts.sounds.map((track, at) => ({
      title: numbered('Sound', facts.sounds, at),
      properties: soundProperties(track),
    })),
    { title: 'File', properties: fileProperties(facts) },
    ...(facts.sidecar.length > 0
      ? [
          {
            title: 'Sidecar, as the camera wrote it',
            properties: facts.sidecar.map(({ name, value }) => property(name, value, 'sidecar')),
          },
        ]
      : []),
  ]
}

function pictureProperties(video: VideoTrack): Property[] {
  const times = video.framesFrom === 'length and rate' ? 'length and rate' : `time stamps, ${video.framesFrom}`
  const { cadence, measuredFields: fields, cleanAperture: clean } = video
  return [
    property('Codec', [codecName(video.codec), video.profile].filter(Boolean).join(' '), HEADER),
    property('Level', levelOf(video), HEADER),
    property('Stored frame', `${video.codedWidthPx}×${video.codedHeightPx}`, HEADER),
    property('Frame', `${video.widthPx}×${video.heightPx}`, 'after rotation'),
    property('Shown as', `${video.displayWidthPx}×${video.displayHeightPx}`, 'aperture, samples, rotation'),
    property('Sample aspect', video.sampleAspectStated ? video.sampleAspect : undefined, HEADER),
    property('Clean aperture', clean && `${clean.widthPx}×${clean.heightPx} at ${clean.x}, ${clean.y}`, INDEX),
    property('Rotation', orientationText(video), 'display matrix'),
    property('Scan', video.fieldOrder, HEADER),
    ...(fields ? [property('Scan as measured', fields.order, `${fields.frames} decoded frames`)] : []),
    property('Rate', `${frameRateLabel(video.rate)} (${frameRateText(video.rate)})`, times),
    property(
      'Cadence',
      cadence.kind === 'variable'
        ? `variable, ${cadence.average.toFixed(3)} on average, ${(cadence.offGrid * 100).toFixed(1)} % off the grid`
        : cadence.pulldown
          ? 'constant, each frame shown for two or three fields'
          : cadence.kind,
      cadence.kind === 'not measured' ? '' : `${cadence.measuredFrames} time stamps`,
    ),
    ...(cadence.holes
      ? [
          property(
            'Holes',
            cadence.holes.map((hole) => `${hole.seconds.toFixed(3)} s at ${hole.atSeconds.toFixed(3)} s`).join(', '),
            times,
          ),
        ]
      : []),
    property('Frames presented', String(video.frames), video.framesFrom),
    property('Frames stored', String(video.storedFrames), video.framesFrom),
    ...(video.countedFrames === undefined
      ? []
      : [property('Frames counted', String(video.countedFrames), 'every packet')]),
    property('Length presented', seconds(video.seconds), times),
    property('Length stored', seconds(video.storedSeconds), times),
    property('Starts at', seconds(video.startSeconds), times),
    property(
      'Key frames',
      video.keyDistance === undefined
        ? undefined
        : video.keyDistance === 1
          ? 'every frame (intra)'
          : `up to ${video.keyDistance} frames apart (long-GOP)`,
      video.framesFrom === 'index' ? INDEX : video.framesFrom,
    ),
    property('Pixel format', video.pixelFormat, HEADER),
    property(
      'Bits and chroma',
      video.bitDepth && video.chroma ? `${video.bitDepth} bit ${video.chroma}` : undefined,
      HEADER,
    ),
    property('Range', video.range, HEADER),
    property('Primaries', colourName(video.primaries), HEADER),
    property('Transfer', colourName(video.transfer), HEADER),
    property('Matrix', colourName(video.matrix), HEADER),
    property('Bit rate', video.bitsPerSecond > 0 ? formatBitRate(video.bitsPerSecond) : undefined, 'mean of the track'),
    ...trackProperties(video),
  ]
}

/** H.264 codes ten times its level, H.265 thirty times; others number theirs as they like. */
const levelOf = ({ codec, level }: VideoTrack): string | undefined =>
  level <= 0
    ? undefined
    : codec === 'h264'
      ? levelText(level)
      : codec === 'hevc'
        ? String(level / 30)
        : `${level}, as coded`

const soundProperties = (sound: SoundTrack): Property[] => [
  property('Codec', [codecName(sound.codec), sound.profile].filter(Boolean).join(' '), HEADER),
  property('Channels', String(sound.channels), HEADER),
  property('Layout', sound.layout, HEADER),
  property('Sample rate', `${sound.sampleRateHz / 1000} kHz`, HEADER),
  property('Bits of a sample', sound.bits?.toString(), HEADER),
  property('Length', seconds(sound.seconds), 'time stamps'),
  property('Starts at', seconds(sound.startSeconds), 'time stamps'),
  property('Bit rate', sound.bitsPerSecond > 0 ? formatBitRate(sound.bitsPerSecond) : undefined, 'mean of the track'),
  ...trackProperties(sound),
]

const trackProperties = ({ index, language, isDefault }: Track): Property[] => [
  property('Track', `${index}${isDefault ? ', default' : ''}`, 'container'),
  property('Language', language, 'container'),
]

const otherText = (tracks: readonly OtherTrack[]) =>
  tracks.map((track) => [track.kind, track.codec].filter(Boolean).join(' ')).join(', ')

/** The addresses of the first and the last frame: `10:00:00:00 to 10:00:01:24`. */
function timecodeSpan({ timecode = '', video }: MediaFacts): string {
  const dropFrame = /[;.]/.test(timecode)
  const count = video && timecodeCount(video.rate, dropFrame)
  const start = count && parseTimecode(timecode, count.nominal)
  if (!start || !video) return timecode
  const { last, overMidnight } = timecodeRange(start, video.frames)
  return (
    `${timecode} to ` +
    `${timecodeText(last)}${dropFrame ? ', drop-frame' : ''}${overMidnight ? ', over midnight' : ''}`
  )
}

function fileProperties(facts: MediaFacts): Property[] {
  const { recordedFrom, broadcast, others } = facts
  return [
    property('Container', [facts.container.split(',')[0], facts.brand].filter(Boolean).join(', '), 'first bytes'),
    property('Bytes', formatBytes(facts.sizeBytes), 'file system'),
    property('Bit rate', facts.bitsPerSecond > 0 ? formatBitRate(facts.bitsPerSecond) : undefined, 'bytes and length'),
    property('Length', seconds(facts.seconds), 'the longest track'),
    property('Starts at', seconds(facts.startSeconds), 'the earliest track'),
    property(
      'Recorded',
      facts.recordedAt,
      [recordedFrom?.source, recordedFrom?.zone ?? 'no zone stated'].filter(Boolean).join(', '),
    ),
    property('Timecode', facts.timecode && timecodeSpan(facts), facts.timecodeFrom ?? ''),
    ...(broadcast
      ? [
          property('Time reference', `${broadcast.timeReference} samples after midnight`, 'broadcast extension'),
          property('Description', broadcast.description || undefined, 'broadcast extension'),
        ]
      : []),
    property(
      'Index',
      facts.indexFirst === undefined ? undefined : facts.indexFirst ? 'before the media' : 'after the media',
      'boxes',
    ),
    ...(others.length > 0 ? [property('Other tracks', otherText(others), 'container')] : []),
  ]
}
