import { execFileSync, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { FolderMedium } from '../../server/engine/medium/folder'
import { readBack } from '../../server/engine/copy/hash'
import { alignedBlocks, SMALL_BLOCK } from '../../server/engine/medium/blocks'
import { writeLists } from '../../server/engine/copy/lists'

const gate = () => Promise.resolve()
const PLAIN = ['CURL0041.MP4', ' leading', 'trailing ', '*star', '#hash', 'two  spaces', '-dash', 'caf\xe9']
const ODD = ['two\nlines.TXT', 'back\\slash', 'return\r', 'tab\there']

async function mirror() {
  const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-lists-'))
  mkdirSync(join(root, 'Cards/Curlew A'), { recursive: true })
  const medium = new FolderMedium(root)
  const folder = Buffer.from('Cards/Curlew A')
  const files: { path: Buffer; hash: string | undefined }[] = []
  for (const name of [...PLAIN, ...ODD]) {
    writeFileSync(Buffer.from(`${root}/Cards/Curlew A/${name}`, 'latin1'), `content of ${name}`)
    const path = Buffer.from(name, 'latin1')
    const whole = Buffer.concat([folder, Buffer.from('/'), path])
    const { hash } = await readBack(medium, whole, alignedBlocks(1, SMALL_BLOCK), () => undefined, gate)
    files.push({ path, hash })
  }
  const write = () => writeLists({ medium, folder, parts: Buffer.from('.yendra/parts/1'), files, gate })
  await write()
  return { cards: join(root, 'Cards'), files, write }
}

/** The commands that the README and the screen give. */
const check = (program: string, list: string, cwd: string) =>
  spawnSync(program, ['--strict', '--quiet', '-c', list], { cwd, encoding: 'latin1' }).status

/** What the same command says, and where: xxhsum names files that are missing on the other stream. */
const said = (program: string, list: string, cwd: string) => {
  const { stdout, stderr } = spawnSync(program, ['--strict', '--quiet', '-c', list], { cwd, encoding: 'latin1' })
  return stdout + stderr
}

describe('the lists beside a copy', () => {
  // Source: xxhsum 0.8.1 and sha256sum of Debian, called as the README says.
  it('name every file once, and each list is read whole by its program', async () => {
    const { cards } = await mirror()
    expect(check('xxhsum', 'Curlew A.xxh64', cards)).toBe(0)
    expect(check('sha256sum', 'Curlew A.sha256', cards)).toBe(0)
    const lines = (list: string) => readFileSync(join(cards, list), 'latin1').trimEnd().split('\n').length
    expect([lines('Curlew A.xxh64'), lines('Curlew A.sha256')]).toEqual([PLAIN.length, ODD.length])
    const ours = execFileSync('sha256sum', ['Curlew A/two\nlines.TXT'], { cwd: cards, encoding: 'latin1' })
    expect(readFileSync(join(cards, 'Curlew A.sha256'), 'latin1')).toContain(ours)
  })

  for (const name of [...PLAIN, ...ODD]) {
    it(`make the check fail when ${JSON.stringify(name)} is damaged or gone`, async () => {
      const { cards } = await mirror()
      const path = Buffer.from(`${cards}/Curlew A/${name}`, 'latin1')
      const [program, list] = ODD.includes(name) ? ['sha256sum', 'Curlew A.sha256'] : ['xxhsum', 'Curlew A.xxh64']
      const bytes = readFileSync(path)
      bytes[0] = (bytes[0] ?? 0) ^ 1
      writeFileSync(path, bytes)
      expect(check(program ?? '', list ?? '', cards)).not.toBe(0)
      truncateSync(path, 3)
      expect(check(program ?? '', list ?? '', cards)).not.toBe(0)
    })
  }

  it('fail when they are written again beside a mirror that is not whole, rather than bless it', async () => {
    const { cards, files, write } = await mirror()
    const at = (name: string) => Buffer.from(`${cards}/Curlew A/${name}`, 'latin1')
    writeFileSync(at('back\\slash'), 'other')
    writeFileSync(at('CURL0041.MP4'), 'other')
    await write()
    expect(said('xxhsum', 'Curlew A.xxh64', cards)).toContain('Curlew A/CURL0041.MP4: FAILED')
    expect(said('sha256sum', 'Curlew A.sha256', cards)).toContain('Curlew A/back\\slash: FAILED')
    // Of what the card could never give, only the name is known.
    files.push(
      { path: Buffer.from('CURL0042.MP4'), hash: undefined },
      { path: Buffer.from('tab\tthere'), hash: undefined },
    )
    rmSync(at('two\nlines.TXT'))
    await write()
    expect(said('xxhsum', 'Curlew A.xxh64', cards)).toContain('CURL0042.MP4')
    expect(said('sha256sum', 'Curlew A.sha256', cards)).toMatch(/lines\.TXT: FAILED[^]*there: FAILED/)
  })
})
