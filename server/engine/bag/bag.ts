import { createHash } from 'node:crypto'
import { BAG_DECLARATION, bagInfo, bagManifest, payloadOxum, type PayloadFile } from '../../../core/shelf/bag'
import { alignedBlocks, LARGE_BLOCK } from '../medium/blocks'
import { joinPath, parentOf, type Medium } from '../medium/medium'
import { NewNames } from '../copy/newNames'

export interface BagPayload {
  readonly medium: Medium
  readonly path: Buffer
  /** Name inside `data/`. */
  readonly name: string
  readonly modifiedMs: number
}

export interface BagOrder {
  readonly target: Medium
  /** Final folder of the bag; must be free. */
  readonly folder: Buffer
  /** A folder of ours on the same volume, where the bag is built. */
  readonly parts: Buffer
  readonly payload: readonly BagPayload[]
  /** Small payload files that are written, not copied. */
  readonly notes: readonly { readonly name: string; readonly text: string }[]
  readonly info: readonly (readonly [string, string])[]
  readonly gate: () => Promise<void>
  readonly onBytes: (bytes: number) => void
}

export interface WrittenBag {
  readonly files: readonly PayloadFile[]
  readonly fromMedium: boolean
}

/** SHA-256 over blocks read past the cache. */
export async function sha256Of(
  medium: Medium,
  path: Buffer,
  block: Uint8Array,
  onBlock: (view: Uint8Array, position: number) => Promise<void>,
): Promise<{ sha256: string; sizeBytes: number; fromMedium: boolean }> {
  const file = await medium.open(path)
  try {
    const hash = createHash('sha256')
    let position = 0
    for (;;) {
      const bytes = await file.read(block, position)
      const view = block.subarray(0, bytes)
      hash.update(view)
      await onBlock(view, position)
      position += bytes
      if (bytes < block.length) break
    }
    return { sha256: hash.digest('hex'), sizeBytes: position, fromMedium: file.fromMedium }
  } finally {
    await file.close()
  }
}

/**
 * Writes a BagIt 1.0 bag (RFC 8493): builds it aside, reads every payload file back from the medium, and gives it its
 * name only when all are equal. Throws with a sentence when a file differs; nothing is left behind then.
 */
export async function writeBag(order: BagOrder): Promise<WrittenBag> {
  const { target, parts, gate } = order
  const [block] = alignedBlocks(1, LARGE_BLOCK)
  if (!block) throw new RangeError('no block')
  const at = (name: string) => joinPath(parts, Buffer.from(name))
  await target.remove(parts)
  await target.makeFolder(at('data'))
  try {
    const files: PayloadFile[] = []
    for (const item of order.payload) {
      const path = `data/${item.name}`
      const out = await target.create(at(path))
      const sum = await sha256Of(item.medium, item.path, block, async (view, position) => {
        await gate()
        if (view.length > 0) await out.write(view, position)
        order.onBytes(view.length)
      }).catch(async (error: unknown) => {
        await out.abandon()
        throw error
      })
      await out.close(item.modifiedMs, 'durable')
      files.push({ path, sizeBytes: sum.sizeBytes, sha256: sum.sha256 })
    }
    for (const note of order.notes)
      files.push({ path: `data/${note.name}`, ...(await writeText(target, at(`data/${note.name}`), note.text)) })
    const tags = [
      { name: 'bagit.txt', text: BAG_DECLARATION },
      { name: 'bag-info.txt', text: bagInfo([...order.info, ['Payload-Oxum', payloadOxum(files)]]) },
      { name: 'manifest-sha256.txt', text: bagManifest(files) },
    ]
    const sums = []
    for (const tag of tags) sums.push({ path: tag.name, ...(await writeText(target, at(tag.name), tag.text)) })
    await writeText(target, at('tagmanifest-sha256.txt'), bagManifest(sums))
    const fromMedium = await proveBag(target, parts, [...files, ...sums], block, order)
    const names = new NewNames(target)
    for (const file of [...files, ...sums]) names.add(at(file.path))
    await names.settle()
    await target.makeFolder(parentOf(order.folder))
    await target.move(parts, order.folder)
    const given = new NewNames(target)
    given.add(order.folder)
    await given.settle()
    return { files, fromMedium }
  } catch (error) {
    await target.remove(parts).catch(() => undefined)
    throw error
  }
}

async function writeText(target: Medium, path: Buffer, text: string): Promise<{ sizeBytes: number; sha256: string }> {
  const bytes = Buffer.from(text)
  const out = await target.create(path)
  try {
    await out.write(bytes, 0)
  } catch (error) {
    await out.abandon()
    throw error
  }
  await out.close(Date.now(), 'durable')
  return { sizeBytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') }
}

async function proveBag(
  target: Medium,
  parts: Buffer,
  files: readonly PayloadFile[],
  block: Uint8Array,
  order: BagOrder,
): Promise<boolean> {
  let fromMedium = true
  for (const file of files) {
    const found = await sha256Of(target, joinPath(parts, Buffer.from(file.path)), block, async (view) => {
      await order.gate()
      order.onBytes(view.length)
    })
    if (found.sha256 !== file.sha256)
      throw new Error(
        `${file.path} differs when it is read back: the volume cannot be trusted. Nothing was kept there.`,
      )
    fromMedium &&= found.fromMedium
  }
  return fromMedium
}
