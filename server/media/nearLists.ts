import { constants } from 'node:fs'
import { readdir, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { algorithmOfList, type Algorithm } from '../../core/copies/lists/algorithm'
import { readLine } from '../../core/copies/lists/readLine'
import type { Db } from '../db/connection'
import { openHere } from '../engine/medium/openHere'
import { BAG_FILE } from '../engine/lists/bag'
import { readableFolder, someFolder } from './someFolder'

interface NearList {
  readonly path: string
  readonly name: string
  readonly sizeBytes: number
  readonly algorithm: Algorithm | null
  readonly where: 'inside' | 'beside'
}

const HEAD_BYTES = 65_536
/** Files of one folder that are looked into. */
const MOST_TRIED = 60

/** Whether the first lines of a file name files with their sums. */
async function readsLikeAList(path: string, name: string): Promise<boolean> {
  // Opening a pipe would wait for its writer.
  const file = await openHere(Buffer.from(path), constants.O_RDONLY | constants.O_NONBLOCK).catch(() => undefined)
  if (!file) return false
  try {
    if (!(await file.stat()).isFile()) return false
    const { bytesRead, buffer } = await file.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0)
    const head = buffer.subarray(0, bytesRead)
    const text = head[0] === 0xff && head[1] === 0xfe ? head.toString('utf16le', 2) : head.toString('latin1')
    return text.split('\n', 200).some((line) => readLine(line, algorithmOfList(name)).kind === 'sums')
  } finally {
    await file.close()
  }
}

async function listsIn(folder: string, where: NearList['where']): Promise<NearList[]> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => [])
  const likely = entries
    .filter((entry) => entry.isFile() && /sum|md5|sha|xxh|sfv|crc|check|hash|\.txt$/i.test(entry.name))
    .slice(0, MOST_TRIED)
  const lists: NearList[] = []
  for (const { name } of likely) {
    const path = join(folder, name)
    if (!(await readsLikeAList(path, name))) continue
    const sizeBytes = (await stat(path).catch(() => undefined))?.size ?? 0
    lists.push({ path, name, sizeBytes, algorithm: algorithmOfList(name) ?? null, where })
  }
  return lists
}

/** Checksum lists in a folder and beside it. Throws `WrongFolder` where it is none. */
export async function nearLists(db: Db, host: string, path: string) {
  const real = await readableFolder(path)
  const [inside, beside, some, bag] = await Promise.all([
    listsIn(real, 'inside'),
    listsIn(dirname(real), 'beside'),
    someFolder(db, host, real),
    stat(join(real, BAG_FILE)).catch(() => undefined),
  ])
  const isBag = bag?.isFile() === true
  return {
    ...{ path: real, isBag, volumeName: some?.volume?.name ?? null },
    lists: isBag ? [] : [...inside, ...beside],
  }
}
