import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { likelyRig, rigFinding, rigOf, rigSentence, type LensCard } from './rig'

/** Takes of these lengths on one card, filmed half an hour apart. */
const card = (label: string, lengths: readonly number[], more: { late?: number; skew?: number } = {}): LensCard => ({
  loadId: label,
  label,
  clips: lengths.map((seconds, at) => ({
    id: `${label} ${at}`,
    name: `PLOV${String(at + 1).padStart(4, '0')}.MP4`,
    seconds: seconds + (more.skew ?? 0),
    startMs: Date.parse('2026-11-14T10:00:00Z') + at * 1_800_000 + (more.late ?? 0),
  })),
})
const LENGTHS = [62, 118, 31, 240]
const six = () => ['1', '2', '3', '4', '5', '6'].map((lens, at) => card(`Lens ${lens}`, LENGTHS, { skew: at * 0.08 }))
const sentence = (cards: readonly LensCard[]) => rigSentence('Pole', cards, rigOf(cards))

describe('the cards of a rig', () => {
  it('agree when all lenses filmed as many takes of equal length', () => {
    expect(sentence(six())).toBe('“Pole”: 6 cards, 4 takes on each, of equal length within 0.4 s.')
    expect(rigOf(six()).odd.size).toBe(0)
  })

  it('name the lens that missed a take, and which', () => {
    const cards = six()
    cards[3] = card('Lens 4', [62, 31, 240])
    expect(sentence(cards)).toBe('“Pole”: 6 cards, 4 takes; “Lens 4” is odd (nothing beside PLOV0002.MP4).')
    const { takes } = rigOf(cards)
    expect(takes.map((take) => take[3]?.name)).toEqual(['PLOV0001.MP4', undefined, 'PLOV0002.MP4', 'PLOV0003.MP4'])
  })

  it('name the lens that stopped too soon, and the one that went on alone', () => {
    const cards = six()
    cards[1] = card('Lens 2', [62, 80, 31, 240])
    cards[4] = card('Lens 5', [...LENGTHS, 12])
    expect(sentence(cards)).toBe(
      '“Pole”: 6 cards, 4 takes; “Lens 2” is odd (PLOV0002.MP4 is 38 s shorter than on the others), and “Lens 5” is odd (PLOV0005.MP4 is on no other lens).',
    )
    const finding = rigFinding('Pole', 'Lens 2', rigOf(cards).odd.get('Lens 2') ?? [])
    expect(finding).toMatchObject({ weight: 'ask', sentence: expect.stringContaining('“Lens 2” is the odd one') })
    expect(rigFinding('Pole', 'Lens 1', [])).toBeUndefined()
  })

  it('whatever one lens lost is found on that lens and on no other', () => {
    const lengths = fc.uniqueArray(fc.integer({ min: 2, max: 300 }), { minLength: 3, maxLength: 8 })
    fc.assert(
      fc.property(lengths, fc.nat(7), fc.integer({ min: 2, max: 5 }), (takes, lost, odd) => {
        // Lengths that are told apart by more than a second each.
        const far = takes.map((length) => length * 5)
        const gone = lost % far.length
        const cards = Array.from({ length: 6 }, (_, lens) =>
          card(`Lens ${lens}`, lens === odd ? far.filter((_length, at) => at !== gone) : far),
        )
        const rig = rigOf(cards)
        expect([...rig.odd.keys()]).toEqual([`Lens ${odd}`])
        expect(rig.takes[gone]?.[odd]).toBeUndefined()
        expect(rig.takes.flat().filter((clip) => clip).length).toBe(6 * far.length - 1)
      }),
    )
  })

  it('are proposed when they are alike, and never with a card that is not', () => {
    const cards = [...six(), card('Curlew A', [62, 118]), card('Late', LENGTHS, { late: 3_600_000 })]
    expect(likelyRig(cards)?.map((one) => one.label)).toEqual(six().map((one) => one.label))
    // One lens that missed a take is one of them all the same.
    const missed = [...six().slice(0, 5), card('Lens 6', LENGTHS.slice(1), { late: 1_800_000 })]
    expect(likelyRig(missed)).toHaveLength(6)
    expect(likelyRig(cards.slice(0, 2))).toBeUndefined()
    expect(likelyRig(['a', 'b', 'c'].map((label) => card(label, [9])))).toBeUndefined()
    expect(rigOf([])).toMatchObject({ takes: [] })
  })
})
