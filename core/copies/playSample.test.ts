import { describe, expect, it } from 'vitest'
import { piecesOf, playSample, type SampleClip } from './playSample'

const clip = (id: string, more: Partial<SampleClip> = {}): SampleClip => ({
  ...{ id, sizeBytes: 10, seconds: 60, isWatched: true, keyDistance: 1, isOdd: false },
  ...more,
})
const card = [
  ...[clip('a'), clip('b', { sizeBytes: 99 }), clip('c', { isOdd: true }), clip('d', { isWatched: false })],
  ...[clip('e', { keyDistance: 12 }), clip('f'), clip('g'), clip('h')],
]

describe('a sample that is played', () => {
  it('is drawn by risk, and each clip says why', () => {
    expect(playSample(card, 'seed').map(({ id, why }) => [id, why])).toEqual([
      ...[
        ['c', 'odd'],
        ['b', 'largest'],
        ['a', 'first'],
        ['h', 'last'],
        ['e', 'long'],
        ['d', 'unwatched'],
      ],
    ])
    expect(playSample([clip('a')], 'seed')).toMatchObject([{ id: 'a', why: 'largest' }])
    expect(playSample([], 'seed')).toEqual([])
  })

  it('is the same for a seed, another for others, and draws each clip once', () => {
    const many = Array.from({ length: 40 }, (_, at) => clip(`clip ${at}`, { isWatched: at % 2 === 0 }))
    const draw = (seed: string) => playSample(many, seed).map((one) => one.id)
    expect(draw('one')).toEqual(draw('one'))
    const seeds = Array.from({ length: 50 }, (_, at) => draw(`seed ${at}`))
    expect(seeds.every((ids) => new Set(ids).size === 6)).toBe(true)
    expect(new Set(seeds.flat()).size).toBeGreaterThan(18)
    // What was watched before is drawn when nothing else is left.
    expect(seeds.flat().filter((id) => Number(id.slice(5)) % 2 === 0 && id !== 'clip 0')).toEqual([])
  })

  it('shows beginning, middle and end, the end first where pictures lean on others, and short clips whole', () => {
    expect(piecesOf({ seconds: 60, keyDistance: 1 })).toEqual([
      ...[
        { fromSeconds: 0, seconds: 3 },
        { fromSeconds: 28.5, seconds: 3 },
        { fromSeconds: 57, seconds: 3 },
      ],
    ])
    expect(piecesOf({ seconds: 60, keyDistance: 15 }).map((piece) => piece.fromSeconds)).toEqual([57, 0, 28.5])
    expect(piecesOf({ seconds: 9, keyDistance: 15 })).toEqual([{ fromSeconds: 0, seconds: 9 }])
    expect(piecesOf({ seconds: 0, keyDistance: 1 })).toEqual([{ fromSeconds: 0, seconds: 3 }])
  })
})
