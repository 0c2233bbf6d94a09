import type { Db } from '../../../db/connection'
import { stampedCopy, touchCopy } from '../../../db/queries/copies'
import { joinPath, type Medium } from '../../../engine/medium/medium'
import { stampOf } from '../../../engine/medium/stamps'

/**
 * Gives or takes a further name of a proved copy. Both touch the copy (its ctime), so that it would be doubted: the new
 * touch is kept where the copy lay just as it was known a moment before, and only there.
 */
export async function keepingStamp<T>(
  db: Db,
  { medium, volumeId, entryId }: { readonly medium: Medium; readonly volumeId: string; readonly entryId: number },
  act: () => Promise<T>,
): Promise<T> {
  const copy = await stampedCopy(db, volumeId, entryId)
  if (!copy || copy.changedMs === null) return act()
  const path = joinPath(Buffer.from(copy.folder), copy.path)
  const stamps = await medium.stamps()
  const lies = async () => {
    const entry = await medium.entry(path).catch(() => undefined)
    return entry && { ...stampOf(stamps, entry), sizeBytes: entry.sizeBytes, modifiedMs: entry.modifiedMs }
  }
  const before = await lies()
  const isKnown = before?.changedMs === copy.changedMs && before.inode === copy.inode
  const done = await act()
  const after = isKnown ? await lies() : undefined
  if (
    after?.changedMs !== undefined &&
    after.changedMs !== null &&
    after.inode === before?.inode &&
    after.sizeBytes === before?.sizeBytes &&
    after.modifiedMs === before.modifiedMs
  )
    await touchCopy(db, { volumeId, entryId, from: copy.changedMs, to: after.changedMs })
  return done
}
