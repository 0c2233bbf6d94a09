import { expect, it } from 'vitest'
import { bagInfo, bagManifest } from './bag'
import { shelfAnswer } from './sentence'

it('says how safe the shelf is', () => {
  expect(shelfAnswer(0, [])).toEqual({
    ...{ sentence: 'No film is on the shelf yet.', why: 'Put each film on two volumes, one of them off-site.' },
  })
  const second = 'One volume is not enough: put it on a second one that is kept elsewhere.'
  expect(shelfAnswer(1, ['Tide 1'])).toEqual({ sentence: '1 bag is on Tide 1.', why: second })
  const rehearse = 'Rehearse a restore: open one clip from a bag each quarter.'
  expect(shelfAnswer(2, ['Tide 1', 'Tide 2'])).toEqual({ sentence: '2 bags are on Tide 1 and Tide 2.', why: rehearse })
  expect(shelfAnswer(2, ['Tide 1', 'Tide 2'], true).why).toBe(
    'All are on one drive: put it on another drive that is kept elsewhere.',
  )
  expect(shelfAnswer(3, ['Tide 1', 'Tide 2', 'Slipway'])).toMatchObject({ why: rehearse })
})

it('folds every run of line ends in a value, with what is empty around it, into one space', () => {
  expect(
    bagInfo([
      ['A', 'one \r\n \n\t two'],
      ['B', 'one  two'],
    ]),
  ).toBe('A: one two\nB: one  two\n')
})

it('keeps two entries of one path beside each other, in the order of their bytes', () => {
  const of = (...paths: string[]) =>
    bagManifest(paths.map((path) => ({ path, sha256: path })))
      .split('\n')
      .slice(0, -1)
  expect(of('data/b', 'data/a', 'data/B', 'data/a/x')).toEqual(
    ['data/B', 'data/a', 'data/a/x', 'data/b'].map((path) => `${path}  ${path}`),
  )
})
