import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cameraByHabits, habitsOf } from '../cards/files/habit'
import { BIG_WORDS, bigCard, bigState, type WatchedCard } from './unattended'

const load = {
  ...{ label: 'Curlew A', lookDone: true, verified: 0, wrong: 0, played: false },
  ...{ copying: undefined, copyFault: undefined },
}
const card: WatchedCard = {
  ...{ name: 'CURLEW', ruleOn: true, looking: false, scanFault: undefined },
  ...{ cameraKnown: true, load: undefined },
}

describe('a card that nobody watches', () => {
  it('is scanned when its camera is known, then copied, then proved', () => {
    expect(bigCard(card)).toMatchObject({ state: 'busy', act: 'look' })
    expect(bigCard({ ...card, cameraKnown: false })).toMatchObject({ state: 'unknown', act: undefined })
    expect(bigCard({ ...card, load })).toMatchObject({ state: 'busy', act: 'copy' })
    expect(bigCard({ ...card, load: { ...load, copying: 0.4 } })).toMatchObject({ share: 0.4, act: undefined })
    expect(bigCard({ ...card, load: { ...load, verified: 2 } })).toMatchObject({ state: 'proved', act: undefined })
  })

  it('is wrong when a look or a copy failed, or something is wrong with it, and is then left to a person', () => {
    for (const wrong of [
      { ...card, scanFault: 'The reader went away.' },
      { ...card, load: { ...load, lookDone: false } },
      { ...card, load: { ...load, copyFault: 'Tide is full.' } },
      { ...card, load: { ...load, verified: 2, wrong: 1 } },
    ])
      expect(bigCard(wrong)).toMatchObject({ state: 'wrong', act: undefined })
  })

  it('is never said to be clear, nor proved with fewer than two copies, whatever is known of it', () => {
    const any = fc.record({
      name: fc.constant('x'),
      ruleOn: fc.boolean(),
      looking: fc.boolean(),
      scanFault: fc.option(fc.constant('fault'), { nil: undefined }),
      cameraKnown: fc.boolean(),
      load: fc.option(
        fc.record({
          label: fc.constant('x'),
          lookDone: fc.boolean(),
          verified: fc.integer({ min: 0, max: 3 }),
          wrong: fc.integer({ min: 0, max: 2 }),
          played: fc.boolean(),
          copying: fc.option(fc.double({ min: 0, max: 1, noNaN: true }), { nil: undefined }),
          copyFault: fc.option(fc.constant('fault'), { nil: undefined }),
        }),
        { nil: undefined },
      ),
    })
    fc.assert(
      fc.property(any, (watched) => {
        const said = bigCard(watched)
        expect(`${BIG_WORDS[said.state]} ${said.sentence}`).not.toMatch(/\byes\b|clear to format|may be formatted/i)
        // Nothing is promised that nobody will do.
        if (!watched.ruleOn) expect([said.act, /\bwill be\b/.test(said.sentence)]).toEqual([undefined, false])
        if (said.state === 'proved') expect(watched.load).toMatchObject({ lookDone: true, wrong: 0 })
        if (said.state === 'proved') expect(watched.load?.verified).toBeGreaterThanOrEqual(2)
      }),
    )
  })

  it('tells the worst of several first', () => {
    expect(bigState([{ state: 'proved' }, { state: 'busy' }, { state: 'wrong' }])).toBe('wrong')
    expect(bigState([{ state: 'proved' }, { state: 'busy' }])).toBe('busy')
    expect(bigState([])).toBe('waiting')
    expect(bigState([{ state: 'wrong' }, { state: 'danger' }])).toBe('danger')
    expect(bigState([{ state: 'unsafe' }, { state: 'proved' }])).toBe('proved')
    expect(bigState([{ state: 'unsafe' }])).toBe('unsafe')
  })
})

describe('the camera of a card', () => {
  const known = [
    {
      cameraId: 'curlew',
      habits: habitsOf(['DCIM/100CURLW/CURL0041.MP4', 'DCIM/100CURLW/CURL0041.XML', 'MISC/VERSION.TXT']),
    },
    { cameraId: 'plover', habits: habitsOf(['DCIM/100PLOVR/PLOV0107.MP4']) },
  ]

  it('is known by how its files are called, whatever their numbers', () => {
    expect(habitsOf(['a/CURL0041.MP4', 'b/curl0042.mp4'])).toEqual(['CURL#.MP#'])
    expect(cameraByHabits(habitsOf(['DCIM/101CURLW/CURL0990.MP4', 'DCIM/101CURLW/CURL0990.XML']), known)).toBe('curlew')
    expect(cameraByHabits(habitsOf(['X/HERON_0001.MP4']), known)).toBeUndefined()
    // What two cameras share tells neither, and what every phone writes tells none.
    const backupCards = ['a', 'b'].map((cameraId) => ({ cameraId, habits: ['CURL#.MP#'] }))
    expect(cameraByHabits(['CURL#.MP#'], backupCards)).toBeUndefined()
    expect(
      cameraByHabits(habitsOf(['20261114_091200.MP4']), [{ cameraId: 'phone', habits: ['#_#.MP#'] }]),
    ).toBeUndefined()
    expect(cameraByHabits([], known)).toBeUndefined()
  })
})
