import { createHash } from 'node:crypto'
import { formatChecksumList, isPlainName, type NamedSum } from '../../../core/copies/lists/format'
import { alignedBlocks, asBuffer, itemAt, LARGE_BLOCK } from '../medium/blocks'
import { RunningHash } from './hash'
import { joinPath, readOnce, type Medium } from '../medium/medium'
import { publishOver } from './publish'

export interface ListOrder {
  readonly medium: Medium
  /** The mirror; the lists stand beside it, under its name with `.xxh64` and `.sha256`. */
  readonly folder: Buffer
  readonly parts: Buffer
  /** What the mirror is to hold, with the content that each file had when it was proved. */
  readonly files: readonly { readonly path: Buffer; readonly hash: string | undefined }[]
  readonly gate: () => Promise<void>
}

/**
 * Checksum lists beside a mirror, so that it can be checked in ten years with Debian's tools alone: xxHash64 for
 * names that `xxhsum` can read, SHA-256 for the others (read again for it, past the cache, and compared). Every file
 * that belongs here is listed, also one that is missing, differs, or could never be read: its sum is of what it was, or
 * zeros where nobody knows, so that the check names it and never passes a mirror that is not whole. The old lists stay
 * until the new ones are whole.
 */
export async function writeLists({ medium, folder, parts, files, gate }: ListOrder): Promise<void> {
  const label = folder.subarray(folder.lastIndexOf(0x2f) + 1)
  const named = (path: Buffer) => joinPath(label, path).toString('latin1')
  const plain = files.filter((one) => isPlainName(named(one.path)))
  const odd = files.filter((one) => !isPlainName(named(one.path)))
  const ours = new RegExp(`^\\\\?[0-9a-f]{16,64}  ${escaped(label.toString('latin1'))}/`)
  await writeOne(
    { medium, folder, parts, ours },
    '.xxh64',
    plain.map((one) => ({ hash: one.hash ?? UNKNOWN.xxh64, path: named(one.path) })),
  )
  const sums: NamedSum[] = []
  for (const { path, hash } of odd) {
    await gate()
    const both = await bothHashes(medium, joinPath(folder, path))
    sums.push({ hash: both !== undefined && both.xxh64 === hash ? both.sha256 : UNKNOWN.sha256, path: named(path) })
  }
  const sha256List = await freeListPath({ medium, folder, parts, ours }, '.sha256')
  if (sums.length > 0 || (await medium.entry(sha256List)))
    await writeOne({ medium, folder, parts, ours }, '.sha256', sums)
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

interface ListPlace extends Pick<ListOrder, 'medium' | 'folder' | 'parts'> {
  /** How a line of a list of ours begins. */
  readonly ours: RegExp
}

/**
 * The name of a list: that of the mirror with its ending, unless something that is not ours has it, such as a folder.
 * Nothing of anybody else’s is written over.
 */
async function freeListPath({ medium, folder, ours }: ListPlace, ending: string): Promise<Buffer> {
  for (const more of ['', ' list', ' list 2', ' list 3']) {
    const path = Buffer.concat([folder, Buffer.from(`${more}${ending}`)])
    const entry = await medium.entry(path)
    if (!entry || (entry.kind === 'file' && (await isOurs(medium, path, ours)))) return path
  }
  throw new Error(
    `Things that are not Yendra’s have the names of the checksum lists (${ending}). Move them away, then copy again.`,
  )
}

async function isOurs(medium: Medium, path: Buffer, ours: RegExp): Promise<boolean> {
  const block = itemAt(alignedBlocks(1, LINE_BYTES), 0)
  const bytes = await readOnce(await medium.open(path), block)
  return bytes === 0 || ours.test(asBuffer(block.subarray(0, bytes)).toString('latin1'))
}

/** Enough for the first line of a list. */
const LINE_BYTES = 65_536

/** No file is likely to have these. */
const UNKNOWN = { xxh64: '0'.repeat(16), sha256: '0'.repeat(64) }

async function writeOne(place: ListPlace, ending: string, sums: readonly NamedSum[]): Promise<void> {
  const { medium, parts } = place
  const part = joinPath(parts, Buffer.from(`list${ending}`))
  await medium.makeFolder(parts)
  const out = await medium.create(part)
  try {
    await out.write(Buffer.from(formatChecksumList(sums), 'latin1'), 0)
  } catch (error) {
    await out.abandon()
    throw error
  }
  await out.close(Date.now(), 'settled-later')
  await publishOver(medium, part, await freeListPath(place, ending))
}

/** `undefined` when no such file lies there. */
async function bothHashes(medium: Medium, path: Buffer): Promise<{ xxh64: string; sha256: string } | undefined> {
  if ((await medium.entry(path))?.kind !== 'file') return undefined
  const block = itemAt(alignedBlocks(1, LARGE_BLOCK), 0)
  const file = await medium.open(path)
  try {
    const [xxh64, sha256] = [new RunningHash(), createHash('sha256')]
    for (let position = 0; ; position += block.length) {
      const bytes = await file.read(block, position)
      xxh64.update(block.subarray(0, bytes))
      sha256.update(asBuffer(block.subarray(0, bytes)))
      if (bytes < block.length) break
    }
    return { xxh64: xxh64.digest(), sha256: sha256.digest('hex') }
  } finally {
    await file.close()
  }
}
