import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { belongsTo, cardTitle, filmedBetween, type CardClues, type MayHold } from './belongs'

const at = (text: string) => Date.parse(text)
const clues: CardClues = {
  cardId: 'curlew-1',
  cameraId: 'curlew',
  filmed: { from: at('2026-11-14T08:10:00Z'), to: at('2026-11-14T16:40:00Z') },
}
const production = (id: string, more: Partial<MayHold> = {}): MayHold => ({
  ...{ id, shootOn: null, timeZone: 'Europe/Dublin', cameraIds: [], cardIds: [], taken: [], ...more },
})

// Common practice, no source: the day of filming tells more than the camera, which films for everybody.
describe('the production of a card', () => {
  it('is the one of its day, also where another plans its camera and its card', () => {
    const day = production('hull', { shootOn: '2026-11-14' })
    const other = production('launch', { shootOn: '2026-12-12', cameraIds: ['curlew'], cardIds: ['curlew-1'] })
    expect(belongsTo(clues, [other, day])).toEqual({ productionId: 'hull', why: 'filmed on its day' })
    expect(belongsTo(clues, [other])).toMatchObject({ why: 'a card of its plan, by a camera of its plan' })
    expect(belongsTo(clues, [{ ...other, shootOn: '2026-11-14' }, day])).toMatchObject({ productionId: 'launch' })
  })

  it('is the one whose other cards were filmed in the same hours, over midnight and across zones as well', () => {
    // Also where a plan speaks for another: a person said so of the cards before.
    const taken = [{ cameraId: 'heron', from: at('2026-11-13T22:00:00Z'), to: at('2026-11-13T23:30:00Z') }]
    expect(belongsTo(clues, [production('new', { shootOn: '2026-11-14' }), production('hull', { taken })])).toEqual({
      productionId: 'hull',
      why: 'filmed together with 1 card of it',
    })
    // 14 November in Auckland is still the 13th in Dublin.
    const late = { ...clues, filmed: { from: at('2026-11-13T11:30:00Z'), to: at('2026-11-13T11:40:00Z') } }
    const zones = [
      production('auckland', { shootOn: '2026-11-14', timeZone: 'Pacific/Auckland' }),
      production('dublin', { shootOn: '2026-11-14' }),
    ]
    expect(belongsTo(late, zones)).toEqual({ productionId: 'auckland', why: 'filmed on its day' })
  })

  it('is the one for which more speaks, one thing against another', () => {
    const filmed = { from: at('2026-11-01T08:00:00Z'), to: at('2026-11-01T09:00:00Z') }
    const near = { cameraId: 'heron', from: at('2026-11-14T08:00:00Z'), to: at('2026-11-14T09:00:00Z') }
    const falling = [
      production('filmed beside', { taken: [near] }),
      production('its day', { shootOn: '2026-11-14' }),
      production('a card of its plan', { cardIds: ['curlew-1'] }),
      production('a camera of its plan', { cameraIds: ['curlew'] }),
      production('a camera that filmed for it', { taken: [{ cameraId: 'curlew', ...filmed }] }),
      production('nothing'),
    ]
    for (const [rank, { id }] of falling.slice(0, -1).entries())
      expect(belongsTo(clues, falling.slice(rank).toReversed())?.productionId).toBe(id)
  })

  it('is none where two are as likely, and the only one there is without anything', () => {
    const two = [production('a', { cameraIds: ['curlew'] }), production('b', { cameraIds: ['curlew'] })]
    expect(belongsTo(clues, two)).toBeUndefined()
    expect(belongsTo(clues, [production('a'), production('b')])).toBeUndefined()
    const nothing = { cardId: undefined, cameraId: undefined, filmed: undefined }
    expect(belongsTo(nothing, [production('a')])).toEqual({ productionId: 'a', why: 'the only production' })
    expect(belongsTo(nothing, [])).toBeUndefined()
  })

  it('never goes by the order in which productions are listed', () => {
    const some = <T>(...all: T[]) => fc.subarray(all)
    const any = fc.array(
      fc.record({
        shootOn: fc.constantFrom(null, '2026-11-13', '2026-11-14', '2026-12-12'),
        ...{ cameraIds: some('curlew', 'heron'), cardIds: some('curlew-1', 'heron-1') },
        taken: some({ cameraId: 'curlew', from: at('2026-11-14T07:00:00Z'), to: at('2026-11-14T07:30:00Z') }),
      }),
      { minLength: 1, maxLength: 5 },
    )
    fc.assert(
      fc.property(any, (all) => {
        const productions = all.map((one, n) => production(String(n), one))
        expect(belongsTo(clues, productions.toReversed())).toEqual(belongsTo(clues, productions))
      }),
    )
  })

  it('is not told by a clock that was never set', () => {
    expect(filmedBetween([{ modifiedMs: at('1980-01-01T00:00:00Z') }])).toBeUndefined()
    expect(
      filmedBetween([at('2026-11-14T10:00:00Z'), at('1980-01-01T00:00:00Z'), 5].map((modifiedMs) => ({ modifiedMs }))),
    ).toEqual({ from: at('2026-11-14T10:00:00Z'), to: at('2026-11-14T10:00:00Z') })
  })
})

describe('the name of a card', () => {
  it('is that of the gear book, else the camera with a letter that is free, else its own; never two alike', () => {
    expect(cardTitle({ gearName: 'Curlew 1', cameraName: 'Curlew', ownName: 'NO NAME' }, [])).toBe('Curlew 1')
    expect(cardTitle({ cameraName: 'Curlew', ownName: 'NO NAME' }, ['curlew a', 'Curlew C'])).toBe('Curlew B')
    expect(cardTitle({ ownName: 'HERON' }, [])).toBe('HERON')
    expect(cardTitle({}, ['Card A'])).toBe('Card B')
    expect(
      cardTitle(
        {},
        Array.from({ length: 26 }, (_, n) => `Card ${String.fromCharCode(65 + n)}`),
      ),
    ).toBe('Card')
  })
})
