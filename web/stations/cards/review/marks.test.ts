import { describe, expect, it } from 'vitest'
import { begunAt, endedAt as endedIn } from './marks'

const endedAt = (...[ranges, frame, begun]: [Parameters<typeof endedIn>[0], number, number | undefined]) =>
  endedIn(ranges, frame, begun, { length: 100, step: 1 })

describe('ranges that are marked by in and out', () => {
  it('go from the in to the out, whichever of the two was pressed further on', () => {
    expect(endedAt([], 8, 5)).toEqual([{ from: 5, to: 9 }])
    expect(endedAt([], 5, 8)).toEqual([{ from: 5, to: 9 }])
    expect(endedAt([], 8, 8)).toEqual([{ from: 8, to: 9 }])
    expect(endedAt([], 8, undefined)).toEqual([{ from: 0, to: 9 }])
    // In thousandths of a second at about 25 frames a second, also at the very end.
    const variable = { length: 7000, step: 40 }
    expect(endedIn([], 5000, 1000, variable)).toEqual([{ from: 1000, to: 5040 }])
    expect(endedIn([], 6990, 1000, variable)).toEqual([{ from: 1000, to: 7000 }])
  })

  it('are shortened where one lies under the frame, and stand in their order', () => {
    const ranges = [
      { from: 0, to: 4 },
      { from: 10, to: 20 },
    ]
    expect(begunAt(ranges, 15)).toEqual([ranges[0], { from: 15, to: 20 }])
    expect(begunAt(ranges, 7)).toBeUndefined()
    expect(endedAt(ranges, 15, undefined)).toEqual([ranges[0], { from: 10, to: 16 }])
    expect(endedAt(ranges, 8, 5)).toEqual([ranges[0], { from: 5, to: 9 }, ranges[1]])
  })
})
