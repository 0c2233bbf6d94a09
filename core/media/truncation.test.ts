import { describe, expect, it } from 'vitest'
import { box, joined, numbers, sourceOf, table, u32, u64 } from './testBytes'
import { findCut } from './truncation'

const zeros = (length: number) => new Uint8Array(length)
/** What is missing of bytes, or of the first of them; `false` where nothing is. */
async function missing(bytes: Uint8Array, sizeBytes = bytes.length): Promise<number | string | false> {
  const cut = await findCut(sourceOf(bytes, sizeBytes))
  return cut === undefined ? false : cut.missingBytes || cut.sentence
}
const OPEN = 'the recording was never finished: its sizes were not filled in'

// Source of each container: the standard named in truncation.ts, built here by hand.
describe('the end of boxes', () => {
  const index = (...offsets: readonly Uint8Array[]) =>
    box('moov', box('trak', box('mdia', box('minf', box('stbl', box('stsd'), ...offsets)))))
  const at = (...places: readonly number[]) => table('stco', places.length, u32(...places))

  it('is missing where the last box is longer than the file', async () => {
    const film = joined(box('ftyp', 'isom'), box('moov'), box('mdat', zeros(100)))
    expect(await missing(film)).toBe(false)
    expect(await missing(film.subarray(0, -1))).toBe(1)
    expect(await missing(film.subarray(0, -100))).toBe(100)
    expect(await missing(film.subarray(0, -101))).toBe(false)
    for (const type of ['moov', 'mdat', 'wide', 'free', 'skip'])
      expect(await missing(box(type, zeros(20)).subarray(0, -3)), type).toBe(3)
    expect(await missing(box('uuid', zeros(20)).subarray(0, -3))).toBe(false)
    // A size of nought lasts to the end; one beyond 32 bits stands behind the type.
    expect(await missing(joined(box('ftyp', 'isom'), u32(0), 'mdat', zeros(50)))).toBe(false)
    expect(await missing(joined(box('ftyp', 'isom'), u32(1), 'mdat', u64(70), zeros(50)))).toBe(4)
  })

  it('is missing where the index names a chunk that is not there', async () => {
    const film = (...tables: readonly Uint8Array[]) =>
      joined(box('ftyp', 'isom'), index(...tables), box('mdat', zeros(8)))
    const size = film(at(0, 0)).length
    expect(await missing(film(at(0, size - 1)))).toBe(false)
    expect(await missing(film(at(0, size)))).toBe(1)
    expect(await missing(film(at(0, size + 9)))).toBe(10)
    // The last is the furthest; of two tracks the further one counts.
    expect(await missing(film(at(), at(0, 900)))).toBe(901 - film(at(), at(0, 900)).length)
    const wide = film(table('co64', 2, u64(0, 2 ** 33)))
    expect(await missing(wide)).toBe(2 ** 33 + 1 - wide.length)
    // An empty table, and one whose single entry is not whole, name nothing.
    expect(await missing(film(at()))).toBe(false)
    expect(await missing(film(box('stco', u32(0, 1)), box('stsz', u32(9999))))).toBe(false)
    expect(await missing(joined(box('ftyp', 'isom'), box('mdat', at(5000))))).toBe(false)
    expect(await missing(joined(index(at(12)), index(at(5000))))).toBe(false)
  })
})

