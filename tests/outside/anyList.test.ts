import { execFileSync, spawnSync } from 'node:child_process'
import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, dirname, join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { verdictOf, type ListChecked } from '../../core/copies/lists/verdict'
import { readBagLists } from '../../server/engine/lists/bag'
import { Findings } from '../../server/engine/lists/findings'
import { NoList, readList } from '../../server/engine/lists/readList'
import { verifyFolder } from '../../server/engine/lists/verify'
import { FolderMedium } from '../../server/engine/medium/folder'
import type { Medium } from '../../server/engine/medium/medium'
import { canMount } from '../clear/mounts'
import { more } from '../more'

const gate = () => Promise.resolve()
const nothing = () => undefined

let root = ''
const inOld = (name: string) => Buffer.from(`${root}/Old/${name}`, 'latin1')
const shell = (command: string, cwd = root) => execFileSync('sh', ['-c', command], { cwd, encoding: 'latin1' })

beforeEach(() => {
  root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-any-'))
  mkdirSync(join(root, 'Old/DAY1'), { recursive: true })
  mkdirSync(join(root, 'Old/DAY 2'))
  writeFileSync(inOld('DAY1/a.mp4'), Buffer.alloc(9_000_001, 'footage'))
  writeFileSync(inOld('DAY1/M\xc3\xb6we.mp4'), 'gull')
  writeFileSync(inOld('DAY 2/by\xffte'), 'bytes')
  writeFileSync(inOld('DAY 2/back\\slash'), 'x')
  writeFileSync(inOld('DAY 2/empty'), '')
  return () => rmSync(root, { recursive: true })
})

async function compare(list: string, medium: Medium = new FolderMedium(join(root, 'Old'))) {
  const path = join(root, list)
  const findings = new Findings()
  const read = await readList(new FolderMedium(dirname(path)), Buffer.from(basename(path)), gate)
  findings.addFaults(read)
  const verified = await verifyFolder(
    {
      ...{
        medium,
        folder: Buffer.alloc(0),
        folderPath: join(root, 'Old'),
        listFolder: dirname(path),
        lines: read.lines,
      },
      self: path.startsWith(join(root, 'Old/')) ? path.slice(join(root, 'Old/').length) : undefined,
      ...{ isOwn: () => false, gate, onTotal: nothing, onBytes: nothing },
    },
    findings,
  )
  const checked: ListChecked = { ...verified, found: findings.counts, cut: read.cut, isBag: false }
  return { checked, verdict: verdictOf(checked), kept: findings.kept }
}

const ALL = 'find . -type f -print0 | sort -z | xargs -0'

