import type { VideoTrack } from '../../../core/media/facts'
import { INPUT, runTool, SAFE_INPUT, ToolFailed, type ToolControl } from '../tool/tool'

/** How many frames a track holds, counted packet by packet: reads the whole file and decodes nothing. */
export async function countFrames(
  path: Buffer,
  { index }: Pick<VideoTrack, 'index'>,
  control?: ToolControl,
): Promise<number> {
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 6 * 3600,
    control,
    args: [
      ...['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, '-select_streams', String(index), '-count_packets'],
      ...['-show_entries', 'stream=nb_read_packets', '-of', 'csv=p=0', INPUT],
    ],
  })
  const frames = Number.parseInt(out.toString(), 10)
  if (!Number.isFinite(frames)) throw new ToolFailed('ffprobe', 'its packets could not be counted')
  return frames
}
