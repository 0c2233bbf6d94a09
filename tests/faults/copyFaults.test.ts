import { execFileSync } from 'node:child_process'
import {
  existsSync,
  lstatSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  statSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { Refused } from '../../core/copies/record'
import { SourceGone, SourceSwapped } from '../../server/engine/copy/copyRun'
import { rescueFile } from '../../server/engine/copy/rescue'
import { FolderMedium } from '../../server/engine/medium/folder'
import { deviceError, type Medium, type ReadableFile, type WritableFile } from '../../server/engine/medium/medium'
import { Stopped } from '../../server/engine/tool/stopped'
import { copyCard, emptyBench, filledBench, simulated, treeDifference, type Bench } from './fixtures'

/** All files under a folder, as paths; none where there is no folder. */
const files = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => join(entry.parentPath, entry.name))
    : []

const kinds = (records: readonly { kind: string }[], kind: string) => records.filter((record) => record.kind === kind)

describe('a copy to two drives', () => {
  it('ends with two equal trees, kept times and nothing of ours left behind', async () => {
    const bench = filledBench()
    const { records, files } = await copyCard(
      new FolderMedium(bench.card),
      new FolderMedium(bench.slipway),
      new FolderMedium(bench.tide),
    )
    expect(kinds(records, 'proved')).toHaveLength(files.size * 2)
    // Source: diff -r of Debian's diffutils, and xxhsum of Debian's xxhash.
    expect(treeDifference(bench.card, join(bench.slipway, 'Mirror'))).toBe('')
    expect(treeDifference(bench.card, join(bench.tide, 'Mirror'))).toBe('')
    const name = 'DCIM/100CURLW/CURL0041.MP4'
    const sum = execFileSync('xxhsum', ['-H64', join(bench.card, name)], { encoding: 'utf8' }).slice(0, 16)
    expect(records).toContainEqual(
      expect.objectContaining({ kind: 'proved', hash: sum, destinationId: 'tide', fromMedium: true }),
    )
    expect(
      Math.abs(statSync(join(bench.card, name)).mtimeMs - statSync(join(bench.tide, 'Mirror', name)).mtimeMs),
    ).toBeLessThan(0.01)
    expect(existsSync(join(bench.slipway, '.yendra/parts'))).toBe(false)
  })

  it('finds a flipped bit by reading back and names file and drive; the file gets no name there', async () => {
    for (const [afterBytes, path] of [
      [12_000_000, 'DCIM/100CURLW/CURL0041.MP4'],
      [30_000_500, 'DCIM/100CURLW/CURL100.XML'],
    ] as const) {
      const bench = filledBench()
      const tide = simulated(bench.tide, { fault: { kind: 'flip-bit', afterBytes } })
      const { records, files } = await copyCard(new FolderMedium(bench.card), simulated(bench.slipway), tide)
      const found = records.filter((record) => record.kind === 'mismatch')
      expect(found).toHaveLength(1)
      expect(found[0]).toMatchObject({ destinationId: 'tide' })
      const named = files.get(found[0]?.fileId ?? -1) ?? ''
      if (path.endsWith('MP4')) expect(named).toBe(path)
      expect(existsSync(join(bench.tide, 'Mirror', named))).toBe(false)
      expect(treeDifference(bench.card, join(bench.slipway, 'Mirror'))).toBe('')
      const again = await copyCard(new FolderMedium(bench.card), simulated(bench.slipway), simulated(bench.tide))
      expect(kinds(again.records, 'mismatch')).toEqual([])
      expect(treeDifference(bench.card, join(bench.tide, 'Mirror'))).toBe('')
    }
  })

  it('finds a write that was cut short though the drive said it was well', async () => {
    const bench = filledBench()
    const { records } = await copyCard(
      new FolderMedium(bench.card),
      simulated(bench.slipway),
      simulated(bench.tide, { fault: { kind: 'truncate-write', afterBytes: 20_000_000 } }),
    )
    expect(kinds(records, 'mismatch')).toEqual([expect.objectContaining({ destinationId: 'tide' })])
  })

  it('goes on to the other drive when one is full, and says how many bytes are missing', async () => {
    const bench = filledBench()
    const capacityBytes = 22_000_000
    const { records, files } = await copyCard(
      new FolderMedium(bench.card),
      simulated(bench.slipway),
      simulated(bench.tide, { capacityBytes }),
    )
    expect(treeDifference(bench.card, join(bench.slipway, 'Mirror'))).toBe('')
    const failed = records.filter((record) => record.kind === 'destination-failed')
    expect(failed).toEqual([expect.objectContaining({ destinationId: 'tide', reason: 'full' })])
    const total = [...files.values()].reduce((sum, path) => sum + statSync(join(bench.card, path)).size, 0)
    const needed = (failed[0]?.missingBytes ?? 0) + capacityBytes
    expect(Math.abs(needed - total)).toBeLessThan(1000)
    expect(
      kinds(records, 'proved').filter((record) => 'destinationId' in record && record.destinationId === 'slipway'),
    ).toHaveLength(files.size)
  })

  it('goes on when a drive is unplugged, and reports it once', async () => {
    const bench = filledBench()
    const { records } = await copyCard(
      new FolderMedium(bench.card),
      simulated(bench.slipway),
      simulated(bench.tide, { fault: { kind: 'unplug', afterBytes: 25_000_000 } }),
    )
    expect(kinds(records, 'destination-failed')).toEqual([
      expect.objectContaining({ destinationId: 'tide', reason: 'gone' }),
    ])
    expect(treeDifference(bench.card, join(bench.slipway, 'Mirror'))).toBe('')
  })

  it('names the file that a card cannot read, and brings all others home', async () => {
    const bench = filledBench()
    const { records, files } = await copyCard(
      simulated(bench.card, { fault: { kind: 'read-error', afterBytes: 10_000_000 } }),
      simulated(bench.slipway),
      simulated(bench.tide),
    )
    const failed = records.filter((record) => record.kind === 'source-failed')
    expect(failed.map((record) => files.get(record.fileId))).toEqual(['DCIM/100CURLW/CURL0041.MP4'])
    expect(failed[0]?.message).toMatch(/byte \d+/)
    expect(kinds(records, 'proved')).toHaveLength((files.size - 1) * 2)
    expect(readdirSync(join(bench.slipway, 'Mirror/DCIM/100CURLW'))).not.toContain('CURL0041.MP4')
  })

  it('says once that the card went away, and goes on where it was when the card is back', async () => {
    const bench = filledBench()
    const pulled = simulated(bench.card, { fault: { kind: 'unplug', afterBytes: 24_000_000 } })
    await expect(copyCard(pulled, simulated(bench.slipway), simulated(bench.tide))).rejects.toBeInstanceOf(SourceGone)
    const before = execFileSync('find', [join(bench.tide, 'Mirror'), '-type', 'f', '-name', '*.MP4'], {
      encoding: 'utf8',
    })
    expect(before.trim().split('\n')).toHaveLength(1)
    const { records } = await copyCard(simulated(bench.card), simulated(bench.slipway), simulated(bench.tide))
    expect(records.filter((record) => record.kind === 'proved' && !record.placed)).toHaveLength(2)
    for (const drive of [bench.slipway, bench.tide]) expect(treeDifference(bench.card, join(drive, 'Mirror'))).toBe('')
  })

  it('says how much is missing when a drive calls itself full in mid-work', async () => {
    const bench = filledBench()
    const { records } = await copyCard(
      new FolderMedium(bench.card),
      simulated(bench.slipway),
      simulated(bench.tide, { fault: { kind: 'full', afterBytes: 22_000_000 } }),
    )
    const [failed] = records.filter((record) => record.kind === 'destination-failed')
    expect(failed).toMatchObject({ destinationId: 'tide', reason: 'full' })
    expect(failed?.kind === 'destination-failed' && failed.missingBytes).toBeGreaterThan(9_000_000)
  })

  it('leaves nothing half-written on a drive, wherever it is stopped and whenever the card goes away', async () => {
    const endings: Promise<Bench>[] = []
    const end = async (card: (bench: Bench) => Medium, gate?: () => Promise<void>) => {
      const bench = filledBench()
      const copied = copyCard(card(bench), new FolderMedium(bench.slipway), new FolderMedium(bench.tide), gate)
      await expect(copied).rejects.toThrow()
      return bench
    }
    for (let calls = 1; calls <= 12; calls += 1) {
      let open = calls
      endings.push(
        end(
          (bench) => new FolderMedium(bench.card),
          () => ((open -= 1) < 0 ? Promise.reject(new Stopped()) : Promise.resolve()),
        ),
      )
    }
    for (const afterBytes of [1_000_000, 9_000_000, 24_000_000])
      endings.push(end((bench) => simulated(bench.card, { fault: { kind: 'unplug', afterBytes } })))
    for (const { card, slipway, tide } of await Promise.all(endings)) {
      const whole = files(card).map((path) => readFileSync(path))
      for (const drive of [slipway, tide]) {
        const left = files(join(drive, '.yendra')).map((path) => readFileSync(path))
        for (const part of left)
          expect(
            whole.some((bytes) => bytes.equals(part)),
            `${part.length} bytes`,
          ).toBe(true)
      }
    }
  })

  it('leaves no half part on a drive that refuses to write', async () => {
    const bench = filledBench()
    await copyCard(new FolderMedium(bench.card), new FolderMedium(bench.slipway), new RefusesAfter(bench.tide, 3))
    expect(files(join(bench.tide, '.yendra'))).toEqual([])
  })

  it('leaves nothing of a rescue that is stopped', async () => {
    const bench = filledBench()
    let open = 3
    const medium = new FolderMedium(bench.tide)
    const rescued = rescueFile({
      ...{ source: new FolderMedium(bench.card), path: Buffer.from('DCIM/100CURLW/CURL0041.MP4') },
      ...{ sizeBytes: 21_000_123, modifiedMs: 0 },
      targets: [{ medium, part: Buffer.from('.yendra/parts/rescued'), to: Buffer.from('Rescued/CURL0041.MP4') }],
      gate: () => ((open -= 1) < 0 ? Promise.reject(new Stopped()) : Promise.resolve()),
    })
    await expect(rescued).rejects.toThrow(Stopped)
    expect(files(bench.tide)).toEqual([])
  })

  it('never overwrites a different file, and counts an equal one as proved', async () => {
    const bench = filledBench()
    await copyCard(new FolderMedium(bench.card), new FolderMedium(bench.slipway), new FolderMedium(bench.tide))
    const mine = join(bench.tide, 'Mirror/DCIM/100CURLW/CURL0042.MP4')
    writeFileSync(mine, 'my own notes')
    const { records, files } = await copyCard(
      new FolderMedium(bench.card),
      new FolderMedium(bench.slipway),
      new FolderMedium(bench.tide),
    )
    expect(kinds(records, 'conflict')).toEqual([expect.objectContaining({ destinationId: 'tide' })])
    expect(execFileSync('cat', [mine], { encoding: 'utf8' })).toBe('my own notes')
    expect(kinds(records, 'proved').filter((record) => 'placed' in record && !record.placed)).toHaveLength(
      files.size * 2 - 1,
    )
  })

  it('brings odd names and an empty file home whole, and leaves links alone', async () => {
    const bench = emptyBench()
    const names = [
      Buffer.from('bad\xff\xfename.mp4', 'latin1'),
      Buffer.from('two\nlines.txt'),
      Buffer.from('back\\slash'),
      Buffer.from('.part'),
      Buffer.from(`${'l'.repeat(251)}.mp4`),
      Buffer.from('Case'),
      Buffer.from('case'),
    ]
    for (const [at, name] of names.entries())
      writeFileSync(Buffer.concat([Buffer.from(`${bench.card}/`), name]), `content ${at}`)
    writeFileSync(join(bench.card, 'empty.wav'), '')
    symlinkSync('/etc/hostname', join(bench.card, 'link'))
    await copyCard(new FolderMedium(bench.card), new FolderMedium(bench.slipway), new FolderMedium(bench.tide))
    for (const drive of [bench.slipway, bench.tide]) {
      const mirror = join(drive, 'Mirror')
      const arrived = readdirSync(mirror, { encoding: 'buffer' })
        .map((name) => name.toString('latin1'))
        .sort()
      expect(arrived).toEqual([...names.map((name) => name.toString('latin1')), 'empty.wav'].sort())
      expect(treeDifference(bench.card, mirror)).toBe(`Only in ${bench.card}: link\n`)
    }
    expect(lstatSync(join(bench.card, 'link')).isSymbolicLink()).toBe(true)
  })

  it('does not prove a file that was written to while it was read, be it of the same size', async () => {
    for (const name of ['DCIM/100CURLW/CURL0041.MP4', 'DCIM/100CURLW/CURL100.XML']) {
      const bench = filledBench()
      const { records, files } = await copyCard(
        new TouchedWhileRead(bench.card, name),
        new FolderMedium(bench.slipway),
        new FolderMedium(bench.tide),
      )
      const failed = records.filter((record) => record.kind === 'source-failed')
      expect(failed.map((record) => files.get(record.fileId))).toEqual([name])
      expect(failed[0]?.message).toContain('It changed while it was read')
      expect(kinds(records, 'proved')).toHaveLength((files.size - 1) * 2)
      expect(existsSync(join(bench.tide, 'Mirror', name))).toBe(false)
    }
  })

  it('stops when another card lies in the place of the first', async () => {
    const bench = filledBench()
    const other = filledBench()
    const swapped = new SwappedAfter(bench.card, other.card, 2)
    const copied = copyCard(swapped, new FolderMedium(bench.slipway), new FolderMedium(bench.tide))
    await expect(copied).rejects.toBeInstanceOf(SourceSwapped)
  })

  it('calls nothing proved whose name could not be made durable', async () => {
    const bench = filledBench()
    const { records, files } = await copyCard(
      new FolderMedium(bench.card),
      new FolderMedium(bench.slipway),
      new ForgetsNames(bench.tide),
    )
    const proved = records.filter((record) => record.kind === 'proved')
    expect(proved.filter((record) => record.destinationId === 'tide')).toEqual([])
    expect(proved).toHaveLength(files.size)
    expect(kinds(records, 'destination-failed')).toEqual([expect.objectContaining({ destinationId: 'tide' })])
  })

  it('names a file that cannot lie on one drive, and brings everything else there', async () => {
    const bench = filledBench()
    const { records, files } = await copyCard(
      new FolderMedium(bench.card),
      new FolderMedium(bench.slipway),
      new ShortNames(bench.tide),
    )
    const refused = records.filter((record) => record.kind === 'refused')
    expect(refused.map((record) => [files.get(record.fileId), record.destinationId])).toEqual([
      ['DCIM/100CURLW/EMPTY.TXT', 'tide'],
    ])
    expect(kinds(records, 'proved')).toHaveLength(files.size * 2 - 1)
  })

  it('says what stands where a folder is needed, and brings everything else there', async () => {
    const bench = filledBench()
    for (const folder of ['SUB', 'THUMB']) {
      mkdirSync(join(bench.card, folder, 'DEEP'), { recursive: true })
      writeFileSync(join(bench.card, folder, 'DEEP/CURL0041.JPG'), folder)
    }
    mkdirSync(join(bench.tide, 'Mirror'))
    writeFileSync(join(bench.tide, 'Mirror/THUMB'), 'of my own')
    symlinkSync('/tmp', join(bench.tide, 'Mirror/SUB'))
    const { records, files } = await copyCard(
      new FolderMedium(bench.card),
      new FolderMedium(bench.slipway),
      new FolderMedium(bench.tide),
    )
    expect(
      kinds(records, 'refused')
        .map((record) => (record as Refused).inTheWay)
        .sort(),
    ).toEqual([
      'A file stands at “Mirror/THUMB”, where a folder is needed.',
      'A link stands at “Mirror/SUB”, where a folder is needed.',
    ])
    expect(kinds(records, 'proved')).toHaveLength(files.size * 2 - 2)
    expect(existsSync('/tmp/DEEP')).toBe(false)
    expect(readFileSync(join(bench.tide, 'Mirror/THUMB'), 'utf8')).toBe('of my own')
  })
})

