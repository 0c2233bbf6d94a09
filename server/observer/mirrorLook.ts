import type { Db } from '../db/connection'
import { databaseTime, putMirrorListing } from '../db/queries/mirrors'
import { endsAt, keepsLocalTime, listMirror, mountedInside } from '../media/listing'
import type { Medium } from '../media/mediumOf'

/** What a look at a mirror came to. */
export interface MirrorLook {
  /** It lies there otherwise than at the look before. */
  readonly isNew: boolean
  /** Bytes of files below its folder, keys being path bytes as latin1. */
  readonly files: ReadonlyMap<string, { readonly sizeBytes: number; readonly modifiedMs: number }>
}

/** Lists a mirror and writes down how it lies there now. Rejects when the volume goes away. */
export async function lookAtMirror(
  db: Db,
  mirror: { readonly loadId: string; readonly volumeId: string; readonly folder: string },
  medium: Medium,
): Promise<MirrorLook> {
  const begunAt = await databaseTime(db)
  const place = await medium.place()
  const folder = Buffer.from(mirror.folder)
  const files = await listMirror(medium, folder)
  const node = (await medium.entry(folder))?.node ?? ''
  const device = await medium.device()
  // A volume that is pulled out in the middle of the look is no proof of anything.
  if ((await medium.place()) !== place) throw new Error('The volume went away while it was listed.')
  const isNew = await putMirrorListing(db, {
    loadId: mirror.loadId,
    volumeId: mirror.volumeId,
    begunAt,
    present: files !== undefined,
    node,
    device,
    files: files ?? new Map(),
    mounted: mountedInside(medium, folder),
    keepsLocalTime: () => keepsLocalTime(medium.root),
    endsOf: (path, sizeBytes) => endsAt(medium, folder, path, sizeBytes),
  })
  return { isNew, files: files ?? new Map() }
}
