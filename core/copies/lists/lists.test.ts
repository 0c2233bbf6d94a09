import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ALGORITHMS, DIGITS, algorithmCalled, algorithmOfList, withDigits } from './algorithm'
import { formatChecksumList, safeFirst } from './format'
import { Lookup } from './lookup'
import { baseOf, placed, type Base } from './names'
import { readLine } from './readLine'
import { LIST_FINDINGS } from './finding'
import { fittingWith, findingWords, listSentence, verdictOf, type ListChecked } from './verdict'

const MD5 = '5d41402abc4b2a76b9719d911017c592'
const CRC = '3610a686'

/** `path: sums` of one line, or its kind. */
function said(line: string, list = 'list.txt'): string {
  const read = readLine(line, algorithmOfList(list))
  if (read.kind !== 'sums') return read.kind
  return `${read.path}: ${read.sums.map(({ hash, algorithms }) => `${algorithms.join('|')} ${hash}`).join(', ')}`
}

describe('a line of a checksum list', () => {
  // Source: GNU coreutils manual, "md5sum invocation" and "cksum output modes"; the SFV style is common practice.
  it.each([
    [`${MD5}  a.mp4`, 'x', `a.mp4: md5|xxh128 ${MD5}`],
    [`${MD5} *a.mp4`, 'x.md5', `a.mp4: md5 ${MD5}`],
    [`${MD5.toUpperCase()}  A B.MP4\r`, 'x.md5', `A B.MP4: md5 ${MD5}`],
    [`${MD5} a.mp4`, 'x.md5', `a.mp4: md5 ${MD5}`],
    [`${MD5}\ta.mp4`, 'x.md5', `a.mp4: md5 ${MD5}`],
    [`${MD5}   leading`, 'x.md5', ` leading: md5 ${MD5}`],
    [`\\${MD5}  two\\nlines\\\\`, 'x.md5', `two\nlines\\: md5 ${MD5}`],
    [`\\${MD5}  no\\tescape`, 'x.md5', 'no-line'],
    [`${MD5}  back\\nslash`, 'x.md5', `back\\nslash: md5 ${MD5}`],
    [`MD5 (a (1).mp4) = ${MD5}`, 'x', `a (1).mp4: md5 ${MD5}`],
    [`\\MD5 (a\\nb) = ${MD5}`, 'x', `a\nb: md5 ${MD5}`],
    [`MD5(a)= ${MD5}`, 'x', `a: md5 ${MD5}`],
    [`XXH128 (a) = ${MD5}`, 'x.md5', `a: xxh128 ${MD5}`],
    [`SHA3-256 (a) = ${'0'.repeat(64)}`, 'x', 'unknown-algorithm'],
    [`SHA256 (a) = ${MD5}`, 'x', 'no-line'],
    [`a.mp4 ${CRC.toUpperCase()}`, 'x.sfv', `a.mp4: crc32 ${CRC}`],
    [`clip 20260101 ${CRC}`, 'x.sfv', `clip 20260101: crc32 ${CRC}`],
    [`#a ${CRC}`, 'x.sfv', `#a: crc32 ${CRC}`],
    [`a.txt  ${CRC}  ${MD5}`, 'x', `a.txt: crc32|xxh32 ${CRC}, md5|xxh128 ${MD5}`],
    [`a.txt ${CRC}`, 'x', 'no-line'],
    [`XXH3_9555e8555c62dcfd  a`, 'x', 'a: xxh3 9555e8555c62dcfd'],
    ['; made by hand', 'x.sfv', 'remark'],
    ['# made by hand', 'x.md5', 'remark'],
    ['', 'x', 'remark'],
    [`${MD5.slice(1)}  a`, 'x', 'no-line'],
    [`${MD5}`, 'x', 'no-line'],
    ['Checksums of the last day', 'x', 'no-line'],
  ])('%j of %s says %s', (line, list, what) => expect(said(line, list)).toBe(what))

  it('comes back from what is written, whatever the name and algorithm', () => {
    const anything = fc.tuple(fc.constantFrom(...ALGORITHMS), fc.stringMatching(/^[\x01-\xff]{1,40}$/))
    fc.assert(
      fc.property(anything, ([algorithm, name]) => {
        const hash = '0123456789abcdef'.repeat(8).slice(0, DIGITS[algorithm])
        // As programs of every kind end their lines.
        const line = formatChecksumList([{ hash, path: safeFirst(name) }]).slice(0, -1)
        const read = readLine(line, undefined)
        expect(read).toMatchObject({ kind: 'sums', path: safeFirst(name), sums: [{ hash }] })
      }),
    )
  })

  it('is understood or not, however long and odd', () => {
    const pieces = [' ', 'a ', `${CRC} `, '(', ') = ', '\\', '\t']
    const kinds = pieces.map((piece) => readLine(piece.repeat(16_000 / piece.length), undefined).kind)
    expect(kinds).toEqual(['remark', 'no-line', 'sums', 'no-line', 'no-line', 'no-line', 'remark'])
  })

  it('has its algorithm by its ending, its tag or its length', () => {
    const names = ['a.md5', 'SHA256SUMS', 'sha512sum.txt', 'manifest-sha1.txt', 'x.xxh64', 'x.sfv', 'notes.txt', 'md5']
    expect(names.map(algorithmOfList)).toEqual(['md5', 'sha256', 'sha512', 'sha1', 'xxh64', 'crc32', undefined, 'md5'])
    const tags = ['SHA2-256', 'sha-1', 'XXH3', 'CRC32', 'SHA512/256', 'whirlpool', 'SHA224']
    expect(tags.map(algorithmCalled)).toEqual(['sha256', 'sha1', 'xxh3', 'crc32', undefined, undefined, 'sha224'])
    expect([8, 16, 32, 40, 9].map((digits) => withDigits(digits).length)).toEqual([2, 2, 2, 1, 0])
  })
})

