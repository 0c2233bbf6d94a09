import { describe, expect, it } from 'vitest'
import { knownAnswers, type KnownPlace } from './known'

const place = (name: string, byteClass: KnownPlace['byteClass'], gigabytes: number): KnownPlace => ({
  ...{ volumeId: name, name, site: name === 'Ebb' ? 'house' : 'aunt’s flat', connected: false },
  ...{ byteClass, sizeBytes: gigabytes * 1e9 },
})
const said = (places: readonly KnownPlace[], shootOn: string | null = '2026-04-18') =>
  Object.entries(knownAnswers(places, shootOn)).map(
    ([station, { figure, sentence }]) => `${station}: ${figure}: ${sentence}`,
  )

describe('what the records say of a finished production', () => {
  it('is bytes, places and its day', () => {
    const places = [
      ...[place('Ebb', 'originals', 1120), place('Neap', 'originals', 1120), place('Ebb', 'generated', 377)],
      ...[place('Ebb', 'outputs', 22), place('Neap', 'outputs', 22)],
    ]
    expect(said(places)).toEqual([
      'shoot: no plan kept: Filmed on Sat 2026-04-18; no plan is kept.',
      'cards: 1.12 TB: 1.12 TB of footage, filmed on Sat 2026-04-18.',
      'copies: 2 places: Its footage lies on Ebb (house) and Neap (aunt’s flat).',
      'proxies: 377 GB: 377 GB that can be made again are kept on Ebb.',
      'exports: 22.0 GB: 22.0 GB of finished films lie on Ebb and Neap.',
      'shelf: 2 drives: It is put away on 2 drives.',
    ])
  })

  it('is said of one place, and of nothing', () => {
    expect(said([place('Ebb', 'originals', 5)], null).slice(0, 4)).toEqual([
      'shoot: no plan kept: It is filmed; no plan is kept.',
      'cards: 5.00 GB: 5.00 GB of footage.',
      'copies: 1 place: Its footage lies on Ebb (house) alone.',
      'proxies: none kept: Nothing is kept that could be made again.',
    ])
    expect(said([place('Ebb', 'outputs', 5)], null).slice(1, 3)).toEqual([
      'cards: no footage known: No footage of it is known.',
      'copies: 0 places: No copy of its footage is known.',
    ])
    expect(said([place('Ebb', 'originals', 5)]).slice(4)).toEqual([
      'exports: none known: No finished film of it is known.',
      'shelf: 1 drive: It is put away on 1 drive.',
    ])
    expect(said([]).at(-1)).toBe('shelf: 0 drives: Nothing of it is known to be kept.')
  })
})
