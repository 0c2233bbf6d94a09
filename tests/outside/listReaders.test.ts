import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { formatChecksumList, isPlainName, safeFirst } from '../../core/copies/lists/format'
import { READS, type Reader } from '../../core/copies/lists/tools'
import type { Algorithm } from '../../core/copies/lists/algorithm'
import { Sums } from '../../server/engine/lists/sums'
import { listFolder } from '../../server/engine/lists/writeList'
import { FolderMedium } from '../../server/engine/medium/folder'

/** Kinds of names that programs stumble over; bytes, one a character. */
const NAMES = {
  'an ordinary one': 'CURL0041.MP4',
  'spaces inside': 'two  spaces.mp4',
  'a space in front': ' leading',
  'a space behind': 'trailing ',
  'a line feed': 'two\nlines',
  'a carriage return': 'car\rriage',
  'a carriage return behind': 'end\r',
  'a backslash': 'back\\slash',
  'a backslash and an n': 'back\\nslash',
  'a tab': 'tab\there',
  'bytes that are no text': 'by\xffte',
  'letters beyond ASCII': 'M\xc3\xb6we.mp4',
  'a dash in front': '-dash',
  'an option': '--check',
  'a dash alone': '-',
  'a hash in front': '#hash',
  'a semicolon in front': ';semi',
  'a star in front': '*star',
  'a line of another style': 'MD5 (x) = 1',
  'a control character': 'bell\x07',
  '255 bytes': 'n'.repeat(255),
} as const
type Kind = keyof typeof NAMES

type Outcome = 'accepted' | 'refused' | 'unchecked'

const PROGRAMS = {
  md5sum: ['md5', 'md5sum', '--strict'],
  sha1sum: ['sha1', 'sha1sum', '--strict'],
  sha256sum: ['sha256', 'sha256sum', '--strict'],
  sha512sum: ['sha512', 'sha512sum', '--strict'],
  'xxhsum 64': ['xxh64', 'xxhsum', '--strict'],
  'xxhsum 128': ['xxh128', 'xxhsum', '--strict'],
  'xxhsum 64 without --strict': ['xxh64', 'xxhsum', '--quiet'],
  'rhash MD5': ['md5', 'rhash', '--skip-ok'],
  'rhash SHA-256': ['sha256', 'rhash', '--skip-ok'],
} as const satisfies Readonly<Record<string, readonly [Algorithm, Reader, string]>>
type Program = keyof typeof PROGRAMS

const scratch = () => mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-readers-'))

async function sumOf(algorithm: Algorithm, content: string): Promise<string> {
  const sums = new Sums()
  await sums.begin([algorithm])
  sums.update(Buffer.from(content))
  return sums.end()[algorithm] ?? ''
}

/**
 * What a program does with a list of two files, one of them with a name of some kind: whole, and with that one damaged.
 * `as` writes the name as it is put into the list.
 */
async function outcome(program: Program, kind: Kind, as: (name: string) => string): Promise<Outcome | 'odd'> {
  const [algorithm, command, option] = PROGRAMS[program]
  const folder = scratch()
  const path = Buffer.concat([Buffer.from(`${folder}/`), Buffer.from(NAMES[kind], 'latin1')])
  writeFileSync(join(folder, 'other'), 'good')
  const hash = await sumOf(algorithm, 'good')
  const text = formatChecksumList([
    { path: 'other', hash },
    { path: as(NAMES[kind]), hash },
  ])
  writeFileSync(join(folder, `list.${algorithm}`), Buffer.from(text, 'latin1'))
  const check = () =>
    spawnSync(command, [option, '-c', `list.${algorithm}`], { cwd: folder, input: 'good', timeout: 20_000 }).status ===
    0
  writeFileSync(path, 'good')
  const whole = check()
  writeFileSync(path, 'evil')
  const damaged = check()
  rmSync(folder, { recursive: true })
  return whole ? (damaged ? 'unchecked' : 'accepted') : damaged ? 'odd' : 'refused'
}

const bare = (name: string) => name

/** What is not accepted, program by program, where a list names a file as it is called. */
const STUMBLES: Partial<Record<Program, Partial<Record<Kind, Outcome>>>> = {
  ...Object.fromEntries(
    (['md5sum', 'sha1sum', 'sha256sum', 'sha512sum'] as const).map((one) => [one, { 'a dash alone': 'unchecked' }]),
  ),
  ...Object.fromEntries(
    (['xxhsum 64', 'xxhsum 128', 'xxhsum 64 without --strict'] as const).map((one) => {
      const what = one.endsWith('--strict') ? 'unchecked' : 'refused'
      return [
        one,
        Object.fromEntries(
          ['a line feed', 'a carriage return', 'a carriage return behind', 'a backslash', 'a backslash and an n'].map(
            (kind) => [kind, what],
          ),
        ),
      ]
    }),
  ),
  ...Object.fromEntries(
    (['rhash MD5', 'rhash SHA-256'] as const).map((one) => [
      one,
      Object.fromEntries(
        [
          ...['a space in front', 'a space behind', 'a carriage return', 'a carriage return behind', 'a backslash'],
          ...['a backslash and an n', 'a star in front', 'a control character'],
        ].map((kind) => [kind, 'refused']),
      ),
    ]),
  ),
}