const HERE: Base = { above: [], inside: [], backslashes: false }

describe('a name of a list', () => {
  it('never leads out of the folder', () => {
    const refused = ['/etc/passwd', '../x', 'a/../../x', 'C:\\x', 'c:/x', '\\\\server\\x', '.', 'a/..', 'a\0b']
    expect(refused.map((name) => placed(name, HERE).kind)).toEqual(refused.map(() => 'refused'))
    expect(placed('\\x', { ...HERE, backslashes: true }).kind).toBe('refused')
    expect(placed('../x', { ...HERE, above: ['a'] }).kind).toBe('refused')
    fc.assert(
      fc.property(fc.array(fc.constantFrom('..', '.', '', 'a', 'b\\..', '..\\'), { maxLength: 9 }), (parts) => {
        for (const backslashes of [false, true]) {
          const at = placed(parts.join('/'), { above: [], inside: ['in'], backslashes })
          if (at.kind === 'here') expect(at.path.split('/')).not.toContain('..')
          if (at.kind === 'here') expect(at.path.startsWith('/')).toBe(false)
        }
      }),
    )
  })

  it('is taken from the folder of the list, a folder above, or one that has another name here', () => {
    const files = new Set(['DAY1/a', 'DAY1/b', 'DAY2/c', 'sums/d'])
    const base = (names: string[], listFolder = '/m/old') =>
      baseOf({ names, folder: '/m/old', listFolder, exists: (path) => files.has(path) })
    expect(base(['DAY1/a', './DAY2/c'])).toEqual(HERE)
    expect(base(['a', 'b'], '/m/old/DAY1')).toEqual({ ...HERE, inside: ['DAY1'] })
    expect(base(['../DAY1/a', 'd'], '/m/old/sums')).toEqual({ ...HERE, inside: ['sums'] })
    expect(base(['old/DAY1/a', 'other/x'], '/m')).toEqual({ ...HERE, above: ['old'] })
    expect(base(['m/old/DAY1/a'], '/')).toEqual({ ...HERE, above: ['m', 'old'] })
    expect(base(['Footage/2019/DAY1/a', 'Footage/2019/DAY2/c'])).toEqual({ ...HERE, above: ['Footage', '2019'] })
    expect(base(['DAY1\\a', 'DAY2\\c'])).toEqual({ ...HERE, backslashes: true })
    expect(placed('other/x', { ...HERE, above: ['old'] })).toEqual({ kind: 'elsewhere' })
    expect(placed('./old//DAY1/a', { ...HERE, above: ['old'] })).toEqual({ kind: 'here', path: 'DAY1/a' })
  })

  it('is found however its accents and ends are written', () => {
    const bytes = (text: string) => Buffer.from(text).toString('latin1')
    const lookup = new Lookup([
      bytes('M\u00f6we.mp4'),
      'end\r',
      'x',
      bytes('Stra\u00dfe'),
      bytes('Caf\u00e9'),
      bytes('Cafe\u0301'),
    ])
    expect(lookup.find(bytes('Mo\u0308we.mp4'))).toBe(bytes('M\u00f6we.mp4'))
    expect(lookup.find('Stra\xdfe')).toBe(bytes('Stra\u00dfe'))
    expect([lookup.find('end'), lookup.find('x '), lookup.find('X'), lookup.find('y')]).toEqual([
      'end\r',
      'x',
      undefined,
      undefined,
    ])
    // Two files that read alike: nobody guesses.
    expect(lookup.find('Caf\xe9')).toBeUndefined()
    expect(lookup.find(bytes('Caf\u00e9'))).toBe(bytes('Caf\u00e9'))
  })
})

