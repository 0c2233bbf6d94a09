import { describe, expect, it } from 'vitest'
import { STATIONS } from '../../core/line/stations'
import type { Grade } from '../../core/line/needs'
import type { ProductionView } from '../../contract/productions'
import { calmWords, headlineOf } from './headline'

type States = Partial<Record<(typeof STATIONS)[number], 'empty' | 'open' | 'done' | 'worry'>>

const production = (id: string, states: States = {}, grade?: Grade): ProductionView => ({
  ...{ id, version: '1', title: id, client: '', folder: id, shootOn: null, timeZone: 'UTC' },
  line: STATIONS.map((station) => {
    const state = states[station] ?? 'empty'
    return state === 'worry'
      ? { station, state: 'open', figure: '', worry: 'a card waits' }
      : { station, state, figure: '', worry: undefined }
  }),
  next: { station: 'shoot', sentence: 'Plan it.', grade },
  needs: [],
  known: null,
})

describe('the headline of the overview', () => {
  it('is about the first production that needs somebody, whatever is newer', () => {
    expect(headlineOf([production('new'), production('old', { cards: 'worry' })])?.id).toBe('old')
    expect(headlineOf([production('new'), production('old')])?.id).toBe('new')
    expect(headlineOf([])).toBeUndefined()
    const asks = production('new', { exports: 'worry' }, 'asks')
    expect(headlineOf([asks, production('old', { copies: 'worry' }, 'danger')])?.id).toBe('old')
  })

  it('says nothing of loads and drives where there are none', () => {
    expect(calmWords([production('new')])).toBe('No card waits, and nothing was taken in yet.')
    const proved = production('proved', { copies: 'done', storage: 'done' })
    expect(calmWords([production('new'), proved])).toBe(
      'No card waits, every load is proved twice, every drive has room.',
    )
    expect(calmWords([proved, production('under way', { copies: 'open' })])).not.toContain('every load')
    expect(calmWords([production('known', { copies: 'done' })])).not.toContain('drive')
  })
})
