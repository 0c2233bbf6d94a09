import { PassThrough } from 'node:stream'
import {
  COMPARED_HZ,
  evenPackets,
  gapsOf,
  SOUND_LAG_SECONDS,
  SoundComparison,
  strangeGaps,
  type SoundCompared,
  type SoundPacket,
} from '../../../core/media/compareSound'
import type { SoundTrack } from '../../../core/media/facts'
import { awaitedLater } from '../copy/hash'
import { FFMPEG_BASE, INPUT, runTool, SAFE_INPUT, type ToolControl } from '../tool/tool'

/** A sound track of a file, and when the picture of that file begins. */
export interface SoundOf {
  readonly path: Buffer
  readonly track: Pick<SoundTrack, 'index' | 'codec'>
  readonly pictureStartSeconds: number
  /** Filters that the other one went through, such as a down-mix. */
  readonly filters?: readonly string[]
}

const LONGEST_SECONDS = 24 * 3600

/**
 * Decodes two sound tracks from end to end, each on the clock of its own file, and compares them second by second from
 * the first frame of the picture on; then asks whether the packets of the second follow each other as those of the
 * first do.
 */
export async function compareSounds(
  original: SoundOf,
  made: SoundOf,
  channels: number,
  control?: ToolControl,
): Promise<SoundCompared> {
  const comparison = new SoundComparison(channels)
  const bytes = COMPARED_HZ * channels * 2
  const [from, to] = [decoded(original, control), decoded(made, control)]
  const [wanted, found] = [pieces(from.sink, bytes), pieces(to.sink, bytes)]
  for (;;) {
    const [a, b] = await Promise.all([wanted.next(), found.next()])
    // What one has more than the other is read all the same: its program ends only then.
    if (a.done && b.done) break
    if (!a.done && !b.done) comparison.add(samplesOf(a.value), samplesOf(b.value))
  }
  await Promise.all([from.ended, to.ended])
  const gaps = gapsOf(await soundPackets(made, control))
  return comparison.result(gaps.length === 0 ? 0 : strangeGaps(gapsOf(await soundPackets(original, control)), gaps))
}

/** What one track sounds like from the first frame of the picture on: gaps are silence, and what overlaps is cut. */
function decoded({ path, track, pictureStartSeconds, filters = [] }: SoundOf, control?: ToolControl) {
  const sink = new PassThrough()
  const sound = [
    ...filters,
    `asetpts=PTS-${pictureStartSeconds.toFixed(6)}/TB`,
    `aresample=${COMPARED_HZ}:async=1:min_hard_comp=${SOUND_LAG_SECONDS}:first_pts=0`,
  ]
  const ended = runTool({
    program: 'ffmpeg',
    input: path,
    seconds: LONGEST_SECONDS,
    control,
    sink,
    args: [
      ...[...FFMPEG_BASE, '-copyts', '-i', INPUT, '-map', `0:${track.index}`],
      ...['-af', sound.join(','), '-c:a', 'pcm_s16le', '-f', 's16le', '-'],
    ],
  }).finally(() => sink.end())
  return { sink, ended: awaitedLater(ended) }
}

/** What comes through a pipe, in pieces of so many bytes; the last one may be shorter. */
async function* pieces(pipe: PassThrough, bytes: number): AsyncGenerator<Buffer, undefined> {
  let waiting: Buffer[] = []
  let length = 0
  for await (const chunk of pipe as AsyncIterable<Buffer>) {
    waiting.push(chunk)
    length += chunk.length
    if (length < bytes) continue
    const all = Buffer.concat(waiting)
    let at = 0
    for (; at + bytes <= all.length; at += bytes) yield all.subarray(at, at + bytes)
    waiting = [all.subarray(at)]
    length = all.length - at
  }
  if (length > 0) yield Buffer.concat(waiting)
  return undefined
}

/** Little endian, as the computers are that this runs on. */
function samplesOf(bytes: Buffer): Int16Array {
  const whole = new Uint8Array(bytes.length - (bytes.length % 2))
  whole.set(bytes.subarray(0, whole.length))
  return new Int16Array(whole.buffer)
}

/** Source: ISO/IEC 14496-3, 4.5.1.1; ISO/IEC 11172-3, 2.4.2.1; ETSI TS 102 366, 4. Names are ffmpeg’s own. */
const EVEN_CODECS = new Set(['aac', 'mp3', 'mp2', 'ac3'])

/** `pts_time|duration_time`. */
const LINE = /^(-?[\d.]+)\|(-?[\d.]+)/gm

async function soundPackets({ path, track }: SoundOf, control?: ToolControl): Promise<SoundPacket[]> {
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: LONGEST_SECONDS,
    control,
    args: [
      ...['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, '-select_streams', String(track.index)],
      ...['-show_entries', 'packet=pts_time,duration_time', '-of', 'compact=p=0:nk=1', INPUT],
    ],
  })
  const packets = [...out.toString('latin1').matchAll(LINE)].map(([, at, seconds]) => ({
    at: Number(at),
    seconds: Number(seconds),
  }))
  return EVEN_CODECS.has(track.codec) ? evenPackets(packets) : packets
}
