import { describe, expect, it } from 'vitest'
import { withCleanAperture } from './cleanAperture'
import { boxesIn, boxesOf } from './isoBoxes'
import { readIsoIndex, type IndexedTrack } from './isoIndex'
import { box, joined, sourceOf, table, u16, u32, u64 } from './testBytes'

const zeros = (length: number) => new Uint8Array(length)
type Part = Uint8Array

// Sections are those of ISO/IEC 14496-12.
const mvhd = (ticks: number) => box('mvhd', u32(0, 0, 0, ticks, 0), zeros(80))
const mdhd = (ticks: number) => box('mdhd', u32(0, 0, 0, ticks, 0), zeros(4))
const wideMdhd = (ticks: number) => box('mdhd', u32(0x01000000), u64(0, 0), u32(ticks), u64(0), zeros(4))
const tkhd = (id: number) => box('tkhd', u32(0, 0, 0, id), zeros(68))
const wideTkhd = (id: number) => box('tkhd', u32(0x01000000), u64(0, 0), u32(id), zeros(72))
const hdlr = (kind: string) => box('hdlr', u32(0, 0), kind, zeros(13))
const stts = (...runs: readonly (readonly [number, number])[]) => table('stts', runs.length, u32(...runs.flat()))
const ctts = (version: number, ...runs: readonly (readonly [number, number])[]) =>
  box('ctts', u32(version * 2 ** 24, runs.length, ...runs.flat()))
const stsz = (...sizes: readonly number[]) => box('stsz', u32(0, 0, sizes.length, ...sizes))
const stszSame = (size: number, count: number) => box('stsz', u32(0, size, count))
const stsc = (...runs: readonly (readonly [number, number])[]) =>
  table('stsc', runs.length, u32(...runs.flatMap(([chunk, samples]) => [chunk, samples, 1])))
const stco = (...places: readonly number[]) => table('stco', places.length, u32(...places))
const co64 = (...places: readonly number[]) => table('co64', places.length, u64(...places))
const stss = (...samples: readonly number[]) => table('stss', samples.length, u32(...samples))
const elst = (...edits: readonly (readonly [number, number])[]) =>
  box('edts', table('elst', edits.length, u32(...edits.flatMap(([length, from]) => [length, from, 0x10000]))))
const wideElst = (...edits: readonly (readonly [number, number])[]) =>
  box('edts', box('elst', u32(0x01000000, edits.length), ...edits.map((edit) => joined(u64(...edit), u32(0x10000)))))

const trak = (
  tables: readonly Part[],
  { edits = [] as readonly Part[], head = tkhd(1), clock = mdhd(1000), kind = 'vide' } = {},
) =>
  box(
    'trak',
    head,
    ...edits,
    box('mdia', clock, hdlr(kind), box('minf', box('vmhd', zeros(12)), box('stbl', ...tables))),
  )
const film = (...traks: readonly Part[]) => joined(box('ftyp', 'qt  ', u32(0)), box('moov', mvhd(100), ...traks))

async function indexOf(bytes: Uint8Array, sizeBytes = bytes.length) {
  const index = await readIsoIndex(sourceOf(bytes, sizeBytes))
  if (!index) throw new Error('no index')
  return index
}
async function track(...of: Parameters<typeof trak>): Promise<IndexedTrack> {
  const [first] = (await indexOf(film(trak(...of)))).tracks
  if (!first) throw new Error('no track')
  return first
}
const TEN = stts([10, 40])

