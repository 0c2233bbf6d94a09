import { ascii, startsWith, view, type ByteSource } from './bytes'
import { formatBytes } from '../units/quantity'
import { boxesOf, type Box } from './isoBoxes'

/** Whether the end of a file is missing, told from the structure that its container promises. Nothing is decoded. */

/** What is missing: how many bytes at least, or that the recording never came to its end. */
export interface Cut {
  readonly missingBytes: number
  readonly sentence: string
}

const cutBy = (missingBytes: number): Cut => ({
  missingBytes,
  sentence: `its end is missing: at least ${missingBytes} ${missingBytes === 1 ? 'byte' : 'bytes'}`,
})
const unfinished: Cut = { missingBytes: 0, sentence: 'the recording was never finished: its sizes were not filled in' }

/** What is missing of a file, `undefined` when its container is whole or makes no promise that could be checked. */
export async function findCut(file: ByteSource): Promise<Cut | undefined> {
  const head = await file.read(0, 64)
  if (head.length < 12) return undefined
  if (['ftyp', 'moov', 'mdat', 'wide', 'free', 'skip'].includes(ascii(head, 4, 4))) return cutOfBoxes(file)
  if (['RIFF', 'RF64', 'BW64'].includes(ascii(head, 0, 4))) return cutOfRiff(file, head)
  if (startsWith(head, 0x1a, 0x45, 0xdf, 0xa3)) return cutOfMatroska(file)
  if (startsWith(head, 0x06, 0x0e, 0x2b, 0x34)) return cutOfMxf(file)
  return cutOfPackets(file)
}

/** MP4 and MOV. Source: ISO/IEC 14496-12, 4.2 (boxes and their sizes) and 8.7.5 (chunk offsets). */
async function cutOfBoxes(file: ByteSource): Promise<Cut | undefined> {
  const boxes = await boxesOf(file, 0, file.sizeBytes)
  const last = boxes.at(-1)
  if (!last) return undefined
  if (last.end > file.sizeBytes) return cutBy(last.end - file.sizeBytes)
  const index = boxes.find((box) => box.type === 'moov')
  if (!index) return undefined
  const furthest = await furthestChunk(file, index)
  return furthest >= file.sizeBytes ? cutBy(furthest + 1 - file.sizeBytes) : undefined
}

/** Where the last chunk of media begins, by the index. */
async function furthestChunk(file: ByteSource, index: Box): Promise<number> {
  let furthest = -1
  const inside = (box: Box) => boxesOf(file, box.start + box.headBytes, box.end)
  const descend = async (boxes: readonly Box[], path: readonly string[]): Promise<Box[]> => {
    const [next, ...rest] = path
    const found = boxes.filter((box) => box.type === next)
    return rest.length === 0
      ? found
      : (await Promise.all(found.map(async (box) => descend(await inside(box), rest)))).flat()
  }
  for (const table of await descend(await inside(index), ['trak', 'mdia', 'minf', 'stbl'])) {
    for (const box of await inside(table)) {
      const entryBytes = box.type === 'stco' ? 4 : box.type === 'co64' ? 8 : 0
      if (entryBytes === 0) continue
      const bytes = await file.read(box.end - entryBytes, entryBytes)
      if (bytes.length < entryBytes || box.end - box.start < box.headBytes + 8 + entryBytes) continue
      furthest = Math.max(furthest, entryBytes === 4 ? view(bytes).getUint32(0) : Number(view(bytes).getBigUint64(0)))
    }
  }
  return furthest
}

/**
 * WAV, AVI and their large forms. Source: Microsoft-IBM RIFF specification (1991); EBU Tech 3306 for `ds64` of RF64.
 */
async function cutOfRiff(file: ByteSource, head: Uint8Array): Promise<Cut | undefined> {
  const wide = ascii(head, 0, 4) !== 'RIFF' && ascii(head, 12, 4) === 'ds64'
  for (let at = 0, chunks = 0; at + 12 <= file.sizeBytes && chunks < 10_000; chunks += 1) {
    const bytes = await file.read(at, 12)
    if (!['RIFF', 'RF64', 'BW64'].includes(ascii(bytes, 0, 4))) return beyondRiff(file.sizeBytes, at)
    const short = view(bytes).getUint32(4, true)
    if (!wide && (short === 0 || short === 0xffffffff)) return unfinished
    const size = wide && at === 0 ? Number(view(head).getBigUint64(20, true)) : short
    const end = at + 8 + size
    if (end > file.sizeBytes) return cutBy(end - file.sizeBytes)
    at = end + (size % 2)
  }
  return undefined
}

/** Notes of programs that stand behind a file are shorter. Common practice, no source. */
const MOST_BEHIND_BYTES = 1024 ** 2

