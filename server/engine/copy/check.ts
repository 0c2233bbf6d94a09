import type { ListedFile } from '../../../core/copies/copyState'
import { differenceOf, type Difference } from '../../../core/copies/difference'
import type { CopyRecord } from '../../../core/copies/record'
import { alignedBlocks, fitted, LARGE_BLOCK, SMALL_BLOCK } from '../medium/blocks'
import { awaitedLater, readBack } from './hash'
import { inLanes } from '../medium/lanes'
import {
  deviceError,
  errorCode,
  joinPath,
  type Medium,
  type FileIdentity,
  type MediumEntry,
  type Stamps,
} from '../medium/medium'
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
const BATCH = 2048

/**
 * Reads a copy again, past the cache, and compares each file with the hash that was proved of it. Rejects when the
 * volume goes away.
 */
export async function checkCopy(order: CheckOrder): Promise<void> {
  const names = new NewNames(order.medium)
  const settlesEach = order.isSource ? undefined : 'settled'
  const small = order.files.filter((file) => file.sizeBytes <= SMALL_BLOCK)
  const large = order.files.filter((file) => file.sizeBytes > SMALL_BLOCK)
  const place = await order.medium.place()
  // While names are made durable and told, the next files are read already.
  let telling: Promise<void> = Promise.resolve()
  const tell = async (records: readonly CopyRecord[]) => {
    await telling
    // What was read of another volume, or of one that was pulled out, says nothing of its files.
    if ((await order.medium.place().catch(() => '')) !== place)
      throw deviceError('ENODEV', 'The volume went away while it was read.')
    telling = awaitedLater((order.isSource ? Promise.resolve() : names.settle()).then(() => order.report(records)))
  }
  try {
    // Made once something is to be read into them: so much memory sets off a search through the whole heap.
    let lanes: Uint8Array[] | undefined
    for (let at = 0; at < small.length; at += BATCH) {
      const records: CopyRecord[] = []
      const batch = small.slice(at, at + BATCH)
      // One wait for all of a medium is shorter than one for each of many files, and they are read meanwhile.
      const isTogether = !order.isSource && batch.length >= LANES
      const settled = isTogether ? awaitedLater(order.medium.settle()) : undefined
      const settles = isTogether ? undefined : settlesEach
      const left = isTogether ? await readTogether(order, names, batch, records) : batch.map((file) => ({ file }))
      if (left.length > 0) lanes ??= alignedBlocks(LANES, SMALL_BLOCK)
      await inLanes(left, lanes ?? [], async ({ file, seen }: Left, block) => {
        records.push(await checkFile({ ...order, settles }, names, file, [fitted(block, file.sizeBytes)], seen))
      })
      await settled
      await tell(records)
    }
    const blocks = large.length > 0 ? alignedBlocks(4, LARGE_BLOCK) : []
    for (const file of large) await tell([await checkFile({ ...order, settles: settlesEach }, names, file, blocks)])
  } finally {
    await telling
  }
}

/** A file that is still to be read, and what was read of it already, where that was not what was proved. */
interface Left {
  readonly file: ProvedFile
  readonly seen?: Reading
}

/** At most so many files, and about so many bytes, are read at once: what is under way is not counted yet. */
const TOGETHER = 16
const TOGETHER_BYTES = 2 * 1024 * 1024

function together(files: readonly ProvedFile[]): ProvedFile[][] {
  const parts: ProvedFile[][] = []
  let [part, bytes]: [ProvedFile[] | undefined, number] = [undefined, 0]
  for (const file of files) {
    if (!part || part.length >= TOGETHER || bytes + file.sizeBytes > TOGETHER_BYTES) {
      part = []
      bytes = 0
      parts.push(part)
    }
    part.push(file)
    bytes += file.sizeBytes
  }
  return parts
}

/** Reads small files at once where the medium can; returns those that are to be read by themselves. */
async function readTogether(
  order: CheckOrder,
  names: NewNames,
  batch: readonly ProvedFile[],
  records: CopyRecord[],
): Promise<Left[]> {
  const { medium, folder, gate, onBytes } = order
  if (!medium.readSmall) return batch.map((file) => ({ file }))
  const stamps = await medium.stamps()
  const left: Left[] = []
  await inLanes(together(batch), Array.from({ length: LANES }), async (part) => {
    await gate()
    const asked = part.map((file) => ({ path: joinPath(folder, file.path), sizeBytes: file.sizeBytes }))
    const reads = (await medium.readSmall?.(asked)) ?? []
    for (const [at, file] of part.entries()) {
      const read = reads[at]
      if (!read || !('hash' in read)) {
        left.push({ file, ...(read?.code === 'EIO' && { seen: 'unreadable' as const }) })
        continue
      }
      onBytes(read.sizeBytes)
      if (read.hash !== file.hash) {
        left.push({ file, seen: { ...read, fromMedium: true } })
        continue
      }
      names.add(joinPath(folder, file.path))
      records.push(provedRecord(order, file, read.identity, stamps, { fromMedium: true, ends: read.ends }))
    }
  })
  return left
}

const provedRecord = (
  { destinationId }: CheckOrder,
  file: ProvedFile,
  { sizeBytes, modifiedMs, ...identity }: FileIdentity,
  stamps: Stamps,
  read: { readonly fromMedium: boolean; readonly ends: string | null },
): Extract<CopyRecord, { kind: 'proved' }> => ({
  ...{ kind: 'proved', fileId: file.id, destinationId, hash: file.hash, fromMedium: read.fromMedium, placed: false },
  ...{ sizeBytes, modifiedMs },
  // As it lay before it was read: what is put in its place meanwhile is listed otherwise.
  ...stampOf(stamps, { sizeBytes, modifiedMs, ...identity }),
  ends: read.ends,
})

interface FileOrder extends CheckOrder {
  /** Each file is waited for before it is read. */
  readonly settles: 'settled' | undefined
}

async function checkFile(
  order: FileOrder,
  names: NewNames,
  file: ProvedFile,
  blocks: readonly Uint8Array[],
  seen?: Reading,
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
  const { first, last } = await readTwice(order, file, path, blocks, seen)
  if (typeof last === 'string' || last.hash !== file.hash) {
    const found = typeof last === 'string' ? last : last.hash
    const difference = file.lay && (await differs(order, file.lay, path, first, last))
    return { kind: 'mismatch', ...outcome, found, ...(difference && { difference }) }
  }
  names.add(path)
  return {
    ...provedRecord(order, file, entry, await medium.stamps(), last),
    ...(first !== last && { retried: typeof first === 'string' ? 'unreadable' : 'otherwise' }),
  }
}

type Reading = Awaited<ReturnType<typeof readSafely>>

/** What is not as it was proved is read once more: a drive that reads otherwise each time is another fault than rot. */
async function readTwice(
  order: FileOrder,
  file: ProvedFile,
  path: Buffer,
  blocks: readonly Uint8Array[],
  seen: Reading | undefined,
) {
  const first = seen ?? (await readSafely(order, file, path, blocks))
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
