import { INPUT, runTool, SAFE_INPUT, type ToolControl } from './tool'

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
  readonly sizeBytes: number
  readonly startSeconds: number
  readonly seconds: number
}

/** Reads the packets of a file with ffprobe: when they are shown, which are keys, how many bytes they have. Nothing is decoded. */
export async function readPackets(path: Buffer, extent: Extent, control?: ToolControl): Promise<Packets> {
  const intervals = intervalsOf(extent)
  const { out } = await runTool({
    program: 'ffprobe',
    input: path,
    seconds: 120,
    control,
    args: [
      ...['-hide_banner', '-loglevel', 'error', ...SAFE_INPUT],
      ...(intervals ? ['-read_intervals', intervals] : []),
      ...['-show_entries', 'packet=stream_index,pts,dts,duration,size,flags', '-of', 'compact=p=0:nk=0', INPUT],
    ],
  })
  return { streams: collect(out.toString('latin1')), whole: intervals === undefined }
}

function intervalsOf({ sizeBytes, startSeconds, seconds }: Extent): string | undefined {
  if (sizeBytes <= MOST_READ_BYTES || seconds <= 0) return undefined
  const part = Math.min(60, Math.max(0.5, (seconds * MOST_READ_BYTES) / sizeBytes / 3))
  const at = (share: number) => (startSeconds + (seconds - part) * share).toFixed(3)
  return `%+${part.toFixed(3)},${at(0.5)}%+${part.toFixed(3)},${at(1)}%`
}

interface Packet {
  readonly time: number
  readonly length: number | undefined
  readonly size: number
  readonly key: boolean
}

function collect(text: string): Map<number, PacketRun> {
  const streams = new Map<number, Packet[]>()
  for (const line of text.split('\n')) {
    if (!line.startsWith('stream_index=')) continue
    const fields = Object.fromEntries(line.split('|').map((part) => part.split('=', 2) as [string, string]))
    const figure = (name: string) =>
      fields[name] === undefined || fields[name] === 'N/A' ? undefined : Number(fields[name])
    const time = figure('pts') ?? figure('dts')
    const index = figure('stream_index')
    if (time === undefined || index === undefined) continue
    const packet = {
      time,
      length: figure('duration'),
      size: figure('size') ?? 0,
      key: fields.flags?.includes('K') === true,
    }
    const list = streams.get(index)
    if (list) list.push(packet)
    else streams.set(index, [packet])
  }
  return new Map([...streams].map(([index, packets]) => [index, runOf(packets)]))
}

/** A step this many times the usual one is the way to the next part that was read. */
const NEXT_PART = 200

function runOf(packets: readonly Packet[]): PacketRun {
  const parts: Packet[][] = []
  const ordered = [...packets].sort((a, b) => a.time - b.time)
  const usual = (ordered.at(-1)?.time ?? 0) - (ordered[0]?.time ?? 0)
  const far = ordered.length > 1 ? (usual / (ordered.length - 1)) * NEXT_PART : Infinity
  for (const packet of ordered) {
    const part = parts.at(-1)
    const last = part?.at(-1)
    if (part && last && packet.time - last.time < far) {
      // Parts may overlap by what lies between a key frame and the place that was asked for.
      if (packet.time > last.time) part.push(packet)
    } else parts.push([packet])
  }
  const last = parts.at(-1)?.at(-1)
  return {
    runs: parts.map((part) => part.map(({ time }) => time)),
    first: parts[0]?.[0]?.time ?? 0,
    end: (last?.time ?? 0) + (last?.length ?? 0),
    lastHasLength: (last?.length ?? 0) > 0,
    sizeBytes: packets.reduce((sum, { size }) => sum + size, 0),
    keyDistance: keyDistanceOf(packets),
    packets: packets.length,
  }
}

/** In the order of decoding, as they lie in the file. */
function keyDistanceOf(packets: readonly Packet[]): number {
  let since = 0
  let longest = 1
  for (const { key } of packets) {
    if (key) since = 0
    since += 1
    longest = Math.max(longest, since)
  }
  return longest
}
