import { describe, expect, it } from 'vitest'
import { isFrameCut } from './frameEnd'
import { joined, numbers, sourceOf } from './testBytes'
import { mainImage, previewIn, readTiffIndex, type TiffImage, type TiffIndex } from './tiffIndex'

/** One entry of a directory: tag, type and its values; two numbers each for fractions. Source: TIFF 6.0, section 2. */
type Entry = readonly [tag: number, type: number, values: readonly number[] | string]
const BYTES: Readonly<Record<number, number>> = { 1: 1, 3: 2, 4: 4, 5: 4, 7: 1, 9: 4, 10: 4, 13: 4 }

const zeros = (length: number) => new Uint8Array(length)

/** A file of directories one behind the other; a sub-directory is named by its place among `more`. */
function tiff(little: boolean, directories: readonly (readonly Entry[])[], tail = zeros(0)): Uint8Array {
  const n = (bytes: number, ...values: readonly number[]) => numbers(bytes, values, little)
  const parts: Uint8Array[] = [joined(little ? 'II' : 'MM', n(2, 42), n(4, 8))]
  let at = 8
  for (const [turn, entries] of directories.entries()) {
    const behind = at + 2 + entries.length * 12 + 4
    let extra: Uint8Array = zeros(0)
    const rows = entries.map(([tag, type, values]) => {
      const raw = typeof values === 'string' ? joined(values) : n(BYTES[type] ?? 1, ...values)
      const count = type === 5 || type === 10 ? values.length / 2 : values.length
      const place = behind + extra.length
      if (raw.length > 4) extra = joined(extra, raw)
      return joined(n(2, tag, type), n(4, count), raw.length > 4 ? n(4, place) : joined(raw, zeros(4 - raw.length)))
    })
    const end = behind + extra.length
    parts.push(n(2, entries.length), ...rows, n(4, turn < directories.length - 1 ? end : 0), extra)
    at = end
  }
  return joined(...parts, tail)
}

const image = (wide: number, high: number, ...more: readonly Entry[]): Entry[] => [
  [256, 3, [wide]],
  [257, 4, [high]],
  ...more,
]
async function read(directories: readonly (readonly Entry[])[], little = true): Promise<TiffIndex> {
  const index = await readTiffIndex(sourceOf(tiff(little, directories)))
  if (!index) throw new Error('no index')
  return index
}

