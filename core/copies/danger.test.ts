import { describe, expect, it } from 'vitest'
import { DANGERS, dangerOf } from './danger'
import { copy, home } from './testCopy'

const AT = '2026-11-14T20:00:00Z'
const slipway = copy('Slipway')
const tide = copy('Tide 1', { site: 'house' })
const of = (more: Partial<typeof home>, files = 9) => {
  const { rank, sentences } = dangerOf({ ...home, ...more }, { label: 'Curlew A', files })
  return [DANGERS[rank], ...sentences]
}

describe('what a load is in danger of', () => {
  it('is nothing with two whole copies on two drives at two sites, and nothing without files', () => {
    expect(of({ copies: [slipway, tide] })).toEqual(['none'])
    expect(of({ copies: [] }, 0)).toEqual(['none'])
  })

  it('is too few copies, the worse once the card is formatted', () => {
    expect(of({ copies: [] })).toEqual(['few', '“Curlew A” has no whole proved copy yet.'])
    expect(of({ copies: [tide], formattedAt: AT }).slice(0, 2)).toEqual([
      'few-and-formatted',
      'The card of “Curlew A” is formatted, and it has one whole proved copy, on Tide 1; two are asked.',
    ])
    expect(of({ copies: [copy('Tide 1', { filesCopied: 8 })], formattedAt: AT })).toEqual([
      'lost',
      'The card of “Curlew A” is formatted, and no whole proved copy is left.',
    ])
    const both = [slipway, copy('Tide 1', { site: 'house', device: slipway.device })]
    expect(of({ copies: both })).toEqual([
      'few',
      'The proved copies of “Curlew A”, on Slipway and Tide 1, lie on one drive as far as is known; two are asked.',
    ])
    // Of a drive that this computer never saw nobody says that it is the same.
    expect(of({ copies: [slipway, copy('Tide 1', { site: 'house', device: undefined })] })).toEqual(['none'])
  })

  it('is what was found wrong, before what is only old or near', () => {
    const wrong = copy('Tide 1', { filesMissing: 1, filesMismatched: 2 })
    expect(of({ copies: [slipway, tide, wrong], thingsWrong: 1 })).toEqual([
      'wrong',
      '“Curlew A” on Tide 1: 2 files with other content than the card and 1 file gone or changed.',
      '“Curlew A” on the card: 1 finding not settled.',
    ])
  })

  it('is a copy that was not read for its volume’s cycle, to the moment', () => {
    const now = Date.parse('2027-05-13T22:00:00Z')
    expect(of({ copies: [slipway, tide], now: now - 1 })).toEqual(['none'])
    expect(of({ copies: [slipway, copy('Tide 1', { site: 'house', cycleDays: 999 })], now })).toEqual([
      'not-read',
      '“Curlew A” on Slipway has files that were last read 180 days ago; every 180 they are to be.',
    ])
  })

  it('is one site, where what a person carries is one place', () => {
    expect(of({ copies: [slipway, copy('Tide 1')] })).toEqual([
      'one-site',
      'Every whole copy of “Curlew A” is at one site: workshop.',
    ])
    const carried = { siteKind: 'carried' } as const
    expect(
      of({ copies: [copy('Tide 1', { ...carried, site: 'bag' }), copy('Tide 2', { ...carried, site: 'wallet' })] })[0],
    ).toBe('one-site')
  })
})
