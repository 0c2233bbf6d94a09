import type { FileRecord } from '../../../core/copies/record'
import { fitted } from '../medium/blocks'
import { readOnce } from '../medium/medium'
import type { CopyDestination, SourceFile } from './copyOrder'
import type { CopyRun } from './copyRun'
import { settleExisting } from './existing'
import { readBack, RunningHash } from './hash'
import { inLanes } from '../medium/lanes'
import { nameIfEqual } from './nameIfEqual'
import { sourceRecords } from './readSource'
import { EndsHash } from './sample'
import { assertUnchanged, openSource } from './source'

/** Small files under way at the same time. */
export const LANES = 16

interface Written {
  readonly file: SourceFile
  readonly hash: string
  /** Of its ends; what reads back with the same hash has the same. */
  readonly ends: string | null
  readonly targets: readonly CopyDestination[]
  /** What was found out about the source itself. */
  readonly source: readonly FileRecord[]
}

/** Small files that were written and wait to be proved. */
export interface WrittenBatch {
  readonly written: readonly Written[]
  readonly records: readonly FileRecord[]
}

/**
 * Many small files together: write all, wait for the media once, read all back, name all. One wait for the medium
 * serves hundreds of files, where a wait for each would cost more than the bytes.
 */
export async function writeBatch(
  run: CopyRun,
  files: readonly SourceFile[],
  blocks: readonly Uint8Array[],
): Promise<WrittenBatch> {
  const written: Written[] = []
  const records: FileRecord[] = []
  await inLanes(files, blocks, async (file, block) => {
    await run.order.gate()
    const existing = await settleExisting(run, file, [block])
    records.push(...existing.records)
    const done = await writeSmall(run, file, block, existing.settled)
    if (done) {
      written.push(done)
      records.push(...done.source)
    }
  })
  await run.assertSamePlace()
  return { written, records }
}

/** The second half: reads back what was written, names what is equal, and reports. */
export async function proveBatch(run: CopyRun, batch: WrittenBatch, blocks: readonly Uint8Array[]): Promise<void> {
  const records = [...batch.records]
  await Promise.all(run.alive().map((to) => run.attempt(to, () => to.medium.settle())))
  const proofs = batch.written.flatMap(({ targets, ...one }) => targets.map((to) => ({ ...one, to })))
  await inLanes(proofs, blocks, async ({ file, hash, ends, to }, block) => {
    const found = await run.attempt(to, () =>
      readBack(
        to.medium,
        run.partPath(to, file),
        [fitted(block, file.sizeBytes)],
        (bytes) => run.order.onBytes(to.id, 'proved', bytes),
        run.order.gate,
      ),
    )
    const record = found && (await nameIfEqual(run, file, to, hash, { ...found, ends }))
    if (record) records.push(record)
  })
  await run.report(records)
}

async function writeSmall(
  run: CopyRun,
  file: SourceFile,
  block: Uint8Array,
  settled: ReadonlySet<string>,
): Promise<Written | undefined> {
  const targets = run.alive(file).filter((to) => !settled.has(to.id))
  if (targets.length === 0) return undefined
  const read = await readWhole(run, file, block)
  if (read === undefined) return undefined
  const { bytes, hash, ends, source } = read
  const view = block.subarray(0, bytes)
  const taken = await Promise.all(
    targets.map((to) =>
      run.attempt(to, async () => {
        const part = await to.medium.create(run.partPath(to, file))
        try {
          await run.writePart(to, file, part, view, 0)
        } catch (error) {
          await part.abandon()
          throw error
        }
        await part.close(file.modifiedMs, 'settled-later')
        run.order.onBytes(to.id, 'written', bytes)
        return to
      }),
    ),
  )
  return { file, hash, ends, source, targets: taken.filter((to) => to !== undefined) }
}

async function readWhole(
  run: CopyRun,
  file: SourceFile,
  block: Uint8Array,
): Promise<({ readonly bytes: number } & Pick<Written, 'hash' | 'ends' | 'source'>) | undefined> {
  const { source } = run.order
  try {
    const { open, before } = await openSource(source, file)
    const bytes = await readOnce(open, fitted(block, file.sizeBytes))
    await assertUnchanged(source, file, before, bytes)
    const [running, sampled] = [new RunningHash(), new EndsHash(file.sizeBytes)]
    running.update(block.subarray(0, bytes))
    sampled.update(block.subarray(0, bytes))
    const [hash, ends] = [running.digest(), sampled.digest() ?? null]
    const read = { hash, before, fromMedium: open.fromMedium, ends }
    return { bytes, hash, ends, source: await sourceRecords(run, file, read) }
  } catch (error) {
    await run.sourceFailed(file, error)
    return undefined
  }
}
