import { describe, expect, it } from 'vitest'
import type { Mark } from '../copies/mark'
import { lineOf, nextStep, type LoadFacts, type ProductionFacts } from './line'

const nothing: ProductionFacts = {
  plan: { cameras: 0, sizeBytes: 0, cards: 0, tooSlow: 0, notClear: 0, missing: 0 },
  cardsWaiting: 0,
  cardsLooking: 0,
  loads: [],
  proxies: { wanted: 0, made: 0, failed: 0 },
  storage: { sizeBytes: 0, tightVolume: undefined },
  exports: { made: 0, failed: 0 },
  bags: { written: 0, verified: 0 },
  closed: false,
}
const load: LoadFacts = {
  label: 'Curlew A',
  clips: 3,
  stops: 0,
  questions: 0,
  marks: [3, 2],
  clear: true,
  formatted: false,
  unseen: false,
  looking: false,
}
const planned = { ...nothing, plan: { cameras: 1, sizeBytes: 45e9, cards: 1, tooSlow: 0, notClear: 0, missing: 0 } }
const filmed = { ...planned, loads: [load], proxies: { wanted: 3, made: 3, failed: 0 } }

describe('the next step', () => {
  it('follows the order of the work, but safety goes first', () => {
    expect(nextStep(nothing).station).toBe('shoot')
    expect(nextStep({ ...nothing, closed: true }).station).toBe('storage')
    expect(nextStep(planned).station).toBe('cards')
    const short = { ...planned, plan: { ...planned.plan, missing: 2 } }
    expect(nextStep(short)).toEqual({ station: 'shoot', sentence: 'Give every take its card: 2 cards too few.' })
    expect(lineOf({ ...short, loads: [load] })[0]).toMatchObject({ state: 'done', worry: undefined })
    expect(nextStep({ ...planned, cardsWaiting: 1 }).sentence).toContain('reader')
    const looking = { ...planned, cardsLooking: 1, loads: [{ ...load, marks: [], looking: true }] }
    for (const facts of [looking, { ...planned, cardsLooking: 1 }]) {
      expect(nextStep(facts).sentence).toBe('The card in the reader is being looked at.')
      expect(lineOf(facts)[1]).toMatchObject({ station: 'cards', worry: undefined })
    }
    expect(nextStep({ ...looking, cardsWaiting: 1 }).sentence).toBe('Look at the card in the reader.')
    expect(nextStep({ ...looking, loads: [...looking.loads, { ...load, label: 'B', marks: [2] }] }).sentence).toContain(
      'Copy “B”',
    )
    expect(nextStep({ ...filmed, cardsWaiting: 1, loads: [{ ...load, marks: [2] }] })).toMatchObject({
      station: 'copies',
    })
    expect(nextStep({ ...filmed, loads: [{ ...load, marks: [2, 2] }] }).sentence).toContain('Play')
    expect(nextStep({ ...filmed, loads: [{ ...load, stops: 1, clear: false }] })).toMatchObject({
      station: 'cards',
      sentence: expect.stringContaining('Curlew A'),
    })
    const out = { ...filmed, loads: [{ ...load, unseen: true }] }
    expect(nextStep(out).sentence).toContain('Put the card of “Curlew A” in again')
    expect(lineOf(out)[1]).toMatchObject({ state: 'open', worry: 'card not looked at' })
    expect(nextStep({ ...filmed, loads: [{ ...load, unseen: true, formatted: true }] }).station).toBe('exports')
    const formatted = (marks: readonly Mark[]) =>
      nextStep({ ...filmed, cardsWaiting: 1, loads: [{ ...load, formatted: true, marks }] }).sentence
    expect(formatted([3, 1])).toContain('Copy “Curlew A” to another drive: its card is formatted')
    expect(formatted([1])).toContain('Look for the files of “Curlew A”')
    expect(formatted([3, 2])).toContain('reader')
    expect(nextStep({ ...filmed, proxies: { wanted: 3, made: 1, failed: 0 } }).sentence).toBe('Make 2 proxies.')
    expect(nextStep(filmed).station).toBe('exports')
    expect(nextStep({ ...filmed, exports: { made: 1, failed: 0 } }).station).toBe('shelf')
    expect(nextStep({ ...filmed, exports: { made: 1, failed: 0 }, bags: { written: 1, verified: 1 } }).station).toBe(
      'storage',
    )
  })
})

describe('the line', () => {
  it('has one figure a station and a worry only where there is one', () => {
    expect(lineOf(nothing).map((status) => status.state)).toEqual(Array(7).fill('empty'))
    const line = lineOf({ ...filmed, loads: [{ ...load, marks: [2, 1], stops: 2 }] })
    expect(line.map((status) => status.figure)).toEqual([
      '45.0 GB, 1 card',
      '3 clips',
      'twice copied',
      '3 of 3',
      '0 B',
      'none made',
      'nothing shelved',
    ])
    expect(line.map((status) => status.worry)).toEqual([
      undefined,
      '2 things wrong',
      '1 load not safe',
      undefined,
      undefined,
      undefined,
      undefined,
    ])
  })
})
