import { execFileSync } from 'node:child_process'
import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  rmSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { CopyRecord } from '../../../core/copies/record'
import { deviceError, type Medium, type SmallRead } from '../medium/medium'
import { FolderMedium } from '../medium/folder'
import { SmallReaders } from '../medium/smallFiles'
import { stampOf } from '../medium/stamps'
import { checkCopy } from './check'
import { RunningHash } from './hash'

const CONTENT = Buffer.alloc(9000, 'Curlew')
const hashOf = (bytes: Buffer) => {
  const hash = new RunningHash()
  hash.update(bytes)
  return hash.digest()
}

/** The same medium with some of its calls answered otherwise. */
const otherwise = (medium: Medium, calls: Partial<Medium>): Medium =>
  new Proxy(medium, {
    get: (target, name) => {
      const value: unknown = Reflect.get(name in calls ? calls : target, name)
      return typeof value === 'function' ? (value.bind(target) as unknown) : value
    },
  })

/** A drive of which each reading of a file goes as it is told, one after the other; the last goes for all others. */
function drive(readings: readonly ('well' | 'otherwise' | 'EIO' | number)[]): { medium: Medium; root: string } {
  const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-check-'))
  writeFileSync(join(root, 'C1.MP4'), CONTENT)
  const folder = new FolderMedium(root)
  let turn = 0
  const open: Medium['open'] = async (path, how) => {
    const reading = readings[Math.min(turn, readings.length - 1)] ?? 'well'
    turn += 1
    const file = await folder.open(path, how)
    return {
      identity: () => file.identity(),
      close: () => file.close(),
      fromMedium: file.fromMedium,
      read: async (block, position) => {
        if (reading === 'EIO') throw deviceError('EIO', 'the drive does not read')
        const bytes = await file.read(block, position)
        if (reading !== 'well' && bytes > 0) block[7] = reading === 'otherwise' ? turn : reading
        return bytes
      },
    }
  }
  return { medium: otherwise(folder, { open }), root }
}

async function read(medium: Medium, meanwhile = () => undefined as unknown): Promise<CopyRecord | undefined> {
  const entry = await medium.entry(Buffer.from('C1.MP4'))
  if (!entry) throw new Error('no file')
  const { sizeBytes, modifiedMs } = entry
  const lay = { sizeBytes, modifiedMs, ...stampOf(await medium.stamps(), entry) }
  const told: CopyRecord[] = []
  await checkCopy({
    ...{ destinationId: 'tide', medium, folder: Buffer.from('') },
    files: [{ id: 1, path: Buffer.from('C1.MP4'), sizeBytes, hash: hashOf(CONTENT), lay }],
    gate: () => Promise.resolve(meanwhile() as undefined),
    onBytes: () => undefined,
    report: (records) => Promise.resolve(void told.push(...records)),
  })
  return told[0]
}

describe('a file that is read again', () => {
  it.each([
    [['well'], { kind: 'proved' }],
    [['EIO', 'well'], { kind: 'proved', retried: 'unreadable' }],
    [['otherwise', 'well'], { kind: 'proved', retried: 'otherwise' }],
    [['EIO'], { kind: 'mismatch', difference: 'unreadable', found: 'unreadable' }],
    [['otherwise'], { kind: 'mismatch', difference: 'unsteady' }],
    [['EIO', 'otherwise'], { kind: 'mismatch', difference: 'unsteady' }],
    [[7], { kind: 'mismatch', difference: 'rot' }],
  ] as const)('that comes as %o is %o', async (readings, expected) => {
    expect(await read(drive(readings).medium)).toMatchObject(expected)
    if (readings[0] === 'well') expect(await read(drive(readings).medium)).not.toHaveProperty('retried')
  })

  it('is nothing at all where its volume went away while it could not be read', async () => {
    const { medium } = drive(['EIO'])
    let turns = 0
    const pulled = otherwise(medium, { place: () => Promise.resolve(String((turns += 1))) })
    await expect(read(pulled)).rejects.toMatchObject({ code: 'ENODEV' })
  })

  it('is no rot where somebody wrote to it meanwhile', async () => {
    const { medium, root } = drive([7])
    let isDone = false
    const touch = () => {
      if (isDone) return
      isDone = true
      utimesSync(join(root, 'C1.MP4'), new Date(), new Date(5_000_000))
    }
    expect(await read(medium, touch)).toMatchObject({ kind: 'mismatch', difference: 'edited' })
  })
})

