import { mkdtempSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { CopyRecord } from '../../../core/copies/record'
import { deviceError, type Medium } from '../medium/medium'
import { FolderMedium } from '../medium/folder'
import { stampOf } from '../medium/stamps'
import { checkCopy } from './check'
import { RunningHash } from './hash'

const CONTENT = Buffer.alloc(9000, 'Curlew')
const hashOf = (bytes: Buffer) => {
  const hash = new RunningHash()
  hash.update(bytes)
  return hash.digest()
}

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
  const medium = new Proxy<Medium>(folder, {
    get: (target, name) => {
      if (name === 'open') return open
      const value: unknown = Reflect.get(target, name, target)
      return typeof value === 'function' ? (value.bind(target) as unknown) : value
    },
  })
  return { medium, root }
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
