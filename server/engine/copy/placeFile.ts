import type { LinkWay } from '../../../core/cards/review/sorted'
import { alignedBlocks, LARGE_BLOCK } from '../medium/blocks'
import { readBack, RunningHash } from './hash'
import { errorCode, parentOf, type FileIdentity, type Medium } from '../medium/medium'
import { publishNew, settleName } from './publish'

/** A proved copy that gets a place in a view of the same volume or of another. */
export interface PlaceOrder {
  readonly source: Medium
  readonly from: Buffer
  /** xxHash64 of its proof, as 16 hexadecimal digits. */
  readonly hash: string
  readonly sizeBytes: number
  readonly target: Medium
  readonly to: Buffer
  /** A file of ours on the target, for what is not whole yet. */
  readonly part: Buffer
  readonly how: LinkWay
  readonly gate: () => Promise<void>
  readonly onBytes: (bytes: number) => void
}

/** The file system cannot do what was chosen. */
export class CannotLink extends Error {}

const UNABLE = new Set(['EPERM', 'EXDEV', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS', 'EINVAL', 'EMLINK', 'ENOTTY'])

/**
 * Gives a proved copy a second place: by shared bytes, by a second name, or by a copy that is read back. `taken` when
 * another file stands there; one with the same content that an earlier run left just before it was cut is taken as
 * placed. Throws CannotLink where the file system cannot, and an error with a sentence where the copy is not what was
 * proved.
 */
export async function placeFile(order: PlaceOrder): Promise<FileIdentity | 'taken'> {
  const { target, to, source, from, sizeBytes } = order
  const there = await target.entry(to)
  if (there) return there.kind === 'file' && (await isContent(order, there.sizeBytes)) ? there : 'taken'
  const original = await source.entry(from)
  if (original?.kind !== 'file' || original.sizeBytes !== sizeBytes)
    throw new Error('its copy is not there any more as it was proved')
  if (order.how === 'copy' || source.root !== target.root) return copied(order, original.modifiedMs)
  try {
    if (order.how === 'hard') await target.linkFile(from, to)
    else {
      await target.remove(order.part)
      await target.cloneFile(from, order.part)
      if ((await publishNew(target, order.part, to)) === 'taken') return 'taken'
    }
  } catch (error) {
    if (errorCode(error) === 'EEXIST') return 'taken'
    if (UNABLE.has(errorCode(error))) throw new CannotLink(errorCode(error))
    throw error
  }
  await settleName(target, to)
  return identity(target, to)
}

async function isContent({ target, to, hash, sizeBytes, gate, onBytes }: PlaceOrder, bytes: number): Promise<boolean> {
  if (bytes !== sizeBytes) return false
  return (await readBack(target, to, alignedBlocks(2, LARGE_BLOCK), onBytes, gate)).hash === hash
}

async function copied(order: PlaceOrder, modifiedMs: number): Promise<FileIdentity | 'taken'> {
  const { source, from, target, part, to, gate, onBytes, hash } = order
  const [block] = alignedBlocks(1, LARGE_BLOCK)
  if (!block) throw new RangeError('no block')
  await target.makeFolder(parentOf(part))
  const file = await source.open(from)
  const out = await target.create(part)
  const read = new RunningHash()
  try {
    for (let position = 0; ; position += block.length) {
      const bytes = await file.read(block, position)
      await gate()
      const view = block.subarray(0, bytes)
      read.update(view)
      if (bytes > 0) await out.write(view, position)
      onBytes(bytes)
      if (bytes < block.length) break
    }
  } catch (error) {
    await out.abandon()
    await target.remove(part)
    throw error
  } finally {
    await file.close()
  }
  await out.close(modifiedMs, 'durable')
  const back = await readBack(target, part, alignedBlocks(2, LARGE_BLOCK), () => undefined, gate)
  if (read.digest() !== hash || back.hash !== hash) {
    await target.remove(part)
    throw new Error(
      read.digest() === hash
        ? 'it differed when it was read back from the volume'
        : 'its copy is not what was proved: read that copy again at Copies',
    )
  }
  return (await publishNew(target, part, to)) === 'taken' ? 'taken' : identity(target, to)
}

async function identity(target: Medium, path: Buffer): Promise<FileIdentity> {
  const entry = await target.entry(path)
  if (!entry) throw new Error('it was gone the moment after it got its name')
  return entry
}
