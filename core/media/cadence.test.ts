import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import { gridChange, measureRate, nearestStandard, unrounded, type Cadence } from './cadence'

/** Times of frames that come after so many ticks each, from a beginning. */
const after = (steps: readonly number[], from = 0) => {
  let now = from
  return [from, ...steps.map((step) => (now += step))]
}
const every = (ticks: number, frames: number, from = 0) => after(Array<number>(frames - 1).fill(ticks), from)
const of = (runs: readonly (readonly number[])[], ticks: number, ...stated: ReturnType<typeof frameRate>[]) =>
  measureRate(runs, ticks, stated)

describe('the rate of frames by their times', () => {
  it('is the one that people know, exactly', () => {
    // Source: SMPTE ST 12-1 for the rates of 1000/1001.
    expect(of([every(1001, 100)], 30_000)).toEqual({
      rate: { num: 30_000, den: 1001 },
      cadence: { kind: 'constant', average: 30_000 / 1001, offGrid: 0, measuredFrames: 100 },
    })
    expect(of([every(40, 100, 7)], 1000).rate).toEqual(frameRate(25))
    // Nobody's rate is the one that it has.
    expect(of([every(37, 100)], 1000)).toMatchObject({ rate: frameRate(1000, 37), cadence: { kind: 'constant' } })
    expect(of([every(40, 2)], 1000)).toMatchObject({ rate: frameRate(25), cadence: { measuredFrames: 2 } })
  })

  it('is the stated one where a coarse clock cannot tell, however it was rounded', () => {
    const film = Array.from({ length: 10 }, (_, at) => Math.round((at * 1001) / 24))
    expect(of([film], 1000, frameRate(23_976, 1000)).rate).toEqual(frameRate(24_000, 1001))
    expect(of([film], 1000, frameRate(24)).rate).toEqual(frameRate(24))
    // A long one tells.
    const long = Array.from({ length: 2000 }, (_, at) => Math.round((at * 1001) / 24))
    expect(of([long], 1000, frameRate(24)).rate).toEqual(frameRate(24_000, 1001))
    expect(unrounded(frameRate(2997, 100))).toEqual(frameRate(30_000, 1001))
    expect(unrounded(frameRate(2995, 100))).toEqual(frameRate(2995, 100))
    expect(unrounded(frameRate(1_000_049, 40_000))).toEqual(frameRate(25))
    expect(unrounded(frameRate(1_000_051, 40_000))).toEqual(frameRate(1_000_051, 40_000))
    expect(nearestStandard(26.163)).toEqual(frameRate(25))
    expect([1, 1000].map(nearestStandard)).toEqual([frameRate(12_000, 1001), frameRate(240)])
    // Between 24 and 25 by ratio: 24.4949.
    expect([24.49, 24.5].map(nearestStandard)).toEqual([frameRate(24), frameRate(25)])
  })

  it('is not measured without two frames, or where the clock stands', () => {
    const none = { kind: 'not measured', average: 50, offGrid: 0, measuredFrames: 0 }
    expect(of([[0]], 1000, frameRate(50))).toEqual({ rate: frameRate(50), cadence: none })
    expect(of([], 1000)).toEqual({ rate: frameRate(1), cadence: { ...none, average: 1 } })
    expect(of([[5, 5, 5]], 1000).cadence).toMatchObject({ kind: 'not measured', measuredFrames: 2 })
    // Most stand, one goes on.
    expect(of([[5, 5, 5, 45]], 1000).cadence.kind).toBe('not measured')
  })

  it('bears two hundredths of a period, or a tick, and no more', () => {
    const one = (late: number, ticks: number) => of([[...every(ticks / 25, 50), ticks * 2 + late]], ticks).cadence.kind
    expect([0, 80, -80].map((late) => one(late, 100_000))).toEqual(['constant', 'constant', 'constant'])
    expect([81, -81].map((late) => one(late, 100_000))).toEqual(['variable', 'variable'])
    expect([1, -1, 2, -2].map((late) => one(late, 1000))).toEqual(['constant', 'constant', 'variable', 'variable'])
  })

  it('is one of its own where each step is near enough to a rate that people know, and their sum is not', () => {
    expect(of([every(40_700, 100)], 1_000_000, frameRate(25)).rate).toEqual(frameRate(10_000, 407))
    const faster = after(Array.from({ length: 60 }, (_, at) => 40_000 + (at % 2) * 700))
    expect(of([faster], 1_000_000, frameRate(25)).cadence.kind).toBe('variable')
    expect(of([faster.slice(0, 58)], 1_000_000, frameRate(25)).cadence.kind).toBe('constant')
  })

  it('is measured in each stretch for itself: between them nothing is known', () => {
    const runs = [every(40, 50), every(40, 50, 90_013)]
    expect(of(runs, 1000)).toEqual({
      rate: frameRate(25),
      cadence: { kind: 'constant', average: 25, offGrid: 0, measuredFrames: 100 },
    })
    expect(of([...runs, []], 1000).cadence.measuredFrames).toBe(100)
  })
})