describe('what an index says of a track', () => {
  it('is its number, its kind and its clock, in narrow and in wide headers', async () => {
    expect(await track([TEN])).toMatchObject({ id: 1, handler: 'vide', ticksPerSecond: 1000, storedSeconds: 0.4 })
    const wide = { head: wideTkhd(7), clock: wideMdhd(90_000), kind: 'soun' }
    expect(await track([TEN], wide)).toMatchObject({ id: 7, handler: 'soun', ticksPerSecond: 90_000 })
    // A clock of nought would divide by it.
    expect(await track([TEN], { clock: mdhd(0) })).toMatchObject({ ticksPerSecond: 1, storedSeconds: 400 })
  })

  it('is when each sample is presented: steps, and what is later or earlier than decoded', async () => {
    expect((await track([stts([3, 40], [2, 50])])).times).toEqual([0, 40, 80, 120, 170])
    expect(await track([stts([3, 40], [2, 50])])).toMatchObject({
      storedSeconds: 0.22,
      presented: { seconds: 0.22, startSeconds: 0 },
    })
    // Source: 8.6.1.3.1, an example of frames that are decoded in another order than shown.
    const shown = await track([TEN, ctts(0, [1, 40], [1, 120], [2, 0], [1, 120], [2, 0], [3, 40])])
    expect(shown.times).toEqual([40, 80, 120, 160, 200, 240, 280, 320, 360, 400])
    const early = [[1, -40], [9, 0]] as const // prettier-ignore
    for (const version of [0, 1]) {
      const { times, storedSeconds, presented } = await track([TEN, ctts(version, ...early)])
      expect(times[0]).toBe(-40)
      expect(storedSeconds).toBe(0.44)
      expect(presented).toMatchObject({ startSeconds: -0.04, seconds: 0.44 })
    }
    // Of version 0 what is beyond 31 bits is less than nought, what is below is not.
    expect((await track([stts([1, 40]), ctts(0, [1, 0x7fffffff])])).times).toEqual([0x7fffffff])
    // Offsets for more samples than there are.
    expect((await track([stts([2, 40]), ctts(0, [9, 10])])).times).toEqual([10, 50])
  })

  it('is how many bytes its samples have, all alike or each for itself', async () => {
    expect((await track([TEN])).sizeBytes).toBe(0)
    expect((await track([TEN, stszSame(100, 10)])).sizeBytes).toBe(1000)
    expect((await track([TEN, stszSame(100, 7)])).sizeBytes).toBe(700)
    expect((await track([stts([3, 40]), stsz(100, 20, 3)])).sizeBytes).toBe(123)
    expect((await track([stts([2, 40]), stsz(100, 20, 3)])).sizeBytes).toBe(120)
    // It promises more than it holds.
    expect((await track([stts([3, 40]), box('stsz', u32(0, 0, 3, 100, 20))])).sizeBytes).toBe(120)
  })

  it('is the longest way from a key frame to the next, or to the end', async () => {
    const distance = async (...keys: readonly number[]) => (await track([TEN, stss(...keys)])).keyDistance
    expect((await track([TEN])).keyDistance).toBe(1)
    expect(await distance(1, 2, 3, 4, 5, 6, 7, 8, 9, 10)).toBe(1)
    expect(await distance(1)).toBe(10)
    expect(await distance(1, 5, 7)).toBe(4)
    expect(await distance(1, 3, 4)).toBe(7)
    expect(await distance(1, 6, 11)).toBe(5)
    expect(await distance(6)).toBe(5)
    // An empty list: none is a key frame.
    expect(await distance()).toBe(10)
  })

  it('is nothing where its kind or its head is missing', async () => {
    const bare = box('trak', tkhd(1), box('mdia', mdhd(1000), box('minf', box('stbl', TEN))))
    const headless = box('trak', box('mdia', mdhd(1000), hdlr('vide'), box('minf', box('stbl', TEN))))
    expect((await indexOf(film(bare, headless))).tracks).toEqual([])
    expect((await indexOf(film(bare, trak([TEN])))).tracks).toHaveLength(1)
  })

  it('is that it is empty', async () => {
    const [first, second] = (await indexOf(film(trak([TEN]), trak([stts()], { kind: 'soun' })))).tracks
    expect([first?.isEmpty, second?.isEmpty]).toEqual([false, true])
    expect(second).toMatchObject({ times: [], storedSeconds: 0, sizeBytes: 0 })
    // Of a film in fragments the index lists nothing.
    expect((await indexOf(film(trak([stts()])))).tracks).toEqual([])
  })
})

