import { baseOf, placed, type Base } from '../../../core/copies/lists/names'
import { Lookup } from '../../../core/copies/lists/lookup'
import type { Algorithm } from '../../../core/copies/lists/algorithm'
import { fittingWith, type FoundSums, type ListChecked } from '../../../core/copies/lists/verdict'
import type { Medium, TreeEntry } from '../medium/medium'
import { walkBelow } from '../medium/walk'
import type { ListedLine } from './readList'
import type { Findings } from './findings'
import { readFiles, type FileRead, type FileToRead } from './readFiles'

export interface VerifyOrder {
  readonly medium: Medium
  /** What is compared, below the root of the medium. */
  readonly folder: Buffer
  /** Absolute paths, to find from where the names go. */
  readonly folderPath: string
  readonly listFolder: string
  readonly lines: readonly ListedLine[]
  /** Where names go from; found by looking where it is not given. */
  readonly base?: Base
  /** Path of the list, where it lies in the folder: what it says of itself was written before it was whole. */
  readonly self?: string | undefined
  /** Files that no list needs to name. */
  readonly isOwn: (path: string) => boolean
  readonly gate: () => Promise<void>
  /** Told what lies there before anything is read. */
  readonly onTree?: (tree: readonly TreeEntry[]) => void
  readonly onTotal: (bytes: number) => void
  readonly onBytes: (bytes: number) => void
}

export type Verified = Omit<ListChecked, 'found' | 'cut' | 'isBag'>

/** A file with the lines that name it. */
class Asked implements FileToRead {
  readonly lines: ListedLine[] = []

  constructor(
    readonly name: string,
    readonly path: Buffer,
    readonly sizeBytes: number,
  ) {}

  get algorithms(): Set<Algorithm> {
    return new Set(this.lines.flatMap((line) => line.algorithms))
  }
}

/**
 * Reads every file of a folder that a list names, once and past the cache, and compares it with all its sums. What is
 * found is added to `findings`. Rejects when the medium goes away.
 */
export async function verifyFolder(order: VerifyOrder, findings: Findings): Promise<Verified> {
  const { medium, folder, lines } = order
  const tree = await walkBelow(medium, folder)
  order.onTree?.(tree)
  const entries = new Map(tree.map((entry) => [entry.path.toString('latin1'), entry]))
  const lookup = new Lookup(entries.keys())
  const base =
    order.base ??
    baseOf({
      ...{ names: lines.map((one) => one.name), folder: order.folderPath, listFolder: order.listFolder },
      exists: (path) => lookup.find(path) !== undefined,
    })
  const { asked, renamed, ofItself } = sorted(order, base, lookup, entries, findings)
  for (const [path, { kind }] of entries)
    if (kind === 'file' && !asked.has(path) && path !== order.self && !order.isOwn(path)) findings.add('extra', path, 0)
  const files = [...asked.values()]
  order.onTotal(files.reduce((sum, file) => sum + file.sizeBytes, 0))
  const comparing = new Comparing(findings)
  await readFiles(order, files, comparing.add)
  await readAgain(order, comparing, findings)
  return { lines: lines.length - ofItself, renamed, namesItself: ofItself > 0, ...comparing.result() }
}

/** Lines by the file that they name; what names no file is a finding. */
function sorted(
  { lines, self }: VerifyOrder,
  base: Base,
  lookup: Lookup,
  entries: ReadonlyMap<string, TreeEntry>,
  findings: Findings,
) {
  const asked = new Map<string, Asked>()
  let [renamed, ofItself] = [0, 0]
  for (const one of lines) {
    const at = placed(one.name, base)
    if (at.kind !== 'here') {
      findings.add(at.kind, one.name, one.line)
      continue
    }
    const path = lookup.find(at.path)
    if (self !== undefined && path === self) {
      ofItself += 1
      continue
    }
    const entry = path === undefined ? undefined : entries.get(path)
    if (path === undefined || !entry) {
      const hidden = hiddenBy(at.path, entries)
      findings.add(hidden ? 'unreadable' : 'missing', at.path, one.line, hidden ?? '')
    } else if (entry.kind !== 'file') findings.add('no-file', path, one.line, NO_FILE[entry.kind])
    else {
      if (path !== at.path) renamed += 1
      const known = asked.get(path) ?? new Asked(path, entry.path, entry.sizeBytes)
      known.lines.push(one)
      asked.set(path, known)
    }
  }
  return { asked, renamed, ofItself }
}

/** Why nobody can see whether it is there: a folder on its way that is closed, a link, or another drive. */
function hiddenBy(path: string, entries: ReadonlyMap<string, TreeEntry>): string | undefined {
  for (let end = path.indexOf('/'); end >= 0; end = path.indexOf('/', end + 1)) {
    const above = entries.get(path.slice(0, end))
    if (above?.kind === 'link') return `lies behind a link, ${path.slice(0, end)}, which is not followed`
    if (above?.kind === 'special') return `lies in ${path.slice(0, end)}, which cannot be opened or is another drive`
  }
  return undefined
}

const NO_FILE = {
  folder: 'a folder',
  link: 'a link, which is not followed',
  special: 'no file of bytes, or one of another drive',
} as const

/** Compares what was read with the lines that name it, and counts. */
class Comparing {
  readonly #algorithms = new Set<Algorithm>()
  readonly differing: { readonly one: Asked; readonly line: ListedLine; readonly found: FoundSums }[] = []
  equal = 0
  /** Of files that hold something: an empty one fits every list. */
  #telling = 0
  #files = 0
  #sizeBytes = 0
  #fromMedium = true

  constructor(readonly findings: Findings) {}

  result() {
    return {
      ...{ equal: this.equal, telling: this.#telling, files: this.#files, sizeBytes: this.#sizeBytes },
      ...{ algorithms: [...this.#algorithms], fromMedium: this.#fromMedium },
    }
  }

  readonly add = (one: Asked, read: FileRead): void => {
    if ('why' in read) {
      for (const { line } of one.lines) this.findings.add(read.why, one.name, line, read.code)
      return
    }
    this.#files += 1
    this.#sizeBytes += one.sizeBytes
    this.#fromMedium &&= read.fromMedium
    for (const line of one.lines) {
      const algorithm = fittingWith(line, read.found)
      if (algorithm) {
        this.equal += 1
        if (one.sizeBytes > 0) this.#telling += 1
        this.#algorithms.add(algorithm)
      } else this.differing.push({ one, line, found: read.found })
    }
  }
}

/** What differs is read once more where the list is the right one: a drive may read otherwise each time. */
async function readAgain(order: VerifyOrder, { differing, equal }: Comparing, findings: Findings): Promise<void> {
  const again = new Map<Asked, FileRead>()
  if (equal > 0)
    await readFiles(
      { ...order, onBytes: () => undefined },
      [...new Set(differing.map(({ one }) => one))],
      (one, read) => void again.set(one, read),
    )
  for (const { one, line, found } of differing) {
    const second = again.get(one) ?? { found }
    const isSteady =
      'found' in second && Object.entries(second.found).every(([name, hash]) => found[name as Algorithm] === hash)
    findings.add(
      isSteady ? 'different' : 'unsteady',
      one.name,
      line.line,
      `${sumWords(line, found)} instead of ${line.hash}`,
    )
  }
}

const sumWords = ({ algorithms }: ListedLine, found: FoundSums) =>
  algorithms.flatMap((algorithm) => found[algorithm] ?? []).join(' or ')
