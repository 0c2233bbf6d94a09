import { measureRate } from '../../../core/media/cadence'
import {
  FACTS_VERSION,
  type MediaFacts,
  type OtherTrack,
  type SoundTrack,
  type Track,
  type VideoTrack,
} from '../../../core/media/facts'
import { orientationOf, type Orientation } from '../../../core/media/orientation'
import { readIsoIndex, type IndexedTrack, type IsoIndex } from '../../../core/media/isoIndex'
import { pixelLayout } from '../../../core/media/pixelFormat'
import { parseFrameRate, secondsOfFrames, type FrameRate } from '../../../core/units/frameRate'
import { withBytes } from '../medium/byteSource'
import { readPackets, type PacketRun, type Packets } from './packets'
import { fieldOrderOf } from './probedFields'
import { figure, isAttachedPicture, stated, tag, type Probed, type ProbedStream } from './probed'
import { brandOf, broadcastOf, recordedOf, timecodeOf } from './probedTags'
import { INPUT, runTool, SAFE_INPUT, ToolFailed, type ToolControl } from '../tool/tool'

/** Everything that was read of a file before it is put together. */
interface Reading {
  readonly format: NonNullable<Probed['format']>
  readonly streams: readonly ProbedStream[]
  readonly index: IsoIndex | undefined
  /** Why they could not be read, where they could not. */
  readonly packets: Packets | ToolFailed | undefined
  readonly startSeconds: number
  readonly seconds: number
}

/**
 * Reads a media file: its headers with ffprobe, the index of an ISO base media file by itself, the packets of any
 * other. Bounded in time, memory and bytes read. Rejects with ToolFailed when it cannot be read as media.
 */
export async function probeFile(path: Buffer, control?: ToolControl): Promise<MediaFacts> {
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 60,
    control,
    args: ['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, '-show_streams', '-show_format', '-of', 'json', INPUT],
  })
  const { streams = [], format = {} } = JSON.parse(out.toString()) as Probed
  const sizeBytes = figure(format.size) ?? 0
  const { index, brand } = await withBytes(path, sizeBytes, async (file) => ({
    index: format.format_name?.includes('mp4') ? await readIsoIndex(file) : undefined,
    brand: await brandOf(file),
  }))
  const startSeconds = figure(format.start_time) ?? 0
  const seconds = figure(format.duration) ?? 0
  const pictures = streams.some((stream) => stream.codec_type === 'video' && !isAttachedPicture(stream))
  const listed = (index?.tracks.length ?? 0) > 0
  const packets =
    pictures && !listed
      ? await readPackets(
          path,
          { sizeBytes, startSeconds, seconds, container: format.format_name ?? '' },
          control,
        ).catch((error: unknown) => {
          // A file is not unreadable because its packets are too many, or come too slowly.
          if (error instanceof ToolFailed) return error
          throw error
        })
      : undefined
  return factsOf({ format, streams, index, packets, startSeconds, seconds }, brand)
}

function factsOf(reading: Reading, brand: string | undefined): MediaFacts {
  const { format, streams, index, packets } = reading
  const isPicture = (stream: ProbedStream) => stream.codec_type === 'video' && !isAttachedPicture(stream)
  const videos = streams.filter(isPicture).map((stream) => videoTrack(stream, reading))
  const isSound = (stream: ProbedStream) => stream.codec_type === 'audio' && !isEmpty(stream, reading)
  const sounds = streams.filter(isSound).map((stream) => soundTrack(stream, reading))
  const others = streams.filter((stream) => !isPicture(stream) && !isSound(stream)).map(otherTrack)
  const tracks = [...videos, ...sounds].filter((track) => track.seconds > 0)
  const start = tracks.length > 0 ? Math.min(...tracks.map((track) => track.startSeconds)) : reading.startSeconds
  const end = Math.max(...tracks.map((track) => track.startSeconds + track.seconds))
  const recorded = recordedOf(reading)
  const timecode = timecodeOf(reading)
  return {
    version: FACTS_VERSION,
    container: format.format_name ?? 'unknown',
    brand: index?.brand ?? brand,
    seconds: tracks.length > 0 ? end - start : reading.seconds,
    startSeconds: start,
    sizeBytes: figure(format.size) ?? 0,
    bitsPerSecond: figure(format.bit_rate) ?? 0,
    video: mainPicture(videos),
    audio: sounds.find((track) => track.isDefault) ?? sounds[0],
    videos,
    sounds,
    others,
    recordedAt: recorded?.at,
    recordedFrom: recorded?.from,
    timecode: timecode?.text,
    timecodeFrom: timecode?.from,
    indexFirst: index?.indexFirst ?? (format.format_name?.includes('mp4') ? false : undefined),
    broadcast: broadcastOf(format.tags),
    sidecar: [],
    bounds: boundsOf(index, packets),
  }
}

/** The default picture, else the largest. */
const mainPicture = (videos: readonly VideoTrack[]): VideoTrack | undefined => {
  const marked = videos.filter((track) => track.isDefault)
  const among = marked.length > 0 ? marked : videos
  return among.reduce<VideoTrack | undefined>(
    (best, track) => (best && best.widthPx * best.heightPx >= track.widthPx * track.heightPx ? best : track),
    undefined,
  )
}