/** A card on which somebody writes to one file, in its middle, while that is read. */
class TouchedWhileRead extends FolderMedium {
  constructor(
    root: string,
    readonly name: string,
  ) {
    super(root)
  }

  override async open(path: Buffer): Promise<ReadableFile> {
    const file = await super.open(path)
    if (path.toString() !== this.name) return file
    const read = async (block: Uint8Array, position: number) => {
      const bytes = await file.read(block, position)
      utimesSync(join(this.root, this.name), 1_800_000_000, 1_800_000_000)
      return bytes
    }
    return { fromMedium: file.fromMedium, identity: () => file.identity(), close: () => file.close(), read }
  }
}

/** A reader in which the card is another one after so many files. */
class SwappedAfter extends FolderMedium {
  #opened = 0
  constructor(
    root: string,
    readonly other: string,
    readonly files: number,
  ) {
    super(root)
  }

  override open(path: Buffer): Promise<ReadableFile> {
    this.#opened += 1
    return this.#opened > this.files ? new FolderMedium(this.other).open(path) : super.open(path)
  }

  override place(): Promise<string> {
    return this.#opened > this.files ? new FolderMedium(this.other).place() : super.place()
  }
}

/** A drive whose folders cannot be made durable. */
class ForgetsNames extends FolderMedium {
  override settleFolders(): Promise<void> {
    return Promise.reject(deviceError('EIO', 'fsync failed'))
  }
}

/** A drive that cannot hold one of the names. */
class ShortNames extends FolderMedium {
  override publish(part: Buffer, path: Buffer): Promise<'named' | 'taken'> {
    if (path.toString().endsWith('EMPTY.TXT')) return Promise.reject(deviceError('ENAMETOOLONG', 'name too long'))
    return super.publish(part, path)
  }
}

/** A drive that takes no more after so many blocks. */
class RefusesAfter extends FolderMedium {
  #taken = 0
  constructor(
    root: string,
    readonly blocks: number,
  ) {
    super(root)
  }

  override async create(path: Buffer): Promise<WritableFile> {
    const file = await super.create(path)
    const write = (block: Uint8Array, position: number) => {
      this.#taken += 1
      return this.#taken > this.blocks
        ? Promise.reject(deviceError('EIO', 'write failed'))
        : file.write(block, position)
    }
    return { write, close: (time, durability) => file.close(time, durability), abandon: () => file.abandon() }
  }
}
