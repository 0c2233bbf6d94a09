import { describe, expect, it } from 'vitest'
import { isDay, zoneHere } from './day'
import { chanceOf, digestOf } from './digest'
import { editSentence, isTakenBack } from './edit'
import { frameRate, rateOfDecimal, readFrameRate } from './frameRate'
import { frameSizeText, parseFrameSize, readFrameSize } from './frameSize'
import { formatBitRate, formatBytes, formatLength, readBitRate, readBytes, readLength } from './quantity'
import { tableText } from './tableText'
import { parseTimecode, timecodeCount, timecodeText } from './timecode'
import { typedNumber } from './typed'
import { isUuid } from './uuid'

/** What is read of each text; a fault is its sentence. */
const readAs = <T>(read: (text: string) => { value: T } | { fault: string }, texts: readonly string[]) =>
  texts.map((text) => {
    const typed = read(text)
    return 'value' in typed ? typed.value : typed.fault
  })

describe('a frame size', () => {
  it('is two sides of two to five digits with a sign between them, and nothing else', () => {
    const size = { widthPx: 3840, heightPx: 2160 }
    expect(readAs(readFrameSize, ['3840x2160', '3840X2160', ' 3840  ×  2160 ', '3840*2160'])).toEqual([
      size,
      size,
      size,
      size,
    ])
    const bad = [
      '3840',
      '3840-2160',
      '3840x2',
      '3x2160',
      '384000x2160',
      'a 3840x2160',
      '3840x2160 px',
      '-3840x2160',
      '3840ax2160',
      '',
    ]
    expect(new Set(readAs(readFrameSize, bad))).toEqual(new Set(['Write it as 3840×2160.']))
    expect(parseFrameSize('16x16')).toEqual({ widthPx: 16, heightPx: 16 })
    expect(frameSizeText(size)).toBe('3840×2160')
  })
})

describe('a day', () => {
  it('is one of the calendar, written in full', () => {
    const days = ['2026-02-28', '2024-02-29', '0100-01-01', '9999-12-31', '2026-01-01', '2026-12-31']
    expect(days.filter((day) => !isDay(day))).toEqual([])
    const none = [
      '2026-02-29',
      '2026-02-30',
      '2026-13-01',
      '2026-00-10',
      '2026-01-32',
      '2026-1-01',
      '2026-01-1',
      '26-01-01',
    ]
    const more = [
      '0000-01-01',
      '0099-01-01',
      'x2026-01-01',
      '2026-01-01x',
      '2026-01-01T00:00',
      'abcd-01-01',
      '2026-ab-01',
      '2026-01-ab',
      '',
    ]
    expect([...none, ...more].filter(isDay)).toEqual([])
  })

  it('is asked for in the zone of this computer', () => {
    expect(zoneHere()).toBe(Intl.DateTimeFormat().resolvedOptions().timeZone)
  })
})

describe('a UUID', () => {
  it('has five groups of hexadecimal digits', () => {
    const one = '0b9c2a34-7f10-4c3e-9a61-5d2f8e7b6a90'
    expect([one, one.toUpperCase()].every(isUuid)).toBe(true)
    const spoilt = [`x${one}`, `${one}x`, one.slice(1), one.slice(0, -1), one.replaceAll('-', ''), '']
    const groups = one
      .split('-')
      .flatMap((group, at, all) =>
        ['g'.repeat(group.length), group.slice(1)].map((other) => all.with(at, other).join('-')),
      )
    expect([...spoilt, ...groups].filter(isUuid)).toEqual([])
  })
})

describe('a change that can be taken back', () => {
  it('is taken back at odd turns, and says so', () => {
    expect([0, 1, 2, 3].map((turn) => isTakenBack({ turn }))).toEqual([false, true, false, true])
    expect([0, 1, 2].map((turn) => editSentence({ title: '“Keel” is off the list.', turn }))).toEqual([
      '“Keel” is off the list.',
      'Taken back: “Keel” is off the list.',
      'Done again: “Keel” is off the list.',
    ])
  })
})

