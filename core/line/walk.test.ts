import { describe, expect, it } from 'vitest'
import { walkPlace, type WalkFacts } from './walk'

const load = { now: 'nothing', proved: 0, isPlayed: false } as const
const at = (facts: Partial<WalkFacts>) => walkPlace({ card: 'waits', load: undefined, ...facts })

describe('the walk', () => {
  it('goes from the card to the answer', () => {
    expect(
      [
        at({ card: 'none' }),
        at({}),
        at({ load }),
        at({ load: { ...load, proved: 1 } }),
        at({ load: { ...load, proved: 2 } }),
        at({ load: { ...load, proved: 2, isPlayed: true } }),
      ].map(({ step }) => step),
    ).toEqual(['card', 'scan', 'copy', 'copy', 'play', 'answer'])
  })

  it('asks for nothing while Yendra works', () => {
    expect(at({ card: 'being scanned' })).toMatchObject({ step: 'scan', isWaiting: true })
    expect(at({ load: { ...load, now: 'copying' } })).toMatchObject({ step: 'copy', isWaiting: true })
    expect(at({ load: { ...load, now: 'asking' } }).isWaiting).toBe(true)
  })

  it('goes on with a card that was taken out once it is known', () => {
    expect(at({ card: 'none', load: { ...load, proved: 2 } }).step).toBe('play')
  })

  it('goes back to copying where a copy is lost, also after a clip was played', () => {
    expect(at({ load: { ...load, proved: 1, isPlayed: true } }).step).toBe('copy')
  })
})
