import { counted } from '../../core/units/quantity'
import * as cards from '../db/queries/cards'
import type { Medium } from '../engine/medium'
import { walk, type WalkedEntry } from '../engine/walk'
import { readerContent } from '../places'
import { CannotWork, type Work } from './work'

export type Entry = Awaited<ReturnType<typeof cards.entriesOf>>[number]

/** The card of a load, in its reader, just as it was when it was looked at. */
export async function cardOf({ db }: Work, load: { readerId: string | null; label: string }, files: readonly Entry[]): Promise<Medium> {
  const reader = load.readerId ? await cards.reader(db, load.readerId) : undefined
  const content = reader ? await readerContent(db, reader) : 'unreachable'
  if (content === 'empty' || content === 'unreachable') throw new CannotWork(`The card of “${load.label}” is not in the reader. Put it in and copy again.`)
  const changed = changesSince(files, await walk(content.medium))
  if (changed === 'another card') throw new CannotWork(`The card in the reader is not the one of “${load.label}”. Change cards, or look at this one first.`)
  if (changed) throw new CannotWork(`The card has changed since it was looked at: ${changed}. Look at it again, then copy; nothing was written.`)
  return content.medium
}

/** How a card differs from what it listed at the latest look; `undefined` when it does not. */
function changesSince(files: readonly Entry[], now: readonly WalkedEntry[]): string | undefined {
  const here = new Map(now.flatMap((entry) => (entry.kind === 'file' ? [[entry.path.toString('latin1'), entry] as const] : [])))
  const stays = files.filter((file) => {
    const entry = here.get(file.path.toString('latin1'))
    return entry?.sizeBytes === file.sizeBytes && Math.abs(entry.modifiedMs - file.modifiedMs) <= 1
  })
  if (files.length > 0 && stays.length === 0) return 'another card'
  const missing = files.length - stays.length
  const added = here.size - stays.length
  if (missing + added === 0) return undefined
  return `${counted(missing, 'file')} gone or changed, ${counted(added, 'file')} new or changed`
}
