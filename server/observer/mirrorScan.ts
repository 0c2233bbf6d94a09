import type { Db } from '../db/connection'
import { databaseTime, putMirrorListing, type MirrorListing } from '../db/queries/mirrors'
import { endsAt, keepsLocalTime, listMirror, mountedInside } from '../media/listing'
import type { Medium } from '../media/mediumOf'

/** What a scan of a mirror came to. */
export interface MirrorScan {
  /** It lies there otherwise than at the scan before. */
  readonly isNew: boolean
  /** Bytes of files below its folder, keys being path bytes as latin1. */
  readonly files: MirrorListing['files']
  readonly listing: MirrorListing
}

interface MirrorPlace {
  readonly loadId: string
  readonly volumeId: string
  readonly folder: string
}

/** Lists a mirror and writes down how it lies there now. Rejects when the volume goes away. */
export async function scanMirror(db: Db, mirror: MirrorPlace, medium: Medium): Promise<MirrorScan> {
  const begunAt = await databaseTime(db)
  const place = await medium.place()
  const folder = Buffer.from(mirror.folder)
  const files = await listMirror(medium, folder)
  const node = (await medium.entry(folder))?.node ?? ''
  const device = await medium.device()
  // A volume that is pulled out in the middle of the scan is no proof of anything.
  if ((await medium.place()) !== place) throw new Error('The volume went away while it was listed.')
  const listing = {
    ...{ loadId: mirror.loadId, volumeId: mirror.volumeId, begunAt, node, device },
    present: files !== undefined,
    files: files ?? new Map(),
    mounted: mountedInside(medium, folder),
    keepsLocalTime: () => keepsLocalTime(medium.root),
    endsOf: (path: Buffer, sizeBytes: number) => endsAt(medium, folder, path, sizeBytes),
  }
  return { isNew: await putMirrorListing(db, listing), files: listing.files, listing }
}

/**
 * Files of a mirror that was just listed were moved out of it; returns what lies there now. Nothing is listed again.
 */
export async function movedOut(
  db: Db,
  { listing }: MirrorScan,
  paths: readonly Buffer[],
): Promise<MirrorScan['files']> {
  const gone = new Set(paths.map((path) => path.toString('latin1')))
  const files = new Map([...listing.files].filter(([path]) => !gone.has(path)))
  await putMirrorListing(db, { ...listing, begunAt: await databaseTime(db), files })
  return files
}