/** The packets, if they could be read. */
const readOf = ({ packets }: Reading): Packets | undefined => (packets instanceof ToolFailed ? undefined : packets)

const boundsOf = (index: IsoIndex | undefined, packets: Reading['packets']): string[] => [
  ...(index?.bounds ?? []),
  ...(packets instanceof ToolFailed ? [`Its packets could not all be read: ${packets.reason}.`] : []),
  ...(packets && !(packets instanceof ToolFailed) && !packets.whole
    ? ['It is larger than 64 MiB: rate and key frames were measured in three parts of it.']
    : []),
]

const trackOf = (stream: ProbedStream): Track => ({
  index: stream.index ?? 0,
  language: ['und', undefined].includes(tag(stream.tags, 'language')) ? undefined : tag(stream.tags, 'language'),
  isDefault: stream.disposition?.default === 1,
})

/** Ticks of a stream in a second. */
const ticksOf = (stream: ProbedStream) => {
  const [num = 1, den = 1] = (stream.time_base ?? '').split('/').map(Number)
  return den / num || 1
}

const indexedOf = (stream: ProbedStream, index: IsoIndex | undefined): IndexedTrack | undefined =>
  index?.tracks.find((track) => track.id === Number(stream.id))

interface Measured {
  readonly runs: readonly (readonly number[])[]
  readonly ticks: number
  readonly presented: number
  readonly stored: number
  readonly from: VideoTrack['framesFrom']
  readonly seconds: number
  readonly storedSeconds: number
  readonly startSeconds: number
  readonly keyDistance: number | undefined
  readonly sizeBytes: number | undefined
}

function videoTrack(stream: ProbedStream, reading: Reading): VideoTrack {
  const named = [stream.r_frame_rate, stream.avg_frame_rate].flatMap((text) => parseFrameRate(text ?? '') ?? [])
  const measured = measuredOf(stream, reading, named)
  const { rate, cadence } = measureRate(measured.runs, measured.ticks, named)
  const orientation = shownOrientation(stream)
  const [width, height] = [stream.width ?? 0, stream.height ?? 0]
  const cleanAperture = indexedOf(stream, reading.index)?.cleanAperture
  const aspectStated = /^[1-9]\d*:[1-9]\d*$/.test(stream.sample_aspect_ratio ?? '')
  const sampleAspect = aspectStated ? (stream.sample_aspect_ratio ?? '1:1') : '1:1'
  const [aspectWidth = 1, aspectHeight = 1] = sampleAspect.split(':').map(Number)
  const shown = cleanAperture ?? { widthPx: width, heightPx: height }
  const turned = Math.abs(orientation.rotationDegrees) % 180 === 90
  const upright = (across: number, down: number): readonly [number, number] =>
    turned ? [down, across] : [across, down]
  const [widthPx, heightPx] = upright(width, height)
  const [displayWidthPx, displayHeightPx] = upright(
    Math.round((shown.widthPx * aspectWidth) / aspectHeight),
    shown.heightPx,
  )
  const pixelFormat = stream.pix_fmt ?? 'unknown'
  const { bitDepth, chroma, fullRange } = pixelLayout(pixelFormat)
  const seconds = measured.seconds || secondsOfFrames(measured.presented, rate)
  return {
    ...trackOf(stream),
    codec: stream.codec_name ?? 'unknown',
    profile: stated(stream.profile) ?? '',
    level: stream.level ?? 0,
    widthPx,
    heightPx,
    codedWidthPx: stream.coded_width || width,
    codedHeightPx: stream.coded_height || height,
    displayWidthPx,
    displayHeightPx,
    cleanAperture,
    sampleAspect,
    sampleAspectStated: aspectStated,
    ...orientation,
    fieldOrder: fieldOrderOf(stream, reading.format),
    measuredFields: undefined,
    rate,
    cadence,
    frames: measured.presented,
    storedFrames: measured.stored,
    framesFrom: measured.from,
    seconds,
    storedSeconds: measured.storedSeconds || seconds,
    startSeconds: measured.startSeconds,
    pixelFormat,
    bitDepth: figure(stream.bits_per_raw_sample) || bitDepth,
    chroma,
    range: stream.color_range === 'pc' || fullRange ? 'full' : stream.color_range === 'tv' ? 'limited' : undefined,
    primaries: stated(stream.color_primaries),
    transfer: stated(stream.color_transfer),
    matrix: stated(stream.color_space),
    keyDistance: measured.keyDistance,
    bitsPerSecond:
      figure(stream.bit_rate) ??
      (measured.sizeBytes && seconds > 0 ? Math.round((measured.sizeBytes * 8) / seconds) : 0),
  }
}

