import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BAG_DECLARATION, bagInfo, bagManifest, decodeBagPath, payloadOxum } from './bag'
import { fileTitle, sameFolder } from '../units/fileTitle'

describe('a bag', () => {
  it('declares itself as RFC 8493 asks', () => {
    // Source: RFC 8493 sections 2.1.1, 2.1.3, 2.2.2.
    expect(BAG_DECLARATION).toBe('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')
    expect(
      bagManifest([
        { path: 'data/b', sha256: '2' },
        { path: 'data/100%\n', sha256: '1' },
      ]),
    ).toBe('1  data/100%25%0A\n2  data/b\n')
    expect(decodeBagPath('data/100%25%0A', '1.0')).toBe('data/100%\n')
    expect(decodeBagPath('data/%250A', '1.0')).toBe('data/%0A')
    expect(
      payloadOxum([
        { path: 'data/a', sizeBytes: 40, sha256: '' },
        { path: 'data/b', sizeBytes: 2, sha256: '' },
      ]),
    ).toBe('42.2')
    expect(bagInfo([['External-Description', 'two\r\nlines']])).toBe('External-Description: two lines\n')
  })

  it('takes any title as a name for a folder', () => {
    expect(fileTitle('Steam-bending ribs: part 2/3')).toBe('Steam-bending ribs part 2 3')
    expect(fileTitle('..')).toBe('untitled')
    expect(sameFolder('Launch day', 'launch: DAY')).toBe(true)
    // 119 bytes, then a character of four: it is left out whole.
    expect(fileTitle(`${'x'.repeat(119)}\u{1f6a3}`)).toBe('x'.repeat(119))
    expect(fileTitle('\ud83d'.repeat(3))).toBe('\ufffd\ufffd\ufffd')
    expect(sameFolder('Launch day', 'Launch day 2')).toBe(false)
    fc.assert(
      fc.property(fc.string({ maxLength: 300, unit: 'grapheme' }), (title) => {
        const name = fileTitle(title)
        expect(name).not.toMatch(/[/\\\n]|^\./)
        expect(new TextEncoder().encode(name).length).toBeLessThanOrEqual(120)
        expect(name.length).toBeGreaterThan(0)
      }),
    )
  })
})
