import { recogniseLoads } from '../../core/cards/load/load'
import type { Db } from '../db/connection'
import { loadsById, samplesOf } from '../db/queries/cards'
import { loadsLike } from '../db/queries/loadsLike'
import { loadsWithDigest } from '../db/queries/seen'
import { CARD_ROOT, samplesEqual, type Listing } from '../media/listing'
import { sameCards, backupCardAmong, backupCardOf, type Held } from './backupCards'

interface KnownCard {
  readonly id: string
  readonly label: string
  readonly lookDone: boolean
}

/**
 * Which load a card holds, as far as its listing and samples of its content tell: the load’s own card or a backup card
 * of it, listing just what was scanned or something else; a card with the listing of a load and other content; or none.
 */
export type WhichLoad =
  | {
      readonly kind: 'own'
      readonly load: KnownCard
      readonly lists: 'the same' | 'something else'
      readonly shiftMs: number
    }
  | { readonly kind: 'backup'; readonly load: KnownCard; readonly twinId: string }
  | { readonly kind: 'other content'; readonly load: KnownCard }
  | { readonly kind: 'none' }

/**
 * The one place that answers it, for the observer and for every scan; `not` are loads that it was found not to hold.
 */
export async function whichLoad(
  db: Db,
  held: Held,
  listing: Listing,
  not: ReadonlySet<string> = new Set(),
): Promise<WhichLoad> {
  const { medium } = held
  const equal = async (loadId: string, shiftMs = 0) =>
    samplesEqual(medium, await samplesOf(db, loadId), CARD_ROOT, shiftMs)
  let impostor: KnownCard | undefined
  for (const load of await loadsWithDigest(db, listing.print)) {
    if (not.has(load.id)) continue
    if (!(await equal(load.id))) {
      impostor ??= load
      continue
    }
    const twinId = load.lookDone ? await backupCardOf(db, held, load, 'equal') : undefined
    return twinId === undefined
      ? { kind: 'own', load, lists: 'the same', shiftMs: 0 }
      : { kind: 'backup', load, twinId }
  }
  if (impostor) return { kind: 'other content', load: impostor }
  const files = listing.files.map((file) => ({ ...file, path: file.pathText }))
  const paths = files.map((file) => file.path)
  const known = (await loadsLike(db, paths)).filter(({ id }) => !not.has(id))
  const backup = await backupCardAmong(db, held, files, known)
  if (backup) return { kind: 'backup', load: backup.load, twinId: backup.id }
  for (const { id, shiftMs } of recogniseLoads(files, await sameCards(db, held, known))) {
    if (!(await equal(id, shiftMs))) continue
    const [load] = await loadsById(db, [id])
    if (load) return { kind: 'own', load, lists: 'something else', shiftMs }
  }
  return { kind: 'none' }
}
