import { open } from 'node:fs/promises'
import type { AudioTrack, Probe, VideoTrack } from '../../core/media/probe'
import { frameRate, parseFrameRate, secondsOfFrames } from '../../core/units/frameRate'
import { INPUT, runTool, SAFE_INPUT, type ToolControl } from './tool'

interface ProbedStream {
  codec_type?: string
  codec_name?: string
  profile?: string
  level?: number
  width?: number
  height?: number
  r_frame_rate?: string
  avg_frame_rate?: string
  nb_frames?: string
  duration?: string
  pix_fmt?: string
  sample_aspect_ratio?: string
  bit_rate?: string
  color_space?: string
  color_transfer?: string
  color_primaries?: string
  channels?: number
  sample_rate?: string
  disposition?: { attached_pic?: number }
  tags?: Record<string, string>
  side_data_list?: { rotation?: number }[]
}

interface Probed {
  streams?: ProbedStream[]
  format?: { format_name?: string; duration?: string; size?: string; bit_rate?: string; tags?: Record<string, string> }
}

const numberOr = (text: string | undefined, otherwise: number) => {
  const value = Number(text)
  return text !== undefined && Number.isFinite(value) ? value : otherwise
}

/** Reads a media file with ffprobe. Rejects with ToolFailed when it cannot be read as media. */
export async function probeFile(path: Buffer, control?: ToolControl): Promise<Probe> {
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 60,
    control,
    args: ['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, '-show_streams', '-show_format', '-of', 'json', INPUT],
  })
  const { streams = [], format = {} } = JSON.parse(out.toString()) as Probed
  const video = streams.find((stream) => stream.codec_type === 'video' && stream.disposition?.attached_pic !== 1)
  const audio = streams.find((stream) => stream.codec_type === 'audio')
  const seconds = numberOr(format.duration, 0)
  return {
    container: format.format_name ?? 'unknown',
    seconds,
    sizeBytes: numberOr(format.size, 0),
    bitsPerSecond: numberOr(format.bit_rate, 0),
    video: video && videoTrack(video, seconds),
    audio: audio && audioTrack(audio),
    recordedAt: recordedAt(format.tags?.creation_time ?? video?.tags?.creation_time),
    timecode: streams.find((stream) => stream.tags?.timecode)?.tags?.timecode ?? format.tags?.timecode,
    indexFirst: format.format_name?.includes('mp4') ? await indexStandsFirst(path) : undefined,
  }
}

/** Zero times from unset clocks say nothing. */
const recordedAt = (text: string | undefined) =>
  text && Date.parse(text) > Date.parse('1990-01-01') ? new Date(text).toISOString() : undefined

function videoTrack(stream: ProbedStream, fileSeconds: number): VideoTrack {
  const rate = parseFrameRate(stream.avg_frame_rate ?? '') ?? parseFrameRate(stream.r_frame_rate ?? '') ?? frameRate(1)
  const rotation = stream.side_data_list?.find((side) => side.rotation !== undefined)?.rotation ?? 0
  const turned = Math.abs(rotation) % 180 === 90
  const [width, height] = [stream.width ?? 0, stream.height ?? 0]
  const seconds = numberOr(stream.duration, fileSeconds)
  const frames = numberOr(stream.nb_frames, Math.round((seconds * rate.num) / rate.den))
  return {
    codec: stream.codec_name ?? 'unknown',
    profile: stream.profile ?? '',
    level: stream.level ?? 0,
    widthPx: turned ? height : width,
    heightPx: turned ? width : height,
    rate,
    frames,
    seconds: seconds || secondsOfFrames(frames, rate),
    pixelFormat: stream.pix_fmt ?? 'unknown',
    // Silent files mean square pixels; ffprobe says 0:1 or nothing.
    sampleAspect:
      !stream.sample_aspect_ratio || stream.sample_aspect_ratio.startsWith('0:') ? '1:1' : stream.sample_aspect_ratio,
    rotationDegrees: rotation,
    bitsPerSecond: numberOr(stream.bit_rate, 0),
    colour: [stream.color_space, stream.color_transfer, stream.color_primaries].map((tag) => tag ?? 'none').join('/'),
  }
}

const audioTrack = (stream: ProbedStream): AudioTrack => ({
  codec: stream.codec_name ?? 'unknown',
  channels: stream.channels ?? 0,
  sampleRateHz: numberOr(stream.sample_rate, 0),
})

/** Walks the top-level boxes of an ISO base media file (ISO/IEC 14496-12): is `moov` before `mdat`? */
async function indexStandsFirst(path: Buffer): Promise<boolean> {
  const file = await open(path, 'r')
  try {
    const header = Buffer.alloc(16)
    for (let position = 0, boxes = 0; boxes < 1000; boxes += 1) {
      const { bytesRead } = await file.read(header, 0, 16, position)
      if (bytesRead < 8) return false
      const type = header.toString('latin1', 4, 8)
      if (type === 'moov') return true
      if (type === 'mdat') return false
      const short = header.readUInt32BE(0)
      const size = short === 1 ? Number(header.readBigUInt64BE(8)) : short
      if (size < 8) return false
      position += size
    }
    return false
  } finally {
    await file.close()
  }
}
