import { decodeBagPath, type PayloadFile } from '../../../core/shelf/bag'
import { alignedBlocks, itemAt, LARGE_BLOCK } from '../medium/blocks'
import { sha256Of, type WrittenBag } from './bag'
import { joinPath, type Medium } from '../medium/medium'
import { readWhole } from '../medium/readWhole'
import { settleName } from '../copy/publish'

const MOST_TEXT_BYTES = 16 * 1024 * 1024

const textOf = async (medium: Medium, path: Buffer): Promise<string | undefined> =>
  (await readWhole(medium, path, MOST_TEXT_BYTES))?.toString()

/**
 * A bag that an earlier run gave its name and was then cut: read again from end to end. `undefined` when there is none
 * of that identifier, or when one of its files is not as its manifest says.
 */
export async function readBag(
  medium: Medium,
  folder: Buffer,
  identifier: string,
  gate: () => Promise<void>,
): Promise<WrittenBag | undefined> {
  const at = (name: string) => joinPath(folder, Buffer.from(name))
  const info = await textOf(medium, at('bag-info.txt'))
  if (!info?.split('\n').includes(`External-Identifier: ${identifier}`)) return undefined
  const manifest = (await textOf(medium, at('manifest-sha256.txt'))) ?? ''
  const block = itemAt(alignedBlocks(1, LARGE_BLOCK), 0)
  const files: PayloadFile[] = []
  let fromMedium = true
  for (const line of manifest.split('\n').filter(Boolean)) {
    const [sha256 = '', ...rest] = line.split('  ')
    const path = decodeBagPath(rest.join('  '), '1.0')
    if ((await medium.entry(at(path)))?.kind !== 'file') return undefined
    const found = await sha256Of(medium, at(path), block, gate)
    if (found.sha256 !== sha256) return undefined
    files.push({ path, sizeBytes: found.sizeBytes, sha256 })
    fromMedium &&= found.fromMedium
  }
  if (files.length === 0) return undefined
  await settleName(medium, folder)
  return { files, fromMedium }
}
