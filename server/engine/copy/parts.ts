import { joinPath, type Medium } from '../medium/medium'

/** How a part of a file of a card is called: by the id of its entry. */
export const partName = (entryId: number): Buffer => Buffer.from(`${entryId}.part`)

/** The id in the name of a part; `undefined` for what is not of a card. */
export const partOf = (name: Buffer): number | undefined => {
  const id = /^(\d+)\.part$/.exec(name.toString('latin1'))?.[1]
  return id === undefined ? undefined : Number(id)
}

/**
 * Removes the parts of one attempt, all but those that must stay: a part that is whole may be the only file with those
 * bytes. Returns how many stay.
 */
export async function removeParts(
  medium: Medium,
  folder: Buffer,
  mustStay: (part: { readonly entryId: number; readonly path: Buffer; readonly sizeBytes: number }) => Promise<boolean>,
): Promise<number> {
  if ((await medium.entry(folder))?.kind !== 'folder') return 0
  let stay = 0
  for (const { name, kind, sizeBytes } of await medium.list(folder)) {
    const [path, entryId] = [joinPath(folder, name), partOf(name)]
    if (kind === 'file' && entryId !== undefined && (await mustStay({ entryId, path, sizeBytes }))) stay += 1
    else await medium.remove(path)
  }
  if (stay === 0) await medium.remove(folder)
  return stay
}
