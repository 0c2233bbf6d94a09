import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { selectsTimeline, type Select } from '../../core/cards/review/selects'
import { STANDARD_RATES } from '../../core/media/cadence'
import { urlPath } from '../../core/units/urlPath'
import { readTimeline } from './readTimeline'

interface Kept {
  readonly path: Uint8Array
  readonly select: Select
}

const kept: fc.Arbitrary<Kept> = fc
  .record({
    path: fc.uint8Array({ minLength: 1, maxLength: 12 }).map((bytes) => Buffer.concat([Buffer.from('/tide/'), bytes])),
    rate: fc.constantFrom(...STANDARD_RATES),
    length: fc.integer({ min: 1, max: 100_000 }),
    hasPicture: fc.boolean(),
    hasSound: fc.boolean(),
    timecode: fc.constantFrom(undefined, '00:00:00:00', '09:12:00:10', '23:59:59:00'),
    cuts: fc.uniqueArray(fc.nat(99_999), { maxLength: 6 }),
  })
  .map(({ path, rate, length, hasPicture, hasSound, timecode, cuts }) => {
    const edges = cuts.filter((cut) => cut < length).sort((a, b) => a - b)
    const ranges = edges.flatMap((from, at) => (at % 2 === 0 ? [{ from, to: edges[at + 1] ?? length }] : []))
    const url = `file://${urlPath(path)}`
    const said = { clipId: '1', load: 'Curlew A', note: '', verdict: 'keep' as const, shot: '' }
    const file = { name: 'CURL0041.MP4', path: 'DCIM/CURL0041.MP4', sizeBytes: 5000, url }
    return {
      path,
      select: { ...said, ...file, rate, length, ranges, timecode, hasPicture, hasSound: hasSound || !hasPicture },
    }
  })

/** What should be shown, from the review alone: each range, else the whole clip, one after the other. */
function expected(all: readonly Kept[], isSilent: (one: Kept) => boolean) {
  let at = 0
  return all.flatMap((one) => {
    const { rate, length, ranges } = one.select
    const second = rate.num / rate.den
    return (ranges.length > 0 ? ranges : [{ from: 0, to: length }]).map(({ from, to }) => {
      const fromSeconds = at
      at += (to - from) / second
      const shown = isSilent(one) ? { file: undefined, inFile: 0 } : { file: one.path, inFile: from / second }
      return { fromSeconds, toSeconds: at, ...shown }
    })
  })
}

describe('selects as a timeline', () => {
  it('show just what was kept, of the right files and in the right places, read by another reader', () => {
    fc.assert(
      fc.property(fc.array(kept, { maxLength: 6 }), (all) => {
        const films = all.filter(({ select }) => select.hasPicture)
        const sounds = all.filter(({ select }) => !select.hasPicture)
        const wanted = [
          { kind: 'Video', items: expected(films, () => false) },
          ...(films.some(({ select }) => select.hasSound)
            ? [{ kind: 'Audio', items: expected(films, ({ select }) => !select.hasSound) }]
            : []),
          ...(sounds.length > 0 ? [{ kind: 'Audio', items: expected(sounds, () => false) }] : []),
        ]
        const read = readTimeline(
          selectsTimeline(
            'Steam-bending ribs',
            all.map(({ select }) => select),
          ),
        )
        expect(read.map(({ kind }) => kind)).toEqual(wanted.map(({ kind }) => kind))
        wanted.forEach(({ items }, track) => {
          expect(read[track]?.items).toHaveLength(items.length)
          items.forEach((item, at) => {
            const shown = read[track]?.items[at]
            expect(shown?.fromSeconds).toBeCloseTo(item.fromSeconds, 4)
            expect(shown?.toSeconds).toBeCloseTo(item.toSeconds, 4)
            expect(shown?.inFileSeconds).toBeCloseTo(item.inFile, 4)
            expect(shown?.file?.toString('hex')).toBe(item.file && Buffer.from(item.file).toString('hex'))
          })
        })
      }),
      { numRuns: 300 },
    )
  })

  it('are refused by that reader where they show what a file does not have', () => {
    const one = {
      ...{ name: 'CURL0041.MP4', path: 'CURL0041.MP4', load: 'Curlew A', note: '', verdict: 'keep' as const, shot: '' },
      clipId: '1',
      ...{ rate: { num: 25, den: 1 }, length: 100, timecode: undefined, hasPicture: true, hasSound: false },
      ...{ sizeBytes: 1, url: 'file:///tide/CURL0041.MP4' },
    }
    const text = selectsTimeline('x', [{ ...one, ranges: [{ from: 90, to: 100 }] }])
    expect(readTimeline(text)[0]?.items[0]?.inFileSeconds).toBe(3.6)
    expect(() => readTimeline(text.replace('"value": 100', '"value": 99'))).toThrow('shows what its file does not have')
    expect(() => readTimeline(selectsTimeline('x', [{ ...one, ranges: [], url: '/CURL0041.MP4' }]))).toThrow(
      'no address of a file',
    )
  })
})
