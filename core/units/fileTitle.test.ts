import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fileTitle, freeTitle, loadLabel, sameFolder, titleWith } from './fileTitle'

const bytesOf = (text: string) => Buffer.byteLength(text)

describe('a number behind a title', () => {
  it('stays whole, however long the title is, in 120 bytes', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), fc.nat(99_999), (title, turn) => {
        const named = titleWith(title, ` (${turn})`)
        expect(named.endsWith(` (${turn})`)).toBe(true)
        expect(bytesOf(named)).toBeLessThanOrEqual(120)
        expect(sameFolder(named, titleWith(title, ` (${turn + 1})`))).toBe(false)
      }),
    )
  })

  it('gives every one of many things of one long name a folder of its own', () => {
    const taken: string[] = []
    for (let turn = 0; turn < 30; turn += 1)
      taken.push(freeTitle('ö'.repeat(80), (title) => !taken.some((one) => sameFolder(one, title))))
    expect(new Set(taken.map(fileTitle)).size).toBe(30)
  })

  it('ends where nothing is free', () => {
    expect(() => freeTitle('Curlew A', () => false)).toThrow('No free name')
  })
})

describe('a label', () => {
  it('never makes a folder that is called like a checksum list', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 100 }),
        fc.constantFrom('.xxh64', '.XXH64', '.sha256', '.sha256.xxh64'),
        (words, end) => {
          expect(fileTitle(loadLabel(`${words}${end}`))).not.toMatch(/\.(xxh64|sha256)$/i)
        },
      ),
    )
  })
})