describe('the directories of a TIFF file', () => {
  it.each([true, false])('are read in either order of bytes, little first: %s', async (little) => {
    const index = await read([image(64, 48, [258, 3, [12, 12, 12]], [259, 3, [7]], [262, 4, [32_803]], [273, 4, [500, 900]], [279, 3, [400, 30]])], little) // prettier-ignore
    expect(index.images).toEqual([
      {
        ...{ widthPx: 64, heightPx: 48, bitDepth: 12, compression: 7, photometric: 32_803 },
        pieces: [
          { offset: 500, bytes: 400 },
          { offset: 900, bytes: 30 },
        ],
      },
    ])
    expect(index).toMatchObject({ isRaw: false, rate: undefined, recorded: undefined })
  })

  it('have defaults, tiles beside strips, and no picture without a size', async () => {
    const { images } = await read([image(9, 9, [324, 4, [100, 200]], [325, 4, [50]], [273, 4, [1]], [279, 4, [2]])])
    expect(images).toMatchObject([{ bitDepth: 1, compression: 1, photometric: 0 }])
    expect(images[0]?.pieces).toEqual([
      { offset: 1, bytes: 2 },
      { offset: 100, bytes: 50 },
      { offset: 200, bytes: 0 },
    ])
    expect((await read([[[256, 3, [9]]], image(0, 9), image(9, 0), image(1, 1)])).images).toMatchObject([
      { widthPx: 1 },
    ])
  })

  it('give numbers of every type', async () => {
    const bits = async (type: number, values: readonly number[]) => (await read([image(9, 9, [258, type, values])])).images[0]?.bitDepth // prettier-ignore
    expect(await bits(1, [16])).toBe(16)
    expect(await bits(3, [300])).toBe(300)
    expect(await bits(4, [70_000])).toBe(70_000)
    expect(await bits(5, [25, 2])).toBe(12.5)
    expect(await bits(5, [25, 0])).toBe(25)
    expect(await bits(7, [9])).toBe(9)
    expect(await bits(9, [-3])).toBe(-3)
    expect(await bits(10, [-25, 2])).toBe(-12.5)
    expect(await bits(10, [-25, 0])).toBe(-25)
    expect(await bits(13, [8])).toBe(8)
    // An unknown type, a text and nothing: the default.
    expect([await bits(6, [9]), (await read([image(9, 9, [258, 2, '9']), []])).images[0]?.bitDepth, await bits(3, [])]).toEqual([1, 1, 1]) // prettier-ignore
  })

  it('tell when, how fast and that it is raw', async () => {
    const dated = (text: string): Entry => [306, 2, text]
    expect((await read([image(9, 9, dated('2026:06:04 11:12:13\0junk'))])).recorded).toBe('2026:06:04 11:12:13')
    expect((await read([image(9, 9, dated('\0')), image(9, 9, dated('later'))])).recorded).toBe('later')
    expect((await read([image(9, 9, dated('x'.repeat(90)))])).recorded).toHaveLength(80)
    expect((await read([image(9, 9, [50_706, 1, [1, 4, 0, 0]])])).isRaw).toBe(true)
    const rate = async (num: number, den: number) => (await read([image(9, 9, [51_044, 10, [num, den]])])).rate
    expect(await rate(24_000, 1001)).toEqual({ num: 24_000, den: 1001 })
    expect([await rate(1, 1), await rate(1000, 1), await rate(1001, 1), await rate(9, 10)]).toEqual([
      ...[{ num: 1, den: 1 }, { num: 1000, den: 1 }, undefined, undefined],
    ])
  })

  it('may name others below them, each read once, sixteen at most', async () => {
    const first = image(9, 9)
    // The second stands behind the first, whose values all fit into their entries.
    const at = 8 + 2 + 4 * 12 + 4
    const sub = tiff(true, [[...first, [330, 4, [at]], [259, 3, [1]]], image(20, 20)])
    expect((await readTiffIndex(sourceOf(sub)))?.images.map(({ widthPx }) => widthPx)).toEqual([9, 20])
    const circle = tiff(true, [[...first, [330, 4, [8]]]])
    expect((await readTiffIndex(sourceOf(circle)))?.images).toHaveLength(1)
    expect((await read(Array.from({ length: 17 }, () => image(9, 9)))).images).toHaveLength(16)
  })

  it('are none of another file, and end where the file does', async () => {
    const whole = tiff(true, [image(9, 9), image(8, 8, [306, 2, 'a long text'])])
    const images = async (bytes: Uint8Array) => (await readTiffIndex(sourceOf(bytes)))?.images.length
    expect(await images(whole)).toBe(2)
    expect(await images(whole.subarray(0, -1))).toBe(2)
    const second = whole.length - 11 - (2 + 3 * 12 + 4)
    expect(await images(whole.subarray(0, second + 1))).toBe(1)
    expect(await images(whole.subarray(0, second + 2 + 35))).toBe(1)
    expect(await images(whole.subarray(0, second + 2 + 36))).toBe(2)
    expect(await images(whole.subarray(0, 7))).toBeUndefined()
    expect(await images(whole.subarray(0, 9))).toBeUndefined()
    expect(await images(whole.with(0, 0x4d))).toBeUndefined()
    expect(await images(whole.with(2, 43))).toBeUndefined()
    expect(await images(joined('MM', zeros(20)))).toBeUndefined()
    expect(await images(joined('II', numbers(2, [42], true), zeros(20)))).toBeUndefined()
  })
})

describe('the pictures of a file', () => {
  const one = (widthPx: number, change: Partial<TiffImage> = {}): TiffImage => ({
    ...{ widthPx, heightPx: 10, bitDepth: 8, compression: 7, photometric: 6, pieces: [{ offset: widthPx, bytes: 1 }] },
    ...change,
  })
  const index = (...images: readonly TiffImage[]) => ({ images, isRaw: false, rate: undefined, recorded: undefined })

  it('are the largest, of two alike the first, and a preview that is finished and in one piece', () => {
    expect(mainImage(index(one(5), one(9), one(9, { bitDepth: 12 }), one(7)))).toEqual(one(9))
    expect(mainImage(index(one(8, { heightPx: 2 }), one(4)))).toEqual(one(4))
    expect(mainImage(index())).toBeUndefined()
    const [two, plain, sensor] = [{ pieces: [] }, { compression: 1 }, { photometric: 32_803 }]
    expect(previewIn(index(one(9, two), one(9, plain), one(9, sensor), one(5), one(6), one(4)))?.offset).toBe(6)
    expect(previewIn(index(one(9, plain)))).toBeUndefined()
  })
})

