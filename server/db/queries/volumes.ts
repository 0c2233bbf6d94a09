import type { Medium } from '../../../core/copies/medium'
import type { PlaceSpeed } from '../../../core/copies/plan'
import { sameDevice, type DeviceIdentity } from '../../../core/copies/device'
import type { VolumeKind } from '../../../contract/storage'
import type { Db } from '../connection'

/** Volumes with their site and with where they appear on one computer. */
const volumesOn = (db: Db, host: string) =>
  db
    .selectFrom('volume')
    .innerJoin('site', 'site.id', 'volume.siteId')
    .leftJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'volume.id').on('mount.host', '=', host))
    .select(['volume.id', 'volume.name', 'volume.kind', 'volume.simulated', 'volume.capacityBytes', 'volume.createdAt'])
    .select(['volume.putAwayAt', 'volume.medium', 'volume.cycleDays', 'volume.siteId', 'site.kind as siteKind'])
    .select(['site.name as site', 'mount.path as rootPath', 'mount.connected', 'mount.lastSeen', 'mount.device'])
    .select(['mount.capacityBytes as seenCapacityBytes', 'mount.freeBytes'])
    .select([
      'mount.readBytesPerSecond',
      'mount.writeBytesPerSecond',
      'mount.links',
      'mount.booksNumber',
      'mount.booksAt',
    ])

/** All volumes as they appear on one computer, in the order in which they were added. */
export const volumes = (db: Db, host: string) => volumesOn(db, host).orderBy('volume.createdAt').execute()

/** A volume as it appears on one computer; `undefined` when there is none. */
export const volume = (db: Db, host: string, id: string) =>
  volumesOn(db, host).where('volume.id', '=', id).executeTakeFirst()

export type VolumeRow = NonNullable<Awaited<ReturnType<typeof volume>>>

/** What a volume keeps its bytes on: as the system tells, else as a person said; `undefined` where neither does. */
export const mediumOfVolume = ({ kind, device, medium }: Pick<VolumeRow, 'kind' | 'device' | 'medium'>) =>
  kind === 'cloud' ? 'cloud' : (device?.medium ?? medium ?? undefined)

/** The site of that name; made when there is none, and then nobody has said what kind of place it is. */
export async function siteNamed(db: Db, name: string): Promise<string> {
  await db
    .insertInto('site')
    .values({ name })
    .onConflict((at) => at.column('name').doNothing())
    .execute()
  return (await db.selectFrom('site').select('id').where('name', '=', name).executeTakeFirstOrThrow()).id
}

/** A volume to register: capacity in bytes, and the name of the site where it is kept. */
export interface NewVolume {
  readonly id: string
  readonly name: string
  readonly kind: VolumeKind
  readonly site: string
  readonly simulated: boolean
  readonly capacityBytes: number
  readonly medium?: Medium
}

/** Registers a volume. Throws when its name is taken (`isTaken`). */
export async function addVolume(db: Db, { site, ...values }: NewVolume): Promise<void> {
  await db
    .insertInto('volume')
    .values({ ...values, siteId: await siteNamed(db, site) })
    .execute()
}

/** Changes name, use and place of a volume. False when there is none; throws when the name is taken (`isTaken`). */
export async function changeVolume(
  db: Db,
  id: string,
  {
    name,
    kind,
    site,
    medium,
    cycleDays,
  }: Pick<NewVolume, 'name' | 'kind' | 'site'> & {
    readonly medium: Medium | null
    readonly cycleDays: number | null
  },
): Promise<boolean> {
  const siteId = await siteNamed(db, site)
  const changed = await db
    .updateTable('volume')
    .set({ name, kind, siteId, medium, ...(cycleDays !== null && { cycleDays }) })
    .where('id', '=', id)
    .returning('id')
    .executeTakeFirst()
  return changed !== undefined
}

/** Where a volume appears on a computer; another volume that had that place loses it. */
export async function putMount(db: Db, volumeId: string, host: string, path: string): Promise<void> {
  await db
    .deleteFrom('mount')
    .where('host', '=', host)
    .where('path', '=', path)
    .where('volumeId', '<>', volumeId)
    .execute()
  await db
    .insertInto('mount')
    .values({ volumeId, host, path })
    .onConflict((at) => at.columns(['volumeId', 'host']).doUpdateSet({ path }))
    .execute()
}

/** What the observer saw of a volume; bytes where it could measure them. */
export interface SeenVolume {
  readonly connected: boolean
  readonly capacityBytes: number | undefined
  readonly freeBytes: number | undefined
  readonly device: DeviceIdentity | undefined
  readonly links: 'reflink' | 'hard' | 'none' | undefined
}

/** What the observer saw of a volume; what cannot be seen keeps its last figures. True when it came or went. */
export async function putSeenVolume(db: Db, volumeId: string, host: string, seen: SeenVolume): Promise<boolean> {
  const before = await db
    .selectFrom('mount')
    .select(['connected', 'device'])
    .where('volumeId', '=', volumeId)
    .where('host', '=', host)
    .executeTakeFirst()
  if (!before) return false
  await db
    .updateTable('mount')
    .set({ connected: seen.connected })
    .$if(seen.connected, (update) =>
      update.set({
        lastSeen: new Date(),
        capacityBytes: seen.capacityBytes ?? null,
        freeBytes: seen.freeBytes ?? null,
        device: seen.device ? JSON.stringify(seen.device) : null,
        links: seen.links ?? null,
      }),
    )
    .where('volumeId', '=', volumeId)
    .where('host', '=', host)
    .execute()
  const moved = seen.connected && !sameDevice(before.device ?? undefined, seen.device)
  return before.connected !== seen.connected || moved
}

/** How fast a volume was in a copy, in bytes per second; what could not be told keeps its last figure. */
export async function putVolumeSpeed(
  db: Db,
  volumeId: string,
  host: string,
  { readBytesPerSecond, writeBytesPerSecond }: Partial<PlaceSpeed>,
): Promise<void> {
  const speed = {
    ...(readBytesPerSecond === undefined ? {} : { readBytesPerSecond }),
    ...(writeBytesPerSecond === undefined ? {} : { writeBytesPerSecond }),
  }
  if (Object.keys(speed).length === 0) return
  await db.updateTable('mount').set(speed).where('volumeId', '=', volumeId).where('host', '=', host).execute()
}
