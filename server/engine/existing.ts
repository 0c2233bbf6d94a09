import type { CopyRecord, SourceFile } from './copy'
import type { CopyRun } from './copyRun'
import { readBack } from './hash'

/**
 * Destinations where the file's name is taken already. The same content counts as proved, since it was read just now;
 * different content is a conflict for the person. Nothing is overwritten.
 */
export async function settleExisting(
  run: CopyRun,
  file: SourceFile,
  blocks: readonly Uint8Array[],
): Promise<Set<string>> {
  const { order } = run
  const taken = (
    await Promise.all(
      run
        .alive(file)
        .map((to) => run.attempt(to, async () => ({ to, entry: await to.medium.entry(run.finalPath(to, file)) }))),
    )
  ).filter((one) => one?.entry !== undefined)
  if (taken.length === 0) return new Set()
  const pair = blocks.slice(0, 2)
  const wanted = await readBack(order.source, file.path, pair, () => undefined, order.gate).catch(
    async (error: unknown) => {
      await order.gate()
      await run.sourceFailed(file, error)
      return undefined
    },
  )
  const settled = new Set(taken.flatMap((one) => one?.to.id ?? []))
  if (!wanted) return settled
  const records: CopyRecord[] = []
  for (const { to, entry } of taken.flatMap((one) => one ?? [])) {
    const outcome = { fileId: file.id, destinationId: to.id }
    if (entry?.kind !== 'file' || entry.sizeBytes !== wanted.sizeBytes) {
      records.push({
        kind: 'conflict',
        ...outcome,
        wanted: wanted.hash,
        found: entry?.kind === 'file' ? `${entry.sizeBytes} bytes` : `a ${entry?.kind ?? 'missing file'}`,
      })
      continue
    }
    const found = await run.attempt(to, () =>
      readBack(to.medium, run.finalPath(to, file), pair, () => undefined, order.gate),
    )
    if (!found) continue
    if (found.hash !== wanted.hash) {
      records.push({ kind: 'conflict', ...outcome, wanted: wanted.hash, found: found.hash })
      continue
    }
    order.onBytes(to.id, 'written', file.sizeBytes)
    order.onBytes(to.id, 'proved', file.sizeBytes)
    records.push({ kind: 'proved', ...outcome, hash: wanted.hash, fromMedium: found.fromMedium, already: true })
  }
  await order.report(records)
  return settled
}
