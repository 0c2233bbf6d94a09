import { expect, it } from 'vitest'
import { deskItems, type NeededBy } from './desk'

const production = (title: string, ...needs: NeededBy['needs']): NeededBy => ({ productionId: title, title, needs })

it('what needs a person is ranked over all productions, with what failed and what is full', () => {
  const items = deskItems(
    [
      production(
        'Ribs',
        { grade: 'unsafe', station: 'cards', sentence: 'Take it in.' },
        { grade: 'todo', station: 'proxies', sentence: 'Make it.' },
      ),
      production(
        'Launch',
        { grade: 'danger', station: 'copies', sentence: 'Copy it.' },
        { grade: 'asks', station: 'cards', desk: 'review', sentence: 'Say it.' },
      ),
    ],
    [
      { productionId: 'Launch', station: 'exports', sentence: 'It failed.' },
      { productionId: null, station: 'copies', sentence: 'It failed, too.' },
    ],
    [
      { name: 'Tide 1', state: 'tight', sentence: '5 GB before the headroom is touched.' },
      { name: 'Slipway', state: 'over', sentence: '1 GB over its limit.' },
    ],
  )
  expect(
    items.map(({ grade, of, sentence, station, desk }) =>
      [grade, of, sentence, station, desk].filter(Boolean).join(' | '),
    ),
  ).toEqual([
    'danger | Launch | Copy it. | copies',
    'unsafe | Ribs | Take it in. | cards',
    'unsafe | Launch | It failed. | exports',
    'unsafe | It failed, too. | copies',
    'unsafe | Slipway: 1 GB over its limit. | storage',
    'asks | Launch | Say it. | cards | review',
    'asks | Tide 1: 5 GB before the headroom is touched. | storage',
    'todo | Ribs | Make it. | proxies',
  ])
  expect(new Set(items.map((item) => item.key)).size).toBe(items.length)
  expect(deskItems([], [], [])).toEqual([])
})
