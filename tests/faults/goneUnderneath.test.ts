import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import type { CopyRecord } from '../../core/copies/record'
import { checkCopy } from '../../server/engine/copy/check'
import { RunningHash } from '../../server/engine/copy/hash'
import { FolderMedium } from '../../server/engine/medium/folder'
import { canMount } from '../clear/mounts'

const path = Buffer.from('Mirror/CURL0041.MP4')
const root = () => mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-gone-'))

const sides: string[] = []
const mount = (...args: string[]) => execFileSync('mount', args)
const away = (at: string) => execFileSync('umount', ['-l', at])

/** Another file system at a folder, with a file of the same name on it. */
function mounted(at: string, content: string): void {
  const side = root()
  mount('-t', 'tmpfs', 'none', side)
  sides.push(side)
  mkdirSync(join(side, 'Mirror'))
  writeFileSync(join(side, path.toString()), content)
  mount('--bind', side, at)
}

afterAll(() => {
  for (const side of sides) away(side)
})

describe.runIf(canMount)('a volume whose mount point stays when it goes', () => {
  it('has no answers any more: nothing is called gone, and nothing is made below', async () => {
    const at = root()
    mounted(at, 'clip')
    const medium = new FolderMedium(at)
    expect((await medium.entry(path))?.sizeBytes).toBe(4)
    away(at)
    const gone = { code: 'ENODEV' }
    await expect(medium.entry(path)).rejects.toMatchObject(gone)
    await expect(medium.open(path)).rejects.toMatchObject(gone)
    await expect(medium.create(Buffer.from('new'))).rejects.toMatchObject(gone)
    await expect(medium.makeFolder(Buffer.from('Other'))).rejects.toMatchObject(gone)
    expect(readdirSync(at)).toEqual([])
  })

  it('is not taken for another one that came in its place', async () => {
    const at = root()
    mounted(at, 'clip')
    const medium = new FolderMedium(at)
    await medium.entry(path)
    away(at)
    mounted(at, 'other')
    await expect(medium.create(Buffer.from('new'))).rejects.toMatchObject({ code: 'ENODEV' })
    await expect(medium.makeFolder(Buffer.from('Other'))).rejects.toMatchObject({ code: 'ENODEV' })
    expect(readdirSync(at)).toEqual(['Mirror'])
    away(at)
  })

  it('is read by threads only where a file lies itself, not through a mount or a link', async () => {
    const [at, other] = [root(), root()]
    for (const folder of [at, other]) writeFileSync(join(folder, 'F.XML'), 'clip')
    mkdirSync(join(at, 'Inner'))
    mount('--bind', other, join(at, 'Inner'))
    symlinkSync(other, join(at, 'Link'))
    const asked = ['F.XML', 'Inner/F.XML', 'Link/F.XML'].map((name) => ({ path: Buffer.from(name), sizeBytes: 4 }))
    const reads = await new FolderMedium(at).readSmall(asked)
    away(join(at, 'Inner'))
    expect(reads).toMatchObject([{ hash: expect.any(String) as string }, { code: 'EINVAL' }, { code: 'EINVAL' }])
  })

  it.each(['nothing', 'another one with the same file'])('ends a check for which %s is there', async (what) => {
    const at = root()
    mounted(at, 'clip')
    const told: CopyRecord[] = []
    let turns = 0
    const gate = () => {
      turns += 1
      if (turns === 1) away(at)
      if (turns === 1 && what !== 'nothing') mounted(at, 'clip')
      return Promise.resolve()
    }
    const hash = new RunningHash()
    hash.update(Buffer.from('clip'))
    const lay = { sizeBytes: 4, modifiedMs: 0, inode: null, changedMs: null }
    const checked = checkCopy({
      ...{ destinationId: 'tide', medium: new FolderMedium(at), folder: Buffer.from('Mirror'), gate },
      files: [1, 2, 3].map((id) => ({ id, path: Buffer.from('CURL0041.MP4'), sizeBytes: 4, hash: hash.digest(), lay })),
      onBytes: () => undefined,
      report: (records) => Promise.resolve(void told.push(...records)),
    })
    await expect(checked).rejects.toMatchObject({ code: 'ENODEV' })
    expect(told).toEqual([])
    if (what !== 'nothing') away(at)
  })
})
