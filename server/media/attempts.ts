import type { Db } from '../db/connection'
import { entrySizes } from '../db/queries/copies'
import { joinPath, type Medium } from '../engine/medium/medium'
import { partOf, removeParts } from '../engine/copy/parts'
import { whyItStays } from './mayGo'
import { PARTS } from './mediumOf'

interface StaleParts {
  readonly db: Db
  readonly host: string
  readonly volumeId: string
  readonly medium: Medium
  /** Attempts that are under way: their parts stay. */
  readonly live: ReadonlySet<string>
}

/**
 * Removes parts that attempts left behind on a volume. A part that is whole stays while nothing else with its bytes can
 * be read: returns how many do.
 */
export async function removeStaleParts({ db, host, volumeId, medium, live }: StaleParts): Promise<number> {
  const parts = Buffer.from(PARTS)
  if ((await medium.entry(parts))?.kind !== 'folder') return 0
  let stay = 0
  for (const entry of await medium.list(parts)) {
    if (live.has(entry.name.toString('latin1'))) continue
    const folder = joinPath(parts, entry.name)
    if (entry.kind !== 'folder') {
      await medium.remove(folder)
      continue
    }
    const ids = (await medium.list(folder)).flatMap(({ name }) => partOf(name) ?? [])
    const sizes = await entrySizes(db, ids)
    stay += await removeParts(
      medium,
      folder,
      async ({ entryId, path, sizeBytes }) =>
        sizes.get(entryId) === sizeBytes &&
        sizeBytes > 0 &&
        (await whyItStays(db, host, { volumeId, medium, path, entryId })) !== undefined,
    )
  }
  return stay
}