describe('programs that read checksum lists', () => {
  // Source: md5sum, sha1sum, sha256sum, sha512sum (coreutils), xxhsum and rhash of Debian, run here.
  it.each(Object.keys(PROGRAMS) as Program[])(
    '%s: each kind of name is accepted, refused or passed',
    async (program) => {
      const found: Partial<Record<Kind, string>> = {}
      for (const kind of Object.keys(NAMES) as Kind[]) {
        const what = await outcome(program, kind, bare)
        if (what !== 'accepted') found[kind] = what
      }
      expect(found).toEqual(STUMBLES[program] ?? {})
    },
  )

  // What we write: names that begin with a sign get ./ before them, and no name goes to a program that cannot read it.
  it.each(Object.keys(READS) as Algorithm[])(
    '%s: its program accepts every name of a list of ours',
    async (algorithm) => {
      const program = (Object.keys(PROGRAMS) as Program[]).find(
        (one) => PROGRAMS[one][0] === algorithm && PROGRAMS[one][1] === READS[algorithm],
      )
      if (!program) throw new Error(`no program for ${algorithm}`)
      for (const kind of Object.keys(NAMES) as Kind[])
        if (!algorithm.startsWith('xxh') || isPlainName(NAMES[kind]))
          expect([kind, await outcome(program, kind, safeFirst)]).toEqual([kind, 'accepted'])
    },
  )

  it('fail for a file that is not as it was proved, and for one that is gone, by the lists of a copy', async () => {
    const root = scratch()
    mkdirSync(join(root, 'Old'))
    for (const name of ['good', 'rotten', 'odd\nname']) writeFileSync(join(root, 'Old', name), name)
    const known = async (content: string) => new Set([await sumOf('xxh64', content)])
    const { lists, unknown } = await listFolder({
      ...{ medium: new FolderMedium(root), folder: Buffer.from('Old'), before: 'Old/', algorithm: 'xxh64' as const },
      ...{ isOwn: () => false, expected: new Set(['good', 'rotten', 'gone']) },
      proved: new Map([
        ['good', await known('good')],
        ['rotten', await known('as it was')],
      ]),
      ...{ gate: () => Promise.resolve(), onTotal: () => undefined, onBytes: () => undefined },
    })
    expect(unknown).toEqual([
      { path: 'gone', why: 'missing' },
      { path: 'rotten', why: 'not-proved' },
    ])
    expect(lists.map((one) => [one.algorithm, one.lines])).toEqual([
      ['xxh64', 3],
      ['sha256', 1],
    ])
    const [first] = lists
    writeFileSync(join(root, 'Old.xxh64'), first?.text ?? '')
    const { stdout, stderr, status } = spawnSync('xxhsum', ['--strict', '-c', 'Old.xxh64'], {
      cwd: root,
      encoding: 'utf8',
    })
    expect(status).not.toBe(0)
    expect(stdout + stderr).toMatch(/Old\/good: OK[^]*Old\/rotten: FAILED/)
    expect(stdout + stderr).toContain('Old/gone')
  })

  it('check a whole folder by the lists that are written of it, and name each damaged file', async () => {
    for (const algorithm of ['md5', 'sha256', 'sha512', 'xxh64', 'xxh128'] as const) {
      const root = scratch()
      mkdirSync(join(root, 'Old/DAY1'), { recursive: true })
      for (const name of Object.values(NAMES)) writeFileSync(Buffer.from(`${root}/Old/DAY1/${name}`, 'latin1'), name)
      const medium = new FolderMedium(root)
      const { lists, unknown } = await listFolder({
        ...{ medium, folder: Buffer.from('Old'), before: 'Old/', algorithm, isOwn: () => false },
        ...{ gate: () => Promise.resolve(), onTotal: () => undefined, onBytes: () => undefined },
      })
      expect(unknown).toEqual([])
      for (const one of lists) writeFileSync(join(root, `Old.${one.algorithm}`), Buffer.from(one.text, 'latin1'))
      expect(lists.reduce((sum, one) => sum + one.lines, 0)).toBe(Object.keys(NAMES).length)
      const statuses = () =>
        lists.map(
          (one) =>
            spawnSync(READS[one.algorithm] ?? '', ['--strict', '--quiet', '-c', `Old.${one.algorithm}`], { cwd: root })
              .status,
        )
      expect(statuses()).toEqual(lists.map(() => 0))
      for (const name of Object.values(NAMES)) {
        const path = Buffer.from(`${root}/Old/DAY1/${name}`, 'latin1')
        const bytes = readFileSync(path)
        writeFileSync(path, 'damaged')
        expect([name, statuses().some((status) => status !== 0)]).toEqual([name, true])
        writeFileSync(path, bytes)
      }
    }
  })
})
