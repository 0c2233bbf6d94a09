import { cycleSentence, hoursAt } from '../../core/copies/cycle'
import type { CycleView } from '../../contract/cycle'
import type { Db } from '../db/connection'
import { dueVolumes, readByNight } from '../db/queries/cycle'
import { readCycle } from '../db/queries/settings'

/** Where the reading by night stands. */
export async function cycleView(db: Db, host: string, now: Date): Promise<CycleView> {
  const [hours, volumes] = await Promise.all([readCycle(db), dueVolumes(db, host)])
  const night = hoursAt(hours, now)
  return {
    hours,
    sentence: cycleSentence({
      hours,
      volumes: volumes.map((row) => ({ ...row, readBytesPerSecond: row.readBytesPerSecond ?? undefined })),
      readBytes: night ? await readByNight(db, night.from) : 0,
      isNight: night !== undefined,
      proved: volumes.length > 0,
    }),
  }
}
