import { ascii, startsWith, view, type ByteSource } from './bytes'
import { mainImage, readTiffIndex } from './tiffIndex'

/** So much behind the end of a picture may be a note of the camera. Common practice, no source. */
const TAIL = 64 * 1024

/**
 * Whether the end of a picture in a file of its own is missing, told from what its format promises. Nothing is decoded.
 * `false` where the format promises nothing.
 */
export async function isFrameCut(file: ByteSource): Promise<boolean> {
  const head = await file.read(0, 32)
  if (head.length < 12) return true
  const number = (at: number, little: boolean) => view(head).getUint32(at, little)
  // JPEG, ITU-T T.81, B.1.1.3: an image ends with EOI; JPEG 2000, ITU-T T.800, A.4.4: a codestream ends with EOC,
  // alike.
  if (startsWith(head, 0xff, 0xd8) || startsWith(head, 0xff, 0x4f) || ascii(head, 4, 4) === 'jP  ')
    return !(await endsWith(file, [0xff, 0xd9]))
  // Source: PNG (W3C), 5.3 and 11.2.5.
  if (ascii(head, 1, 3) === 'PNG') return !(await endsWith(file, PNG_END))
  // Source: SMPTE ST 268-1, file information header, fields 1 and 4; all ones say nothing.
  if (['SDPX', 'XPDS'].includes(ascii(head, 0, 4))) {
    const promised = number(16, ascii(head, 0, 4) === 'XPDS')
    return promised !== 0xffffffff && promised > file.sizeBytes
  }
  if (startsWith(head, 0x76, 0x2f, 0x31, 0x01)) return isExrCut(file)
  if (ascii(head, 0, 2) === 'BM') return number(2, true) > file.sizeBytes
  if (ascii(head, 0, 4) === 'RIFF') return number(4, true) + 8 > file.sizeBytes
  if (!startsWith(head, 0x49, 0x49, 0x2a, 0x00) && !startsWith(head, 0x4d, 0x4d, 0x00, 0x2a)) return false
  // Its directory may stand behind the picture, and is the first to go then.
  const index = await readTiffIndex(file)
  if (!index || !mainImage(index)?.pieces.length) return true
  return index.images.some(({ pieces }) => pieces.some(({ offset, bytes }) => offset + bytes > file.sizeBytes))
}

/** `IEND` and its checksum. */
const PNG_END = [0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82]

/**
 * In the second half alone, since a small picture for the back of a camera stands before the large one, and ends alike.
 */
async function endsWith(file: ByteSource, mark: readonly number[]): Promise<boolean> {
  const from = Math.max(Math.floor(file.sizeBytes / 2), file.sizeBytes - TAIL)
  const tail = await file.read(from, file.sizeBytes - from)
  for (let at = tail.length - mark.length; at >= 0; at -= 1)
    if (mark.every((byte, place) => tail[at + place] === byte)) return true
  return false
}

const MOST_ATTRIBUTES = 1000

/**
 * Source: OpenEXR file layout: attributes, an empty name, a table of 64-bit offsets up to the first chunk, chunks with
 * their size.
 */
async function isExrCut(file: ByteSource): Promise<boolean> {
  let at = 8
  for (let attributes = 0; attributes < MOST_ATTRIBUTES; attributes += 1) {
    const bytes = await file.read(at, 600)
    const name = bytes.indexOf(0)
    if (name === 0) break
    const type = bytes.indexOf(0, name + 1)
    if (name < 0 || type < 0 || type + 5 > bytes.length) return at + 600 > file.sizeBytes
    at += type + 5 + view(bytes).getUint32(type + 1, true)
  }
  const table = at + 1
  const offset = async (entry: number): Promise<number> => {
    const bytes = await file.read(table + entry * 8, 8)
    return bytes.length < 8 ? Infinity : Number(view(bytes).getBigUint64(0, true))
  }
  const first = await offset(0)
  // Written last: nothing but zeros means that it never came to its end.
  if (first === 0 || first > file.sizeBytes) return true
  const chunks = Math.floor((first - table) / 8)
  let last = first
  for (let entry = 1; entry < chunks; entry += 1) last = Math.max(last, await offset(entry))
  const size = await file.read(last + 4, 4)
  return size.length < 4 || last + 8 + view(size).getUint32(0, true) > file.sizeBytes
}
