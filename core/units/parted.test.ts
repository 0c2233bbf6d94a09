import { expect, test } from 'vitest'
import { parted } from './parted'

test('a list is parted by keys: in its order, under each key once, and nothing under a key of nobody', () => {
  const of = parted(['rib 1', 'keel', 'rib 2', 'rib and keel'], (text) => text.match(/rib|keel|e/g) ?? [])
  expect(of('rib')).toEqual(['rib 1', 'rib 2', 'rib and keel'])
  expect(of('keel')).toEqual(['keel', 'rib and keel'])
  expect(of('mast')).toEqual([])
  expect(parted(['deck'], () => ['a', 'a'])('a')).toEqual(['deck'])
})
