import * as cards from '../../../db/queries/cards'
import type { Db } from '../../../db/connection'
import type { Medium } from '../../../engine/medium/medium'
import { sampleHash } from '../../../engine/copy/sample'
import type { CardFile } from './scanAll'

/**
 * Writes down which media files of a card have the content of another one: equal in size, and in their first and last
 * 64 KiB.
 */
export async function noteSameContent(db: Db, { loadId, medium, media, gate }: SameQuestion): Promise<void> {
  const bySize = new Map<number, CardFile[]>()
  for (const file of media) {
    if (file.sizeBytes === 0) continue
    const alike = bySize.get(file.sizeBytes)
    if (alike) alike.push(file)
    else bySize.set(file.sizeBytes, [file])
  }
  const same: { path: string; as: string }[] = []
  for (const alike of bySize.values()) {
    if (alike.length < 2) continue
    const firsts = new Map<string, string>()
    for (const file of alike) {
      await gate()
      const hash = await sampleHash(medium, file.entry.path, file.sizeBytes).catch(() => undefined)
      if (hash === undefined) continue
      const first = firsts.get(hash)
      if (first === undefined) firsts.set(hash, file.path)
      else same.push({ path: file.path, as: first })
    }
  }
  await cards.setSameAs(db, loadId, same)
}

interface SameQuestion {
  readonly loadId: string
  readonly medium: Medium
  readonly media: readonly CardFile[]
  readonly gate: () => Promise<void>
}