const checked = (more: Partial<ListChecked>): ListChecked => ({
  ...{ lines: 5, equal: 5, telling: 4, files: 5, sizeBytes: 3e7, found: {}, algorithms: ['md5'] },
  ...{ renamed: 0, namesItself: false, cut: false, fromMedium: true, isBag: false, ...more },
})

describe('the answer of a list', () => {
  it('is yes only where each line that names a file fits', () => {
    expect(verdictOf(checked({}))).toBe('equal')
    expect(verdictOf(checked({ found: { extra: 9, elsewhere: 2 } }))).toBe('equal')
    for (const kind of LIST_FINDINGS.filter((one) => one !== 'extra' && one !== 'elsewhere'))
      expect([kind, verdictOf(checked({ found: { [kind]: 1 } }))]).toEqual([kind, 'not-equal'])
  })

  it('cannot tell a wrong list from other content where nothing fits that holds something', () => {
    expect(verdictOf(checked({ equal: 0, telling: 0, found: { different: 5 } }))).toBe('cannot-tell')
    expect(verdictOf(checked({ equal: 1, telling: 0, found: { different: 4 } }))).toBe('cannot-tell')
    expect(verdictOf(checked({ equal: 1, telling: 1, found: { different: 4 } }))).toBe('not-equal')
    expect(verdictOf(checked({ equal: 0, telling: 0, found: { different: 5 }, isBag: true }))).toBe('not-equal')
    expect(verdictOf(checked({ equal: 0, telling: 0, found: { missing: 5 } }))).toBe('not-equal')
    expect(verdictOf(checked({ equal: 0, telling: 0, found: { elsewhere: 5 } }))).toBe('nothing-said')
    expect(verdictOf(checked({ lines: 0, equal: 0, telling: 0 }))).toBe('nothing-said')
  })

  it('reads as a page of text', () => {
    const texts = [
      checked({ found: { extra: 1 }, renamed: 1, namesItself: true, cut: true }),
      checked({
        found: { elsewhere: 1, extra: 2 },
        equal: 4,
        algorithms: ['crc32', 'sha256'],
        fromMedium: false,
        renamed: 2,
      }),
      checked({ equal: 1, found: { different: 1, missing: 2, 'no-line': 1 } }),
      checked({ equal: 0, telling: 0, found: { different: 5 } }),
      checked({ equal: 1, telling: 0, found: { different: 4 } }),
      checked({ lines: 0, equal: 0, telling: 0, files: 0 }),
      checked({ equal: 0, telling: 0, files: 0, found: { elsewhere: 5 } }),
      checked({ isBag: true, algorithms: ['sha512'] }),
    ].map((one) => [listSentence(one).sentence, ...listSentence(one).more].join(' '))
    expect(texts).toMatchInlineSnapshot(`
      [
        "Everything that the list names lies here and is equal: 5 lines. 5 files, 30.0 MB, read from the medium. Compared by MD5: somebody who wants to can make another file with the same sum. Of 1 more file in the folder the list says nothing. 1 name is written with other bytes here, and was found all the same. It names itself, with a sum from before it was whole; that line was left out. The last line has no end: the list may have been cut, and files may be missing in it.",
        "Everything that the list names lies here and is equal: 4 of 5 lines, the others are of other folders. 5 files, 30.0 MB, read perhaps from the memory of this computer, since this place cannot be read past it. Compared by CRC-32 and SHA-256: one changed file in about four billion has the same sum. Of 2 more files in the folder the list says nothing. 2 names are written with other bytes here, and were found all the same.",
        "1 file has other content, 2 files are missing and 1 line is not understood; 1 of 5 lines fits. 5 files, 30.0 MB, read from the medium. Compared by MD5: somebody who wants to can make another file with the same sum.",
        "None of 5 lines fits: it is the wrong list, or the files have other content, which cannot be told apart. Look for another list, or another copy. 5 files, 30.0 MB, read from the medium. Compared by MD5: somebody who wants to can make another file with the same sum.",
        "Only empty files fit: it is the wrong list, or the files have other content, which cannot be told apart. Look for another list, or another copy. 5 files, 30.0 MB, read from the medium. Compared by MD5: somebody who wants to can make another file with the same sum.",
        "No line of the list names a file with its sum, so nothing is known of this folder. Compared by MD5: somebody who wants to can make another file with the same sum.",
        "Nothing that the list names lies in this folder. Choose the folder of which it was made. Compared by MD5: somebody who wants to can make another file with the same sum.",
        "Everything that the manifests of this bag name lies here and is equal: 5 lines. 5 files, 30.0 MB, read from the medium. Compared by SHA-512.",
      ]
    `)
    expect(LIST_FINDINGS.map((kind) => `${findingWords(kind, 1)}; ${findingWords(kind, 2)}`)).toMatchInlineSnapshot(`
      [
        "1 file has other content; 2 files have other content",
        "1 file is read otherwise each time; 2 files are read otherwise each time",
        "1 file is missing; 2 files are missing",
        "1 file cannot be read; 2 files cannot be read",
        "1 file changed while it was read; 2 files changed while they were read",
        "1 name is of something that is no file; 2 names are of something that is no file",
        "1 name leads out of the folder and was not followed; 2 names lead out of the folder and were not followed",
        "1 line is of an algorithm that is not read here; 2 lines are of an algorithm that is not read here",
        "1 line is not understood; 2 lines are not understood",
        "the bag breaks its standard in 1 point; the bag breaks its standard in 2 points",
        "1 file in the folder is not named; 2 files in the folder are not named",
        "1 line is of other folders and was not compared; 2 lines are of other folders and were not compared",
      ]
    `)
  })

  it('takes either algorithm of a length, and names the one that fits', () => {
    const sum = { hash: MD5, algorithms: withDigits(32) }
    expect(fittingWith(sum, { md5: MD5, xxh128: 'x' })).toBe('md5')
    expect(fittingWith(sum, { md5: 'x', xxh128: MD5 })).toBe('xxh128')
    expect(fittingWith(sum, { md5: 'x', xxh128: 'y' })).toBeUndefined()
  })
})
