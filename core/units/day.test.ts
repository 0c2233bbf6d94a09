import { describe, expect, it } from 'vitest'
import { clockIn, dayIn, dayWithName, timeIn, zoneName } from './day'

// Source: IANA time zone database 2025, worked out by hand from its rules.
describe('a time', () => {
  it('is shown in a zone, and says in which', () => {
    const at = '2026-11-14T21:30:00Z'
    expect(timeIn('UTC', at)).toBe('2026-11-14 21:30 UTC')
    expect(timeIn('Pacific/Auckland', at)).toBe('2026-11-15 10:30 GMT+13')
    expect(timeIn('Europe/London', at)).toBe('2026-11-14 21:30 GMT')
    // Half an hour before and after the clocks go back on 25 October 2026, at 01:00 UTC.
    expect(clockIn('Europe/London', Date.parse('2026-10-25T00:30:00Z'))).toBe('01:30 BST')
    expect(clockIn('Europe/London', Date.parse('2026-10-25T01:30:00Z'))).toBe('01:30 GMT')
  })

  it('counts as UTC in a zone that is not known, and stays as it is where it is none', () => {
    expect(timeIn('Harbour/Nowhere', '2026-11-14T09:12:00Z')).toBe('2026-11-14 09:12 UTC')
    expect(zoneName('', 0)).toBe('UTC')
    expect(timeIn('UTC', 'at dawn')).toBe('at dawn')
    expect(dayIn('Pacific/Auckland', 0)).toBe('1970-01-01')
  })
})

describe('a day', () => {
  it('has the name that the calendar gives it', () => {
    // Source: `date -d` of Debian's coreutils.
    expect(['2026-11-22', '2024-02-29', '1999-12-31', '2026-02-30', 'soon', ''].map(dayWithName)).toEqual([
      'Sun 2026-11-22',
      'Thu 2024-02-29',
      'Fri 1999-12-31',
      '2026-02-30',
      'soon',
      '',
    ])
  })
})