describe('a variable rate', () => {
  it('has a nominal rate by its usual step, and a share of frames that keep off it', () => {
    // Steps of 33⅓ and 66⅔ ms: two of three come after one period.
    const { rate, cadence } = of([after(Array.from({ length: 30 }, (_, at) => (at % 3 === 0 ? 200 : 100)))], 3000)
    expect(rate).toEqual(frameRate(30))
    expect(cadence).toEqual({
      kind: 'variable',
      average: (30 * 3000) / 4000,
      offGrid: 1 / 3,
      measuredFrames: 31,
      grid: { doubled: 10, dropped: 0 },
    })
  })

  it('drops of two frames for one place one, and doubles for each place without one', () => {
    const { cadence } = of([after([100, 100, 20, 180, 100, 300, 100, 100])], 2500)
    expect(cadence.grid).toEqual({ doubled: 2 + 1, dropped: 1 })
    expect(of([after([100, 100, 20, 180]), after([100, 100, 300, 100], 50)], 2500).cadence.grid).toEqual({
      doubled: 1 + 2,
      dropped: 1,
    })
  })

  it('changes to its own rate as measured, a part for the whole, and to another by the length', () => {
    const cadence = { kind: 'variable', average: 20, offGrid: 0.5, measuredFrames: 100, grid: { doubled: 5, dropped: 2 } } satisfies Cadence // prettier-ignore
    const film = { cadence, rate: frameRate(25), frames: 300, seconds: 12 }
    expect(gridChange(film, frameRate(25))).toEqual({ doubled: 15, dropped: 6 })
    expect(gridChange({ ...film, frames: 50 }, frameRate(25))).toEqual({ doubled: 5, dropped: 2 })
    expect(gridChange({ ...film, cadence: { ...cadence, measuredFrames: 0 } }, frameRate(25))).toEqual(cadence.grid)
    expect(gridChange(film, frameRate(50))).toEqual({ doubled: 300, dropped: 0 })
    expect(gridChange(film, frameRate(24))).toEqual({ doubled: 0, dropped: 12 })
    const { grid: _, ...constant } = cadence
    expect(gridChange({ ...film, cadence: constant }, frameRate(25))).toEqual({ doubled: 0, dropped: 0 })
  })
})

describe('holes', () => {
  const holesOf = (steps: readonly number[], ticks = 1000) => of([after(steps, 500)], ticks).cadence.holes
  const steady = Array<number>(30).fill(40)

  it('are four steps and a quarter of a second late, each at its place from the first frame', () => {
    expect(holesOf([...steady, 290, ...steady])).toEqual([{ atSeconds: 1.24, seconds: 0.25 }])
    expect(holesOf([...steady, 289, ...steady])).toBeUndefined()
    // At 5 a second a quarter of a second is little: four steps decide.
    const slow = Array<number>(30).fill(200)
    expect(holesOf([...slow, 800, ...slow])).toEqual([{ atSeconds: 6.2, seconds: 0.6 }])
    expect(holesOf([...slow, 799, ...slow])).toBeUndefined()
    expect(holesOf([400, ...steady, 1040])).toEqual([
      { atSeconds: 0.04, seconds: 0.36 },
      { atSeconds: 1.64, seconds: 1 },
    ])
  })

  it('are how it records where there are more than twenty', () => {
    const many = (count: number) => Array.from({ length: count }, () => [...steady, 400]).flat()
    expect(holesOf(many(20))).toHaveLength(20)
    expect(holesOf(many(21))).toBeUndefined()
  })

  it('are measured from the first stretch on, within each', () => {
    const { cadence } = of([every(40, 30, 500), after([...steady, 400, 40], 10_500)], 1000)
    expect(cadence.holes).toEqual([{ atSeconds: 11.24, seconds: 0.36 }])
  })
})

describe('film on a clock of fields', () => {
  const turns = (steps: number) => Array.from({ length: steps }, (_, at) => 2 + (at % 2))
  const shown = (fields: readonly number[], field = 1001, ticks = 60_000) =>
    of([after(fields.map((one) => one * field))], ticks)

  it('is told from eight steps on', () => {
    expect(shown(turns(8))).toMatchObject({ rate: frameRate(24_000, 1001), cadence: { pulldown: true } })
    expect(shown(turns(7)).cadence.pulldown).toBeUndefined()
    expect(shown(turns(8), 1000)).toMatchObject({ rate: frameRate(24), cadence: { pulldown: true } })
  })

  it('may be off its turn by two steps, or one in fifty', () => {
    const more = (steps: number, twos: number) => shown([...turns(steps), ...Array<number>(twos).fill(2)])
    expect(more(40, 2).cadence.pulldown).toBe(true)
    expect(more(40, 3).cadence.pulldown).toBeUndefined()
    expect(more(200, 4).cadence.pulldown).toBe(true)
    expect(more(200, 5).cadence.pulldown).toBeUndefined()
  })

  it('keeps to its fields within two hundredths of one', () => {
    const uneven = (late: number) =>
      of([after(turns(60).map((fields, at) => fields * 100_100 + (at === 3 ? late : 0)))], 6_000_000).cadence.pulldown
    expect(uneven(2000)).toBe(true)
    expect(uneven(2010)).toBeUndefined()
  })
})
