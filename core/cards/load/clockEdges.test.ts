import { describe, expect, it } from 'vitest'
import { clockFinding } from '../findings/clockFinding'
import { clockSentence, clockShift, clockShifts, shiftWords, type ClockShift } from './clock'

const MINUTE = 60_000
const HOUR = 60 * MINUTE
const NOON = Date.parse('2026-11-14T12:00:00Z')
/** Starts at so many minutes after noon. */
const at = (...minutes: number[]) => minutes.map((minute) => NOON + minute * MINUTE)
const moved = (starts: readonly number[], byMs: number) => starts.map((start) => start - byMs)
const takes = at(0, 7, 19, 42, 71)

describe('a shift of a clock', () => {
  it('is told by three takes that agree, in whatever order they come', () => {
    const three = at(0, 7, 19)
    expect(clockShift(moved(three, HOUR), three)).toEqual({
      shiftMs: HOUR,
      matched: 3,
      of: 3,
      asTheyStand: 0,
      isRound: true,
    })
    expect(clockShift(moved(three, HOUR).reverse(), [...three].reverse())).toEqual(
      clockShift(moved(three, HOUR), three),
    )
    expect(clockShift(moved(at(0, 7), HOUR), takes)).toBeUndefined()
    expect(clockShift(moved(takes, HOUR), at(0, 7))).toBeUndefined()
  })

  it('is round within a minute and a half of half an hour, and needs to be surer else', () => {
    const of = (byMs: number) => clockShift(moved(takes, byMs), takes)
    expect(of(HOUR / 2)).toMatchObject({ shiftMs: HOUR / 2, isRound: true })
    expect(of(HOUR + 90_000)).toMatchObject({ shiftMs: HOUR, isRound: true })
    expect(of(HOUR + 91_000)).toMatchObject({ shiftMs: HOUR + 91_000, isRound: false })
    expect(of(-HOUR)).toMatchObject({ shiftMs: -HOUR })
    // Two minutes are no wrong clock, and a little more is one, though no round one.
    expect(of(2 * MINUTE)).toBeUndefined()
    expect(of(2 * MINUTE + 1000)).toMatchObject({ shiftMs: 2 * MINUTE + 1000, isRound: false })
  })

  it('is told where six of ten takes agree, and not where fewer do', () => {
    const own = (together: number, alone: number) => [
      ...moved(takes.slice(0, together), HOUR),
      ...Array.from({ length: alone }, (_, turn) => NOON + 900 * HOUR + turn * turn * 37 * MINUTE),
    ]
    expect(clockShift(own(3, 2), takes)).toMatchObject({ matched: 3, of: 5 })
    expect(clockShift(own(3, 3), takes)).toBeUndefined()
  })

  it('is none where half of them begin together as they stand', () => {
    const both = [...takes, ...moved(takes, -HOUR)]
    expect(clockShift(takes, both)).toBeUndefined()
    const few = [...moved(takes, -HOUR), takes[0] ?? 0, takes[1] ?? 0]
    expect(clockShift(takes, few)).toMatchObject({ shiftMs: HOUR, asTheyStand: 2, matched: 5 })
  })

  it('counts each take once, however many begin within a minute of it', () => {
    const burst = at(0, 0.2, 0.4, 0.6)
    expect(clockShift(moved(burst, HOUR), at(0))).toBeUndefined()
    expect(clockShift(moved(at(0), HOUR), burst)).toBeUndefined()
  })

  it('is found among very many takes too', () => {
    const many = Array.from({ length: 1000 }, (_, turn) => NOON + turn * turn * 3 * MINUTE)
    expect(clockShift(moved(many, HOUR), many)).toMatchObject({ of: 400, isRound: true, shiftMs: HOUR })
  })
})

describe('loads of one production', () => {
  const load = (id: string, cameraId: string | null, starts: readonly number[]) => ({ id, label: id, cameraId, starts })

  it('ask of the one that two others contradict, else of the later one', () => {
    const shifts = (...loads: ReturnType<typeof load>[]) =>
      [...clockShifts(loads)].map(([id, { against }]) => [id, ...against])
    const late = moved(takes, HOUR)
    expect(shifts(load('A', 'a', takes), load('B', 'b', late))).toEqual([['B', 'A']])
    expect(shifts(load('B', 'b', late), load('A', 'a', takes))).toEqual([['A', 'B']])
    expect(shifts(load('B', 'b', late), load('A', 'a', takes), load('C', 'c', takes))).toEqual([['B', 'A', 'C']])
    // Two cards of one camera say nothing against each other; where nobody knows a camera, each load is one.
    expect(shifts(load('A', 'a', takes), load('B', 'a', late))).toEqual([])
    expect(shifts(load('A', null, takes), load('B', null, late))).toEqual([['B', 'A']])
    // Who filmed apart speaks for nothing.
    expect(shifts(load('A', 'a', takes), load('D', 'd', at(9000, 9100)), load('B', 'b', late))).toEqual([['B', 'A']])
    expect(shifts(load('A', 'a', takes))).toEqual([])
  })

  it('are told in words which clock is off', () => {
    const shift: ClockShift = { shiftMs: HOUR, matched: 3, of: 4, asTheyStand: 0, isRound: true, against: ['Curlew A'] }
    const said = (more: Partial<ClockShift>) => clockSentence('Teal', { ...shift, ...more })
    expect([
      said({}),
      said({ shiftMs: -HOUR, asTheyStand: 1, against: ['Curlew A', 'Plover A'] }),
      said({ isRound: false, shiftMs: 125_400 }),
    ]).toMatchInlineSnapshot(`
      [
        "The clock of “Teal” is 1 h behind that of Curlew A: moved 1 h later, 3 of 4 clips begin within a minute of one of theirs; as recorded, none does. It may be the other one that is wrong.",
        "The clock of “Teal” is 1 h ahead of that of Curlew A and Plover A: moved 1 h earlier, 3 of 4 clips begin within a minute of one of theirs; as recorded, 1 does.",
        "The clock of “Teal” is perhaps 2 min 5 s behind that of Curlew A: moved 2 min 5 s later, 3 of 4 clips begin within a minute of one of theirs; as recorded, none does. It may be the other one that is wrong.",
      ]
    `)
    expect([shiftWords(HOUR), shiftWords(-HOUR)]).toEqual(['1 h later', '1 h earlier'])
    const found = (clock: ClockShift | null, clockShiftMs: number) =>
      clockFinding({ label: 'Teal', clock, clockShiftMs })
    expect(found(null, 0)).toEqual([])
    expect(found(shift, 0)).toMatchObject([
      { kind: 'clock-off', weight: 'ask', shiftMs: HOUR, paths: [], files: 0, sentence: said({}) },
    ])
    expect(found(shift, 0)[0]?.key).not.toBe(found({ ...shift, shiftMs: 1 }, 0)[0]?.key)
    expect(found(shift, HOUR)).toMatchInlineSnapshot(`
      [
        {
          "files": 0,
          "key": "clock-moved",
          "kind": "clock-moved",
          "paths": [],
          "sentence": "The times of its clips are shown 1 h later than its camera wrote them. The files keep what they say.",
          "shiftMs": 0,
          "weight": "note",
        },
      ]
    `)
  })
})
