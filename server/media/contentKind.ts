import { isContainerHead } from '../../core/media/containerHead'
import { saysNothing } from '../../core/media/mediaName'
import { printablePath } from '../../core/copies/pathText'
import { alignedBlocks, GRID } from '../engine/medium/blocks'
import { inLanes } from '../engine/medium/lanes'
import type { Medium } from '../engine/medium/medium'
import { nameOf, type TreeEntry } from '../engine/medium/medium'

/** Smaller ones are no clips. */
const LEAST_BYTES = 16 * 1024
/** The largest ones of a card, so that the scan stays short whatever lies there. */
const MOST_FILES = 4096
const LANES = 8

/** Printable paths of the files whose names say nothing, but that begin as a container of film or sound does. */
export async function mediaByContent(medium: Medium, walked: readonly TreeEntry[]): Promise<ReadonlySet<string>> {
  const asked = walked
    .filter(
      (entry) =>
        entry.kind === 'file' && entry.sizeBytes >= LEAST_BYTES && saysNothing(printablePath(nameOf(entry.path))),
    )
    .sort((a, b) => b.sizeBytes - a.sizeBytes)
    .slice(0, MOST_FILES)
  const media = new Set<string>()
  await inLanes(asked, alignedBlocks(LANES, GRID), async ({ path }, block) => {
    if (await beginsAsMedia(medium, path, block)) media.add(printablePath(path))
  })
  return media
}

/** What cannot be read is met, and said, when the card is copied. */
async function beginsAsMedia(medium: Medium, path: Buffer, block: Uint8Array): Promise<boolean> {
  const file = await medium.open(path).catch(() => undefined)
  if (!file) return false
  try {
    return isContainerHead(block.subarray(0, await file.read(block, 0)))
  } catch {
    return false
  } finally {
    await file.close()
  }
}
