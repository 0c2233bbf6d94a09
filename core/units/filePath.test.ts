import { posix } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { endingOf, fileNameOf, folderOf, stemOf, withoutEnding } from './filePath'

describe('a path of a card', () => {
  it('falls into folder, name and ending', () => {
    const path = 'DCIM/100.RED/CURL0012.take.MP4'
    expect([folderOf(path), fileNameOf(path), stemOf(path), endingOf(path)]).toEqual([
      ...['DCIM/100.RED', 'CURL0012.take.MP4', 'CURL0012.take', 'mp4'],
    ])
  })

  it('has no ending for a full stop in its folder, before its name, or behind it', () => {
    expect(withoutEnding('100.RED/CURL0012')).toBe('100.RED/CURL0012')
    expect([stemOf('a/.hidden'), endingOf('a/.hidden')]).toEqual(['.hidden', ''])
    expect([stemOf('a/keel.'), endingOf('a/keel.')]).toEqual(['keel', ''])
  })

  // Source: the `path` module of Node.js, which follows POSIX.
  it('is read as the system reads it', () => {
    const name = fc.stringMatching(/^[ab.]{0,4}[ab][ab.]{0,3}$/)
    fc.assert(
      fc.property(fc.array(name, { minLength: 1, maxLength: 3 }), (parts) => {
        const path = parts.join('/')
        const { dir, base, name: stem, ext } = posix.parse(path)
        expect([folderOf(path), fileNameOf(path), stemOf(path), endingOf(path)]).toEqual([
          dir,
          base,
          stem,
          ext.slice(1),
        ])
      }),
    )
  })
})
