import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { backupCardKey, backupCardListing } from './backupCard'

const own = { readerId: 'left', volumeUid: 'AAAA-0001', heldNow: true }

describe('which of two cards with one content is which', () => {
  it('file systems of other ids are other cards, wherever they lie', () => {
    expect(backupCardKey({ readerId: 'left', volumeUid: 'BBBB-0002', isFirstStay: false }, own, [])).toBe('BBBB-0002')
    expect(backupCardKey({ readerId: 'right', volumeUid: 'AAAA-0001', isFirstStay: false }, own, [])).toBeUndefined()
  })

  it('without ids they are two only where both lie in readers at once', () => {
    const blind = { ...own, volumeUid: undefined }
    const right = { readerId: 'right', volumeUid: undefined, isFirstStay: false }
    expect(backupCardKey(right, blind, [])).toBe('reader right')
    expect(backupCardKey(right, { ...blind, heldNow: false }, [])).toBeUndefined()
    expect(backupCardKey({ ...right, readerId: 'left' }, blind, [])).toBeUndefined()
  })

  it('once two without ids were seen, each that is put in again may be either, also in the reader of the first', () => {
    const blind = { ...own, volumeUid: undefined, heldNow: false }
    const left = { readerId: 'left', volumeUid: undefined, isFirstStay: false }
    expect(backupCardKey(left, blind, ['reader right'])).toBe('reader left')
    expect(backupCardKey({ ...left, readerId: 'right' }, blind, ['reader right'])).toBe('reader right')
    // The first card has not left its reader since it was looked at.
    expect(backupCardKey({ ...left, isFirstStay: true }, blind, ['reader right'])).toBeUndefined()
    expect(backupCardKey(left, blind, ['AAAA-0002'])).toBeUndefined()
  })
})

const listed = fc.uniqueArray(
  fc.record({
    path: fc.stringMatching(/^[a-z]{1,6}$/),
    sizeBytes: fc.nat(1e9),
    modifiedMs: fc.integer({ min: 1e12, max: 2e12 }),
  }),
  { minLength: 1, maxLength: 12, selector: (file) => file.path },
)

describe('two listings of one content', () => {
  it('are equal, or differ by the two seconds of a card’s clock, and in nothing else', () => {
    fc.assert(
      fc.property(listed, fc.integer({ min: -2000, max: 2000 }), (files, slip) => {
        expect(backupCardListing(files, files)).toBe('equal')
        const slipped = files.map((file) => ({ ...file, modifiedMs: file.modifiedMs + slip }))
        expect(backupCardListing(slipped, files)).toBe(slip === 0 ? 'equal' : 'times')
      }),
    )
  })

  it('one file more, one less, or one of another size is no backup card', () => {
    fc.assert(
      fc.property(listed, (files) => {
        const [first, ...rest] = files
        if (!first) return
        expect(backupCardListing(rest, files)).toBeUndefined()
        expect(backupCardListing([...files, { ...first, path: 'another one' }], files)).toBeUndefined()
        expect(backupCardListing([{ ...first, sizeBytes: first.sizeBytes + 1 }, ...rest], files)).toBeUndefined()
        expect(backupCardListing([{ ...first, modifiedMs: first.modifiedMs + 2001 }, ...rest], files)).toBeUndefined()
      }),
    )
  })
})
