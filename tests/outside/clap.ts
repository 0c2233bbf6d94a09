/**
 * Puts a `clap` box (ISO/IEC 14496-12, 12.1.4) at the end of the sample entry of the last track of a file whose index
 * stands last.
 */
export function withCleanAperture(film: Buffer, widthPx: number, heightPx: number): Buffer {
  const clap = Buffer.alloc(40)
  clap.writeUInt32BE(40, 0)
  clap.write('clap', 4, 'latin1')
  for (const [at, value] of [widthPx, 1, heightPx, 1, 0, 1, 0, 1].entries()) clap.writeInt32BE(value, 8 + at * 4)
  const parents = ['moov', 'trak', 'mdia', 'minf', 'stbl', 'stsd', 'avc1'].map(
    (type) => film.lastIndexOf(type, undefined, 'latin1') - 4,
  )
  const grown = Buffer.from(film)
  for (const at of parents) grown.writeUInt32BE(film.readUInt32BE(at) + 40, at)
  const entry = parents.at(-1) ?? 0
  const end = entry + film.readUInt32BE(entry)
  return Buffer.concat([grown.subarray(0, end), clap, grown.subarray(end)])
}
