import { lstat, readdir, readlink } from 'node:fs/promises'
import { identityOf, kindOf } from './fileStats'
import { joinPath, type TreeEntry } from './medium'

/** Up to so many, asking one by one is quicker than starting a program. */
const MOST = 200

class NotSo extends Error {}

/**
 * Everything below a folder that holds little, in the order and with the words of `findTree`; `undefined` where there
 * is more, or where a part cannot be listed.
 */
export async function fewEntries(folder: Buffer): Promise<TreeEntry[] | undefined> {
  let seen = 0
  const below = async (path: Buffer): Promise<TreeEntry[]> => {
    const here = joinPath(folder, path)
    const before = await lstat(here)
    const names = await readdir(here, { encoding: 'buffer' })
    const after = await lstat(here)
    // A link that came in between would have been followed.
    if (!after.isDirectory() || after.ino !== before.ino || after.dev !== before.dev) throw new NotSo()
    seen += names.length
    if (seen > MOST) throw new NotSo()
    const entries = names
      .sort((a, b) => Buffer.compare(a, b))
      .map(async (name) => {
        const [inside, full] = [joinPath(path, name), joinPath(here, name)]
        const stats = await lstat(full)
        const kind = kindOf(stats)
        const { sizeBytes, modifiedMs, changedMs, node } = identityOf(stats)
        const linkTarget = kind === 'link' ? await readlink(full, { encoding: 'buffer' }) : undefined
        const entry = { path: inside, kind, sizeBytes, modifiedMs, changedMs, node, linkTarget }
        return kind === 'folder' ? [entry, ...(await below(inside))] : [entry]
      })
    return (await Promise.all(entries)).flat()
  }
  return below(Buffer.alloc(0)).catch(() => undefined)
}