describe('a digest', () => {
  it('tells order, borders and every letter, and is the same on every day', () => {
    const lists = [[], [''], ['', ''], ['a'], ['b'], ['ab'], ['a', 'b'], ['b', 'a'], ['a', ''], ['', 'a']]
    expect(new Set(lists.map(digestOf)).size).toBe(lists.length)
    expect(lists.map(digestOf).every((digest) => /^[0-9a-f]{14}$/.test(digest))).toBe(true)
    // Kept in books: a digest that became another one would say that everything changed. Written down from the first
    // release.
    expect(digestOf(['CLIPS/A001.MP4', '1024'])).toMatchInlineSnapshot(`"189fe240012d33"`)
    const draws = Array.from({ length: 1000 }, (_, at) => chanceOf('seed', String(at)))
    expect(Math.min(...draws)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...draws)).toBeLessThan(1)
    expect(draws.filter((draw) => draw < 0.5).length).toBeGreaterThan(430)
    expect(draws.filter((draw) => draw < 0.5).length).toBeLessThan(570)
  })
})

describe('a frame rate', () => {
  it('is read within its bounds, and refused with what to write', () => {
    const [how, limits] = [
      'Write it as 25, 23.976 or 24000/1001.',
      'Frame rates go from 0.01 to 100000 frames a second.',
    ]
    expect(readAs(readFrameRate, ['0.01', '100000', '1/100', ' 50 / 2 ', '25 fps', '25p', '50i'])).toEqual([
      ...[
        frameRate(1, 100),
        frameRate(100_000),
        frameRate(1, 100),
        frameRate(25),
        frameRate(25),
        frameRate(25),
        frameRate(50),
      ],
    ])
    const none = ['', 'x', '25x', 'x25', '25/0', '1/x', 'x1/2', '1/2x', '1a/2', '1/2 a', '9'.repeat(31)]
    expect(new Set(readAs(readFrameRate, none))).toEqual(new Set([how]))
    expect(new Set(readAs(readFrameRate, ['0.009', '100001', '1/101', '0', '9'.repeat(30)]))).toEqual(new Set([limits]))
    expect(readAs(readFrameRate, ['90071992547409930/9007199254740993'])).toEqual([how])
  })

  it('is made of whole numbers above 0 alone', () => {
    for (const [num, den] of [
      [0, 1],
      [-1, 1],
      [1, 0],
      [1, -1],
      [1.5, 1],
      [1, 1.5],
    ] as const)
      expect(() => frameRate(num, den), `${num}/${den}`).toThrow()
    expect(frameRate(50, 2)).toEqual(frameRate(25, 1))
    expect(rateOfDecimal(24)).toEqual(frameRate(24))
    expect([23.976, 23.97, 23.9825].map(rateOfDecimal)).toEqual(Array(3).fill(frameRate(24_000, 1001)))
    expect([23.9827, 23.9693].map(rateOfDecimal)).toEqual([frameRate(23_983, 1000), frameRate(23_969, 1000)])
  })
})

