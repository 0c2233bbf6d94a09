import type { VideoTrack } from '../../../core/media/facts'
import { FFMPEG_BASE, INPUT, runTool, type ToolControl } from '../tool/tool'

/** Up to this length every frame is decoded; of longer films the key frames alone, which come about once a second. */
const WHOLE_SECONDS = 20

/**
 * Frames from the beginning to the end of a film side by side, as one JPEG; rejects with ToolFailed when none can be
 * decoded.
 */
export async function stripPicture(
  path: Buffer,
  video: VideoTrack,
  { frames, heightPx }: { readonly frames: number; readonly heightPx: number },
  control?: ToolControl,
): Promise<Buffer> {
  const seconds = Math.max(video.seconds, 0.001)
  const widthPx = Math.max(2, Math.round((heightPx * video.displayWidthPx) / video.displayHeightPx / 2) * 2)
  const { out } = await runTool({
    program: 'ffmpeg',
    input: path,
    seconds: 300,
    control,
    args: [
      ...FFMPEG_BASE,
      ...(seconds > WHOLE_SECONDS ? ['-skip_frame', 'nokey'] : []),
      ...['-i', INPUT, '-map', `0:${video.index}`, '-an', '-frames:v', '1'],
      // The last frame is shown until the strip is full: a film may end between two key frames.
      '-vf',
      `setpts=PTS-STARTPTS,fps=${frames / seconds}:round=near:eof_action=pass,tpad=stop_mode=clone:stop=${frames},scale=${widthPx}:${heightPx}:flags=area,setsar=1,tile=${frames}x1`,
      ...['-f', 'image2pipe', '-c:v', 'mjpeg', '-q:v', '5', 'pipe:1'],
    ],
  })
  if (out.length === 0) throw new Error('No frame could be decoded.')
  return out
}
