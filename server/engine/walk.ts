import { joinPath, type Medium, type MediumEntry } from './medium'

export interface WalkedEntry extends MediumEntry {
  readonly path: Buffer
}

/** Every entry below a folder, folders before what they hold, in byte order of names. Links are listed, not followed. */
export async function walk(medium: Medium, folder: Buffer = Buffer.alloc(0)): Promise<WalkedEntry[]> {
  const entries = (await medium.list(folder)).sort((a, b) => Buffer.compare(a.name, b.name))
  const nested = await Promise.all(
    entries.map(async (entry) => {
      const path = joinPath(folder, entry.name)
      const below = entry.kind === 'folder' ? await walk(medium, path) : []
      return [{ ...entry, path }, ...below]
    }),
  )
  return nested.flat()
}
