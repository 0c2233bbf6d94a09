import { INPUT, runTool, SAFE_INPUT, wholeSamples, type ToolControl } from '../tool/tool'

/** What the packets of one stream tell, in ticks of its time base. */
export interface PacketRun {
  /** Presentation times, ascending, a list for each part that was read. */
  readonly runs: readonly (readonly number[])[]
  readonly first: number
  /** Where the last packet ends; `undefined` when its length is not said. */
  readonly end: number
  readonly lastHasLength: boolean
  readonly sizeBytes: number
  readonly keyDistance: number
  readonly packets: number
}

export interface Packets {
  /** By number of the stream. */
  readonly streams: ReadonlyMap<number, PacketRun>
  /** Whether the whole file was read. */
  readonly whole: boolean
}

/** A file up to this size is read to its end; of a larger one, as much in three places. */
const MOST_READ_BYTES = 64 * 1024 * 1024

interface Extent {
  /** The demuxer's own names. */
  readonly container: string
  readonly sizeBytes: number
  readonly startSeconds: number
  readonly seconds: number
}

/**
 * Reads the packets of a file with ffprobe: when they are shown, which are keys, how many bytes they have. Nothing is
 * decoded.
 */
export async function readPackets(path: Buffer, extent: Extent, control?: ToolControl): Promise<Packets> {
  const intervals = intervalsOf(extent)
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 120,
    control,
    args: [
      ...['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT, ...wholeSamples(extent)],
      ...(intervals ? ['-read_intervals', intervals] : []),
      ...['-show_entries', 'packet=stream_index,pts,dts,duration,size,flags', '-of', 'compact=p=0:nk=1', INPUT],
    ],
  })
  return { streams: collect(out), whole: intervals === undefined }
}

function intervalsOf({ sizeBytes, startSeconds, seconds }: Extent): string | undefined {
  if (sizeBytes <= MOST_READ_BYTES || seconds <= 0) return undefined
  const part = Math.min(60, Math.max(0.5, (seconds * MOST_READ_BYTES) / sizeBytes / 3))
  const at = (share: number) => (startSeconds + (seconds - part) * share).toFixed(3)
  return `%+${part.toFixed(3)},${at(0.5)}%+${part.toFixed(3)},${at(1)}%`
}

/** What is gathered of one stream while its packets pass by, in the order of decoding. */
class Gathered {
  readonly times: number[] = []
  sizeBytes = 0
  #lastTime = -Infinity
  #lastLength = 0
  #sinceKey = 0
  #keyDistance = 1

  add(time: number, length: number, sizeBytes: number, isKey: boolean): void {
    this.times.push(time)
    this.sizeBytes += sizeBytes
    if (time >= this.#lastTime) [this.#lastTime, this.#lastLength] = [time, length]
    this.#sinceKey = isKey ? 1 : this.#sinceKey + 1
    this.#keyDistance = Math.max(this.#keyDistance, this.#sinceKey)
  }

  /** Where what was seen so far ends. */
  get end(): number {
    return Number.isFinite(this.#lastTime) ? this.#lastTime + this.#lastLength : 0
  }

  run(): PacketRun {
    const ordered = Float64Array.from(this.times).sort()
    return {
      runs: partsOf(ordered),
      first: ordered[0] ?? 0,
      end: this.end,
      lastHasLength: this.#lastLength > 0,
      sizeBytes: this.sizeBytes,
      keyDistance: this.#keyDistance,
      packets: ordered.length,
    }
  }
}

/** `stream_index|pts|dts|duration|size|flags`; what is not known is `N/A`. */
const LINE = /^(\d+)\|(-?\d+|N\/A)\|(-?\d+|N\/A)\|(-?\d+|N\/A)\|(\d+)\|(K?)/

function collect(out: Buffer): Map<number, PacketRun> {
  const streams = new Map<number, Gathered>()
  for (let start = 0; start < out.length;) {
    const newline = out.indexOf(0x0a, start)
    const end = newline < 0 ? out.length : newline
    const [, index, pts, dts, length, size, key] = LINE.exec(out.toString('latin1', start, end)) ?? []
    start = end + 1
    const time = pts === 'N/A' ? dts : pts
    if (time === undefined || (time === 'N/A' && !(Number(length) > 0))) continue
    const stream = streams.get(Number(index)) ?? new Gathered()
    streams.set(Number(index), stream)
    // Bare streams have lengths alone: each packet begins where the one before ended.
    stream.add(
      time === 'N/A' ? stream.end : Number(time),
      length === 'N/A' ? 0 : Number(length),
      Number(size),
      key === 'K',
    )
  }
  return new Map([...streams].map(([index, stream]) => [index, stream.run()]))
}

/** A step this many times the usual one is the way to the next part that was read. */
const NEXT_PART = 200

/** Parts may overlap by what lies between a key frame and the place that was asked for: no time stands twice. */
function partsOf(ordered: Float64Array): number[][] {
  const parts: number[][] = []
  const span = (ordered.at(-1) ?? 0) - (ordered[0] ?? 0)
  const far = ordered.length > 1 ? (span / (ordered.length - 1)) * NEXT_PART : Infinity
  let last: number | undefined
  for (const time of ordered) {
    const part = parts.at(-1)
    if (part && last !== undefined && time - last < far) {
      if (time > last) part.push(time)
    } else parts.push([time])
    last = time
  }
  return parts
}
