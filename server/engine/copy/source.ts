import type { SourceFile } from './copyOrder'
import { sameFile, type FileIdentity, type Medium, type ReadableFile } from '../medium/medium'

/** Opens a file of the card; throws when it is not the one that was scanned. */
export async function openSource(
  source: Medium,
  file: SourceFile,
): Promise<{ open: ReadableFile; before: FileIdentity }> {
  const open = await source.open(file.path)
  try {
    const before = await open.identity()
    if (before.sizeBytes !== file.sizeBytes)
      throw new Error(
        `It has ${before.sizeBytes} bytes now and had ${file.sizeBytes} when the card was scanned. Scan ` +
          'the card again.',
      )
    if (Math.trunc(before.modifiedMs) !== Math.trunc(file.modifiedMs))
      throw new Error('It was rewritten since the card was scanned. Scan the card again.')
    return { open, before }
  } catch (error) {
    await open.close()
    throw error
  }
}

/** Throws when a file is another one now, or longer or later, than when its reading began. */
export async function assertUnchanged(
  source: Medium,
  file: SourceFile,
  before: FileIdentity,
  readBytes: number,
): Promise<void> {
  const after = await source.entry(file.path)
  if (!after || !sameFile(before, after) || readBytes !== file.sizeBytes)
    throw new Error('It changed while it was read. Scan the card again.')
}
