import { describe, expect, it } from 'vitest'
import { csv } from './csv'

describe('comma-separated values', () => {
  it('quote what has commas, quotes and line ends', () => {
    // Source: RFC 4180, section 2, rules 5 to 7.
    expect(
      csv([
        ['aaa', 'b,bb', 'c"c', 'd\r\nd'],
        ['zzz', '', 'x', '1'],
      ]),
    ).toBe('aaa,"b,bb","c""c","d\r\nd"\r\nzzz,,x,1\r\n')
  })

  it('begin with a mark only where that is chosen', () => {
    // Source: RFC 3629, 6.
    expect(csv([['ü']])).toBe('ü\r\n')
    expect(Buffer.from(csv([['ü']], 'marked')).toString('hex')).toBe('efbbbfc3bc0d0a')
  })

  it('are never taken for formulas, and keep negative numbers', () => {
    // Common practice, no source: an apostrophe before what a spreadsheet would run.
    expect(csv([['=1+1', '+x', '@x', '-x', '-1.5', '+3']])).toBe("'=1+1,'+x,'@x,'-x,-1.5,+3\r\n")
  })
})