describe('the end of chunks', () => {
  const riff = (kind: string, size: number, ...rest: readonly (Uint8Array | string)[]) =>
    joined(kind, numbers(4, [size], true), 'WAVE', ...rest)

  it('is missing where the size says so, with a byte that fills an odd one up', async () => {
    expect(await missing(riff('RIFF', 24, zeros(20)))).toBe(false)
    expect(await missing(riff('RIFF', 25, zeros(20)))).toBe(1)
    expect(await missing(riff('RIFF', 23, zeros(20)))).toBe(false)
    // A second form follows the first, after a filled-up byte.
    expect(await missing(joined(riff('RIFF', 23, zeros(20)), riff('RIFF', 30, zeros(10))))).toBe(16)
    expect(await missing(joined(riff('RIFF', 24, zeros(20)), riff('RIFF', 14, zeros(10))))).toBe(false)
    // Fewer than twelve bytes behind the last are no form.
    expect(await missing(joined(riff('RIFF', 24, zeros(20)), 'RIFF', numbers(4, [99], true), zeros(3)))).toBe(false)
  })

  it('was never written where the size is nought or all ones', async () => {
    for (const size of [0, 0xffffffff]) expect(await missing(riff('RIFF', size, zeros(20)))).toBe(OPEN)
    expect(await missing(riff('RF64', 0xffffffff, zeros(20)))).toBe(OPEN)
  })

  it('is told by 64 bits where it has them, in the first form alone', async () => {
    const large = (kind: string, size: number, ...rest: readonly Uint8Array[]) =>
      riff(kind, 0xffffffff, 'ds64', numbers(4, [28], true), numbers(8, [size], true), zeros(32), ...rest)
    expect(await missing(large('RF64', 52))).toBe(false)
    expect(await missing(large('RF64', 60))).toBe(8)
    expect(await missing(large('BW64', 60))).toBe(8)
    expect(await missing(large('RIFF', 60))).toBe(OPEN)
    expect(await missing(large('RF64', 52, riff('RIFF', 30, zeros(10))))).toBe(16)
  })

  it('has more behind it only where that is no note', async () => {
    const wrapped = riff('RIFF', 24, zeros(20))
    expect(await missing(wrapped, wrapped.length + 1024 ** 2)).toBe(false)
    expect(await missing(wrapped, wrapped.length + 1024 ** 2 + 1)).toContain('1.05 MB more follow')
  })
})

describe('the end of elements', () => {
  const EBML = Uint8Array.of(0x1a, 0x45, 0xdf, 0xa3)
  const SEGMENT = Uint8Array.of(0x18, 0x53, 0x80, 0x67)
  const head = joined(EBML, Uint8Array.of(0x84), zeros(4))
  const segment = (size: readonly number[], bytes: number) => joined(head, SEGMENT, Uint8Array.from(size), zeros(bytes))

  it('is missing where the segment is longer than the file', async () => {
    expect(await missing(segment([0x94], 20))).toBe(false)
    expect(await missing(segment([0x95], 20))).toBe(1)
    // Source: RFC 8794, 4: the same number in two, four and eight bytes.
    expect(await missing(segment([0x40, 0x15], 20))).toBe(1)
    expect(await missing(segment([0x41, 0x00], 20))).toBe(236)
    expect(await missing(segment([0x10, 0, 0, 21], 20))).toBe(1)
    expect(await missing(segment([0x01, 0, 0, 0, 0, 0, 1, 0], 20))).toBe(236)
  })

  it('was never written where the segment says unknown; of others it is no promise', async () => {
    expect(await missing(segment([0xff], 20))).toBe(OPEN)
    expect(await missing(segment([0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff], 20))).toBe(OPEN)
    expect(await missing(segment([0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xfe], 20))).toBeGreaterThan(2 ** 55)
    expect(await missing(joined(head, Uint8Array.of(0x1f, 0x43, 0xb6, 0x75, 0xff), zeros(20)))).toBe(false)
    expect(await missing(joined(head, SEGMENT, zeros(1), zeros(20)))).toBe(false)
    // A size that is cut itself.
    expect(await missing(joined(head, SEGMENT, Uint8Array.of(0x01, 0, 0)))).toBe(false)
  })

  it('is told by the second segment too', async () => {
    expect(await missing(joined(segment([0x94], 20), SEGMENT, Uint8Array.of(0x95), zeros(20)))).toBe(1)
  })
})

