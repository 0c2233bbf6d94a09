import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sumByClass, volumeBudget } from './budget'

describe('the room on a volume', () => {
  it('keeps the headroom out of every plan', () => {
    // Common practice, no source: 10–20 % of an edit drive stays free.
    expect(volumeBudget({ capacityBytes: 1e12, usedBytes: 0.8e12, headroomShare: 0.15 })).toMatchObject({
      freeBytes: 2e11,
      headroomBytes: 1.5e11,
      plannableBytes: 5e10,
      state: 'tight',
    })
    expect(volumeBudget({ capacityBytes: 1e12, usedBytes: 0.9e12, headroomShare: 0.15 }).state).toBe('over')
    expect(volumeBudget({ capacityBytes: 1e12, usedBytes: 0.1e12, headroomShare: 0.15 }).state).toBe('roomy')
  })

  it('never plans more than is free', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e15 }),
        fc.integer({ min: 0, max: 2e15 }),
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        (capacityBytes, usedBytes, headroomShare) => {
          const budget = volumeBudget({ capacityBytes, usedBytes, headroomShare })
          expect(budget.freeBytes).toBeGreaterThanOrEqual(0)
          expect(budget.plannableBytes).toBeLessThanOrEqual(budget.freeBytes)
        },
      ),
    )
  })

  it('names every class once, even when it is empty', () => {
    expect(
      sumByClass([
        { byteClass: 'outputs', sizeBytes: 2 },
        { byteClass: 'outputs', sizeBytes: 3 },
      ]),
    ).toEqual([
      { byteClass: 'originals', sizeBytes: 0 },
      { byteClass: 'generated', sizeBytes: 0 },
      { byteClass: 'outputs', sizeBytes: 5 },
    ])
  })
})
