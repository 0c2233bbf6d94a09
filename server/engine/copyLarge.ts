import { itemAt } from './blocks'
import type { CopyDestination, CopyRecord, SourceFile } from './copy'
import type { CopyRun } from './copyRun'
import { awaitedLater, readBack, RunningHash } from './hash'
import { settleExisting } from './existing'
import type { WritableFile } from './medium'

const RING = 4

/**
 * One large file: a ring of four blocks, each read into again as soon as every destination has taken it, so that the
 * source is read ahead while the slowest destination writes. Then all read-backs at once.
 */
export async function copyLarge(run: CopyRun, file: SourceFile, blocks: readonly Uint8Array[]): Promise<void> {
  const existing = await settleExisting(run, file, blocks)
  const targets = run.alive(file).filter((to) => !existing.has(to.id))
  if (targets.length === 0) return
  const hash = await writeAll(run, file, targets, blocks.slice(0, RING))
  if (hash === undefined) return
  const proofs = await Promise.all(
    targets.map((to, at) => prove(run, file, to, hash, blocks.slice(RING + 2 * at, RING + 2 * at + 2))),
  )
  await run.settleNames()
  await run.order.report(proofs.filter((record) => record !== undefined))
}

async function writeAll(
  run: CopyRun,
  file: SourceFile,
  targets: readonly CopyDestination[],
  ring: readonly Uint8Array[],
): Promise<string | undefined> {
  const { order } = run
  const source = await order.source
    .open(file.path)
    .catch(async (error: unknown) => void (await run.sourceFailed(file, error)))
  if (!source) return undefined
  const opened = new Map<CopyDestination, WritableFile>()
  await Promise.all(
    targets.map((to) => run.attempt(to, async () => opened.set(to, await to.medium.create(run.partPath(to, file))))),
  )
  const hash = new RunningHash()
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
      const at = position
      const written = Promise.all(
        [...opened].map(([to, part]) =>
          run.attempt(to, async () => {
            await part.write(view, at)
            order.onBytes(to.id, 'written', bytes)
          }),
        ),
      )
      taken[slot] = written
      position += bytes
      if (bytes < size) break
      reading[slot] = awaitedLater(written.then(() => source.read(block, (turn + ring.length) * size)))
    }
    assertUnchanged(file, position)
    await Promise.all(taken)
    await Promise.all([...opened].map(([to, part]) => run.attempt(to, () => part.close(file.modifiedMs, 'durable'))))
    return hash.digest()
  } catch (error) {
    await Promise.allSettled(taken)
    await order.gate()
    await run.sourceFailed(file, error)
    return undefined
  } finally {
    // The blocks are lent: nothing may still be read into them or written from them afterwards.
    await Promise.allSettled([...taken, ...reading])
    await Promise.all([source.close(), ...[...opened.values()].map((part) => part.abandon().catch(() => undefined))])
  }
}

/** A card that was written to after it was looked at must be looked at again. */
export function assertUnchanged(file: SourceFile, sizeBytes: number): void {
  if (sizeBytes !== file.sizeBytes)
    throw new Error(
      `It has ${sizeBytes} bytes now and had ${file.sizeBytes} when the card was looked at. Look at the card again.`,
    )
}

/** Reads one part back; equal parts get their name, others are removed and reported. */
async function prove(
  run: CopyRun,
  file: SourceFile,
  to: CopyDestination,
  wanted: string,
  blocks: readonly Uint8Array[],
): Promise<CopyRecord | undefined> {
  const found = await run.attempt(to, () =>
    readBack(
      to.medium,
      run.partPath(to, file),
      blocks,
      (bytes) => run.order.onBytes(to.id, 'proved', bytes),
      run.order.gate,
    ),
  )
  return found && nameIfEqual(run, file, to, wanted, found)
}

export async function nameIfEqual(
  run: CopyRun,
  file: SourceFile,
  to: CopyDestination,
  wanted: string,
  found: { hash: string; fromMedium: boolean },
): Promise<CopyRecord | undefined> {
  const outcome = { fileId: file.id, destinationId: to.id }
  if (found.hash !== wanted) {
    await run.attempt(to, () => to.medium.remove(run.partPath(to, file)))
    return { kind: 'mismatch', ...outcome, wanted, found: found.hash }
  }
  const placed = await run.attempt(to, () => run.place(to, file))
  if (placed === undefined) return undefined
  return placed === 'named'
    ? { kind: 'proved', ...outcome, hash: wanted, fromMedium: found.fromMedium, already: false }
    : { kind: 'conflict', ...outcome, wanted, found: 'a file that appeared meanwhile' }
}
