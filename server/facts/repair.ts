import { repairPlan, type RepairPlan } from '../../core/copies/repair'
import type { Db } from '../db/connection'
import { readers } from '../db/queries/readers'
import { amissFiles, formattedLoads, goodCopies } from '../db/queries/repairs'
import { volumes } from '../db/queries/volumes'

/** What can be mended of one load or of all, as the rows say now. */
export async function repairPlanOf(db: Db, host: string, loadId: string | null): Promise<RepairPlan> {
  const files = await amissFiles(db, loadId)
  const entryIds = [...new Set(files.map((file) => file.entryId))]
  const loadIds = [...new Set(files.map((file) => file.loadId))]
  const [goods, formatted, known, inReaders] =
    files.length === 0
      ? [[], new Set<string>(), [], []]
      : await Promise.all([goodCopies(db, entryIds), formattedLoads(db, loadIds), volumes(db, host), readers(db)])
  return repairPlan({
    ...{ files, goods, formatted },
    cards: new Set(
      inReaders.flatMap((reader) =>
        reader.host === host && reader.same && reader.twinId === null && reader.loadId !== null ? [reader.loadId] : [],
      ),
    ),
    volumes: known.map((row) => ({
      ...{ id: row.id, name: row.name, connected: row.connected === true },
      ...{ freeBytes: row.freeBytes ?? undefined, device: row.device ?? undefined },
      readBytesPerSecond: row.readBytesPerSecond ?? undefined,
      writeBytesPerSecond: row.writeBytesPerSecond ?? undefined,
    })),
  })
}