describe('a picture in a file of its own', () => {
  const cut = (bytes: Uint8Array, sizeBytes = bytes.length) => isFrameCut(sourceOf(bytes, sizeBytes))

  it('ends with its mark, a note of at most 64 KiB behind it, and not with that of a small one before', async () => {
    const jpeg = (kind: number, ...rest: readonly Uint8Array[]) => joined(Uint8Array.of(0xff, kind), zeros(40), ...rest)
    const END = Uint8Array.of(0xff, 0xd9)
    for (const kind of [0xd8, 0x4f]) {
      expect(await cut(jpeg(kind, END))).toBe(false)
      expect(await cut(jpeg(kind))).toBe(true)
    }
    expect(await cut(joined(zeros(4), 'jP  ', zeros(40), END))).toBe(false)
    expect(await cut(joined(zeros(4), 'jP  ', zeros(40)))).toBe(true)
    expect(await cut(jpeg(0xd8, END, zeros(41)))).toBe(false)
    expect(await cut(jpeg(0xd8, END, zeros(42)))).toBe(true)
    const large = (behind: number) => jpeg(0xd8, zeros(200_000), END, zeros(behind))
    expect(await cut(large(64 * 1024 - 2))).toBe(false)
    expect(await cut(large(64 * 1024 - 1))).toBe(true)
    const png = joined(Uint8Array.of(0x89), 'PNG', zeros(40), 'IEND', Uint8Array.of(0xae, 0x42, 0x60, 0x82))
    expect([await cut(png), await cut(png.subarray(0, -1))]).toEqual([false, true])
  })

  it('is as long as it promises', async () => {
    const dpx = (mark: string, size: number, little: boolean) =>
      joined(mark, zeros(12), numbers(4, [size], little), zeros(30))
    for (const [mark, little] of [['SDPX', false], ['XPDS', true]] as const) // prettier-ignore
      expect(await Promise.all([50, 51, 0xffffffff].map((size) => cut(dpx(mark, size, little))))).toEqual([false, true, false]) // prettier-ignore
    const bmp = (size: number) => cut(joined('BM', numbers(4, [size], true), zeros(40)))
    expect([await bmp(46), await bmp(47)]).toEqual([false, true])
    const webp = (size: number) => cut(joined('RIFF', numbers(4, [size], true), 'WEBP', zeros(30)))
    expect([await webp(34), await webp(35)]).toEqual([false, true])
  })

  it('has its directories, and every piece that they name', async () => {
    const strip = (offset: number, bytes: number) => tiff(true, [image(9, 9, [273, 4, [offset]], [279, 4, [bytes]])], zeros(80)) // prettier-ignore
    const size = strip(0, 0).length
    expect([await cut(strip(size - 5, 5)), await cut(strip(size - 5, 6))]).toEqual([false, true])
    expect(await cut(tiff(false, [image(9, 9)]))).toBe(true)
    expect(await cut(joined('II', numbers(2, [42], true), zeros(20)))).toBe(true)
    // A second picture that is not there.
    const second = tiff(true, [image(9, 9, [273, 4, [8]], [279, 4, [1]]), image(8, 8, [273, 4, [9000]], [279, 4, [1]])])
    expect(await cut(second)).toBe(true)
  })

  it('of light has every chunk of its table', async () => {
    const MAGIC = Uint8Array.of(0x76, 0x2f, 0x31, 0x01)
    const attribute = (name: string, bytes: number) =>
      joined(`${name}\0box2i\0`, numbers(4, [bytes], true), zeros(bytes))
    // Two chunks of ten bytes, each with its line and its size before it.
    const head = joined(MAGIC, numbers(4, [2], true), attribute('window', 16), attribute('long', 700), zeros(1))
    const at = head.length + 16
    const good = joined(head, numbers(8, [at, at + 18], true), numbers(4, [0, 10], true), zeros(10), numbers(4, [1, 10], true), zeros(10)) // prettier-ignore
    const chunks = (change: (bytes: Uint8Array) => Uint8Array) => cut(change(good))
    expect(await chunks((bytes) => bytes)).toBe(false)
    expect(await chunks((bytes) => joined(bytes, zeros(9)))).toBe(false)
    expect(await chunks((bytes) => bytes.subarray(0, -1))).toBe(true)
    expect(await chunks((bytes) => bytes.subarray(0, at + 20))).toBe(true)
    expect(await chunks((bytes) => bytes.subarray(0, at - 8))).toBe(true)
    expect(await chunks((bytes) => bytes.subarray(0, 300))).toBe(true)
    expect(await chunks((bytes) => bytes.subarray(0, 40))).toBe(true)
    // The chunk that stands last is the one that counts, wherever the table names it.
    const turned = joined(head, numbers(8, [at + 18, at], true), good.subarray(at))
    expect(await cut(turned.subarray(0, -1))).toBe(true)
  })

  it('is cut where not even its head is there, and makes no promise where nobody knows it', async () => {
    expect([await cut(zeros(11)), await cut(zeros(12)), await cut(joined('plain text of a note'))]).toEqual([
      ...[true, false, false],
    ])
  })
})
