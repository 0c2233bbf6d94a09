import { describe, expect, it } from 'vitest'
import { clipFindings } from './clipFindings'
import type { ScannedClip } from './findings'

const clip = (path: string, more: Partial<ScannedClip> = {}): ScannedClip => ({
  ...{ path, sizeBytes: 1000, seconds: 10, recordedAt: '2026-11-14T09:00:00Z' },
  ...{ pictureMade: true, trouble: undefined, hasPicture: true, cut: undefined },
  ...more,
})
const kinds = (more: Partial<ScannedClip>, shootDay?: string) =>
  clipFindings([clip('CURL0041.MP4', more)], shootDay).map(({ kind, weight }) => `${kind} ${weight}`)

describe('what is odd about a clip', () => {
  it('is nothing where nothing is', () => {
    expect(kinds({}, '2026-11-14')).toEqual([])
    // Sound has no picture to be made.
    expect(kinds({ hasPicture: false, pictureMade: false })).toEqual([])
  })

  it('is each thing once, and what keeps a file from being read is said before what follows from it', () => {
    expect(kinds({ sizeBytes: 0, trouble: 'the file is empty' })).toEqual(['empty stop'])
    expect(kinds({ sizeBytes: 1, trouble: 'no index', pictureMade: false })).toEqual(['unreadable stop'])
    expect(kinds({ trouble: 'no index', cut: 'its end is missing' })).toEqual(['unreadable stop'])
    expect(kinds({ cut: 'its end is missing' })).toEqual(['cut stop'])
    expect(kinds({ pictureMade: false })).toEqual(['no-picture stop'])
    expect(kinds({ sameAs: 'CURL0040.MP4' })).toEqual(['twice ask'])
  })

  it('is its day from a moment after three days on, either way, and only where a day is known', () => {
    const at = (recordedAt: string | undefined, day?: string) => kinds({ recordedAt }, day)
    expect(at('2026-11-17T00:00:00Z', '2026-11-14')).toEqual([])
    expect(at('2026-11-17T00:00:00.001Z', '2026-11-14')).toEqual(['clock ask'])
    expect(at('2026-11-11T00:00:00Z', '2026-11-14')).toEqual([])
    expect(at('2026-11-10T23:59:59.999Z', '2026-11-14')).toEqual(['clock ask'])
    expect(at('2015-01-01T00:00:00Z')).toEqual([])
    expect(at(undefined, '2026-11-14')).toEqual([])
  })

  it('names the first four words and the first twenty paths, and counts all', () => {
    const many = Array.from({ length: 21 }, (_, at) => clip(`CURL00${at + 10}.MP4`, { trouble: `fault ${at}` }))
    const [found] = clipFindings(many, undefined)
    expect(found).toMatchObject({ files: 21, paths: many.slice(0, 20).map(({ path }) => path) })
    expect(found?.sentence).toMatch(/^21 clips cannot be read: fault 0; fault 1; fault 2; fault 3[.]/)
    // Another clip more is another question, also where none of it is shown.
    expect(clipFindings(many.slice(0, 20), undefined)[0]?.key).not.toBe(found?.key)
  })

  it('asks of eight holes in the counter one by one, and of the ninth and all later ones together', () => {
    const holes = (count: number) =>
      clipFindings(
        Array.from({ length: count + 1 }, (_, at) => clip(`CURL00${10 + 2 * at}.MP4`)),
        undefined,
      )
    expect(holes(8).map(({ files, sentence }) => [files, /more place/.test(sentence)])).toEqual(
      Array.from({ length: 8 }, () => [1, false]),
    )
    expect(holes(9).at(-1)).toMatchObject({ files: 1, paths: ['CURL0026 to CURL0028'] })
    expect(holes(11)).toHaveLength(9)
    expect(holes(11).at(-1)?.sentence).toMatch(/in 3 more places, from CURL0026 on: 3 numbers missing/)
  })
})
