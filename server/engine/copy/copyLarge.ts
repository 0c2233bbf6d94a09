import type { FileRecord } from '../../../core/copies/record'
import { itemAt } from '../medium/blocks'
import type { CopyDestination, SourceFile } from './copyOrder'
import type { CopyRun } from './copyRun'
import { settleExisting } from './existing'
import { awaitedLater, readBack, RunningHash } from './hash'
import type { WritableFile } from '../medium/medium'
import { nameIfEqual } from './nameIfEqual'
import { sourceRecords } from './readSource'
import { EndsHash } from './sample'
import { assertUnchanged, openSource } from './source'

const RING = 4

/**
 * One large file: a ring of four blocks, each read into again as soon as every destination has taken it, so that the
 * source is read ahead while the slowest destination writes. Then all read-backs at once.
 */
export async function copyLarge(run: CopyRun, file: SourceFile, blocks: readonly Uint8Array[]): Promise<void> {
  const existing = await settleExisting(run, file, blocks)
  await run.report(existing.records)
  const targets = run.alive(file).filter((to) => !existing.settled.has(to.id))
  if (targets.length === 0) return
  const written = await writeAll(run, file, targets, blocks.slice(0, RING))
  if (written === undefined) return
  const proofs = await Promise.all(
    written.targets.map((to, at) => prove(run, file, to, written.hash, blocks.slice(RING + 2 * at, RING + 2 * at + 2))),
  )
  await run.report(proofs.filter((record) => record !== undefined))
}

interface WrittenLarge {
  readonly hash: string
  readonly targets: readonly CopyDestination[]
}

async function writeAll(
  run: CopyRun,
  file: SourceFile,
  targets: readonly CopyDestination[],
  ring: readonly Uint8Array[],
): Promise<WrittenLarge | undefined> {
  const { order } = run
  const opened = await openSource(order.source, file).catch(async (error: unknown) => {
    await run.sourceFailed(file, error)
    return undefined
  })
  if (!opened) return undefined
  const source = opened.open
  const parts = new Map<CopyDestination, WritableFile>()
  await Promise.all(
    targets.map((to) => run.attempt(to, async () => parts.set(to, await to.medium.create(run.partPath(to, file))))),
  )
  const hash = new RunningHash()
  const ends = run.endsOfSource(file)
  const size = itemAt(ring, 0).length
  const reading = ring.map((block, at) => awaitedLater(source.read(block, at * size)))
  const taken: Promise<unknown>[] = []
  let position = 0
  try {
    for (let turn = 0; ; turn += 1) {
      const slot = turn % ring.length
      const block = itemAt(ring, slot)
      const bytes = await itemAt(reading, slot)
      await order.gate()
      const view = block.subarray(0, bytes)
      hash.update(view)
      ends?.update(view)
      const at = position
      const written = Promise.all(
        [...parts].map(([to, part]) =>
          run.attempt(to, async () => {
            await run.writePart(to, file, part, view, at)
            order.onBytes(to.id, 'written', bytes)
          }),
        ),
      )
      taken[slot] = written
      position += bytes
      if (bytes < size) break
      reading[slot] = awaitedLater(written.then(() => source.read(block, (turn + ring.length) * size)))
    }
    await run.assertSamePlace()
    await assertUnchanged(order.source, file, opened.before, position)
    await Promise.all(taken)
    const digest = hash.digest()
    const read = { hash: digest, before: opened.before, fromMedium: source.fromMedium, ends: ends?.digest() ?? null }
    await run.report(await sourceRecords(run, file, read))
    await Promise.all([...parts].map(([to, part]) => run.attempt(to, () => part.close(file.modifiedMs, 'durable'))))
    return { hash: digest, targets: run.alive(file).filter((to) => parts.has(to)) }
  } catch (error) {
    await Promise.allSettled(taken)
    await order.gate()
    await run.sourceFailed(file, error)
    return undefined
  } finally {
    // The blocks are lent: nothing may still be read into them or written from them afterwards.
    await Promise.allSettled([...taken, ...reading])
    await Promise.all([source.close(), ...[...parts.values()].map((part) => part.abandon().catch(() => undefined))])
  }
}

/** Reads one part back; equal parts get their name, others are removed and reported. */
async function prove(
  run: CopyRun,
  file: SourceFile,
  to: CopyDestination,
  wanted: string,
  blocks: readonly Uint8Array[],
): Promise<FileRecord | undefined> {
  const ends = new EndsHash(file.sizeBytes)
  const found = await run.attempt(to, () =>
    readBack(
      to.medium,
      run.partPath(to, file),
      blocks,
      (bytes) => run.order.onBytes(to.id, 'proved', bytes),
      run.order.gate,
      { ends },
    ),
  )
  return found && nameIfEqual(run, file, to, wanted, { ...found, ends: ends.digest() ?? null })
}