describe('a film whose end is missing', () => {
  /** Ten samples of ten bytes from byte 1000 on, three a chunk, then two, and a gap of 100 between chunks. */
  const places = [1000, 1130, 1260, 1390]
  const tables = (offsets: Part, sizes = stszSame(10, 10)) => [TEN, sizes, stsc([1, 3], [3, 2]), offsets]
  const there = async (sizeBytes: number, offsets = stco(...places), sizes?: Part) =>
    (await indexOf(film(trak(tables(offsets, sizes))), sizeBytes)).tracks[0]

  it('has the samples that lie whole before it', async () => {
    const all = [1009, 1010, 1029, 1030, 1149, 1150, 1159, 1160, 1280, 1400, 1410, 5000]
    const counts = await Promise.all(all.map(async (size) => (await there(size))?.times.length ?? 0))
    expect(counts).toEqual([0, 1, 2, 3, 4, 5, 5, 6, 8, 9, 10, 10])
    const wide = await Promise.all(all.map(async (size) => (await there(size, co64(...places)))?.times.length ?? 0))
    expect(wide).toEqual(counts)
    const each = stsz(...Array<number>(10).fill(10))
    expect(await Promise.all(all.map(async (size) => (await there(size, undefined, each))?.times.length ?? 0))).toEqual(
      counts,
    )
    expect(await there(1149)).toMatchObject({ storedSeconds: 0.16, sizeBytes: 40, keyDistance: 1 })
    expect((await there(2 ** 33 + 30, co64(2 ** 33, 2 ** 34)))?.times.length).toBe(3)
  })

  it('has all where nothing says which chunk they lie in', async () => {
    const count = async (...of: readonly Part[]) =>
      (await indexOf(film(trak([TEN, stszSame(10, 10), ...of])), 900)).tracks[0]?.times.length
    expect(await count(stco(5000))).toBe(10)
    expect(await count(stsc([1, 10]))).toBe(10)
    expect(await count(stsc([1, 10]), stco(5000))).toBeUndefined()
  })
})

describe('an edit list', () => {
  const shown = async (...edits: readonly (readonly [number, number])[]) => {
    const [narrow, wide] = [
      await track([TEN], { edits: [elst(...edits)] }),
      await track([TEN], { edits: [wideElst(...edits)] }),
    ]
    expect(wide.presented).toEqual(narrow.presented)
    return narrow.presented
  }

  it('shows a part, begins later, or puts parts one behind the other', async () => {
    // The movie counts in hundredths, the track in thousandths.
    expect(await shown([40, 0])).toMatchObject({ seconds: 0.4, startSeconds: 0 })
    expect(await shown([20, 80])).toEqual({ times: [0, 40, 80, 120, 160], seconds: 0.2, startSeconds: 0 })
    expect(await shown([10, -1], [40, 0])).toMatchObject({ seconds: 0.4, startSeconds: 0.1 })
    expect((await shown([10, -1], [8, 40])).times).toEqual([100, 140])
    expect((await shown([8, 0], [8, 200])).times).toEqual([0, 40, 80, 120])
    expect(await shown([8, 0], [8, 200])).toMatchObject({ seconds: 0.16, startSeconds: 0 })
    // A length of nought lasts to the end, and one beyond the end ends with it.
    expect(await shown([0, 200])).toEqual({ times: [0, 40, 80, 120, 160], seconds: 0.2, startSeconds: 0 })
    expect(await shown([9000, 200])).toMatchObject({ seconds: 0.2 })
    expect(await shown([9, 900])).toEqual({ times: [], seconds: 0, startSeconds: 0 })
  })

  it('shows everything where it only waits or is empty', async () => {
    for (const edits of [[], [[10, -1]]] as const)
      expect(await shown(...edits)).toMatchObject({ seconds: 0.4, startSeconds: 0 })
  })

  it('bears half a tick of the coarser clock', async () => {
    // 160 ms are 16 hundredths: the frame there is out; with one more hundredth it is in, at 165 it is not.
    const frames = async (hundredths: number, from = 0) => (await shown([hundredths, from])).times.length
    expect([await frames(16), await frames(17)]).toEqual([4, 5])
    expect([await frames(16, 5), await frames(16, 6)]).toEqual([3, 4])
  })
})