describe('quantities', () => {
  it('are said in three figures, and in the next unit from the figure on that would be 1000', () => {
    const bytes = [0, 999, 999.4, 1000, 1500, 9990, 9994, 99_900, 100_000, 999_499, 999_500, 1e6, 1e15, 1e18, -1500]
    expect(bytes.map(formatBytes)).toEqual([
      ...['0 B', '999 B', '999 B', '1.00 kB', '1.50 kB', '9.99 kB', '9.99 kB', '99.9 kB', '100 kB', '999 kB'],
      ...['1.00 MB', '1.00 MB', '1.00 PB', '1000 PB', '−1.50 kB'],
    ])
    expect(formatBytes(999_500 * 1e12)).toBe('1000 PB')
    expect([1e12, 1e15].map(formatBitRate)).toEqual(['1.00 Tb/s', '1000 Tb/s'])
    expect([0, 0.5, 1, 9.94, 10, 59, 59.4, 60, 61, 3600, 3661].map(formatLength)).toMatchInlineSnapshot(`
      [
        "0 s",
        "0.5 s",
        "1 s",
        "9.94 s",
        "10 s",
        "59 s",
        "59.4 s",
        "1 min",
        "1 min 1 s",
        "1 h",
        "1 h 1 min 1 s",
      ]
    `)
  })

  it('of bytes are read with any unit, and nothing before or behind', () => {
    expect(
      readAs(readBytes, ['900', '1b', '1 byte', '1 bytes', '2k', '2 kB', '2KiB', '3 m b', ' 1.5TB ', '4 gbytes']),
    ).toEqual([...[900, 1, 1, 1, 2000, 2000, 2048, 3e6, 1.5e12, 4e9]])
    const none = ['', 'x', 'x 5 GB', '5 GB x', 'GB', '-5', '5 zb', '5 bits']
    expect(new Set(readAs(readBytes, none))).toEqual(new Set(['Write it as 128 GB.']))
    expect(readAs(readBytes, ['9999999 PB'])).toEqual(['That is more than can be counted.'])
    expect(readAs(readBytes, ['1,000 GB'])[0]).toContain('mean')
  })

  it('of bits are read with any unit, and nothing before or behind', () => {
    expect(
      readAs(
        (text) => readBitRate(text),
        ['100', '100 Mb/s', '45mbit', '75 MB/s', '256k', '1 Gbps', '8 b', '2 kibits'],
      ),
    ).toEqual([...[100e6, 100e6, 45e6, 600e6, 256_000, 1e9, 8, 2048]])
    expect(readAs((text) => readBitRate(text, 'kb/s'), ['256', '1 M'])).toEqual([256_000, 1e6])
    const none = ['', 'x', 'x 5 Mb/s', '5 Mb/s x', '5 Mb/h', '-5']
    expect(new Set(readAs((text) => readBitRate(text), none))).toEqual(new Set(['Write it as 100 Mb/s.']))
  })

  it('of time are read in hours, minutes and seconds, or as a clock shows them', () => {
    const lengths: Record<string, number> = {
      ...{ '20': 1200, '90 min': 5400, '1h20': 4800, '1 hour': 3600, '2 hours': 7200, '1hr': 3600, '2 hrs': 7200 },
      ...{ '45s': 45, '45 sec': 45, '1 second': 1, '2 seconds': 2, '5m': 300, '1 minute': 60, '2 minutes': 120 },
      ...{ '2:30': 150, '1:02:03': 3723, '12:02:03': 43_323, '120:00': 7200, ' 2:30 ': 150, '1.5 h': 5400 },
      '1h 2m 3s': 3723,
    }
    for (const [text, seconds] of Object.entries(lengths)) expect(readAs(readLength, [text]), text).toEqual([seconds])
    const none = ['', 'x', 'x2:30', '2:30x', '2:3', '12345:00:00', '1h x', 'x 1h', '1 d', '1.2.3 h', '1:2:3', '2:30:4']
    expect(new Set(readAs(readLength, none))).toEqual(new Set(['Write it as 12 min, 1h20 or 2:30.']))
    expect(readAs(readLength, ['1,000 s'])[0]).toContain('Does 1,000 mean')
  })
})

describe('a figure', () => {
  it('has points and commas where they can stand, and is a question where they may mean two things', () => {
    const value = (text: string) => {
      const number = typedNumber(text)
      return number === undefined ? undefined : 'value' in number ? number.value : 'asked'
    }
    const read: Record<string, number | 'asked' | undefined> = {
      ...{ '7': 7, '1.5': 1.5, '1,5': 1.5, '1 000': 1000, '1_000': 1000, '0.125': 0.125, '0,125': 0.125 },
      ...{ '1,000,000': 1e6, '1.000.000': 1e6, '1.000,5': 1000.5, '1,000.5': 1000.5, '12,345,678.9': 12_345_678.9 },
      ...{ '1,000': 'asked', '1.000': 'asked', '999,999': 'asked', '1000.125': 1000.125, '1000,12': 1000.12 },
    }
    for (const text of [
      '',
      'x',
      '1x',
      'x1',
      '.5',
      '1.',
      '1,',
      '1,00,000',
      '1.00.000',
      '1,000.',
      '1.000.5',
      '1,0.0,0',
      '1,00.5',
      '-1',
    ])
      expect(value(text), text).toBeUndefined()
    for (const [text, wanted] of Object.entries(read)) expect(value(text), text).toBe(wanted)
    expect(typedNumber('1,250')).toEqual({ ask: 'Does 1,250 mean 1250 or 1.25? Write it so.' })
    expect(value('9'.repeat(400))).toBeUndefined()
  })
})

