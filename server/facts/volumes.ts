import { deviceRelation, type DeviceIdentity } from '../../core/copies/device'
import { HEADROOM_SHARE, sumByClass, volumeBudget } from '../../core/storage/budget'
import type { VolumeView } from '../../contract/storage'
import type { Db } from '../db/connection'
import { latestMark } from '../db/queries/records'
import { volumeBytes } from '../db/queries/bytes'
import { readers } from '../db/queries/readers'
import { volumes } from '../db/queries/volumes'
import { once, type Asked } from './asked'

/** Every volume with its room: as it was last measured where it is connected, from the records where it is not. */
export async function volumeViews(db: Db, asked: Asked): Promise<VolumeView[]> {
  const [rows, bytes, mark] = await Promise.all([once(db, asked, volumes), volumeBytes(db), latestMark(db)])
  const placed = rows.map((row) => ({ ...row, connected: row.connected === true }))
  return placed.map((row): VolumeView => {
    const { connected } = row
    const classes = sumByClass(bytes.filter((one) => one.volumeId === row.id))
    const known = classes.reduce((sum, one) => sum + one.sizeBytes, 0)
    const capacityBytes = (connected ? row.seenCapacityBytes : null) ?? row.capacityBytes
    const usedBytes = connected && row.freeBytes !== null ? capacityBytes - row.freeBytes : known
    return {
      id: row.id,
      name: row.name,
      kind: row.kind,
      site: row.site,
      path: row.rootPath,
      simulated: row.simulated,
      connected,
      away: row.putAwayAt !== null,
      capacityBytes,
      usedBytes,
      classes,
      booksBehind: !connected && row.rootPath !== null && (row.booksNumber ?? 0) < mark,
      sharesDriveWith: sharing(row, placed),
      budget: volumeBudget({
        capacityBytes,
        usedBytes,
        headroomShare: HEADROOM_SHARE[row.kind === 'edit' ? 'edit' : 'other'],
      }),
    }
  })
}

interface Placed {
  readonly id: string
  readonly name: string
  readonly device: DeviceIdentity | null
  readonly connected: boolean
}

const standing = ({ device, connected }: Placed) => ({ device: device ?? undefined, connected })

const sharing = (row: Placed, rows: readonly Placed[]): string[] =>
  rows.flatMap((other) =>
    other.id !== row.id && deviceRelation(standing(row), standing(other)) === 'same' ? other.name : [],
  )

/** Names of volumes and readers that lie on the device of a folder that is being added. */
export async function placesOnDevice(
  db: Db,
  host: string,
  device: DeviceIdentity,
  exceptId: string,
): Promise<string[]> {
  const places: Placed[] = [
    ...(await volumes(db, host)).map((row) => ({ ...row, connected: row.connected === true })),
    ...(await readers(db)).map((row) => ({ ...row, connected: row.state !== 'unreachable' })),
  ]
  return sharing({ id: exceptId, name: '', device, connected: true }, places)
}