/** From the display matrix, whose rows stand line by line behind their number: `00000000: 0 65536 0`. */
function shownOrientation({ side_data_list: sides = [] }: ProbedStream): Orientation {
  const matrix = sides.find((side) => side.displaymatrix !== undefined)?.displaymatrix ?? ''
  const [[a = 1, b = 0] = [], [c = 0, d = 1] = []] = [...matrix.matchAll(/^\d+:\s+(-?\d+)\s+(-?\d+)/gm)].map((row) =>
    row.slice(1).map(Number),
  )
  return orientationOf([a, b, c, d])
}

/** When the frames of a track are shown, from the index or from the packets; else by length and rate. */
function measuredOf(stream: ProbedStream, reading: Reading, named: readonly FrameRate[]): Measured {
  const indexed = indexedOf(stream, reading.index)
  if (indexed && indexed.times.length > 0) {
    const { times, seconds, startSeconds } = indexed.presented
    return {
      runs: [[...times].sort((a, b) => a - b)],
      ticks: indexed.ticksPerSecond,
      presented: times.length,
      stored: indexed.times.length,
      from: 'index',
      seconds,
      storedSeconds: indexed.storedSeconds,
      startSeconds,
      keyDistance: indexed.keyDistance,
      sizeBytes: indexed.sizeBytes,
    }
  }
  const run = readOf(reading)?.streams.get(stream.index ?? -1)
  const ticks = ticksOf(stream)
  const { startSeconds, seconds } = extentOf(stream, run, reading)
  const frames = figure(stream.nb_frames)
  const { rate, cadence } = measureRate(run?.runs ?? [], ticks, named)
  const whole = readOf(reading)?.whole === true && run !== undefined
  const counted = whole ? run.packets : (frames ?? Math.round((seconds * rate.num) / rate.den))
  const exact = secondsOfFrames(counted, rate)
  // A clock of thousandths cuts the last frame short by less than a tick or two.
  const length = cadence.kind === 'constant' && Math.abs(exact - seconds) <= 2 / ticks ? exact : seconds
  return {
    runs: run?.runs ?? [],
    ticks,
    presented: counted,
    stored: counted,
    from: whole ? 'packets' : frames === undefined ? 'length and rate' : 'index',
    seconds: length,
    storedSeconds: length,
    startSeconds,
    keyDistance: run?.keyDistance,
    sizeBytes: whole ? run.sizeBytes : undefined,
  }
}

/**
 * Start and length of a stream in seconds: from its packets, which were read to the end of the file, else as the
 * headers say.
 */
function extentOf(
  stream: ProbedStream,
  run: PacketRun | undefined,
  { startSeconds, seconds }: Reading,
): { startSeconds: number; seconds: number } {
  const ticks = ticksOf(stream)
  if (run && run.packets > 0) {
    const steps = run.runs.flatMap((part) => part.slice(1).map((time, at) => time - (part[at] ?? 0)))
    const usual = steps.length > 0 ? steps.reduce((sum, step) => sum + step, 0) / steps.length : 0
    const end = run.lastHasLength ? run.end : run.end + usual
    return { startSeconds: run.first / ticks, seconds: (end - run.first) / ticks }
  }
  const start = figure(stream.start_time) ?? startSeconds
  return { startSeconds: start, seconds: figure(stream.duration) ?? seconds }
}

/** Whether a track was begun, and nothing of it is there. */
function isEmpty(stream: ProbedStream, reading: Reading): boolean {
  const indexed = indexedOf(stream, reading.index)
  if (indexed) return indexed.isEmpty
  const packets = readOf(reading)
  return packets?.whole === true && (packets.streams.get(stream.index ?? -1)?.packets ?? 0) === 0
}

function soundTrack(stream: ProbedStream, reading: Reading): SoundTrack {
  const indexed = indexedOf(stream, reading.index)
  const run = readOf(reading)?.streams.get(stream.index ?? -1)
  const { startSeconds, seconds } =
    indexed && indexed.times.length > 0 ? indexed.presented : extentOf(stream, run, reading)
  const measuredBytes = indexed?.sizeBytes ?? (readOf(reading)?.whole ? run?.sizeBytes : undefined)
  return {
    ...trackOf(stream),
    codec: stream.codec_name ?? 'unknown',
    profile: stated(stream.profile) ?? '',
    channels: stream.channels ?? 0,
    layout: stated(stream.channel_layout),
    sampleRateHz: figure(stream.sample_rate) ?? 0,
    bits: figure(stream.bits_per_raw_sample) || stream.bits_per_sample || undefined,
    seconds,
    startSeconds,
    bitsPerSecond:
      figure(stream.bit_rate) ?? (measuredBytes && seconds > 0 ? Math.round((measuredBytes * 8) / seconds) : 0),
  }
}

const otherTrack = (stream: ProbedStream): OtherTrack => ({
  ...trackOf(stream),
  codec: stated(stream.codec_name) ?? stated(stream.codec_tag_string),
  kind: isAttachedPicture(stream)
    ? 'attached picture'
    : stream.codec_type === 'subtitle'
      ? 'subtitle'
      : stream.codec_type === 'audio'
        ? 'empty sound'
        : stream.codec_tag_string === 'tmcd'
          ? 'timecode'
          : 'data',
})
