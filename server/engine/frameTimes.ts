import type { VideoTrack } from '../../core/media/facts'
import { readIsoIndex } from '../../core/media/isoIndex'
import { withBytes } from './byteSource'
import { INPUT, runTool, SAFE_INPUT, type ToolControl } from './tool'

/** When each presented frame of a track is shown, in seconds on the file's own clock, ascending. Reads the index where there is one, else every packet. */
export async function frameTimes(
  path: Buffer,
  sizeBytes: number,
  { index }: Pick<VideoTrack, 'index'>,
  control?: ToolControl,
): Promise<number[]> {
  const listed = await withBytes(path, sizeBytes, readIsoIndex).catch(() => undefined)
  const track = listed?.tracks[index]
  if (track?.handler === 'vide' && track.presented.times.length > 0)
    return track.presented.times.map((time) => time / track.ticksPerSecond).sort((a, b) => a - b)
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 3600,
    control,
    args: [
      ...['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, '-select_streams', String(index)],
      ...['-show_entries', 'packet=pts_time,dts_time', '-of', 'compact=p=0', INPUT],
    ],
  })
  return out
    .toString('latin1')
    .split('\n')
    .flatMap((line) => {
      const time = Number(/pts_time=([\d.-]+)/.exec(line)?.[1] ?? /dts_time=([\d.-]+)/.exec(line)?.[1] ?? Number.NaN)
      return Number.isFinite(time) ? [time] : []
    })
    .sort((a, b) => a - b)
}
