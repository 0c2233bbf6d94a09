import { HEADROOM_SHARE, sumByClass, volumeBudget } from '../../core/storage/budget'
import type { VolumeView } from '../../contract/storage'
import type { Db } from '../db/connection'
import { knownBytes, volumes } from '../db/queries/storage'
import { volumeMedium } from '../places'

/** Every volume with its room: measured where it is connected, from the books where it is not. */
export async function volumeViews(db: Db): Promise<VolumeView[]> {
  const [rows, bytes] = await Promise.all([volumes(db), knownBytes(db)])
  return Promise.all(
    rows.map(async (row): Promise<VolumeView> => {
      const classes = sumByClass(bytes.filter((one) => one.volumeId === row.id))
      const known = classes.reduce((sum, one) => sum + one.sizeBytes, 0)
      const medium = await volumeMedium(db, row)
      const room = await medium?.room().catch(() => undefined)
      const capacityBytes = room?.capacityBytes ?? row.capacityBytes
      const usedBytes = room ? room.capacityBytes - room.freeBytes : known
      return {
        id: row.id, name: row.name, kind: row.kind, site: row.site, path: row.rootPath, simulated: row.simulated, connected: medium !== undefined,
        capacityBytes, usedBytes, classes, budget: volumeBudget({ capacityBytes, usedBytes, headroomShare: HEADROOM_SHARE[row.kind === 'edit' ? 'edit' : 'other'] }),
      }
    }),
  )
}
