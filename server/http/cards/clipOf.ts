import type { Db } from '../../db/connection'
import { clip as clipRow } from '../../db/queries/cards'
import { hasBeenRead, type ClipOnCard, type WatchedClip } from '../../media/watch'
import { conflict, notFound } from '../problem'

/** A clip by its id, be it readable or not; 404 when there is none. */
export async function clipOf(db: Db, id: string): Promise<ClipOnCard> {
  const clip = await clipRow(db, id)
  if (!clip) throw notFound('That clip')
  return clip
}

/** A clip of which something can be shown; 409 for one that could not be read as media. */
export async function watchableOf(db: Db, id: string): Promise<WatchedClip> {
  const clip = await clipOf(db, id)
  if (hasBeenRead(clip)) return clip
  throw conflict(`${clip.name} could not be read: ${clip.trouble ?? 'its card was not scanned to the end'}.`)
}
