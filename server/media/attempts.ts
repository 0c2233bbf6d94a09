import type { Medium } from '../engine/medium'
import { PARTS } from './mediumOf'

/** Removes parts that attempts left behind on a volume; those of attempts under way stay. */
export async function removeStaleParts(medium: Medium, live: ReadonlySet<string>): Promise<void> {
  const parts = Buffer.from(PARTS)
  if ((await medium.entry(parts))?.kind !== 'folder') return
  for (const entry of await medium.list(parts)) {
    const name = entry.name.toString('latin1')
    if (!live.has(name)) await medium.remove(Buffer.from(`${PARTS}/${name}`, 'latin1'))
  }
}
