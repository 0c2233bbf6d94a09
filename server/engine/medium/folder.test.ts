import { mkdirSync, mkdtempSync, readdirSync, readFileSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { alignedBlocks, fitted, itemAt, LARGE_BLOCK, SMALL_BLOCK } from './blocks'
import { FolderMedium } from './folder'
import { readBack, RunningHash } from '../copy/hash'
import { errorCode, joinPath, parentOf } from './medium'
import { walk } from './walk'

const path = (text: string) => Buffer.from(text)
const emptyFolder = () => mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-folder-'))

describe('a folder as a medium', () => {
  it('lists what lies there and tells links from what they point to', async () => {
    const root = emptyFolder()
    mkdirSync(join(root, 'DCIM/100CURLW'), { recursive: true })
    writeFileSync(join(root, 'DCIM/100CURLW/CURL0041.MP4'), 'clip')
    symlinkSync('/etc', join(root, 'DCIM/away'))
    const entries = await walk(new FolderMedium(root))
    expect(entries.map((entry) => [entry.path.toString(), entry.kind])).toEqual([
      ['DCIM', 'folder'],
      ['DCIM/100CURLW', 'folder'],
      ['DCIM/100CURLW/CURL0041.MP4', 'file'],
      ['DCIM/away', 'link'],
    ])
    expect(entries.at(-1)?.linkTarget?.toString()).toBe('/etc')
  })

  it('never leaves its root', async () => {
    const medium = new FolderMedium(emptyFolder())
    for (const wrong of ['../secret', 'a/../../secret', 'nul\0byte']) {
      await expect(medium.entry(path(wrong)), wrong).rejects.toThrow('leaves its volume')
      await expect(medium.create(path(wrong)), wrong).rejects.toThrow('leaves its volume')
    }
  })

  it('refuses to read through a link or to make folders through one', async () => {
    const root = emptyFolder()
    symlinkSync('/etc/hostname', join(root, 'file'))
    symlinkSync('/tmp', join(root, 'folder'))
    const medium = new FolderMedium(root)
    await expect(medium.open(path('file'))).rejects.toMatchObject({ code: 'ELOOP' })
    await expect(medium.create(path('file'))).rejects.toMatchObject({ code: 'ELOOP' })
    await expect(medium.makeFolder(path('folder/inside'))).rejects.toMatchObject({ code: 'ENOTDIR' })
  })

  it('closes a file once: the number of its descriptor belongs to the next file then', async () => {
    const root = emptyFolder()
    writeFileSync(join(root, 'first'), 'first')
    writeFileSync(join(root, 'second'), 'second')
    const medium = new FolderMedium(root)
    const block = itemAt(alignedBlocks(1, SMALL_BLOCK), 0)
    const first = await medium.open(path('first'))
    await first.close()
    const second = await medium.open(path('second'))
    await first.close()
    await expect(first.read(block, 0)).rejects.toThrow()
    expect(await second.read(block, 0)).toBe('second'.length)
    await second.close()
  })

  it('gives a name only when it is free', async () => {
    const root = emptyFolder()
    const medium = new FolderMedium(root)
    writeFileSync(join(root, 'part'), 'new')
    writeFileSync(join(root, 'mine'), 'old')
    expect(await medium.publish(path('part'), path('mine'))).toBe('taken')
    expect(readFileSync(join(root, 'mine'), 'utf8')).toBe('old')
    expect(await medium.publish(path('part'), path('free'))).toBe('named')
    expect(readFileSync(join(root, 'free'), 'utf8')).toBe('new')
    expect(await medium.entry(path('part'))).toBeUndefined()
    await expect(medium.move(path('free'), path('mine'))).rejects.toMatchObject({ code: 'EEXIST' })
  })

  it('writes blocks of any size at any place, and keeps the time', async () => {
    const root = emptyFolder()
    const medium = new FolderMedium(root)
    const [block] = alignedBlocks(1, LARGE_BLOCK)
    if (!block) throw new Error('no block')
    block.fill(7)
    const file = await medium.create(path('clip'))
    await file.write(block, 0)
    await file.write(block.subarray(0, 12_345), LARGE_BLOCK)
    // Memory that does not start on a page boundary takes the usual way.
    await file.write(Uint8Array.from(block), LARGE_BLOCK + 12_345)
    await file.close(1_700_000_000_123, 'durable')
    const written = readFileSync(join(root, 'clip'))
    expect(written.length).toBe(LARGE_BLOCK * 2 + 12_345)
    expect(written.every((byte) => byte === 7)).toBe(true)
    expect((await medium.entry(path('clip')))?.modifiedMs).toBeCloseTo(1_700_000_000_123, 0)
  })

  it('tells its room', async () => {
    const { capacityBytes, freeBytes } = await new FolderMedium(emptyFolder()).room()
    expect(freeBytes).toBeGreaterThan(0)
    expect(freeBytes).toBeLessThanOrEqual(capacityBytes)
  })
})

describe('reading back', () => {
  it('hashes every length in order, with one block or with several', async () => {
    const root = emptyFolder()
    const medium = new FolderMedium(root)
    for (const size of [
      0,
      1,
      4096,
      SMALL_BLOCK - 1,
      SMALL_BLOCK,
      SMALL_BLOCK + 1,
      SMALL_BLOCK * 3,
      SMALL_BLOCK * 5 + 77,
    ]) {
      const bytes = Buffer.alloc(size, Buffer.from(Array.from({ length: 251 }, (_, at) => at)))
      writeFileSync(join(root, 'file'), bytes)
      const wanted = new RunningHash()
      wanted.update(bytes)
      const hash = wanted.digest()
      for (const count of [1, 2, 3]) {
        let counted = 0
        const found = await readBack(
          medium,
          path('file'),
          alignedBlocks(count, SMALL_BLOCK),
          (more) => (counted += more),
          () => Promise.resolve(),
        )
        expect(found, `${size} bytes, ${count} blocks`).toEqual({ hash, sizeBytes: size, fromMedium: true })
        expect(counted).toBe(size)
      }
    }
  })

  it('hashes the whole of a file that grew beyond the part of a block that was meant for it', async () => {
    const root = emptyFolder()
    for (const size of [0, 1, 4095, 4096, 4097, 8191, 100_000]) {
      const bytes = Buffer.alloc(size + 1, 'grown')
      writeFileSync(join(root, 'file'), bytes)
      const wanted = new RunningHash()
      wanted.update(bytes)
      const blocks = [fitted(itemAt(alignedBlocks(1, SMALL_BLOCK), 0), size)]
      const none = () => Promise.resolve()
      const found = await readBack(new FolderMedium(root), path('file'), blocks, () => undefined, none)
      expect(found, `${size} bytes meant`).toEqual({ hash: wanted.digest(), sizeBytes: size + 1, fromMedium: true })
    }
  })

  it('closes the file and rests its blocks when the gate throws', async () => {
    const root = emptyFolder()
    writeFileSync(join(root, 'file'), Buffer.alloc(SMALL_BLOCK * 4))
    let turns = 0
    const gate = () => {
      turns += 1
      return turns > 2 ? Promise.reject(new Error('stopped')) : Promise.resolve()
    }
    await expect(
      readBack(new FolderMedium(root), path('file'), alignedBlocks(2, SMALL_BLOCK), () => undefined, gate),
    ).rejects.toThrow('stopped')
  })
})

describe('small things the engine leans on', () => {
  it('joins and splits paths as bytes', () => {
    expect(joinPath(path(''), path('a'), path('b')).toString()).toBe('a/b')
    expect(parentOf(path('a/b/c')).toString()).toBe('a/b')
    expect(parentOf(path('a')).toString()).toBe('')
  })

  it('knows the code of an error, and a list too short', () => {
    expect(errorCode(Object.assign(new Error('x'), { code: 'EIO' }))).toBe('EIO')
    expect(errorCode('EIO')).toBe('')
    expect(() => itemAt([], 0)).toThrow(RangeError)
  })

  it('keeps the time of a card’s file to the microsecond', async () => {
    const root = emptyFolder()
    writeFileSync(join(root, 'a'), '')
    utimesSync(join(root, 'a'), 1_700_000_000.123456, 1_700_000_000.123456)
    expect((await new FolderMedium(root).entry(path('a')))?.modifiedMs).toBeCloseTo(1_700_000_000_123.456, 2)
  })
})

describe('a link that stands in the middle of a path', () => {
  it('is followed by nothing: not to read, to write, to list, to move or to remove', async () => {
    const [root, outside] = [emptyFolder(), emptyFolder()]
    writeFileSync(join(outside, 'precious'), 'precious')
    mkdirSync(join(outside, 'deep'))
    symlinkSync(outside, join(root, 'way'))
    mkdirSync(join(root, 'own'))
    writeFileSync(join(root, 'own/file'), 'own')
    const medium = new FolderMedium(root)
    const refused = { code: 'ELOOP' }
    await expect(medium.open(path('way/precious'))).rejects.toMatchObject(refused)
    await expect(medium.create(path('way/precious'))).rejects.toMatchObject(refused)
    await expect(medium.list(path('way'))).rejects.toMatchObject(refused)
    await expect(medium.list(path('way/deep'))).rejects.toMatchObject(refused)
    await expect(medium.makeFolder(path('way/new'))).rejects.toThrow()
    await expect(medium.publish(path('own/file'), path('way/file'))).rejects.toMatchObject(refused)
    await expect(medium.move(path('own/file'), path('way/file'))).rejects.toThrow()
    await expect(medium.remove(path('way/precious'))).rejects.toMatchObject(refused)
    await expect(medium.settleFile(path('way/precious'))).rejects.toMatchObject(refused)
    expect(await medium.entry(path('way/precious'))).toBeUndefined()
    expect(readFileSync(join(outside, 'precious'), 'utf8')).toBe('precious')
    expect(readdirSync(outside).sort()).toEqual(['deep', 'precious'])
  })
})
