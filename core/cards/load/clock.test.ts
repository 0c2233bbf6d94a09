import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clockSentence, clockShift, clockShifts } from './clock'

const at = (text: string) => Date.parse(`2026-11-14T${text}Z`)
const HOUR = 3_600_000
const curlew = ['09:12:00', '09:31:00', '09:40:00', '11:02:00'].map(at)

describe('a clock that is off by a constant', () => {
  it('is found from takes that cameras were started for together', () => {
    const phone = ['13:12:20', '13:31:05', '15:02:10'].map(at)
    expect(clockShift(phone, curlew)).toEqual({ shiftMs: -4 * HOUR, matched: 3, of: 3, asTheyStand: 0, isRound: true })
  })

  it('is not claimed where times agree, where too few do, or where filming was apart', () => {
    expect(
      clockShift(
        curlew.map((start) => start + 20_000),
        curlew,
      ),
    ).toBeUndefined()
    expect(
      clockShift(
        curlew.slice(0, 2).map((start) => start + HOUR),
        curlew,
      ),
    ).toBeUndefined()
    // An evening of its own: no constant fits three takes.
    expect(clockShift(['18:00:00', '18:07:00', '18:31:00', '19:50:00'].map(at), curlew)).toBeUndefined()
    // One take a quarter of an hour, on both sides: every quarter fits, so none does.
    const everyQuarter = Array.from({ length: 20 }, (_, turn) => at('09:00:00') + turn * 900_000)
    expect(
      clockShift(
        everyQuarter.slice(0, 6).map((start) => start + HOUR),
        everyQuarter,
      ),
    ).toBeUndefined()
  })

  it('is the estimate whatever else was filmed alone', () => {
    let tried = 0
    let told = 0
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 480 }), { minLength: 6, maxLength: 14 }),
        fc.integer({ min: 1, max: 22 }),
        fc.boolean(),
        fc.integer({ min: 0, max: 25 }),
        (minutes, halfHours, isAhead, jitter) => {
          // Gaps grow, so that no two of them are alike.
          const takes = [...minutes]
            .sort((a, b) => a - b)
            .map((minute, turn) => (minute * 7 + turn * turn * 3) * 60_000)
          const shift = (isAhead ? -1 : 1) * halfHours * HALF_HOUR
          const mine = takes.map((take, turn) => take - shift + ((turn * jitter) % 30) * 1000)
          const found = clockShift([...mine, 999 * HOUR], takes)
          tried += 1
          if (!found) return
          told += 1
          expect(found.shiftMs).toBe(shift)
        },
      ),
      { seed: 20261126, numRuns: 200 },
    )
    expect(told / tried).toBeGreaterThan(0.9)
  })

  it('is asked of one camera, not of all the others', () => {
    const load = (id: string, starts: readonly number[], cameraId: string | null = null) => ({
      id,
      label: id,
      cameraId,
      starts,
    })
    const phone = load('Teal', ['13:12:20', '13:31:05', '15:02:10'].map(at))
    const found = clockShifts([
      load('Curlew A', curlew),
      load(
        'Plover A',
        curlew.map((start) => start + 9000),
      ),
      phone,
    ])
    expect([...found.keys()]).toEqual(['Teal'])
    expect(clockSentence('Teal', found.get('Teal') as never)).toBe(
      'The clock of “Teal” is 4 h ahead of that of Curlew A and Plover A: moved 4 h earlier, 3 of 3 clips begin within a minute of one of theirs; as recorded, none does.',
    )
    // Two alone: the one that came later is asked about, and it is said that it may be the other; of two cards of one
    // camera neither.
    expect([...clockShifts([load('Curlew A', curlew), phone]).keys()]).toEqual(['Teal'])
    expect([...clockShifts([phone, load('Curlew A', curlew)]).keys()]).toEqual(['Curlew A'])
    expect(clockShifts([load('a', curlew, 'one'), load('b', phone.starts, 'one')]).size).toBe(0)
  })

  it('is found among many clips without waiting', () => {
    const many = Array.from({ length: 5000 }, (_, turn) => turn * 97_000 + ((turn * turn * 31) % 61) * 1000)
    expect(() =>
      clockShift(
        many.map((start) => start + HOUR),
        many,
      ),
    ).not.toThrow()
  })
})

const HALF_HOUR = 1_800_000
