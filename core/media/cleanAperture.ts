import { view } from './bytes'
import type { CleanAperture } from './facts'
import { boxesIn, type Box } from './isoBoxes'

/** Bytes of a `clap` box: head, and four fractions of 32 bits each. */
const CLAP_BYTES = 40

/**
 * The index (`moov`) of an ISO base media file with a clean aperture for its picture, and chunks that lie so much
 * further behind it. Throws where there is no picture in it. Source: ISO/IEC 14496-12, 12.1.4 `clap`, 8.7.5 `stco` and
 * `co64`.
 */
export function withCleanAperture(index: Uint8Array, clean: CleanAperture): Uint8Array {
  const grown = index.slice()
  const data = view(grown)
  const [movie] = boxesIn(grown, 0, grown.length)
  const within = (box: Box | undefined, type: string) => {
    const found = box && boxesIn(grown, box.start + box.headBytes, box.end).filter((one) => one.type === type)
    return found ?? []
  }
  let place: { readonly parents: readonly Box[]; readonly entry: Box } | undefined
  for (const track of within(movie, 'trak')) {
    const [media] = within(track, 'mdia')
    const [information] = within(media, 'minf')
    const [table] = within(information, 'stbl')
    const [descriptions] = within(table, 'stsd')
    for (const [type, bytes] of [
      ['stco', 4],
      ['co64', 8],
    ] as const)
      for (const box of within(table, type)) moveChunks(data, box, bytes)
    const [entry] = descriptions
      ? boxesIn(grown, descriptions.start + descriptions.headBytes + 8, descriptions.end)
      : []
    if (within(information, 'vmhd').length > 0 && entry && movie && media && information && table && descriptions)
      place ??= { parents: [movie, track, media, information, table, descriptions, entry], entry }
  }
  if (!place) throw new Error('There is no picture in this index.')
  for (const { start } of place.parents) data.setUint32(start, data.getUint32(start) + CLAP_BYTES)
  const { entry } = place
  // Width and height of the frame stand 24 and 26 bytes into the sample entry (12.1.3).
  const [wide, high] = [24, 26].map((at) => data.getUint16(entry.start + entry.headBytes + at))
  const clap = view(new Uint8Array(CLAP_BYTES))
  clap.setUint32(0, CLAP_BYTES)
  for (const [at, letter] of ['c', 'l', 'a', 'p'].entries()) clap.setUint8(4 + at, letter.charCodeAt(0))
  const centre = (from: number, length: number, whole = 0) => [2 * from + length - whole, 2] as const
  const numbers = [
    ...[clean.widthPx, 1, clean.heightPx, 1],
    ...[...centre(clean.x, clean.widthPx, wide), ...centre(clean.y, clean.heightPx, high)],
  ]
  for (const [at, number] of numbers.entries()) clap.setInt32(8 + at * 4, number)
  const whole = new Uint8Array(grown.length + CLAP_BYTES)
  whole.set(grown.subarray(0, entry.end))
  whole.set(new Uint8Array(clap.buffer), entry.end)
  whole.set(grown.subarray(entry.end), entry.end + CLAP_BYTES)
  return whole
}

function moveChunks(data: DataView, { start, headBytes }: Box, bytes: 4 | 8): void {
  const count = data.getUint32(start + headBytes + 4)
  for (let turn = 0; turn < count; turn += 1) {
    const at = start + headBytes + 8 + turn * bytes
    if (bytes === 4) data.setUint32(at, data.getUint32(at) + CLAP_BYTES)
    else data.setBigUint64(at, data.getBigUint64(at) + BigInt(CLAP_BYTES))
  }
}
