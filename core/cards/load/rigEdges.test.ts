import { describe, expect, it } from 'vitest'
import { likelyRig, rigFinding, rigOf, rigSentence, type LensCard, type LensClip } from './rig'

const NOON = Date.parse('2026-11-14T12:00:00Z')
/** Takes of these lengths, an hour apart; `undefined` is an hour in which this lens did not film. */
const card = (label: string, lengths: readonly (number | undefined)[], more: Partial<LensClip> = {}): LensCard => ({
  ...{ loadId: label, label },
  clips: lengths.flatMap((seconds, at) =>
    seconds === undefined
      ? []
      : [{ id: `${label}${at}`, name: `PLOV000${at + 1}.MP4`, seconds, startMs: NOON + at * 3_600_000, ...more }],
  ),
})
const names = (cards: readonly LensCard[]) =>
  rigOf(cards).takes.map((take) => take.map((clip) => clip?.name.slice(4, 8) ?? '-').join(' '))
const odd = (cards: readonly LensCard[]) =>
  [...rigOf(cards).odd].map(
    ([id, oddities]) =>
      `${id}: ${oddities.map((one) => (one.kind === 'missing' ? `- ${one.beside}` : `${one.name} ${one.seconds}/${one.others}`)).join(', ')}`,
  )

describe('takes of several lenses', () => {
  it('are laid side by side in their order, with what is missing left out', () => {
    expect(names([card('A', [10, 50, 90]), card('B', [10, 50, 90])])).toEqual(['0001 0001', '0002 0002', '0003 0003'])
    expect(names([card('A', [10, 50, 90]), card('B', [undefined, 50, 90]), card('C', [10, 50, 90])])).toEqual([
      ...['0001 - 0001', '0002 0002 0002', '0003 0003 0003'],
    ])
    expect(names([card('A', [10, 50, 90]), card('B', [10, undefined, 90]), card('C', [10, 50, 90])])[1]).toBe(
      '0002 - 0002',
    )
    expect(names([card('A', [10, 50, 90]), card('B', [10, 50]), card('C', [10, 50, 90])])[2]).toBe('0003 - 0003')
    expect(names([card('A', []), card('B', [])])).toEqual([])
    expect(names([])).toEqual([])
    expect(rigOf([card('A', [10]), card('B', [])]).odd.size).toBe(1)
  })

  it('are as many as most lenses have; of equally many lenses the larger count', () => {
    expect(odd([card('A', [10, 50]), card('B', [10, 50]), card('C', [10, 50, 90])])).toEqual(['C: PLOV0003.MP4 90/0'])
    expect(odd([card('A', [10, 50]), card('B', [10, 50, 90])])).toEqual(['A: - PLOV0003.MP4'])
    expect(odd([card('C', [10, 50, 90]), card('A', [10, 50]), card('B', [10, 50])])).toEqual(['C: PLOV0003.MP4 90/0'])
  })

  it('are equal to within a second, by the length in the middle', () => {
    const of = (...seconds: number[]) => odd(seconds.map((one, at) => card(String(at), [one, 500])))
    expect(of(10, 11, 10)).toEqual([])
    expect(of(10, 11.01, 10)).toEqual(['1: PLOV0001.MP4 11.01/10'])
    expect(of(10, 9, 10)).toEqual([])
    expect(of(10, 8.99, 10)).toEqual(['1: PLOV0001.MP4 8.99/10'])
    expect(rigOf([card('A', [10]), card('B', [10.4]), card('C', [10.1])]).spreadSeconds).toBeCloseTo(0.4, 9)
    // A lens that is odd does not count for the others.
    expect(rigOf([card('A', [10]), card('B', [10.4]), card('C', [99])]).spreadSeconds).toBeCloseTo(0.4, 9)
  })

  it('of thousands are laid side by side one by one', () => {
    const many = (count: number) =>
      card(
        'X',
        Array.from({ length: count }, (_, at) => at),
      )
    const [one, other] = [many(2001), { ...many(2000), loadId: 'Y', label: 'Y' }]
    const { takes } = rigOf([one, other])
    expect(takes).toHaveLength(2001)
    expect(takes[2000]?.[1]).toBeUndefined()
    expect(takes[1999]?.[1]?.seconds).toBe(1999)
  })

  it('are said in one sentence, the odd lens named', () => {
    const said = (...cards: LensCard[]) => rigSentence('Pole', cards, rigOf(cards))
    expect([
      said(card('A', [10]), card('B', [10])),
      said(card('A', [10, 20]), card('B', [10.1, 20])),
      said(card('A', [10, 20]), card('B', [10.09, 20])),
      said(card('A', [10]), card('B', [15]), card('C', [10])),
      said(card('A', [10]), card('B', [5]), card('C', [10])),
      said(card('A', [10, 20, 30, 40]), card('B', [15, 25, 35, undefined]), card('C', [10, 20, 30, 40])),
      said(card('A', [10, 60, 110, 160, 210]), card('B', [10]), card('C', [10, 60, 110, 160, 210])),
      said(card('A', [10, 60]), card('B', [10]), card('C', [60]), card('D', [10, 60])),
    ]).toMatchInlineSnapshot(`
      [
        "“Pole”: 2 cards, 1 take on each, of equal length.",
        "“Pole”: 2 cards, 2 takes on each, of equal length.",
        "“Pole”: 2 cards, 2 takes on each, of equal length.",
        "“Pole”: 3 cards, 1 take; “B” is odd (PLOV0001.MP4 is 5 s longer than on the others).",
        "“Pole”: 3 cards, 1 take; “B” is odd (PLOV0001.MP4 is 5 s shorter than on the others).",
        "“Pole”: 3 cards, 4 takes; “B” is odd (nothing beside PLOV0001.MP4; PLOV0001.MP4 is 5 s shorter than on the others; PLOV0002.MP4 is 5 s shorter than on the others; and 1 more).",
        "“Pole”: 3 cards, 5 takes; “B” is odd (nothing beside PLOV0002.MP4; nothing beside PLOV0003.MP4; nothing beside PLOV0004.MP4; and 1 more).",
        "“Pole”: 4 cards, 2 takes; “B” is odd (nothing beside PLOV0002.MP4), and “C” is odd (nothing beside PLOV0001.MP4).",
      ]
    `)
    const length = { kind: 'length', name: 'X.MP4', seconds: 9, others: 10 } as const
    const found = rigFinding('Pole', 'B', [length, { kind: 'missing', beside: 'Y.MP4' }])
    expect(found).toMatchObject({ kind: 'rig', weight: 'ask', files: 2, paths: [] })
    expect(found?.sentence).toBe(
      'In the rig “Pole”, “B” is the odd one: X.MP4 is 1 s shorter than on the others; nothing beside Y.MP4. Did this lens not run, or is the rest on another card?',
    )
    expect(rigFinding('Pole', 'B', [length])?.key).not.toBe(found?.key)
    expect(rigFinding('Mast', 'B', [length])?.key).not.toBe(rigFinding('Pole', 'B', [length])?.key)
  })
})

