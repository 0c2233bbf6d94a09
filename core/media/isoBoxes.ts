import { ascii, view, type ByteSource } from './bytes'

/** One box of an ISO base media file. Source: ISO/IEC 14496-12, 4.2. */
export interface Box {
  readonly type: string
  readonly start: number
  readonly headBytes: number
  /** By its own size; may lie beyond the end of the file. */
  readonly end: number
}

const MOST_BOXES = 100_000

/** The boxes that stand one after another between two positions. */
export async function boxesOf(file: ByteSource, from: number, to: number): Promise<Box[]> {
  const boxes: Box[] = []
  for (let at = from; at + 8 <= to && boxes.length < MOST_BOXES;) {
    const box = boxAt(await file.read(at, 16), at, to)
    if (!box) break
    boxes.push(box)
    at = box.end
  }
  return boxes
}

/** The same for bytes that are in memory. */
export function boxesIn(bytes: Uint8Array, from: number, to: number): Box[] {
  const boxes: Box[] = []
  for (let at = from; at + 8 <= to && boxes.length < MOST_BOXES;) {
    const box = boxAt(bytes.subarray(at, at + 16), at, to)
    if (!box || box.end > to) break
    boxes.push(box)
    at = box.end
  }
  return boxes
}

function boxAt(bytes: Uint8Array, at: number, to: number): Box | undefined {
  if (bytes.length < 8) return undefined
  const short = view(bytes).getUint32(0)
  const wide = short === 1 && bytes.length >= 16
  const size = short === 0 ? to - at : wide ? Number(view(bytes).getBigUint64(8)) : short
  const headBytes = wide ? 16 : 8
  if (size < headBytes) return undefined
  return { type: ascii(bytes, 4, 4), start: at, headBytes, end: at + size }
}
