import { ascii, view, type ByteSource } from './bytes'
import { boxesIn, boxesOf, type Box } from './isoBoxes'
import type { CleanAperture } from './facts'

/**
 * What the index of an ISO base media file says of one track. Times in ticks of `ticksPerSecond` unless named
 * otherwise.
 */
export interface IndexedTrack {
  readonly id: number
  /** `vide`, `soun`, `tmcd` … */
  readonly handler: string
  readonly ticksPerSecond: number
  /** Presentation times of all samples, ascending. */
  readonly times: readonly number[]
  /** Those that the edit list shows, on the movie's clock. */
  readonly presented: { readonly times: readonly number[]; readonly seconds: number; readonly startSeconds: number }
  readonly storedSeconds: number
  /** None of its samples is there; false where they were too many to be read. */
  readonly isEmpty: boolean
  readonly sizeBytes: number
  /** Longest distance of sync samples, in samples; 1 when each is one. */
  readonly keyDistance: number
  readonly cleanAperture: CleanAperture | undefined
}

export interface IsoIndex {
  readonly brand: string | undefined
  readonly indexFirst: boolean
  /** Empty when the samples are listed in fragments, which the packets have to tell. */
  readonly tracks: readonly IndexedTrack[]
  readonly bounds: readonly string[]
}

const MOST_INDEX_BYTES = 64 * 1024 * 1024
const MOST_SAMPLES = 2_000_000
const MOST_TRACKS = 100
const MOST_EDITS = 1000

/** Reads the index (`moov`) of an ISO base media file, and nothing of the media. `undefined` when it has none. */
export async function readIsoIndex(file: ByteSource): Promise<IsoIndex | undefined> {
  const boxes = await boxesOf(file, 0, file.sizeBytes)
  const at = boxes.findIndex((box) => box.type === 'moov')
  const moov = boxes[at]
  if (!moov) return undefined
  const media = boxes.findIndex((box) => box.type === 'mdat')
  const type = boxes.find((box) => box.type === 'ftyp')
  const common = {
    brand: type && ascii(await file.read(type.start + type.headBytes, 4), 0, 4).trim(),
    indexFirst: media < 0 || at < media,
  }
  const length = Math.min(moov.end, file.sizeBytes) - moov.start
  if (length > MOST_INDEX_BYTES)
    return { ...common, tracks: [], bounds: ['Its index is larger than 64 MiB and was not read.'] }
  const index = new Index(await file.read(moov.start, length), file.sizeBytes)
  const tracks = index.inside('moov', [{ type: 'moov', start: 0, headBytes: moov.headBytes, end: length }])
  const bounds: string[] = []
  const movieTicks = index.ticksOf(tracks.find((box) => box.type === 'mvhd'))
  const read = tracks
    .filter((box) => box.type === 'trak')
    .slice(0, MOST_TRACKS)
    .flatMap((box) => index.track(box, movieTicks, bounds) ?? [])
  return { ...common, tracks: read.some((track) => track.times.length > 0) ? read : [], bounds }
}

interface Edit {
  /** In movie ticks. */
  readonly duration: number
  /** In track ticks; −1 is an empty edit. */
  readonly mediaTime: number
}

/** The bytes of an index, with readers for its boxes. Sections are those of ISO/IEC 14496-12. */
class Index {
  readonly #data: DataView
  /** Of all tracks together. */
  #samplesLeft = MOST_SAMPLES

  constructor(
    readonly bytes: Uint8Array,
    /** Of the whole file: what is listed beyond it is not there. */
    readonly fileBytes: number,
  ) {
    this.#data = view(bytes)
  }

  inside(type: string, boxes: readonly Box[]): Box[] {
    const box = boxes.find((one) => one.type === type)
    return box ? boxesIn(this.bytes, box.start + box.headBytes, box.end) : []
  }

  /** 8.2.2 and 8.4.2: `mvhd` and `mdhd` carry their ticks a second at the same place. */
  ticksOf(header: Box | undefined): number {
    if (!header) return 1
    const at = header.start + header.headBytes
    return this.#u32(at + (this.#u8(at) === 1 ? 20 : 12)) || 1
  }

  track(trak: Box, movieTicks: number, bounds: string[]): IndexedTrack | undefined {
    const parts = boxesIn(this.bytes, trak.start + trak.headBytes, trak.end)
    const media = this.inside('mdia', parts)
    const table = this.inside('stbl', this.inside('minf', media))
    const handler = media.find((box) => box.type === 'hdlr')
    const header = parts.find((box) => box.type === 'tkhd')
    if (!handler || !header) return undefined
    const ticksPerSecond = this.ticksOf(media.find((box) => box.type === 'mdhd'))
    const samples = this.#samples(table, bounds)
    const times = [...samples.times].sort((a, b) => a - b)
    const end = Math.max(samples.end, times.at(-1) ?? 0)
    const edits = this.#edits(this.inside('edts', parts))
    return {
      id: this.#u32(header.start + header.headBytes + (this.#u8(header.start + header.headBytes) === 1 ? 20 : 12)),
      handler: ascii(this.bytes, handler.start + handler.headBytes + 8, 4),
      ticksPerSecond,
      times,
      presented: presentedPart(times, end, edits, ticksPerSecond, movieTicks),
      storedSeconds: (end - (times[0] ?? 0)) / ticksPerSecond,
      isEmpty: times.length === 0 && this.#samplesLeft > 0,
      // Where not all could be read, of all that are listed.
      sizeBytes: this.#sampleBytes(table, this.#samplesLeft > 0 ? times.length : Infinity),
      keyDistance: this.#keyDistance(table, times.length),
      cleanAperture: this.#cleanAperture(table),
    }
  }