describe('the whole index', () => {
  it('tells brand and order, and that it has none', async () => {
    const bare = box('moov', mvhd(100), trak([TEN]))
    expect(await indexOf(joined(box('ftyp', 'mp42', u32(0)), bare, box('mdat')))).toMatchObject({
      brand: 'mp42',
      indexFirst: true,
    })
    expect(await indexOf(joined(box('mdat'), bare))).toMatchObject({ brand: undefined, indexFirst: false })
    expect(await indexOf(film(trak([TEN])))).toMatchObject({ brand: 'qt', indexFirst: true, bounds: [] })
    expect(await readIsoIndex(sourceOf(box('mdat', zeros(9))))).toBeUndefined()
  })

  it('is read within bounds: 64 MiB, two million samples, a hundred tracks', async () => {
    const head = (size: number) => joined(u32(size), 'moov', mvhd(100))
    const large = await indexOf(head(64 * 1024 ** 2 + 1), 2 ** 28)
    expect(large).toMatchObject({ tracks: [], bounds: ['Its index is larger than 64 MiB and was not read.'] })
    const [limit, more] = [
      await indexOf(film(trak([stts([2_000_000, 1])]))),
      await indexOf(film(trak([stts([2_000_001, 1])], {}), trak([TEN]))),
    ]
    expect(limit.bounds).toEqual([])
    expect(more.bounds[0]).toBe('It lists more than 2 000 000 samples; those after were not read.')
    expect(more.tracks.map(({ times, isEmpty }) => [times.length, isEmpty])).toEqual([[2_000_000, false], [0, false]]) // prettier-ignore
    const many = Array.from({ length: 101 }, () => trak([stts([1, 40])]))
    expect((await indexOf(film(...many))).tracks).toHaveLength(100)
    // An index that is cut has what there is of it.
    expect((await indexOf(joined(head(64 * 1024 ** 2), trak([TEN])), 3000)).tracks).toHaveLength(1)
  })
})

describe('boxes', () => {
  const two = joined(box('free', zeros(4)), u32(1), 'mdat', u64(20), zeros(4))

  it('stand one after another, wide ones too, and the last may last to the end', async () => {
    const wanted = [
      { type: 'free', start: 0, headBytes: 8, end: 12 },
      { type: 'mdat', start: 12, headBytes: 16, end: 32 },
    ]
    expect(boxesIn(two, 0, two.length)).toEqual(wanted)
    expect(await boxesOf(sourceOf(two), 0, two.length)).toEqual(wanted)
    const last = joined(box('free'), u32(0), 'mdat', zeros(30))
    expect(boxesIn(last, 0, last.length).map(({ end }) => end)).toEqual([8, 46])
    expect(boxesIn(joined(zeros(5), two), 5, 17).map(({ start }) => start)).toEqual([5])
  })

  it('end where a size makes no sense, or in memory goes beyond', async () => {
    const long = joined(box('free'), u32(90), 'mdat', zeros(10))
    expect(boxesIn(long, 0, long.length)).toHaveLength(1)
    expect((await boxesOf(sourceOf(long), 0, long.length)).map(({ end }) => end)).toEqual([8, 98])
    for (const size of [2, 7]) expect(boxesIn(joined(u32(size), 'mdat', zeros(10)), 0, 18)).toEqual([])
    expect(boxesIn(joined(u32(1), 'mdat', u64(15), zeros(10)), 0, 26)).toEqual([])
    expect(boxesIn(joined(u32(8), 'mda'), 0, 7)).toEqual([])
    expect(boxesIn(box('free'), 0, 8)).toHaveLength(1)
    // Sixteen bytes are not there for a wide one.
    expect(boxesIn(joined(u32(1), 'mdat', zeros(4)), 0, 12)).toEqual([])
  })
})

