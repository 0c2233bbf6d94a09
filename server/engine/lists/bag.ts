import { decodeBagPath, readDeclaration, readOxum } from '../../../core/shelf/bag'
import { joinPath, type Medium, type TreeEntry } from '../medium/medium'
import { readWhole } from '../medium/readWhole'
import { readList, type ListedLine, type ReadList } from './readList'
import type { Findings } from './findings'

/** More than any of its small text files has. */
const MOST_TEXT_BYTES = 1024 * 1024

export const BAG_FILE = 'bagit.txt'

interface Manifest {
  readonly name: string
  /** Of the payload, or of the files that describe it. */
  readonly isPayload: boolean
  readonly read: ReadList
}

export interface BagLists {
  readonly lines: readonly ListedLine[]
  /** Compares what lies there with what each manifest and `bag-info.txt` name, once it is listed. */
  readonly complete: (tree: readonly TreeEntry[]) => void
}

/**
 * The manifests of a bag as one list, and what its standard asks for besides: a declaration, a manifest, names below
 * `data/`, every payload file in every manifest, the octets and files that it counts (RFC 8493, sections 2 and 3).
 */
export async function readBagLists(
  medium: Medium,
  folder: Buffer,
  findings: Findings,
  gate: () => Promise<void>,
): Promise<BagLists> {
  const declared = readDeclaration((await textOf(medium, folder, BAG_FILE)) ?? '')
  const amiss = (path: string, detail: string) => findings.add('bag', path, 0, detail)
  if (declared.version === undefined)
    amiss(BAG_FILE, 'does not declare a version and an encoding as the standard wants')
  else if (!declared.isUtf8) amiss(BAG_FILE, 'declares an encoding other than UTF-8: names may not be found')
  const manifests: Manifest[] = []
  for (const { name: bytes, kind } of await medium.list(folder)) {
    const name = bytes.toString()
    const [found, tag] = (kind === 'file' && /^(tag)?manifest-[a-z0-9-]+\.txt$/.exec(name)) || []
    if (found === undefined) continue
    const read = await readList(medium, joinPath(folder, bytes), gate)
    findings.addFaults(read)
    manifests.push({ name, isPayload: tag === undefined, read })
  }
  if (!manifests.some((one) => one.isPayload))
    amiss('manifest-sha512.txt', 'is missing, as is every other manifest of the payload')
  const decoded = (one: ListedLine) => ({ ...one, name: decodeBagPath(one.name, declared.version ?? '1.0') })
  for (const { isPayload, name, read } of manifests)
    for (const one of read.lines)
      if (isPayload && !one.name.replace(/^\.\//, '').startsWith('data/'))
        findings.add('bag', one.name, one.line, `is named by ${name}, and does not lie in data/`)
  const oxum = readOxum((await textOf(medium, folder, 'bag-info.txt')) ?? '')
  return {
    lines: manifests.flatMap(({ read }) => read.lines.map(decoded)),
    complete: (tree) => {
      const payload = tree.filter(({ kind, path }) => kind === 'file' && path.toString('latin1').startsWith('data/'))
      for (const { name, read } of manifests.filter((one) => one.isPayload)) {
        const named = new Set(read.lines.map((one) => decoded(one).name.replace(/^\.\//, '')))
        for (const { path } of payload)
          if (!named.has(path.toString('latin1')))
            findings.add('bag', path.toString('latin1'), 0, `is not named by ${name}`)
      }
      const sizeBytes = payload.reduce((sum, file) => sum + file.sizeBytes, 0)
      if (oxum && (oxum.files !== payload.length || oxum.sizeBytes !== sizeBytes))
        findings.add(
          ...(['bag', 'bag-info.txt', 0] as const),
          `counts ${oxum.sizeBytes} bytes in ${oxum.files} files, and there are ${sizeBytes} in ${payload.length}`,
        )
    },
  }
}

const textOf = async (medium: Medium, folder: Buffer, name: string): Promise<string | undefined> =>
  (await readWhole(medium, joinPath(folder, Buffer.from(name)), MOST_TEXT_BYTES))?.toString()