describe('a time address', () => {
  it('is two digits each, within a day, and nothing before or behind', () => {
    const frame = (text: string, nominal = 25) => parseTimecode(text, nominal)?.frame
    expect([' 1:00:00:00 ', '01:00:00:00'].map((text) => frame(text))).toEqual([90_000, 90_000])
    for (const text of [
      'x01:00:00:00',
      '01:00:00:00x',
      '24:00:00:00',
      '00:60:00:00',
      '00:00:60:00',
      '00:00:00:25',
      '1:0:00:00',
    ])
      expect(frame(text), text).toBeUndefined()
    expect(frame('00:00:00;10', 25)).toBeUndefined()
    // SMPTE ST 12-1: the numbers 0 and 1 are left out at each minute but every tenth.
    expect(
      ['00:01:00;00', '00:01:00;01', '00:01:00;02', '00:10:00;00', '00:01:01;00'].map((text) => frame(text, 30)),
    ).toEqual([...[undefined, undefined, 1800, 17_982, 1828]])
    expect(timecodeText({ frame: 1799, nominal: 30, dropFrame: true })).toBe('00:00:59;29')
    expect(timecodeText({ frame: 1800, nominal: 30, dropFrame: true })).toBe('00:01:00;02')
    expect(timecodeText({ frame: 119, nominal: 120, dropFrame: false })).toBe('00:00:00:119')
    expect(timecodeText({ frame: 99, nominal: 100, dropFrame: false })).toBe('00:00:00:99')
  })

  it('counts at whole rates and their 1000/1001, from one frame a second on', () => {
    expect(timecodeCount(frameRate(1), false)).toEqual({ nominal: 1, dropFrame: false })
    expect(timecodeCount(frameRate(1, 3), false)).toBeUndefined()
    expect(timecodeCount(frameRate(30_000, 1001), true)).toEqual({ nominal: 30, dropFrame: true })
    expect(timecodeCount(frameRate(24_000, 1001), false)).toEqual({ nominal: 24, dropFrame: false })
    expect(timecodeCount(frameRate(26_163, 1000), false)).toBeUndefined()
    expect(timecodeCount(frameRate(25), true)).toBeUndefined()
  })
})

describe('the text of a table', () => {
  const utf16 = (text: string, big: boolean) => {
    const bytes = Buffer.from(text, 'utf16le')
    return big ? bytes.swap16() : bytes
  }
  const read = (...bytes: number[]) => tableText(Uint8Array.from(bytes))

  it('is known by its mark, or by what it is made of', () => {
    const text = 'Shot,Camera\nBow — æøå,Curlew\n'
    expect(tableText(Buffer.from(text))).toEqual({ text, encoding: 'utf-8' })
    expect(tableText(Buffer.from(`\ufeff${text}`))).toEqual({ text, encoding: 'utf-8' })
    expect(tableText(utf16(text, false))).toEqual({ text, encoding: 'utf-16le' })
    expect(tableText(utf16(text, true))).toEqual({ text, encoding: 'utf-16be' })
    expect(tableText(utf16(`\ufeff${text}`, false))).toEqual({ text, encoding: 'utf-16le' })
    expect(tableText(utf16(`\ufeff${text}`, true))).toEqual({ text, encoding: 'utf-16be' })
    expect(tableText(Buffer.alloc(0))).toEqual({ text: '', encoding: 'utf-8' })
    // A quarter of the bytes has to be 0: one strange sign makes no text of two bytes of it.
    expect(() => tableText(Buffer.from('ab\0cdefgh'))).toThrow('no table of text')
    expect(() => tableText(Buffer.from('abc\0'))).toThrow('no table of text')
    expect(() => tableText(Buffer.from('a\0\0b\0cd\0e\0'))).toThrow('no table of text')
  })

  it('is Windows-1252 where it is no valid UTF-8', () => {
    // WHATWG Encoding Standard, index windows-1252: 0x80 is U+20AC, 0x93 U+201C, 0x9F U+0178, 0xD8 U+00D8, 0x81 itself.
    expect(read(0x80, 0x93, 0x9f, 0xd8, 0x81, 0xa0, 0x41)).toEqual({
      ...{ text: '\u20ac\u201c\u0178\u00d8\u0081\u00a0A', encoding: 'windows-1252' },
    })
  })

  it('is no workbook, no page and nothing with a 0 in it', () => {
    expect(() => read(0x50, 0x4b, 3, 4, 0, 0)).toThrow('This is a workbook')
    expect(() => read(0xd0, 0xcf, 0x11, 0xe0, 0, 0)).toThrow('This is a workbook')
    expect(read(0x50, 0x4b, 3).text).toBe('PK\u0003')
    for (const page of ['<!DOCTYPE html>', ' \n<html>', '<head>', '<body>', '<table>'])
      expect(() => tableText(Buffer.from(page)), page).toThrow('This is a web page')
    expect(tableText(Buffer.from('Shot <table>')).text).toBe('Shot <table>')
  })
})
