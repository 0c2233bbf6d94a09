import type { ListedFile } from '../../../core/copies/copyState'
import { differenceOf, type Difference } from '../../../core/copies/difference'
import type { CopyRecord } from '../../../core/copies/record'
import { alignedBlocks, fitted, LARGE_BLOCK, SMALL_BLOCK } from '../medium/blocks'
import { awaitedLater, readBack } from './hash'
import { inLanes } from '../medium/lanes'
import { errorCode, joinPath, type Medium, type MediumEntry } from '../medium/medium'
import { NewNames } from './newNames'
import { EndsHash } from './sample'
import { stampOf } from '../medium/stamps'

/** A file of a copy with the hash that was proved of it. */
export interface ProvedFile {
  readonly id: number
  readonly path: Buffer
  readonly sizeBytes: number
  readonly hash: string
  /** How it lay when that was proved; `undefined` where it is not to be told how a file differs. */
  readonly lay?: ListedFile
}

export interface CheckOrder {
  readonly destinationId: string
  readonly medium: Medium
  readonly folder: Buffer
  readonly files: readonly ProvedFile[]
  readonly gate: () => Promise<void>
  readonly onBytes: (bytes: number) => void
  /** A card is a source: nothing of it is made durable, since nothing was written. */
  readonly isSource?: boolean
  /** Told file by file what was found; a file that is not there is a mismatch with `nothing`. */
  readonly report: (records: readonly CopyRecord[]) => Promise<void>
}

const LANES = 16
const BATCH = 512

/**
 * Reads a copy again, past the cache, and compares each file with the hash that was proved of it. Rejects when the
 * volume goes away.
 */
export async function checkCopy(order: CheckOrder): Promise<void> {
  const names = new NewNames(order.medium)
  const settlesEach = order.isSource ? undefined : 'settled'
  const small = order.files.filter((file) => file.sizeBytes <= SMALL_BLOCK)
  const large = order.files.filter((file) => file.sizeBytes > SMALL_BLOCK)
  // While names are made durable and told, the next files are read already.
  let telling: Promise<void> = Promise.resolve()
  const tell = async (records: readonly CopyRecord[]) => {
    await telling
    telling = awaitedLater((order.isSource ? Promise.resolve() : names.settle()).then(() => order.report(records)))
  }
  try {
    const lanes = alignedBlocks(LANES, SMALL_BLOCK)
    for (let at = 0; at < small.length; at += BATCH) {
      const records: CopyRecord[] = []
      const batch = small.slice(at, at + BATCH)
      // One wait for all of a medium is shorter than one for each of many files.
      const isTogether = !order.isSource && batch.length >= LANES
      if (isTogether) await order.medium.settle()
      const settles = isTogether ? undefined : settlesEach
      await inLanes(batch, lanes, async (file, block) => {
        records.push(await checkFile({ ...order, settles }, names, file, [fitted(block, file.sizeBytes)]))
      })
      await tell(records)
    }
    const blocks = alignedBlocks(4, LARGE_BLOCK)
    for (const file of large) await tell([await checkFile({ ...order, settles: settlesEach }, names, file, blocks)])
  } finally {
    await telling
  }
}

interface FileOrder extends CheckOrder {
  /** Each file is waited for before it is read. */
  readonly settles: 'settled' | undefined
}

async function checkFile(
  order: FileOrder,
  names: NewNames,
  file: ProvedFile,
  blocks: readonly Uint8Array[],
): Promise<CopyRecord> {
  const { medium, folder, destinationId, gate } = order
  const path = joinPath(folder, file.path)
  const outcome = { fileId: file.id, destinationId, wanted: file.hash }
  await gate()
  const entry = await medium.entry(path)
  if (entry?.kind !== 'file')
    return {
      ...{ kind: 'mismatch', ...outcome, found: entry ? `a ${entry.kind}` : 'nothing' },
      ...(file.lay && { difference: entry ? 'replaced' : 'missing' }),
    }
  const { first, last } = await readTwice(order, file, path, blocks)
  if (typeof last === 'string' || last.hash !== file.hash) {
    const found = typeof last === 'string' ? last : last.hash
    const difference = file.lay && (await differs(order, file.lay, path, first, last))
    return { kind: 'mismatch', ...outcome, found, ...(difference && { difference }) }
  }
  names.add(path)
  const { sizeBytes, modifiedMs } = entry
  return {
    kind: 'proved',
    fileId: file.id,
    destinationId,
    hash: file.hash,
    fromMedium: last.fromMedium,
    placed: false,
    sizeBytes,
    modifiedMs,
    // As it lay before it was read: what is put in its place meanwhile is listed otherwise.
    ...stampOf(await medium.stamps(), entry),
    ends: last.ends,
    ...(first !== last && { retried: typeof first === 'string' ? 'unreadable' : 'otherwise' }),
  }
}

type Reading = Awaited<ReturnType<typeof readSafely>>

/** What is not as it was proved is read once more: a drive that reads otherwise each time is another fault than rot. */
async function readTwice(order: FileOrder, file: ProvedFile, path: Buffer, blocks: readonly Uint8Array[]) {
  const first = await readSafely(order, file, path, blocks)
  if (typeof first !== 'string' && first.hash === file.hash) return { first, last: first }
  return { first, last: await readSafely({ ...order, onBytes: () => undefined }, file, path, blocks) }
}

/** As it lies after the reading: what was written meanwhile is no rot. */
async function differs(
  { medium }: CheckOrder,
  lay: ListedFile,
  path: Buffer,
  first: Reading,
  last: Reading,
): Promise<Difference> {
  if (typeof last === 'string') return 'unreadable'
  const now: MediumEntry | undefined = await medium.entry(path)
  if (now?.kind !== 'file') return now ? 'replaced' : 'missing'
  const { sizeBytes, modifiedMs } = now
  const difference = differenceOf(lay, { sizeBytes, modifiedMs, ...stampOf(await medium.stamps(), now) })
  const isSteady = typeof first !== 'string' && first.hash === last.hash
  return isSteady || (difference !== 'rot' && difference !== 'unclear') ? difference : 'unsteady'
}

/** A file that the drive cannot read is a finding of that file; a drive that is gone ends the check. */
async function readSafely(
  { medium, onBytes, gate, settles }: FileOrder,
  { sizeBytes }: ProvedFile,
  path: Buffer,
  blocks: readonly Uint8Array[],
) {
  const ends = new EndsHash(sizeBytes)
  try {
    const read = await readBack(medium, path, blocks, onBytes, gate, {
      ends,
      ...(settles && { how: settles }),
    })
    return { ...read, ends: ends.digest() ?? null }
  } catch (error) {
    if (errorCode(error) !== 'EIO') throw error
    return 'unreadable' as const
  }
}
