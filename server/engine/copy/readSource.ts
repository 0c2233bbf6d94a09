import type { FileRecord } from '../../../core/copies/record'
import type { SourceFile } from './copyOrder'
import type { CopyRun } from './copyRun'
import type { FileIdentity } from '../medium/medium'
import { SourceDiffers } from './sourceDiffers'
import { stampOf } from '../medium/stamps'

/** What was read of a source file from end to end. */
interface ReadSource {
  readonly hash: string
  readonly before: FileIdentity
  readonly fromMedium: boolean
  readonly ends: string | null
}

/**
 * What reading a source says of the source itself. Of a copy: that it is proved again, or differs. Throws SourceDiffers
 * when it is not what is known of the file.
 */
export async function sourceRecords(run: CopyRun, file: SourceFile, read: ReadSource): Promise<FileRecord[]> {
  const { sourceId } = run.order
  const { hash, before, fromMedium, ends } = read
  if (file.knownHash !== undefined && hash !== file.knownHash) {
    if (sourceId !== undefined)
      await run.report([
        { kind: 'mismatch', fileId: file.id, destinationId: sourceId, wanted: file.knownHash, found: hash },
      ])
    throw new SourceDiffers(file.knownHash, hash)
  }
  if (sourceId === undefined) return []
  const { sizeBytes, modifiedMs } = before
  const lies = { sizeBytes, modifiedMs, ...stampOf(run.sourceStamps, before), ends }
  return [{ kind: 'proved', fileId: file.id, destinationId: sourceId, hash, fromMedium, placed: false, ...lies }]
}