describe('many small files that are read at once', () => {
  const name = (id: number) => `F${id}.XML`
  const all = () => {
    const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-check-'))
    const files = Array.from({ length: 60 }, (_, id) => {
      // Around the ends that are hashed for themselves (64 KiB), and up to what is still small.
      const content = Buffer.alloc(
        [0, 1, 4096, 65_535, 65_536, 65_537, 70_000, 131_073, 1_048_576][id % 9] ?? 0,
        id + 1,
      )
      writeFileSync(join(root, name(id)), content)
      return { id, path: Buffer.from(name(id)), sizeBytes: content.length, hash: hashOf(content) }
    })
    return { root, files }
  }
  const checked = async (medium: Medium, files: ReturnType<typeof all>['files']) => {
    const told: CopyRecord[] = []
    let bytes = 0
    await checkCopy({
      ...{ destinationId: 'tide', medium, folder: Buffer.from(''), files },
      ...{ gate: () => Promise.resolve(), onBytes: (more) => (bytes += more) },
      report: (records) => Promise.resolve(void told.push(...records)),
    })
    return { told: told.sort((a, b) => ('fileId' in a && 'fileId' in b ? a.fileId - b.fileId : 0)), bytes }
  }

  it('are told as one by one', async () => {
    const { root, files } = all()
    const at = (id: number) => join(root, name(id))
    rmSync(at(1))
    rmSync(at(2))
    symlinkSync(name(3), at(2))
    rmSync(at(4))
    execFileSync('mkfifo', [at(4)])
    rmSync(at(5))
    mkdirSync(at(5))
    appendFileSync(at(6), 'more')
    truncateSync(at(7), 3)
    writeFileSync(at(8), 'x'.repeat(1_048_576))
    appendFileSync(at(17), Buffer.alloc(2_000_000))
    const medium = new FolderMedium(root)
    const oneByOne = otherwise(medium, { readSmall: undefined })
    const quick = await checked(medium, files)
    expect(quick).toEqual(await checked(oneByOne, files))
    expect(quick.told.flatMap((one) => (one.kind === 'mismatch' ? one.fileId : []))).toEqual([1, 2, 4, 5, 6, 7, 8, 17])
    // The quick way was taken for what is as it was.
    const reads = await medium.readSmall(files)
    expect(reads.flatMap((read, id) => ('hash' in read && read.hash === files[id]?.hash ? [] : id))).toEqual(
      quick.told.flatMap((one) => (one.kind === 'mismatch' ? one.fileId : [])),
    )
  })

  it('are read once more where a thread could not, and that is told', async () => {
    const { root, files } = all()
    const medium = new FolderMedium(root)
    const failing = (read: SmallRead) =>
      otherwise(medium, { readSmall: (asked) => Promise.resolve(asked.map(() => read)) })
    const told = async (read: SmallRead) => (await checked(failing(read), files)).told
    expect(await told({ code: 'EIO' })).toMatchObject(files.map(() => ({ retried: 'unreadable' })))
    const other = { hash: '0'.repeat(16), ends: null, sizeBytes: 1, identity: await identityOf(medium) }
    expect(await told(other)).toMatchObject(files.map(() => ({ kind: 'proved', retried: 'otherwise' })))
    expect(await told({ code: 'ERESTART' })).toEqual((await checked(medium, files)).told)
  })

  it('are not told of where what was written before did not arrive on the medium', async () => {
    const { root, files } = all()
    const lost = otherwise(new FolderMedium(root), { settle: () => Promise.reject(deviceError('EIO', 'lost')) })
    await expect(checked(lost, files)).rejects.toMatchObject({ code: 'EIO' })
  })
})

it('threads that cannot start, or end, leave their files to the usual way', async () => {
  const program = join(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-check-')), 'ends.mjs')
  const files = [{ path: Buffer.from('/nothing'), sizeBytes: 1 }]
  const answers = (readers: SmallReaders) =>
    Promise.all(Array.from({ length: 12 }, () => readers.read({ files, mountId: 1 })))
  const lost = Array.from({ length: 12 }, () => [{ code: 'ERESTART' }])
  expect(await answers(new SmallReaders(program))).toEqual(lost)
  writeFileSync(
    program,
    "import { parentPort } from 'node:worker_threads'\nparentPort.on('message', () => process.exit(3))",
  )
  expect(await answers(new SmallReaders(program))).toEqual(lost)
})

async function identityOf(medium: Medium) {
  const file = await medium.open(Buffer.from('F0.XML'))
  try {
    return await file.identity()
  } finally {
    await file.close()
  }
}
