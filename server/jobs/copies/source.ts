import { cardChanges, changeWords } from '../../../core/cards/load'
import { samplesOf, type EntryRow } from '../../db/queries/cards'
import { readerOfLoad } from '../../db/queries/readers'
import { stay } from '../../db/queries/stays'
import { noteReadFromTwin } from '../../db/queries/twins'
import type { Medium } from '../../engine/medium'
import { CannotWork } from '../../media/cannotWork'
import { CARD_ROOT, listCard, samplesEqual } from '../../media/listing'
import { readerContent } from '../../media/mediumOf'
import type { Work } from '../work'

const byBytes = (file: { path: Buffer; sizeBytes: number; modifiedMs: number }) => ({
  path: file.path.toString('latin1'),
  sizeBytes: file.sizeBytes,
  modifiedMs: file.modifiedMs,
})

/** How a card differs from what it listed at the look, in words; `''` when it does not. */
export async function changesOf(
  medium: Medium,
  files: readonly EntryRow[],
): Promise<{ stayed: number; words: string }> {
  const listed = (await listCard(medium)).files
  const changes = cardChanges(files.map(byBytes), listed.map(byBytes))
  return { stayed: changes.stayed, words: changeWords(changes) }
}

/** The card of a load, in its reader, just as it was when it was looked at. */
export async function cardOf(
  { db, look }: Work,
  load: { id: string; readerId: string | null; label: string; lookDone: boolean },
  files: readonly EntryRow[],
): Promise<Medium> {
  // In a new stay the card is compared with what is known of it, before anything of it is copied or counts.
  await look([])
  const reader = await readerOfLoad(db, load)
  const content = reader ? await readerContent(db, reader) : 'unreachable'
  if (content === 'empty' || content === 'unreachable')
    throw new CannotWork(`The card of “${load.label}” is not in the reader. Put it in and copy again.`)
  if (!load.lookDone)
    throw new CannotWork(`The look at “${load.label}” did not come to its end. Look at the card again, then copy.`)
  const { stayed, words } = await changesOf(content.medium, files)
  const other = files.length > 0 && stayed === 0
  if (other || !(await samplesEqual(content.medium, await samplesOf(db, load.id), CARD_ROOT, 0)))
    throw new CannotWork(
      `The card in the reader is not the one of “${load.label}”. Change cards, or look at this one first.`,
    )
  if (words !== '')
    throw new CannotWork(
      `The card has changed since it was looked at: ${words}. Look at it again, then copy; nothing was written.`,
    )
  const stayRow = reader?.stayId ? await stay(db, reader.stayId) : undefined
  if (!reader?.same || stayRow?.loadId !== load.id || stayRow.knownHow === null)
    throw new CannotWork(
      reader?.difference ??
        `The card in the reader could not be compared with what is known of “${load.label}”: nothing was copied. Take it out, put it in again, and copy again.`,
    )
  if (reader.twinId !== null) await noteReadFromTwin(db, load.id)
  return content.medium
}
