import type { FieldOrder, MeasuredFields, VideoTrack } from '../../../core/media/facts'
import { INPUT, runTool, SAFE_INPUT, type ToolControl } from '../tool/tool'

/** As many frames as show it, also of a long clip. */
const FRAMES = 250

/** Whether frames are whole or woven of two fields, told from decoded pictures with ffmpeg's idet on a bounded part. */
export async function measureFields(
  path: Buffer,
  { index, seconds }: VideoTrack,
  control?: ToolControl,
): Promise<MeasuredFields> {
  const { messages } = await runTool({
    program: 'ffmpeg',
    input: path,
    seconds: 120,
    control,
    args: [
      ...['-nostdin', '-hide_banner', '-nostats', '-loglevel', 'info', ...SAFE_INPUT],
      ...['-ss', (seconds / 3).toFixed(3), '-i', INPUT, '-map', `0:${index}`, '-frames:v', String(FRAMES)],
      ...['-vf', 'idet', '-f', 'null', '-'],
    ],
  })
  const found = [...messages.matchAll(/Multi frame detection: TFF:\s*(\d+) BFF:\s*(\d+) Progressive:\s*(\d+)/g)].at(-1)
  const [top = 0, bottom = 0, whole = 0] = (found?.slice(1) ?? []).map(Number)
  return { order: orderOf(top, bottom, whole), frames: top + bottom + whole }
}

function orderOf(top: number, bottom: number, whole: number): FieldOrder | 'undecided' {
  if (top + bottom + whole === 0) return 'undecided'
  if (top + bottom <= whole) return 'progressive'
  // Frames of both orders in like numbers show only that nothing is clear.
  if (Math.min(top, bottom) * 3 > Math.max(top, bottom)) return 'undecided'
  return top > bottom ? 'top first' : 'bottom first'
}