describe('a clean aperture', () => {
  const visual = (wide: number, high: number, ...parts: readonly Part[]) =>
    table('stsd', 1, box('avc1', zeros(24), u16(wide, high), zeros(50), ...parts))
  const clap = (...fractions: readonly number[]) => box('clap', u32(...fractions))
  const aperture = async (...parts: readonly Part[]) => (await track([TEN, visual(1920, 1088, ...parts)])).cleanAperture

  it('is a part of the frame, about its centre', async () => {
    // Source: 12.1.4: width, height and the centre's distance from the middle, as fractions.
    expect(await aperture(clap(1920, 1, 1080, 1, 0, 1, -8, 2))).toEqual({ x: 0, y: 0, widthPx: 1920, heightPx: 1080 })
    expect(await aperture(clap(3680, 2, 1080, 1, 10, 1, 8, 2))).toEqual({ x: 50, y: 8, widthPx: 1840, heightPx: 1080 })
    expect(await aperture(box('btrt', zeros(12)), clap(1900, 1, 1088, 1, 0, 1, 0, 1))).toMatchObject({ x: 10 })
  })

  it('is none where it is the whole, does not fit, or cannot be read', async () => {
    const none = [
      clap(1920, 1, 1088, 1, 0, 1, 0, 1),
      clap(1920, 1, 1080, 1, 0, 1, -5, 1),
      clap(1920, 1, 1080, 1, 0, 1, 5, 1),
      clap(1900, 1, 1080, 1, 11, 1, 0, 1),
      clap(1900, 1, 1080, 1, -11, 1, 0, 1),
      clap(0, 1, 1080, 1, 0, 1, 0, 1),
      clap(1900, 1, 0, 1, 0, 1, 0, 1),
      clap(1900, 1, 1080, 1, 0, 1, 0),
    ]
    for (const one of none) expect(await aperture(one)).toBeUndefined()
    expect(await aperture()).toBeUndefined()
    expect((await track([TEN])).cleanAperture).toBeUndefined()
    expect((await track([TEN, table('stsd', 1, box('tmcd', zeros(20)))])).cleanAperture).toBeUndefined()
    // A denominator of nought counts as one.
    expect(await aperture(clap(1900, 0, 1080, 1, 0, 1, 0, 1))).toMatchObject({ widthPx: 1900, x: 10, y: 4 })
  })

  it('is written so that it is read, every box that holds it longer and every chunk further behind', async () => {
    const clean = { x: 4, y: 8, widthPx: 1900, heightPx: 1070 }
    const picture = trak([visual(1920, 1088), TEN, stco(500, 900)])
    const soundTrack = box('trak', tkhd(2), box('mdia', mdhd(48_000), hdlr('soun'), box('minf', box('smhd'), box('stbl', table('stsd', 1, box('mp4a', zeros(28))), TEN, co64(2 ** 33))))) // prettier-ignore
    const before = box('moov', mvhd(100), soundTrack, picture)
    const grown = withCleanAperture(before, clean)
    expect(grown.length).toBe(before.length + 40)
    const { tracks } = await indexOf(joined(box('ftyp', 'isom'), grown))
    expect(tracks.map((one) => one.cleanAperture)).toEqual([undefined, clean])
    const has = (part: Part) => Buffer.from(grown).includes(Buffer.from(part))
    expect([stco(540, 940), co64(2 ** 33 + 40)].map(has)).toEqual([true, true])
    // Nothing but the sizes of the seven boxes, the offsets and the new box differs.
    const clapAt = Buffer.from(grown).indexOf('clap') - 4
    const old = Uint8Array.from([...grown.subarray(0, clapAt), ...grown.subarray(clapAt + 40)])
    expect(old.filter((byte, at) => byte !== before[at]).length).toBeLessThanOrEqual(7 * 2 + 3)
    expect(() => withCleanAperture(box('moov', mvhd(100), soundTrack), clean)).toThrow('no picture')
  })
})
