import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { fewEntries } from './fewEntries'
import { treeByFind } from './find'
import { FolderMedium } from './folder'
import { deviceError, type MediumEntry } from './medium'
import { listingDigest, walk } from './walk'

/**
 * A card with a folder that may not be opened, as on file systems that keep one for the system (root opens everything).
 */
class PartlyLocked extends FolderMedium {
  override tree = () => Promise.resolve(undefined)
  override list(folder: Buffer): Promise<MediumEntry[]> {
    return folder.toString() === 'lost+found'
      ? Promise.reject(deviceError('EACCES', 'permission denied'))
      : super.list(folder)
  }
}

function card() {
  const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-walk-'))
  mkdirSync(join(root, 'DCIM/100CURLW'), { recursive: true })
  mkdirSync(join(root, 'lost+found'))
  const clip = join(root, 'DCIM/100CURLW/CURL0041.MP4')
  writeFileSync(clip, 'footage')
  return { root, clip }
}

describe('the listing of a card', () => {
  it('names a locked folder as something special and goes on; a locked card is an error', async () => {
    const entries = await walk(new PartlyLocked(card().root))
    expect(entries.map((entry) => [entry.path.toString(), entry.kind])).toEqual([
      ['DCIM', 'folder'],
      ['DCIM/100CURLW', 'folder'],
      ['DCIM/100CURLW/CURL0041.MP4', 'file'],
      ['lost+found', 'special'],
    ])
    await expect(walk(new FolderMedium('/nowhere/at/all'))).rejects.toMatchObject({ code: 'ENOENT' })
  })

  it('has another print when a file is new, larger, renamed or rewritten, and the same when nothing changed', async () => {
    const { root, clip } = card()
    const print = async () => listingDigest(await walk(new FolderMedium(root)))
    const prints = [await print()]
    expect(await print()).toBe(prints[0])
    utimesSync(clip, 1_700_000_000, 1_700_000_000)
    prints.push(await print())
    writeFileSync(clip, 'more footage')
    utimesSync(clip, 1_700_000_000, 1_700_000_000)
    prints.push(await print())
    writeFileSync(join(root, 'DCIM/100CURLW/CURL0042.MP4'), '')
    prints.push(await print())
    expect(new Set(prints).size).toBe(4)
    expect(prints.every((one) => /^[0-9a-f]{16}$/.test(one))).toBe(true)
  })
})

describe('both ways of listing', () => {
  it('agree on every name, kind, size, time and link, in the same order', async () => {
    const { root } = card()
    for (const folder of ['a', 'a b', 'a.b', 'a/deep', 'empty']) mkdirSync(join(root, folder), { recursive: true })
    for (const name of ['a/z', 'a b/z', 'a.b/z', 'a/deep/z', 'line\nend', 'back\\slash', ' blank '])
      writeFileSync(join(root, name), name)
    writeFileSync(Buffer.concat([Buffer.from(`${root}/`), Buffer.from([0xe9, 0xff, 0x2e])]), 'no text')
    symlinkSync('/etc/passwd', join(root, 'a/link'))
    symlinkSync('/etc', join(root, 'to a folder'))
    execFileSync('mkfifo', [join(root, 'pipe')])
    execFileSync('touch', ['-d', '2026-11-25 10:00:00.123456789', join(root, 'a/z')])
    execFileSync('touch', ['-d', '1969-12-31 23:59:58.250', join(root, 'a b/z')])
    class ByFolders extends FolderMedium {
      override tree = () => Promise.resolve(undefined)
    }
    const bytes = Buffer.from(root)
    const [few, byFind] = [await fewEntries(bytes), await treeByFind(bytes)]
    expect(few).toEqual(byFind)
    const [quick, slow] = [await walk(new FolderMedium(root)), await walk(new ByFolders(root))]
    expect(quick).toEqual(slow)
    expect(quick.length).toBeGreaterThan(18)
    expect(byFind).toEqual(quick)
    // Of much, find is quicker.
    mkdirSync(join(root, 'many'))
    for (let number = 0; number < 200; number += 1) writeFileSync(join(root, 'many', `${number}`), '')
    expect(await fewEntries(bytes)).toBeUndefined()
    expect(await walk(new FolderMedium(root))).toEqual(await walk(new ByFolders(root)))
    expect(await walk(new FolderMedium(root), Buffer.from('a'))).toEqual(
      await walk(new ByFolders(root), Buffer.from('a')),
    )
    await expect(walk(new FolderMedium(root), Buffer.from('to a folder'))).rejects.toMatchObject({ code: 'ELOOP' })
    await expect(walk(new FolderMedium(root), Buffer.from('nowhere'))).rejects.toMatchObject({ code: 'ENOENT' })
  })
})
