import { rateOfDecimal, type FrameRate } from '../units/frameRate'
import { startsWith, view, type ByteSource } from './bytes'

/**
 * What a TIFF or DNG file says of the pictures in it. Source: TIFF Revision 6.0, sections 2 and 8 (header, directories,
 * tags 254–279, 306, 324–325), and its sub-directories (330). From memory: DNG 50706 (version) and 51044 (frame rate).
 */
export interface TiffIndex {
  readonly images: readonly TiffImage[]
  /** A DNG: sensor data that a program has to develop. */
  readonly isRaw: boolean
  readonly rate: FrameRate | undefined
  /** `2026:11-14 09:12:00` as the file has it, without a zone. */
  readonly recorded: string | undefined
}

export interface TiffImage {
  readonly widthPx: number
  readonly heightPx: number
  readonly bitDepth: number
  /** 7 is JPEG, which is how previews are kept; 1 is none. */
  readonly compression: number
  /** 32803 is a colour filter array, 34892 linear raw. */
  readonly photometric: number
  readonly pieces: readonly { readonly offset: number; readonly bytes: number }[]
}

const MOST_DIRECTORIES = 16
const MOST_ENTRIES = 512
const MOST_VALUES = 100_000
const TYPE_BYTES: Readonly<Record<number, number>> = { 1: 1, 2: 1, 3: 2, 4: 4, 5: 8, 7: 1, 9: 4, 10: 8, 13: 4 }

const TAG = { width: 256, height: 257, bits: 258, compression: 259, photometric: 262 } as const
const STRIPS = [273, 279] as const
const TILES = [324, 325] as const
const [DATE_TIME, SUB_DIRECTORIES, DNG_VERSION, FRAME_RATE] = [306, 330, 50706, 51044] as const

/** The pictures of a TIFF file, the first directory first; `undefined` when it is none. */
export async function readTiffIndex(file: ByteSource): Promise<TiffIndex | undefined> {
  const head = await file.read(0, 8)
  const little = startsWith(head, 0x49, 0x49, 0x2a, 0x00)
  if (head.length < 8 || (!little && !startsWith(head, 0x4d, 0x4d, 0x00, 0x2a))) return undefined
  const waiting = [view(head).getUint32(4, little)]
  const seen = new Set<number>()
  const directories: ReadonlyMap<number, Values>[] = []
  for (let at = waiting.shift(); at !== undefined && directories.length < MOST_DIRECTORIES; at = waiting.shift()) {
    if (at === 0 || seen.has(at)) continue
    seen.add(at)
    const directory = await readDirectory(file, at, little)
    if (!directory) continue
    directories.push(directory.values)
    waiting.push(...(directory.values.get(SUB_DIRECTORIES)?.numbers ?? []), directory.next)
  }
  const [first] = directories
  if (!first) return undefined
  const number = first.get(FRAME_RATE)?.numbers[0]
  return {
    images: directories.flatMap(imageOf),
    isRaw: first.has(DNG_VERSION),
    rate: number !== undefined && number >= 1 && number <= 1000 ? rateOfDecimal(number) : undefined,
    recorded: directories.map((one) => one.get(DATE_TIME)?.text).find((text) => text !== undefined && text !== ''),
  }
}

interface Values {
  readonly numbers: readonly number[]
  readonly text: string
}

async function readDirectory(file: ByteSource, at: number, little: boolean) {
  const counted = await file.read(at, 2)
  if (counted.length < 2) return undefined
  const entries = Math.min(MOST_ENTRIES, view(counted).getUint16(0, little))
  const table = await file.read(at + 2, entries * 12 + 4)
  if (table.length < entries * 12) return undefined
  const values = new Map<number, Values>()
  for (let entry = 0; entry < entries; entry += 1) {
    const bytes = view(table.subarray(entry * 12, entry * 12 + 12))
    const [tag, type, count] = [bytes.getUint16(0, little), bytes.getUint16(2, little), bytes.getUint32(4, little)]
    const length = (TYPE_BYTES[type] ?? 0) * count
    if (length === 0 || count > MOST_VALUES) continue
    const raw =
      length <= 4
        ? table.subarray(entry * 12 + 8, entry * 12 + 8 + length)
        : await file.read(bytes.getUint32(8, little), length)
    if (raw.length < length) continue
    values.set(tag, valuesOf(raw, type, count, little))
  }
  const next = table.length >= entries * 12 + 4 ? view(table).getUint32(entries * 12, little) : 0
  return { values, next }
}

function valuesOf(raw: Uint8Array, type: number, count: number, little: boolean): Values {
  if (type === 2) return { numbers: [], text: String.fromCharCode(...raw.subarray(0, 80)).replace(/\0.*$/s, '') }
  const bytes = view(raw)
  const read: Record<number, (at: number) => number> = {
    1: (at) => bytes.getUint8(at),
    3: (at) => bytes.getUint16(at * 2, little),
    4: (at) => bytes.getUint32(at * 4, little),
    5: (at) => bytes.getUint32(at * 8, little) / (bytes.getUint32(at * 8 + 4, little) || 1),
    7: (at) => bytes.getUint8(at),
    9: (at) => bytes.getInt32(at * 4, little),
    10: (at) => bytes.getInt32(at * 8, little) / (bytes.getInt32(at * 8 + 4, little) || 1),
    13: (at) => bytes.getUint32(at * 4, little),
  }
  const one = read[type]
  return { numbers: one ? Array.from({ length: count }, (_, at) => one(at)) : [], text: '' }
}

function imageOf(directory: ReadonlyMap<number, Values>): TiffImage[] {
  const figure = (tag: number) => directory.get(tag)?.numbers[0] ?? 0
  const [widthPx, heightPx] = [figure(TAG.width), figure(TAG.height)]
  if (widthPx < 1 || heightPx < 1) return []
  const pieces = [STRIPS, TILES].flatMap(([offsets, lengths]) => {
    const sizes = directory.get(lengths)?.numbers ?? []
    return (directory.get(offsets)?.numbers ?? []).map((offset, at) => ({ offset, bytes: sizes[at] ?? 0 }))
  })
  return [
    {
      widthPx,
      heightPx,
      bitDepth: figure(TAG.bits) || 1,
      compression: figure(TAG.compression) || 1,
      photometric: figure(TAG.photometric),
      pieces,
    },
  ]
}

/** The picture that was taken: the largest. */
export const mainImage = (index: TiffIndex): TiffImage | undefined =>
  index.images.reduce<TiffImage | undefined>(
    (best, image) => (best && best.widthPx * best.heightPx >= image.widthPx * image.heightPx ? best : image),
    undefined,
  )

/** Where a finished JPEG of it lies in the file, the largest; `undefined` when the camera kept none. */
export const previewIn = ({ images }: TiffIndex): { offset: number; bytes: number } | undefined =>
  images
    .filter(({ compression, photometric, pieces }) => compression === 7 && photometric !== 32803 && pieces.length === 1)
    .sort((a, b) => b.widthPx - a.widthPx)[0]?.pieces[0]
