import type { MediaFacts, VideoTrack } from '../../../core/media/facts'
import { readIsoIndex } from '../../../core/media/isoIndex'
import { withBytes } from '../medium/byteSource'
import { INPUT, runTool, SAFE_INPUT, wholeSamples, type ToolControl } from '../tool/tool'

/**
 * When each presented frame of a track is shown, in seconds on the file's own clock, ascending. Reads the index where
 * there is one, else every packet.
 */
export async function frameTimes(
  path: Buffer,
  file: Pick<MediaFacts, 'sizeBytes' | 'container'>,
  { index }: Pick<VideoTrack, 'index'>,
  control?: ToolControl,
): Promise<number[]> {
  const listed = await withBytes(path, file.sizeBytes, readIsoIndex).catch(() => undefined)
  const track = listed?.tracks[index]
  if (track?.handler === 'vide' && track.presented.times.length > 0)
    return track.presented.times.map((time) => time / track.ticksPerSecond).sort((a, b) => a - b)
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 3600,
    control,
    args: [
      ...['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, ...wholeSamples(file), '-select_streams', String(index)],
      ...['-show_entries', 'packet=pts_time,dts_time,duration_time', '-of', 'compact=p=0:nk=1', INPUT],
    ],
  })
  // Bare streams have lengths alone: each frame begins where the one before ended.
  let end = 0
  return out
    .toString('latin1')
    .split('\n')
    .filter((line) => line.includes('|'))
    .flatMap((line) => {
      const [shown = Number.NaN, stored = Number.NaN, length = Number.NaN] = line.split('|').map(Number)
      const time = [shown, stored, length > 0 ? end : Number.NaN].find(Number.isFinite)
      if (time === undefined) return []
      end = Math.max(end, time + (length || 0))
      return [time]
    })
    .sort((a, b) => a - b)
}