describe('a list of somebody else', () => {
  // Source: the programs named here, of Debian (coreutils 9.1, xxhsum 0.8.1, rhash 1.4.3, openssl), run here.
  it.each([
    ['all.md5', `cd Old && ${ALL} md5sum`, 'md5'],
    ['all.sha1', `cd Old && ${ALL} sha1sum -b`, 'sha1'],
    ['all', `cd Old && ${ALL} sha224sum --tag`, 'sha224'],
    ['SHA256SUMS', `find Old -type f -print0 | xargs -0 sha256sum`, 'sha256'],
    ['all.txt', `cd Old && ${ALL} sha384sum | sed 's/$/\\r/'`, 'sha384'],
    ['all.sha512', `cd Old && ${ALL} sha512sum | sed -E 's/^(\\\\?)([0-9a-f]+)/\\1\\U\\2/'`, 'sha512'],
    ['all.openssl', `cd Old && ${ALL} openssl sha256`, 'sha256'],
  ])('%s, by %s, fits its folder', async (list, command, algorithm) => {
    writeFileSync(join(root, list), Buffer.from(shell(command), 'latin1'))
    const { checked, verdict, kept } = await compare(list)
    expect({ verdict, kept, lines: checked.lines, algorithms: checked.algorithms }).toEqual({
      ...{ verdict: 'equal', kept: [], lines: 5, algorithms: [algorithm] },
    })
    truncateSync(inOld('DAY1/a.mp4'), 9_000_000)
    rmSync(inOld('DAY 2/by\xffte'))
    const worse = await compare(list)
    expect(worse.kept.map(({ kind, path }) => `${kind} ${path}`).sort()).toEqual([
      'different DAY1/a.mp4',
      'missing DAY 2/by\xffte',
    ])
  })

  it.each([
    ['xxh32', '-H0'],
    ['xxh64', '-H1'],
    ['xxh128', '-H2'],
    ['xxh3', '-H3'],
  ])(
    'by xxhsum, %s, fits, also where nothing but its digits tells with what it was made',
    async (algorithm, option) => {
      for (const tag of ['', '--tag']) {
        writeFileSync(
          join(root, 'sums.txt'),
          Buffer.from(shell(`cd Old && ${ALL} xxhsum ${option} ${tag} 2>/dev/null`), 'latin1'),
        )
        const { checked, verdict } = await compare('sums.txt')
        expect([tag, verdict, checked.algorithms, checked.found]).toEqual([tag, 'equal', [algorithm], {}])
      }
    },
  )

  it('by rhash, as SFV and with several sums a file, fits what it can name', async () => {
    rmSync(inOld('DAY 2/back\\slash'))
    writeFileSync(join(root, 'Old/all.sfv'), Buffer.from(shell('cd Old && rhash --sfv -r .'), 'latin1'))
    expect(await compare('Old/all.sfv')).toMatchObject({
      verdict: 'equal',
      checked: { lines: 4, algorithms: ['crc32'] },
    })
    writeFileSync(join(root, 'several'), Buffer.from(shell('cd Old && rhash --crc32 --md5 --sha1 -r DAY1'), 'latin1'))
    const several = await compare('several')
    expect(several).toMatchObject({ verdict: 'equal', checked: { lines: 6, files: 2, found: { extra: 3 } } })
    expect([...several.checked.algorithms].sort()).toEqual(['crc32', 'md5', 'sha1'])
  })

  it('from a computer with backslashes, another code page or sixteen bits to the letter is understood', async () => {
    const sum = (name: string) =>
      execFileSync('md5sum', { input: readFileSync(inOld(name)), encoding: 'utf8' }).slice(0, 32)
    const [a, gull] = [sum('DAY1/a.mp4'), sum('DAY1/M\xc3\xb6we.mp4')]
    const text = `; made elsewhere\r\n${a} *DAY1\\a.mp4\r\n${gull} *DAY1\\M\xf6we.mp4\r\n`
    writeFileSync(join(root, 'page.md5'), Buffer.from(text, 'latin1'))
    expect(await compare('page.md5')).toMatchObject({ verdict: 'equal', checked: { lines: 2, renamed: 1 } })
    writeFileSync(join(root, 'wide.md5'), Buffer.from(`\ufeff${text}`, 'utf16le'))
    expect(await compare('wide.md5')).toMatchObject({ verdict: 'equal', checked: { lines: 2, renamed: 0 } })
    writeFileSync(join(root, 'mark.md5'), `\ufeff${a}  DAY1/a.mp4\n${gull}  DAY1/Mo\u0308we.mp4\n`)
    expect(await compare('mark.md5')).toMatchObject({ verdict: 'equal', checked: { lines: 2, renamed: 1 } })
  })

  it('that lies says nothing false', async () => {
    const md5 = (name: string) => shell(`md5sum < 'Old/${name}'`).slice(0, 32)
    symlinkSync('/etc/passwd', join(root, 'Old/link'))
    symlinkSync('/etc', join(root, 'Old/etc'))
    execFileSync('mkfifo', [join(root, 'Old/pipe')])
    const line = (name: string, sum = md5('DAY1/a.mp4')) => `${sum}  ${name}\n`
    const lies = [
      ...[line('DAY1/a.mp4'), line('/etc/passwd'), line('../Old/DAY1/a.mp4'), line('../../etc/passwd')],
      ...[line('link'), line('etc/passwd'), line('pipe'), line('DAY1'), line('gone'), line('DAY 2/empty')],
      ...['what is this\n', `WHIRLPOOL (x) = ${'0'.repeat(128)}\n`, line('DAY1/a.mp4').slice(0, -3)],
    ]
    writeFileSync(join(root, 'lies.md5'), lies.join(''))
    const { checked, verdict, kept } = await compare('lies.md5')
    expect(verdict).toBe('not-equal')
    expect(checked).toMatchObject({ equal: 1, cut: true })
    expect(
      Object.fromEntries(kept.filter((one) => one.kind !== 'extra').map(({ path, kind }) => [path, kind])),
    ).toEqual({
      ...{ '/etc/passwd': 'refused', '../Old/DAY1/a.mp4': 'refused', '../../etc/passwd': 'refused' },
      ...{ link: 'no-file', 'etc/passwd': 'unreadable', pipe: 'no-file', DAY1: 'no-file', gone: 'missing' },
      ...{ 'DAY 2/empty': 'different', 'DAY1/a.m': 'missing', 'what is this': 'no-line' },
      [`WHIRLPOOL (x) = ${'0'.repeat(128)}`]: 'unknown-algorithm',
    })
  })

  it('that is a wrong one, a film, a pipe or gone is said to be that', async () => {
    writeFileSync(
      join(root, 'wrong.md5'),
      shell('cd Old && find . -type f -print0 | xargs -0 md5sum').replaceAll(/^(\\?)[0-9a-f]{8}/gm, '$100000000'),
    )
    expect((await compare('wrong.md5')).verdict).toBe('cannot-tell')
    execFileSync('mkfifo', [join(root, 'pipe.md5')])
    await expect(compare('pipe.md5')).rejects.toThrow(NoList)
    await expect(compare('gone.md5')).rejects.toThrow('gone')
    writeFileSync(join(root, 'film.mp4'), Buffer.from(Array.from({ length: 3_000_000 }, (_, at) => (at * 7919) % 251)))
    await expect(compare('film.mp4')).rejects.toThrow('no checksum list')
    writeFileSync(join(root, 'long.md5'), Buffer.alloc(20_000_000, 'a'))
    await expect(compare('long.md5')).rejects.toThrow('no checksum list')
    truncateSync(join(root, 'long.md5'), 3 * 1024 ** 3)
    await expect(compare('long.md5')).rejects.toThrow('more than 2 GiB')
  })

  it('of a folder that changes, or is read otherwise each time, is not called equal', async () => {
    writeFileSync(join(root, 'all.md5'), Buffer.from(shell(`cd Old && ${ALL} md5sum`), 'latin1'))
    const own = new FolderMedium(join(root, 'Old'))
    const withRead = (read: Medium['open']): Medium =>
      new Proxy(own, {
        get: (target, name) => {
          const value: unknown = name === 'open' ? read : Reflect.get(target, name, target)
          return typeof value === 'function' && name !== 'open' ? (value.bind(target) as unknown) : value
        },
      })
    let times = 0
    const garbled = withRead(async (path) => {
      const file = await own.open(path)
      times += path.toString() === 'DAY1/a.mp4' ? 1 : 0
      const spoils = path.toString() === 'DAY1/a.mp4' && times === 1
      return {
        ...{ fromMedium: file.fromMedium, identity: () => file.identity(), close: () => file.close() },
        read: async (block, position) => {
          const bytes = await file.read(block, position)
          if (spoils && position === 0) block[5] = 1 ^ (block[5] ?? 0)
          return bytes
        },
      }
    })
    expect((await compare('all.md5', garbled)).kept).toMatchObject([{ kind: 'unsteady', path: 'DAY1/a.mp4' }])
    const growing = withRead(async (path) => {
      if (path.toString() === 'DAY1/a.mp4') appendFileSync(inOld('DAY1/a.mp4'), 'more')
      return own.open(path)
    })
    expect((await compare('all.md5', growing)).kept).toMatchObject([{ kind: 'changed', path: 'DAY1/a.mp4' }])
    const swapped: Medium = new Proxy(own, {
      get: (target, name) => {
        const value: unknown =
          name === 'place' ? () => Promise.resolve(`place ${(times += 1)}`) : Reflect.get(target, name, target)
        return typeof value === 'function' && name !== 'place' ? (value.bind(target) as unknown) : value
      },
    })
    await expect(compare('all.md5', swapped)).rejects.toThrow('went away')
    const away = withRead(() => Promise.reject(Object.assign(new Error('gone'), { code: 'ENODEV' })))
    await expect(compare('all.md5', away)).rejects.toThrow('gone')
  })

  it.runIf(canMount)(
    'says of what is mounted inside that it is another drive, and not that it is missing',
    async () => {
      mkdirSync(join(root, 'Old/other'))
      writeFileSync(join(root, 'all.md5'), Buffer.from(shell(`cd Old && ${ALL} md5sum`), 'latin1'))
      appendFileSync(join(root, 'all.md5'), `${'0'.repeat(32)}  ./other/a\n`)
      execFileSync('mount', ['-t', 'tmpfs', 'tmpfs', join(root, 'Old/other')])
      try {
        writeFileSync(join(root, 'Old/other/a'), 'a')
        const { kept } = await compare('all.md5')
        expect(kept.map(({ kind, path }) => `${kind} ${path}`)).toEqual(['unreadable other/a'])
      } finally {
        execFileSync('umount', [join(root, 'Old/other')])
      }
    },
  )

  more('of a million lines is read', async () => {
    const lines = Array.from(
      { length: 1_000_000 },
      (_, at) => `${at.toString(16).padStart(32, '0')}  DAY1/clip ${at}.mp4\n`,
    )
    writeFileSync(join(root, 'million.md5'), lines.join(''))
    expect(await compare('million.md5')).toMatchObject({
      verdict: 'not-equal',
      checked: { lines: 1_000_000, found: { missing: 1_000_000 } },
    })
    appendFileSync(join(root, 'million.md5'), readFileSync(join(root, 'million.md5')))
    appendFileSync(join(root, 'million.md5'), lines.slice(0, 9).join(''))
    await expect(compare('million.md5')).rejects.toThrow('more than 2000000 lines')
  })
})

