import type { FileRecord } from '../../../core/copies/record'
import type { CopyDestination, SourceFile } from './copyOrder'
import type { CopyRun } from './copyRun'
import { readBack } from './hash'
import type { MediumEntry } from '../medium/medium'
import { EndsHash } from './sample'
import { assertUnchanged, openSource } from './source'

export interface Existing {
  /** Destinations where the name is taken, whatever lies there. */
  readonly settled: ReadonlySet<string>
  readonly records: readonly FileRecord[]
}

const NOTHING: Existing = { settled: new Set(), records: [] }

/**
 * Destinations where the file's name is taken already. The same content counts as proved, since it is made durable
 * and read now; different content is a conflict for the person. Nothing is overwritten.
 */
export async function settleExisting(run: CopyRun, file: SourceFile, blocks: readonly Uint8Array[]): Promise<Existing> {
  // A name that turns up there meanwhile is met when the file gets its own: nothing is overwritten.
  const targets = run.alive(file).filter((to) => !to.makeWay && !run.isFresh(to, file))
  const looked = await Promise.all(
    targets.map((to) =>
      run.attemptFile(to, file, async () => ({ to, entry: await to.medium.entry(run.finalPath(to, file)) })),
    ),
  )
  // A name that does not fit there was reported and is not tried again.
  const settled = new Set(targets.filter((_, at) => !looked[at] || looked[at].entry).map((to) => to.id))
  const taken = looked.flatMap((one) => (one?.entry ? [{ to: one.to, entry: one.entry }] : []))
  if (taken.length === 0) return settled.size > 0 ? { settled, records: [] } : NOTHING
  const pair = blocks.slice(0, 2)
  const wanted = file.knownHash ?? (await hashOfSource(run, file, pair))
  if (wanted === undefined) return { settled, records: [] }
  const records: FileRecord[] = []
  for (const { to, entry } of taken) {
    const record = await run.attempt(to, () => compare(run, file, to, entry, wanted, pair))
    if (record) records.push(record)
  }
  return { settled, records }
}

async function hashOfSource(
  run: CopyRun,
  file: SourceFile,
  blocks: readonly Uint8Array[],
): Promise<string | undefined> {
  const { source, gate } = run.order
  try {
    const { open, before } = await openSource(source, file)
    await open.close()
    const { hash, sizeBytes } = await readBack(source, file.path, blocks, () => undefined, gate)
    await assertUnchanged(source, file, before, sizeBytes)
    return hash
  } catch (error) {
    await gate()
    await run.sourceFailed(file, error)
    return undefined
  }
}

async function compare(
  run: CopyRun,
  file: SourceFile,
  to: CopyDestination,
  entry: MediumEntry,
  wanted: string,
  blocks: readonly Uint8Array[],
): Promise<FileRecord> {
  const { order } = run
  const outcome = { fileId: file.id, destinationId: to.id }
  if (entry.kind !== 'file') return { kind: 'conflict', ...outcome, wanted, found: `a ${entry.kind}` }
  if (entry.sizeBytes !== file.sizeBytes)
    return { kind: 'conflict', ...outcome, wanted, found: `${entry.sizeBytes} bytes` }
  const path = run.finalPath(to, file)
  const ends = new EndsHash(file.sizeBytes)
  const found = await readBack(to.medium, path, blocks, () => undefined, order.gate, { how: 'settled', ends })
  if (found.hash !== wanted) return { kind: 'conflict', ...outcome, wanted, found: found.hash }
  order.onBytes(to.id, 'written', file.sizeBytes)
  order.onBytes(to.id, 'proved', file.sizeBytes)
  // As it lay before it was read: what is put in its place meanwhile is listed otherwise.
  await run.met(to, path)
  const { sizeBytes, modifiedMs } = entry
  return {
    kind: 'proved',
    ...outcome,
    hash: wanted,
    fromMedium: found.fromMedium,
    placed: false,
    sizeBytes,
    modifiedMs,
    ...run.stampOf(to, entry),
    ends: ends.digest() ?? null,
  }
}
