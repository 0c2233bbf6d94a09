import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { UNSEEN, usedRanges, type ClipRange } from './review'
import { fileAt, partRanges, takeClock, takeReview, type ReviewedPart } from './takeReview'

const part = (length: number, review?: Partial<typeof UNSEEN>): ReviewedPart => ({
  length,
  review: review && { ...UNSEEN, ...review },
})

describe('what is said of a take in several files', () => {
  it.each([
    ['keep', 'reject'],
    ['reject', 'keep'],
  ] as const)('is the kindest of %s and %s', (first, second) => {
    expect(takeReview([part(10, { verdict: first }), part(10, { verdict: second })]).verdict).toBe('keep')
  })

  it('has the ranges of its files on its own clock, joined where one goes on in the next', () => {
    const parts = [
      part(100, { verdict: 'keep', ranges: [{ from: 90, to: 100 }] }),
      part(50, { verdict: 'keep', ranges: [{ from: 0, to: 5 }] }),
    ]
    expect(takeReview(parts).ranges).toEqual([{ from: 90, to: 105 }])
  })

  it('has all of a file that was kept without ranges, and nothing of one that nobody decided on', () => {
    const cut = part(100, { verdict: 'keep', ranges: [{ from: 10, to: 20 }] })
    expect(takeReview([cut, part(50, { verdict: 'keep' }), part(30)]).ranges).toEqual([
      { from: 10, to: 20 },
      { from: 100, to: 150 },
    ])
  })

  it('has every note once, and the first name and shot', () => {
    const parts = [
      part(1, { note: 'wind' }),
      part(1, { note: 'wind', name: 'Slipway' }),
      part(1, { note: 'gull', name: 'Other' }),
    ]
    expect(takeReview(parts)).toMatchObject({ note: 'wind\ngull', name: 'Slipway', shotId: null })
  })

  /** Frames that are used, as a list of all: a model that knows no files. */
  const framesOf = (ranges: readonly ClipRange[], length: number) =>
    Array.from({ length }, (_, frame) => ranges.some(({ from, to }) => from <= frame && frame < to))

  it('comes back from its files as it was said', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 4 }),
        fc.array(fc.tuple(fc.nat(120), fc.nat(120)), { maxLength: 5 }),
        (lengths, drawn) => {
          const whole = lengths.reduce((sum, length) => sum + length, 0)
          const said = drawn.map(([from, length]) => ({
            from: from % whole,
            to: Math.min(whole, (from % whole) + 1 + length),
          }))
          const split = partRanges(said, lengths)
          const back = takeReview(lengths.map((length, at) => part(length, { verdict: 'keep', ranges: split[at] })))
          expect(framesOf(back.ranges, whole)).toEqual(framesOf(said, whole))
          // Each file by itself says the same of its own frames.
          const own = lengths.flatMap((length, at) =>
            framesOf(usedRanges({ frames: length, review: { ranges: split[at] ?? [] } }), length),
          )
          expect(own).toEqual(said.length === 0 ? own.map(() => true) : framesOf(said, whole))
        },
      ),
    )
  })
})

describe('a frame of a take', () => {
  it('lies in the file that it falls into', () => {
    const at = (frame: number) => fileAt([100, 50], frame)
    expect([at(0), at(99), at(100), at(149), at(400)]).toEqual([
      { file: 0, start: 0 },
      { file: 0, start: 0 },
      { file: 1, start: 100 },
      { file: 1, start: 100 },
      { file: 1, start: 100 },
    ])
  })
})

describe('the clock of a take', () => {
  const film = (num: number, length: number) => ({ ticks: { num, den: 1 }, length, seconds: length / num })

  it('counts frames where all files do at one rate, else thousandths of a second', () => {
    expect(takeClock([film(25, 100), film(25, 50)])).toEqual({ ticks: { num: 25, den: 1 }, lengths: [100, 50] })
    expect(takeClock([film(25, 100), film(1000, 2000)])).toEqual({
      ticks: { num: 1000, den: 1 },
      lengths: [4000, 2000],
    })
  })
})
