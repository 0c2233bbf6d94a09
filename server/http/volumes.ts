import { HEADROOM_SHARE, sumByClass, volumeBudget } from '../../core/storage/budget'
import type { VolumeView } from '../../contract/storage'
import type { Db } from '../db/connection'
import { knownBytes, volumes } from '../db/queries/storage'
import type { Medium } from '../engine/medium'
import { volumeMedium } from '../places'
import { Observed } from './observed'

export const volumesSeen = new Observed()

/** The media of all volumes that answer now, by id. */
export async function connectedVolumes(db: Db): Promise<Map<string, Medium>> {
  const rows = await volumes(db)
  const media = await Promise.all(rows.map(async (row) => [row.id, await volumeMedium(db, row)] as const))
  const connected = new Map(media.flatMap(([id, medium]) => (medium ? [[id, medium] as const] : [])))
  volumesSeen.see([...connected.keys()])
  return connected
}

/** Every volume with its room: measured where it is connected, from the books where it is not. */
export async function volumeViews(db: Db): Promise<VolumeView[]> {
  const [rows, bytes, connected] = await Promise.all([volumes(db), knownBytes(db), connectedVolumes(db)])
  return Promise.all(
    rows.map(async (row): Promise<VolumeView> => {
      const classes = sumByClass(bytes.filter((one) => one.volumeId === row.id))
      const known = classes.reduce((sum, one) => sum + one.sizeBytes, 0)
      const medium = connected.get(row.id)
      const room = await medium?.room().catch(() => undefined)
      const capacityBytes = room?.capacityBytes ?? row.capacityBytes
      const usedBytes = room ? room.capacityBytes - room.freeBytes : known
      return {
        id: row.id,
        name: row.name,
        kind: row.kind,
        site: row.site,
        path: row.rootPath,
        simulated: row.simulated,
        connected: medium !== undefined,
        capacityBytes,
        usedBytes,
        classes,
        budget: volumeBudget({
          capacityBytes,
          usedBytes,
          headroomShare: HEADROOM_SHARE[row.kind === 'edit' ? 'edit' : 'other'],
        }),
      }
    }),
  )
}
