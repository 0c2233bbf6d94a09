import type { BlackBars } from '../../../core/exports/check'
import { uprightAperture } from '../../../core/exports/reframe'
import type { VideoTrack } from '../../../core/media/facts'
import { FFMPEG_BASE, INPUT, runTool, SAFE_INPUT, type ToolControl } from '../tool/tool'

/**
 * A frame as it is shown, at most so wide: clean aperture cut, samples squared, sides even. The coder has set it
 * upright.
 */
function shownFilter(video: VideoTrack, widthPx: number): string {
  const even = (value: number) => Math.max(2, Math.round(value / 2) * 2)
  const aperture = uprightAperture(video)
  const width = even(Math.min(widthPx, video.displayWidthPx))
  const height = even((width * video.displayHeightPx) / video.displayWidthPx)
  return [
    ...(aperture ? [`crop=${aperture.widthPx}:${aperture.heightPx}:${aperture.x}:${aperture.y}`] : []),
    `scale=${width}:${height}:flags=area`,
    'setsar=1',
  ].join(',')
}

/** One frame as a JPEG at most `widthPx` wide; rejects with ToolFailed or Error when none can be decoded. */
export async function framePicture(
  path: Buffer,
  video: VideoTrack,
  atSeconds: number,
  widthPx: number,
  control?: ToolControl,
): Promise<Buffer> {
  const at = ['-ss', atSeconds.toFixed(3)]
  const input = ['-i', INPUT]
  // By the index first; where a stream can only be decoded from its start, from there.
  for (const order of [
    [...at, ...input],
    [...input, ...at],
  ]) {
    const picture = await decodeFrame(path, video, order, widthPx, control)
    if (picture.length > 0) return picture
  }
  throw new Error('No frame could be decoded.')
}

async function decodeFrame(
  path: Buffer,
  video: VideoTrack,
  source: readonly string[],
  widthPx: number,
  control: ToolControl | undefined,
): Promise<Buffer> {
  const { out } = await runTool({
    program: 'ffmpeg',
    input: path,
    seconds: 60,
    control,
    args: [
      // Where every frame stands alone, one that decodes with errors is damaged; in others, frames before the place are
      // missing.
      ...[
        ...FFMPEG_BASE,
        ...(video.keyDistance === 1 ? ['-err_detect', 'explode'] : []),
        ...source,
        '-map',
        `0:${video.index}`,
        '-frames:v',
        '1',
      ],
      ...['-vf', shownFilter(video, widthPx)],
      ...['-f', 'image2pipe', '-c:v', 'mjpeg', '-q:v', '4', 'pipe:1'],
    ],
  })
  return out
}

/** Black bars that stay over the whole clip, measured on decoded frames; luma up to 24 counts as black. */
export async function measureBlack(
  path: Buffer,
  video: VideoTrack,
  control?: ToolControl,
): Promise<{ readonly bars: BlackBars; readonly black: boolean }> {
  const { messages } = await runTool({
    program: 'ffmpeg',
    input: path,
    seconds: 3600,
    control,
    args: [
      '-nostdin',
      '-hide_banner',
      '-loglevel',
      'info',
      ...SAFE_INPUT,
      '-i',
      INPUT,
      '-map',
      `0:${video.index}`,
      '-vf',
      'cropdetect=limit=24:round=2:skip=0:reset=0',
      '-f',
      'null',
      '-',
    ],
  })
  const found = [...messages.matchAll(/crop=(-?\d+):(-?\d+):(\d+):(\d+)/g)].at(-1)
  const [width, height, x, y] = (found?.slice(1) ?? []).map(Number)
  if (width === undefined || height === undefined || x === undefined || y === undefined || width <= 0 || height <= 0)
    // Nothing of it is brighter than black: the sides that were looked for have passed each other.
    return { bars: { left: 0, right: 0, top: 0, bottom: 0 }, black: found !== undefined }
  const bars = { left: x, right: video.widthPx - x - width, top: y, bottom: video.heightPx - y - height }
  return { bars, black: false }
}
