import { cardChanges, differenceSentence } from '../../core/cards/load/load'
import type { Db } from '../db/connection'
import { entriesOf } from '../db/queries/cards'
import type { ReaderRow, SeenReader } from '../db/queries/readers'
import type { StayRow } from '../db/queries/stays'
import type { Listing } from '../media/listing'
import type { ReaderContent } from '../media/mediumOf'
import { whichLoad } from './whichLoad'

/** Which load a card holds. Not settled while the scan of it is under way. */
export interface Recognised extends Pick<SeenReader, 'loadId' | 'same' | 'twinId' | 'difference'> {
  readonly settled: boolean
  /** Its own card, a backup card, one that only looks like it, or one of which a part cannot be seen. */
  readonly kind: 'own' | 'backup' | 'unlike' | 'hidden' | 'none'
}

/** Which load a card holds, and how it differs from the latest scan. */
export async function recognise(
  db: Db,
  row: ReaderRow,
  content: ReaderContent,
  listing: Listing,
  stay: StayRow,
  not: ReadonlySet<string>,
): Promise<Recognised> {
  const { medium } = content
  const volumeUid = stay.mark.volumeUid ?? undefined
  const held = { readerId: row.id, stay, volumeUid, name: content.cardName, medium }
  const found = await whichLoad(db, held, listing, not)
  const other = { same: false, twinId: null, settled: true, kind: 'own' } as const
  if (found.kind === 'none') return { ...other, kind: 'none', loadId: null, difference: null }
  const { load } = found
  if (found.kind === 'backup')
    return { ...other, same: true, kind: 'backup', twinId: found.twinId, difference: null, loadId: load.id }
  if (found.kind === 'other content')
    return {
      ...other,
      kind: 'unlike',
      loadId: load.id,
      difference:
        `The card in ${row.name} has the names, sizes and times of “${load.label}”, but other content: ` +
        'it is not the card that was copied.',
    }
  if (!load.lookDone) {
    const difference = `The scan of “${load.label}” did not finish: scan it again.`
    return { ...other, loadId: load.id, difference, settled: false }
  }
  if (found.lists === 'the same') return { ...other, same: true, difference: null, loadId: load.id }
  const { shiftMs } = found
  const before = (await entriesOf(db, load.id)).filter((entry) => entry.kind === 'file')
  const changes = cardChanges(
    before.map((entry) => ({
      path: entry.pathText,
      sizeBytes: entry.sizeBytes,
      modifiedMs: entry.modifiedMs + shiftMs,
    })),
    listing.files.map((file) => ({ ...file, path: file.pathText })),
  )
  return { ...other, loadId: load.id, difference: differenceSentence(load.label, changes, shiftMs) }
}
