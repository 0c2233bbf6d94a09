import { deviceError, errorCode, parentOf, type Medium, type MediumEntry } from './medium'

const WORDS: Readonly<Record<MediumEntry['kind'], string>> = {
  file: 'A file',
  folder: 'A folder',
  link: 'A link',
  special: 'Something that is neither file nor folder',
}

/** Codes of errors that a file or a link on the way to a name makes; whether nothing else makes them. */
const BLOCKED: Readonly<Record<string, boolean>> = { ENOTDIR: true, ELOOP: true, ENOENT: false }

/** What stands where a folder is needed; said to the person, path and all. */
export const notAFolder = (path: Buffer, kind: MediumEntry['kind']): Error =>
  deviceError('ENOTDIR', `${WORDS[kind]} stands at “${path.toString()}”, where a folder is needed.`)

/** What stands in the way of a file’s name, after an error; `undefined` where the error is another one. */
export async function whatBlocks(medium: Medium, path: Buffer, error: unknown): Promise<string | undefined> {
  const isSure = BLOCKED[errorCode(error)]
  if (isSure === undefined) return undefined
  for (const folder of foldersOf(path)) {
    const entry = await medium.entry(folder)
    if (!entry) break
    if (entry.kind !== 'folder') return notAFolder(folder, entry.kind).message
  }
  return isSure && error instanceof Error ? error.message : undefined
}

/** Every folder that a path lies in, the outermost first. */
function foldersOf(path: Buffer): Buffer[] {
  const folder = parentOf(path)
  return folder.length === 0 ? [] : [...foldersOf(folder), folder]
}
