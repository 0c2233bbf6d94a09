import { DIGITS, type Algorithm } from '../../../core/copies/lists/algorithm'
import { formatChecksumList, isPlainName, safeFirst, type NamedSum } from '../../../core/copies/lists/format'
import type { Medium } from '../medium/medium'
import { walkBelow } from '../medium/walk'
import { readFiles } from './readFiles'

export interface ListFolder {
  readonly medium: Medium
  readonly folder: Buffer
  /** What stands before each name, bytes as characters: the folder itself, where the list lies beside it. */
  readonly before: string
  readonly algorithm: Algorithm
  /** xxHash64 of each content that a file may have, by its path; `undefined` where any will do. */
  readonly proved?: ReadonlyMap<string, ReadonlySet<string>>
  /** Paths that belong there, whether they lie there or not. */
  readonly expected?: ReadonlySet<string>
  readonly isOwn: (path: string) => boolean
  readonly gate: () => Promise<void>
  readonly onTotal: (bytes: number) => void
  readonly onBytes: (bytes: number) => void
}

/** One list, and what it is made with: names that `xxhsum` cannot read are in a second one. */
export interface WrittenSums {
  readonly algorithm: Algorithm
  readonly text: string
  readonly lines: number
}

export interface ListedFolder {
  readonly lists: readonly WrittenSums[]
  readonly files: number
  readonly sizeBytes: number
  readonly fromMedium: boolean
  /** Files whose content nobody knows; their sums are zeros, so that no program passes them. */
  readonly unknown: readonly {
    readonly path: string
    readonly why: 'unreadable' | 'changed' | 'not-proved' | 'missing'
  }[]
  /** Links and things that are no files, of which no list can speak. */
  readonly leftOut: readonly string[]
}

/** Reads every file of a folder past the cache and makes checksum lists of it. Rejects when the medium goes away. */
export async function listFolder(order: ListFolder): Promise<ListedFolder> {
  const { medium, folder, algorithm, before, isOwn } = order
  const tree = (await walkBelow(medium, folder)).filter(({ path }) => !isOwn(path.toString('latin1')))
  const lineOf = (path: string): { readonly name: string; readonly made: Algorithm } => {
    const name = `${before}${path}`
    return { name, made: algorithm.startsWith('xxh') && !isPlainName(name) ? 'sha256' : algorithm }
  }
  const files = tree
    .filter(({ kind }) => kind === 'file')
    .map(({ path, sizeBytes }) => {
      const known = order.proved?.get(path.toString('latin1'))
      const one = lineOf(path.toString('latin1'))
      return {
        path,
        sizeBytes,
        known,
        ...one,
        algorithms: new Set<Algorithm>(known ? [one.made, 'xxh64'] : [one.made]),
      }
    })
  order.onTotal(files.reduce((sum, file) => sum + file.sizeBytes, 0))
  const there = new Set(files.map(({ path }) => path.toString('latin1')))
  const gone = [...(order.expected ?? [])].filter((path) => !there.has(path))
  const sums = new Map<string, string>()
  const unknown: ListedFolder['unknown'][number][] = gone.map((path) => ({ path, why: 'missing' }))
  let [sizeBytes, fromMedium] = [0, true]
  await readFiles(order, files, (file, read) => {
    const path = file.path.toString('latin1')
    if ('why' in read) return void unknown.push({ path, why: read.why })
    if (file.known?.has(read.found.xxh64 ?? '') === false) return void unknown.push({ path, why: 'not-proved' })
    sizeBytes += file.sizeBytes
    fromMedium &&= read.fromMedium
    sums.set(file.name, read.found[file.made] ?? '')
  })
  const list = (made: Algorithm): WrittenSums[] => {
    const lines: NamedSum[] = [...files, ...gone.map(lineOf)]
      .filter((file) => file.made === made)
      .map(({ name }) => ({ path: safeFirst(name), hash: sums.get(name) ?? '0'.repeat(DIGITS[made]) }))
    return lines.length === 0 ? [] : [{ algorithm: made, text: formatChecksumList(lines), lines: lines.length }]
  }
  return {
    lists: [...list(algorithm), ...(algorithm === 'sha256' ? [] : list('sha256'))],
    ...{ files: sums.size, sizeBytes, fromMedium, unknown },
    leftOut: tree
      .filter(({ kind }) => kind === 'link' || kind === 'special')
      .map(({ path }) => path.toString('latin1')),
  }
}
