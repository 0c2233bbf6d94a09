import type { FileRecord } from '../../../core/copies/record'
import type { CopyDestination, SourceFile } from './copyOrder'
import type { CopyRun } from './copyRun'

/** A part that reads back as it was written gets its name; another is removed and reported. */
export async function nameIfEqual(
  run: CopyRun,
  file: SourceFile,
  to: CopyDestination,
  wanted: string,
  found: { readonly hash: string; readonly fromMedium: boolean; readonly ends: string | null },
): Promise<FileRecord | undefined> {
  const outcome = { fileId: file.id, destinationId: to.id }
  if (found.hash !== wanted) {
    await run.attempt(to, () => to.medium.remove(run.partPath(to, file)))
    return { kind: 'mismatch', ...outcome, wanted, found: found.hash }
  }
  const placed = await run.attemptFile(to, file, async () => {
    await to.makeWay?.(file)
    return { identity: await run.place(to, file) }
  })
  if (placed === undefined) return undefined
  const { identity } = placed
  if (!identity) return { kind: 'conflict', ...outcome, wanted, found: 'a file that appeared meanwhile' }
  const { sizeBytes, modifiedMs } = identity
  const { fromMedium, ends } = found
  const lies = { sizeBytes, modifiedMs, ...run.stampOf(to, identity), ends }
  return { kind: 'proved', ...outcome, hash: wanted, fromMedium, placed: true, ...lies }
}
