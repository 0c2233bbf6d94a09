import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { HEADROOM_SHARE, storageSentence, sumByClass, volumeBudget } from './budget'

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

  it('is tight from below the headroom on, and over from below nothing on', () => {
    // A volume of 1 000 bytes with 200 kept free: 600 used leave just the headroom, 800 leave just nothing.
    const at = (usedBytes: number) => volumeBudget({ capacityBytes: 1000, usedBytes, headroomShare: 0.2 })
    expect([600, 601, 800, 801].map((used) => at(used).state)).toEqual(['roomy', 'tight', 'tight', 'over'])
    expect(at(600).sentence).toBe('200 B can still be planned.')
    expect(at(601).sentence).toBe('199 B before the headroom is touched.')
    expect(at(801).sentence).toBe('1 B over its limit: clean or move before the next shoot.')
    expect(at(2000)).toMatchObject({ freeBytes: 0, plannableBytes: -200 })
  })

  it('keeps 15 % of an edit drive free and 5 % of any other', () => {
    // Common practice, no source.
    expect(HEADROOM_SHARE).toEqual({ edit: 0.15, other: 0.05 })
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

describe('the answer of the station', () => {
  const volume = (name: string, usedBytes: number, more: { kind?: string; connected?: boolean } = {}) => ({
    ...{ name, kind: 'archive', connected: true, ...more },
    budget: volumeBudget({ capacityBytes: 1000, usedBytes, headroomShare: 0.2 }),
  })

  it('names what is too full first, connected or not, and sums what is over', () => {
    const tight = volume('Tide 1', 700)
    expect(storageSentence([tight, volume('Slipway', 850), volume('Tide 2', 900, { connected: false })])).toBe(
      'Slipway and Tide 2 are too full: 150 B of the headroom are used.',
    )
    expect(storageSentence([tight, volume('Slipway', 850)])).toBe('Slipway is too full: 50 B of the headroom is used.')
  })

  it('names what is nearly full next, with the least that is left, and only where it is connected', () => {
    const all = [volume('Tide 1', 700), volume('Slipway', 750), volume('Tide 2', 100)]
    expect(storageSentence(all)).toBe('Tide 1 and Slipway are nearly full: 50 B before the headroom is touched.')
    expect(storageSentence([volume('Tide 1', 700)])).toBe(
      'Tide 1 is nearly full: 100 B before the headroom is touched.',
    )
    expect(storageSentence([volume('Tide 1', 700, { connected: false })])).toBe('Every connected volume has room.')
  })

  it('says what the edit drive can still take, where one is connected', () => {
    const archive = volume('Tide 1', 0)
    expect(storageSentence([archive, volume('Slipway', 300, { kind: 'edit' })])).toBe('Slipway can still take 500 B.')
    expect(storageSentence([archive, volume('Slipway', 300, { kind: 'edit', connected: false })])).toBe(
      'Every connected volume has room.',
    )
  })
})