/**
 * A recording beyond 4 GiB, whose sizes of 32 bits began again at nought: other programs take it for as short as they
 * say.
 */
const beyondRiff = (sizeBytes: number, end: number): Cut | undefined =>
  sizeBytes - end > MOST_BEHIND_BYTES
    ? {
        missingBytes: 0,
        sentence:
          `its sizes end after ${formatBytes(end)}, and ${formatBytes(sizeBytes - end)} more follow that ` +
          'programs do not see, as in a recording of more than 4 GiB',
      }
    : undefined

/** An element's size as a variable-length number; `undefined` when it says "unknown". Source: RFC 8794, section 4. */
function ebmlNumber(bytes: Uint8Array, at: number): { length: number; value: number | undefined } | undefined {
  const first = bytes[at] ?? 0
  const length = Math.clz32(first) - 23
  if (first === 0 || at + length > bytes.length) return undefined
  let value = first & (0xff >> length)
  let unknown = value === 0xff >> length
  for (let turn = 1; turn < length; turn += 1) {
    const byte = bytes[at + turn] ?? 0
    unknown &&= byte === 0xff
    value = value * 256 + byte
  }
  return { length, value: unknown ? undefined : value }
}

/** Matroska and WebM. Source: RFC 8794 (EBML), RFC 9559 (Matroska) section 7: the Segment follows the EBML header. */
async function cutOfMatroska(file: ByteSource): Promise<Cut | undefined> {
  let at = 0
  for (let element = 0; element < 16 && at < file.sizeBytes; element += 1) {
    const bytes = await file.read(at, 16)
    const idLength = Math.clz32(bytes[0] ?? 0) - 23
    const size = ebmlNumber(bytes, idLength)
    if (!size) return undefined
    if (size.value === undefined) return startsWith(bytes, 0x18, 0x53, 0x80, 0x67) ? unfinished : undefined
    const end = at + idLength + size.length + size.value
    if (end > file.sizeBytes) return cutBy(end - file.sizeBytes)
    at = end
  }
  return undefined
}

const PACK = [0x06, 0x0e, 0x2b, 0x34, 0x02, 0x05, 0x01, 0x01, 0x0d, 0x01, 0x02, 0x01, 0x01] as const

/** Where a key-length-value item ends; SMPTE ST 336 lengths in the short and the long form. */
function klvEnd(bytes: Uint8Array, at: number): number | undefined {
  const first = bytes[16]
  if (bytes.length < 25 || first === undefined) return undefined
  if (first < 0x80) return at + 17 + first
  const count = first & 0x7f
  let value = 0
  for (let turn = 0; turn < count; turn += 1) value = value * 256 + (bytes[17 + turn] ?? 0)
  return count <= 8 ? at + 17 + count + value : undefined
}

/**
 * MXF. Source: SMPTE ST 377-1, 7 (partition packs: FooterPartition at byte 24 of the value) and 12 (random index pack).
 */
async function cutOfMxf(file: ByteSource): Promise<Cut | undefined> {
  const head = await file.read(0, 64)
  const status = head[14] ?? 0
  if (!startsWith(head, ...PACK) || head[13] !== 0x02) return undefined
  const lengthByte = head[16] ?? 0
  const valueAt = 17 + (lengthByte >= 0x80 ? lengthByte & 0x7f : 0)
  const footer = Number(view(await file.read(valueAt + 24, 8)).getBigUint64(0))
  // Open header partitions (status 1 and 3) of a finished file still name their footer.
  if (footer === 0) return status === 1 || status === 3 ? unfinished : undefined
  if (footer + 25 > file.sizeBytes) return cutBy(footer + 25 - file.sizeBytes)
  for (let at = footer, items = 0; at < file.sizeBytes && items < 10_000; items += 1) {
    const end = klvEnd(await file.read(at, 32), at)
    if (end === undefined) return cutBy(1)
    if (end > file.sizeBytes) return cutBy(end - file.sizeBytes)
    at = end
  }
  return undefined
}

const SYNC = 0x47

/** MPEG transport streams, 188 bytes a packet (ISO/IEC 13818-1, 2.4.3.2), or 192 with a time stamp in front of each. */
async function cutOfPackets(file: ByteSource): Promise<Cut | undefined> {
  const bytes = await file.read(0, 192 * 5)
  for (const [packet, first] of [
    [188, 0],
    [192, 4],
  ] as const) {
    const onGrid = bytes.length >= packet * 4 && [0, 1, 2, 3].every((turn) => bytes[first + turn * packet] === SYNC)
    const over = file.sizeBytes % packet
    if (onGrid) return over === 0 ? undefined : cutBy(packet - over)
  }
  return undefined
}
