import type { Db } from '../db/connection'
import { samplesOf } from '../db/queries/cards'
import { databaseTime, putMirrorListing } from '../db/queries/mirrors'
import { listMirror, samplesEqual } from '../media/listing'
import type { Medium } from '../media/places'

/** Lists a mirror and writes down how it lies there now. True when that is something new. Rejects when the volume goes away. */
export async function lookAtMirror(
  db: Db,
  mirror: { readonly loadId: string; readonly volumeId: string; readonly folder: string },
  medium: Medium,
): Promise<boolean> {
  const begunAt = await databaseTime(db)
  const place = await medium.place()
  const folder = Buffer.from(mirror.folder)
  const files = await listMirror(medium, folder)
  const node = (await medium.entry(folder))?.node ?? ''
  const device = await medium.device()
  // A volume that is pulled out in the middle of the look is no proof of anything.
  if ((await medium.place()) !== place) throw new Error('The volume went away while it was listed.')
  return putMirrorListing(db, {
    loadId: mirror.loadId,
    volumeId: mirror.volumeId,
    begunAt,
    present: files !== undefined,
    node,
    device,
    files: files ?? new Map(),
    samplesEqual: async () => samplesEqual(medium, await samplesOf(db, mirror.loadId), folder),
  })
}