  /** 8.6.1.2 `stts` and 8.6.1.3 `ctts`: when each sample is presented, and where the last one ends. */
  #samples(table: readonly Box[], bounds: string[]): { times: number[]; end: number } {
    const times: number[] = []
    let clock = 0
    let last = 0
    for (const [count = 0, step = 0] of this.#entries(table, 'stts', 2))
      for (let turn = 0; turn < count; turn += 1) {
        if (this.#samplesLeft === 0) {
          bounds.push('It lists more than 2 000 000 samples; those after were not read.')
          return { times, end: clock }
        }
        this.#samplesLeft -= 1
        times.push(clock)
        clock += step
        last = step
      }
    // Of a file that was cut only what is there.
    times.length = Math.min(times.length, this.#samplesThere(table, times.length))
    let at = 0
    const start = this.#version(table, 'ctts')
    for (const [count = 0, offset = 0] of this.#entries(table, 'ctts', 2)) {
      // Version 1 offsets may lie before the decoding time; writers of version 0 use the same bits for it.
      const signed = start === 1 || offset > 0x7fffffff ? offset | 0 : offset
      for (let turn = 0; turn < count && at < times.length; turn += 1, at += 1) times[at] = (times[at] ?? 0) + signed
    }
    const latest = times.reduce((most, time) => Math.max(most, time), 0)
    return { times, end: times.length > 0 ? latest + last : 0 }
  }

  /**
   * How many of its samples, in the order in which they are stored, lie whole within the file: 8.7.4 `stsc`, 8.7.5
   * `stco` and `co64`.
   */
  #samplesThere(table: readonly Box[], samples: number): number {
    const chunks = table.find((one) => one.type === 'stco' || one.type === 'co64')
    const runs = [...this.#entries(table, 'stsc', 3)]
    if (!chunks || runs.length === 0) return samples
    const wide = chunks.type === 'co64'
    const at = chunks.start + chunks.headBytes + 8
    const count = Math.min(this.#u32(at - 4), Math.floor((chunks.end - at) / (wide ? 8 : 4)))
    const size = this.#sizeOf(table)
    let [sample, run] = [0, 0]
    for (let chunk = 1; chunk <= count && sample < samples; chunk += 1) {
      while ((runs[run + 1]?.[0] ?? Infinity) <= chunk) run += 1
      const until = Math.min(samples, sample + (runs[run]?.[1] ?? 0))
      let place = wide ? this.#u64(at + (chunk - 1) * 8) : this.#u32(at + (chunk - 1) * 4)
      for (; sample < until; sample += 1) {
        place += size(sample)
        if (place > this.fileBytes) return sample
      }
    }
    return samples
  }

  /** 8.7.3 `stsz`: the bytes of each sample; none where they are listed otherwise. */
  #sizeOf(table: readonly Box[]): (sample: number) => number {
    const box = table.find((one) => one.type === 'stsz')
    if (!box) return () => 0
    const at = box.start + box.headBytes
    const same = this.#u32(at + 4)
    return same > 0 ? () => same : (sample) => this.#u32(at + 12 + sample * 4)
  }

  /** 8.6.6 `elst`. */
  #edits(edts: readonly Box[]): Edit[] {
    const list = edts.find((box) => box.type === 'elst')
    if (!list) return []
    const at = list.start + list.headBytes
    const wide = this.#u8(at) === 1
    const entry = wide ? 20 : 12
    const count = Math.min(this.#u32(at + 4), Math.floor((list.end - at - 8) / entry), MOST_EDITS)
    return Array.from({ length: count }, (_, turn) => {
      const from = at + 8 + turn * entry
      return wide
        ? { duration: this.#u64(from), mediaTime: Number(this.#data.getBigInt64(from + 8)) }
        : { duration: this.#u32(from), mediaTime: this.#data.getInt32(from + 4) }
    })
  }

  /** 8.7.3 `stsz` and `stz2`. */
  #sampleBytes(table: readonly Box[], samples: number): number {
    const box = table.find((one) => one.type === 'stsz')
    if (!box) return 0
    const at = box.start + box.headBytes
    const [same, count] = [this.#u32(at + 4), Math.min(samples, this.#u32(at + 8))]
    if (same > 0) return same * count
    let sum = 0
    const most = Math.min(count, Math.floor((box.end - at - 12) / 4))
    for (let turn = 0; turn < most; turn += 1) sum += this.#u32(at + 12 + turn * 4)
    return sum
  }

  /** 8.6.2 `stss`; without it every sample is a sync sample. */
  #keyDistance(table: readonly Box[], samples: number): number {
    const box = table.find((one) => one.type === 'stss')
    if (!box) return 1
    const at = box.start + box.headBytes
    const count = Math.min(this.#u32(at + 4), Math.floor((box.end - at - 8) / 4))
    let before = 1
    let longest = 1
    for (let turn = 0; turn < count; turn += 1) {
      const number = this.#u32(at + 8 + turn * 4)
      if (number > samples) break
      longest = Math.max(longest, number - before)
      before = number
    }
    return Math.max(longest, samples + 1 - before)
  }

  /** 12.1.4 `clap`, inside the first visual sample entry. Offsets are those of the centres. */
  #cleanAperture(table: readonly Box[]): CleanAperture | undefined {
    const descriptions = table.find((box) => box.type === 'stsd')
    if (!descriptions) return undefined
    const [entry] = boxesIn(this.bytes, descriptions.start + descriptions.headBytes + 8, descriptions.end)
    // A visual sample entry has 78 bytes before its boxes (12.1.3).
    if (!entry || entry.start + entry.headBytes + 78 > entry.end) return undefined
    const at = entry.start + entry.headBytes
    const clap = boxesIn(this.bytes, at + 78, entry.end).find((box) => box.type === 'clap')
    if (!clap || clap.end - clap.start < 40) return undefined
    const [stored, high] = [this.#data.getUint16(at + 24), this.#data.getUint16(at + 26)]
    const fraction = (turn: number) =>
      this.#data.getInt32(clap.start + clap.headBytes + turn * 8) /
      (this.#u32(clap.start + clap.headBytes + turn * 8 + 4) || 1)
    const [widthPx, heightPx] = [Math.round(fraction(0)), Math.round(fraction(1))]
    const x = Math.round((stored - widthPx) / 2 + fraction(2))
    const y = Math.round((high - heightPx) / 2 + fraction(3))
    const fits = widthPx > 0 && heightPx > 0 && x >= 0 && y >= 0 && x + widthPx <= stored && y + heightPx <= high
    return fits && (widthPx < stored || heightPx < high) ? { x, y, widthPx, heightPx } : undefined
  }

  #version(table: readonly Box[], type: string): number {
    const box = table.find((one) => one.type === type)
    return box ? this.#u8(box.start + box.headBytes) : 0
  }

  /** The entries of a table, each of two or three numbers of 32 bits. */
  *#entries(table: readonly Box[], type: string, width: 2 | 3): Generator<readonly number[]> {
    const box = table.find((one) => one.type === type)
    if (!box) return
    const at = box.start + box.headBytes + 8
    const count = Math.min(this.#u32(at - 4), Math.floor((box.end - at) / (width * 4)))
    for (let turn = 0; turn < count; turn += 1) {
      const from = at + turn * width * 4
      yield [this.#u32(from), this.#u32(from + 4), this.#u32(from + 8)]
    }
  }

  #u8(at: number): number {
    return at < this.bytes.length ? this.#data.getUint8(at) : 0
  }

  #u32(at: number): number {
    return at + 4 <= this.bytes.length ? this.#data.getUint32(at) : 0
  }

  #u64(at: number): number {
    return at + 8 <= this.bytes.length ? Number(this.#data.getBigUint64(at)) : 0
  }
}

/** What an edit list shows of a track: times on the movie's clock, in track ticks. */
function presentedPart(
  times: readonly number[],
  end: number,
  edits: readonly Edit[],
  ticks: number,
  movieTicks: number,
): IndexedTrack['presented'] {
  const first = times[0] ?? 0
  if (!edits.some((edit) => edit.mediaTime >= 0))
    return { times, seconds: (end - first) / ticks, startSeconds: first / ticks }
  const shown: number[] = []
  let clock = 0
  let startSeconds: number | undefined
  let seconds = 0
  for (const { duration, mediaTime } of edits) {
    const length = (duration / movieTicks) * ticks
    if (mediaTime >= 0) {
      // A duration of 0 lasts to the end of the track.
      const until = Math.min(end, length > 0 ? mediaTime + length : end)
      startSeconds ??= clock / ticks
      // The movie's clock is coarser than the track's: half of one of its ticks is no frame.
      const slack = ticks / movieTicks / 2
      for (let at = firstFrom(times, mediaTime); at < times.length && shown.length < MOST_SAMPLES; at += 1) {
        const time = times[at] ?? 0
        if (time >= until - slack) break
        shown.push(clock + time - mediaTime)
      }
      seconds += Math.max(0, until - mediaTime) / ticks
    }
    clock += length
  }
  return { times: shown, seconds, startSeconds: startSeconds ?? 0 }
}

/** Place of the first time that is not before another; times ascend. */
function firstFrom(times: readonly number[], from: number): number {
  let [low, high] = [0, times.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((times[middle] ?? 0) < from - 1e-6) low = middle + 1
    else high = middle
  }
  return low
}