describe('a bag', () => {
  const bagAt = (name: string) => Buffer.from(`${root}/Bag/${name}`, 'latin1')

  async function bagChecked() {
    const medium = new FolderMedium(join(root, 'Bag'))
    const findings = new Findings()
    const { lines, complete } = await readBagLists(medium, Buffer.alloc(0), findings, gate)
    const verified = await verifyFolder(
      {
        ...{ medium, folder: Buffer.alloc(0), folderPath: join(root, 'Bag'), listFolder: join(root, 'Bag'), lines },
        base: { above: [], inside: [], backslashes: false },
        onTree: complete,
        ...{ isOwn: () => true, gate, onTotal: nothing, onBytes: nothing },
      },
      findings,
    )
    const verdict = verdictOf({ ...verified, found: findings.counts, cut: false, isBag: true })
    expect(Object.values(findings.counts).reduce((sum, count) => sum + count, 0)).toBe(findings.kept.length)
    return [verdict, ...findings.kept.map(({ kind, path, detail }) => [kind, path, detail].filter(Boolean).join(' '))]
  }

  beforeEach(() => {
    mkdirSync(join(root, 'Bag/data/sub'), { recursive: true })
    writeFileSync(bagAt('data/a.txt'), 'a')
    writeFileSync(bagAt('data/sub/100%.txt'), 'b')
    // Source: RFC 8493, section 2.1.1 (declaration), 2.1.3 (manifests), 2.2.2 (Payload-Oxum), 4.1 (a bag by example).
    writeFileSync(bagAt('bagit.txt'), 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')
    writeFileSync(bagAt('bag-info.txt'), 'Source-Organization: Wherry\nPayload-Oxum: 2.2\n')
    for (const tool of ['md5', 'sha512'])
      writeFileSync(
        bagAt(`manifest-${tool}.txt`),
        shell(`find data -type f -print0 | xargs -0 ${tool}sum`, join(root, 'Bag')).replaceAll('%', '%25'),
      )
    writeFileSync(
      bagAt('tagmanifest-md5.txt'),
      shell('md5sum bagit.txt bag-info.txt manifest-*.txt', join(root, 'Bag')),
    )
  })

  it('is equal where its manifests, its declaration and its count say so', async () => {
    expect(await bagChecked()).toEqual(['equal'])
    expect(
      spawnSync('md5sum', ['--strict', '--quiet', '-c', 'tagmanifest-md5.txt'], { cwd: join(root, 'Bag') }).status,
    ).toBe(0)
    // Before 1.0 the percent sign stood for itself (RFC 8493, appendix of changes).
    writeFileSync(bagAt('bagit.txt'), 'BagIt-Version: 0.97\nTag-File-Character-Encoding: UTF-8\n')
    rmSync(bagAt('tagmanifest-md5.txt'))
    expect(await bagChecked()).toContain('missing data/sub/100%25.txt')
  })

  it('counts what is not understood over all its manifests', async () => {
    for (const tool of ['md5', 'sha512']) appendFileSync(bagAt(`manifest-${tool}.txt`), 'no line\nnor this\n')
    rmSync(bagAt('tagmanifest-md5.txt'))
    expect(await bagChecked()).toEqual([
      'not-equal',
      ...Array.from({ length: 2 }, () => ['no-line no line', 'no-line nor this']).flat(),
    ])
  })

  it('names what its standard refuses', async () => {
    writeFileSync(bagAt('data/sub/100%.txt'), 'c')
    writeFileSync(bagAt('data/new.txt'), 'n')
    writeFileSync(bagAt('bagit.txt'), 'BagIt-Version: 1.0\n')
    const [verdict, ...found] = await bagChecked()
    expect(verdict).toBe('not-equal')
    expect(found.map((one) => one.replace(/ [0-9a-f]{32,} instead.*$/, '')).sort()).toEqual([
      'bag bag-info.txt counts 2 bytes in 2 files, and there are 3 in 3',
      'bag bagit.txt does not declare a version and an encoding as the standard wants',
      'bag data/new.txt is not named by manifest-md5.txt',
      'bag data/new.txt is not named by manifest-sha512.txt',
      'different bagit.txt',
      'different data/sub/100%.txt',
      'different data/sub/100%.txt',
    ])
    for (const tool of ['md5', 'sha512']) rmSync(bagAt(`manifest-${tool}.txt`))
    expect((await bagChecked()).join()).toContain('every other manifest of the payload')
  })
})
