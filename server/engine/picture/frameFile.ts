import type { MissingFrames } from '../../../core/cards/files/frameRuns'
import { FACTS_VERSION, type MediaFacts, type VideoTrack } from '../../../core/media/facts'
import { pixelLayout } from '../../../core/media/pixelFormat'
import { mainImage, previewIn, readTiffIndex, type TiffIndex } from '../../../core/media/tiffIndex'
import type { FrameRate } from '../../../core/units/frameRate'
import { withBytes } from '../medium/byteSource'
import { Stopped } from '../tool/stopped'
import type { Probed } from '../probe/probed'
import { INPUT, runTool, ToolFailed, type ToolControl } from '../tool/tool'

/** One picture a file, each read alone: none of these opens another file. Names are ffmpeg’s own. */
const SAFE_FRAME = [
  ...['-protocol_whitelist', 'file'],
  ...['-format_whitelist', 'tiff_pipe,dpx_pipe,exr_pipe,j2k_pipe,png_pipe,jpeg_pipe,bmp_pipe,webp_pipe'],
] as const
const LOUDNESS = ['-hide_banner', '-loglevel', 'error'] as const

/** What one frame of a run says of all of them. */
export interface FrameFacts {
  readonly video: VideoTrack
  readonly container: string
  /** As the file says; most do not. */
  readonly rate: FrameRate | undefined
  readonly recordedAt: string | undefined
  readonly isRaw: boolean
}

/**
 * Reads one frame: with ffprobe, and the directories of a TIFF or DNG by ourselves. Rejects with ToolFailed when it is
 * no picture.
 */
export async function probeFrame(path: Buffer, sizeBytes: number, control?: ToolControl): Promise<FrameFacts> {
  const index = await withBytes(path, sizeBytes, readTiffIndex)
  const probed = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 60,
    control,
    args: [...LOUDNESS, ...SAFE_FRAME, '-show_streams', '-show_format', '-of', 'json', INPUT],
  }).then(
    ({ out }) => JSON.parse(out.toString()) as Probed,
    (error: unknown) => {
      if (error instanceof Stopped || !index) throw error
      return undefined
    },
  )
  const stream = probed?.streams?.find((one) => one.codec_type === 'video')
  const image = index && mainImage(index)
  const [widthPx, heightPx] = image ? [image.widthPx, image.heightPx] : [stream?.width ?? 0, stream?.height ?? 0]
  if (widthPx === 0 || heightPx === 0) throw new ToolFailed('ffprobe', 'Invalid data found')
  const pixelFormat = index?.isRaw ? 'raw' : (stream?.pix_fmt ?? 'unknown')
  const layout = pixelLayout(pixelFormat)
  return {
    container: probed?.format?.format_name?.replace('_pipe', '') ?? 'tiff',
    rate: index?.rate,
    recordedAt: recordedOf(index),
    isRaw: index?.isRaw ?? false,
    video: {
      ...{ index: 0, language: undefined, isDefault: true, profile: '', level: 0 },
      ...{ widthPx, heightPx, codedWidthPx: widthPx, codedHeightPx: heightPx },
      ...{ displayWidthPx: widthPx, displayHeightPx: heightPx, cleanAperture: undefined },
      ...{ sampleAspect: '1:1', sampleAspectStated: false, rotationDegrees: 0, mirrored: false },
      ...{ fieldOrder: 'progressive', measuredFields: undefined },
      codec: index?.isRaw ? 'dng' : (stream?.codec_name ?? 'unknown'),
      pixelFormat,
      bitDepth: image?.bitDepth ?? layout.bitDepth,
      chroma: index?.isRaw ? undefined : layout.chroma,
      ...{ range: 'full', primaries: undefined, transfer: undefined, matrix: undefined, keyDistance: 1 },
      // Filled in with what the whole run comes to.
      ...{ rate: { num: 25, den: 1 }, frames: 0, storedFrames: 0, framesFrom: 'files', seconds: 0, storedSeconds: 0 },
      ...{ startSeconds: 0, bitsPerSecond: 0 },
      cadence: { kind: 'constant', average: 25, offGrid: 0, measuredFrames: 0 },
    },
  }
}

/** `2026:11:14 09:12:00` as a time that is taken as it stands. */
function recordedOf(index: TiffIndex | undefined): string | undefined {
  const found = /^(\d{4}):(\d\d):(\d\d) (\d\d):(\d\d):(\d\d)$/.exec(index?.recorded ?? '')
  if (!found) return undefined
  const [, year, month, day, hours, minutes, seconds] = found
  const text = `${year}-${month}-${day}T${hours}:${minutes}:${seconds}.000Z`
  return Number.isNaN(Date.parse(text)) ? undefined : text
}

/** What a run of frames is as a clip: so many frames at a rate, so many bytes. */
export function runFacts(
  { video, container, recordedAt }: FrameFacts,
  run: MissingFrames & { readonly files: number; readonly sizeBytes: number },
  { rate, bounds }: { readonly rate: FrameRate; readonly bounds: readonly string[] },
): MediaFacts {
  const frames = run.last - run.first + 1
  const seconds = (frames * rate.den) / rate.num
  const bitsPerSecond = Math.round((run.sizeBytes * 8) / ((run.files * rate.den) / rate.num))
  const track: VideoTrack = {
    ...video,
    ...{ rate, frames, storedFrames: run.files, seconds, storedSeconds: seconds, bitsPerSecond },
    cadence: { kind: 'constant', average: rate.num / rate.den, offGrid: 0, measuredFrames: 0 },
  }
  return {
    version: FACTS_VERSION,
    container,
    ...{ brand: undefined, seconds, startSeconds: 0, sizeBytes: run.sizeBytes, bitsPerSecond },
    ...{ video: track, audio: undefined, videos: [track], sounds: [], others: [] },
    recordedAt,
    recordedFrom:
      recordedAt === undefined ? undefined : { source: 'date and time in the first frame', zone: undefined },
    sequence: { first: run.first, last: run.last, missing: run.missing, short: run.short },
    ...{ timecode: undefined, timecodeFrom: undefined, indexFirst: undefined, broadcast: undefined, sidecar: [] },
    bounds,
  }
}

/**
 * One frame as a JPEG: the preview that the camera kept in it, else as ffmpeg can decode it; `undefined` when neither
 * can be had.
 */
export async function frameFilePicture(
  path: Buffer,
  sizeBytes: number,
  widthPx: number,
  control?: ToolControl,
): Promise<Buffer | undefined> {
  const preview = await withBytes(path, sizeBytes, async (file) => {
    const index = await readTiffIndex(file)
    return index && previewIn(index)
  }).catch(() => undefined)
  const args = [
    ...['-vf', `scale='min(${widthPx},iw)':-2:flags=area,setsar=1`, '-frames:v', '1'],
    ...['-f', 'image2pipe', '-c:v', 'mjpeg', '-q:v', '4', '-pix_fmt', 'yuvj420p', 'pipe:1'],
  ]
  const base = ['-nostdin', ...LOUDNESS, ...SAFE_FRAME] as const
  const decode = (input: Buffer, more: readonly string[] = []) =>
    runTool({ program: 'ffmpeg', input, seconds: 60, control, args: [...base, ...more, '-i', INPUT, ...args] })
      .then(({ out }) => (out.length > 0 ? out : undefined))
      .catch((error: unknown) => {
        if (error instanceof Stopped) throw error
        return undefined
      })
  const developed = preview && (await decode(path, ['-skip_initial_bytes', String(preview.offset), '-f', 'jpeg_pipe']))
  return developed ?? decode(path)
}