describe('the end of keys, lengths and values', () => {
  const KEY = Uint8Array.of(0x06, 0x0e, 0x2b, 0x34, 0x02, 0x05, 0x01, 0x01, 0x0d, 0x01, 0x02, 0x01, 0x01)
  /** A partition pack: kind 2 is the header, 4 the footer; status 1 is open. Its footer's place at byte 24. */
  const pack = (kind: number, status: number, footer: number, length = Uint8Array.of(0x83, 0, 0, 88)) =>
    joined(KEY, Uint8Array.of(kind, status, 0), length, zeros(24), u64(footer), zeros(56))
  const header = (footer: number, status = 4) => pack(2, status, footer)
  const size = header(0).length
  const item = (length: readonly number[], bytes: number) =>
    joined(KEY, zeros(3), Uint8Array.from(length), zeros(bytes))

  it('is missing where the footer is, or what stands behind it is longer than the file', async () => {
    expect(size).toBe(108)
    expect(await missing(joined(header(size), pack(4, 4, size)))).toBe(false)
    expect(await missing(joined(header(size), pack(4, 4, size)).subarray(0, -1))).toBe(1)
    expect(await missing(joined(header(size), zeros(24)))).toBe(1)
    expect(await missing(joined(header(size + 5), zeros(24)))).toBe(6)
    expect(await missing(joined(header(size), pack(4, 4, size), item([10], 10)))).toBe(false)
    expect(await missing(joined(header(size), pack(4, 4, size), item([10], 9)))).toBe(1)
    expect(await missing(joined(header(size), pack(4, 4, size), item([0x81, 200], 100)))).toBe(100)
    expect(await missing(joined(header(size), pack(4, 4, size), item([0x82, 1, 0], 250)))).toBe(6)
    // A key that is cut before its length, and a length that no standard has.
    expect(await missing(joined(header(size), pack(4, 4, size), zeros(16)))).toBe(1)
    expect(await missing(joined(header(size), pack(4, 4, size), item([0x89, 0, 0, 0, 0, 0, 0, 0, 0, 1], 30)))).toBe(1)
  })

  it('was never written where an open header names no footer', async () => {
    const by = (status: number, footer = 0) => missing(joined(header(footer, status), zeros(40)))
    expect(await Promise.all([1, 2, 3, 4].map((status) => by(status)))).toEqual([OPEN, false, OPEN, false])
    expect(await missing(joined(pack(2, 1, size), pack(4, 4, size)))).toBe(false)
    // No header partition, and another key: no promise.
    expect(await missing(joined(pack(3, 1, 0), zeros(40)))).toBe(false)
    expect(await missing(joined(KEY.with(12, 0x02), header(0, 1).subarray(13), zeros(40)))).toBe(false)
    // A length of one byte moves the footer's place.
    expect(await missing(joined(pack(2, 4, 500, Uint8Array.of(88)), zeros(40)))).toBe(500 + 25 - 145)
  })
})

describe('the end of packets', () => {
  const packets = (size: number, count: number, first = 0) =>
    joined(...Array.from({ length: count }, () => joined(zeros(first), Uint8Array.of(0x47), zeros(size - 1 - first))))

  it('is missing where the last one is not whole', async () => {
    expect(await missing(packets(188, 5))).toBe(false)
    expect(await missing(packets(188, 5).subarray(0, -1))).toBe(1)
    expect(await missing(packets(188, 5).subarray(0, -187))).toBe(187)
    expect(await missing(packets(192, 6, 4))).toBe(false)
    expect(await missing(packets(192, 6, 4).subarray(0, -10))).toBe(10)
    // Four on their places are enough, three are not.
    expect(await missing(packets(188, 4))).toBe(false)
    expect(await missing(joined(packets(188, 4), zeros(1)))).toBe(187)
    expect(await missing(joined(packets(188, 3), zeros(200)))).toBe(false)
    expect(await missing(packets(188, 4).subarray(0, -1))).toBe(false)
  })

  it('is told in the words of one byte and of more', async () => {
    const sentence = async (bytes: Uint8Array) => (await findCut(sourceOf(bytes)))?.sentence
    expect(await sentence(packets(188, 5).subarray(0, -1))).toBe('its end is missing: at least 1 byte')
    expect(await sentence(packets(188, 5).subarray(0, -2))).toBe('its end is missing: at least 2 bytes')
    expect(await sentence(box('mdat', 'abc'))).toBeUndefined()
  })
})