describe('cards that may be one rig', () => {
  const labels = (...cards: LensCard[]) =>
    likelyRig(cards)
      ?.map(({ label }) => label)
      .join('')
  const three = ['A', 'B', 'C'].map((label) => card(label, [10, 50, 90]))
  const [a, b, c] = three as [LensCard, LensCard, LensCard]

  it('are three at least, called alike, with takes of equal length at the same time', () => {
    expect(labels(a, b, c)).toBe('ABC')
    expect(labels(a, b)).toBeUndefined()
    expect(labels()).toBeUndefined()
    const other = (more: Partial<LensClip>) => card('D', [10, 50, 90], more)
    expect(labels(a, b, c, other({}))).toBe('ABCD')
    expect(labels(a, b, other({ name: 'CLIP_2026.MOV' }))).toBeUndefined()
    expect(labels(a, b, other({ seconds: 900 }))).toBeUndefined()
    expect(labels(a, b, other({ startMs: undefined }))).toBe('ABD')
    const late = (ms: number) => ({
      ...c,
      clips: c.clips.map((clip) => ({ ...clip, startMs: (clip.startMs ?? 0) + ms })),
    })
    expect([labels(a, b, late(59_999)), labels(a, b, late(60_000)), labels(a, b, late(-59_999))]).toEqual([
      'ABC',
      undefined,
      'ABC',
    ])
  })

  it('share two takes at least, and six of ten', () => {
    const some = (label: string, ...lengths: (number | undefined)[]) => card(label, lengths)
    expect(labels(some('A', 10), some('B', 10), some('C', 10))).toBeUndefined()
    expect(labels(some('A', 10, 50), some('B', 10, 50), some('C', 10, 50))).toBe('ABC')
    const five = [10, 50, 90, 130, 170]
    expect(labels(some('A', ...five), some('B', ...five), some('C', 10, 50, 90))).toBe('ABC')
    expect(labels(some('A', ...five), some('B', ...five), some('C', 10, 50))).toBeUndefined()
    expect(labels(some('A', ...five), some('B', ...five), some('C', 10, 50, 90, 500, 600))).toBe('ABC')
    expect(labels(some('A', ...five), some('B', ...five), some('C', 10, 50, 400, 500, 600))).toBeUndefined()
  })

  it('are the largest such set', () => {
    const far = ['X', 'Y', 'Z', 'W'].map((label) => card(label, [300, 700]))
    expect(labels(...three, ...far)).toBe('XYZW')
    expect(labels(...far, ...three)).toBe('XYZW')
  })
})
