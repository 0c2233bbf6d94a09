import type { Db } from '../db/connection'
import { volumes } from '../db/queries/storage'
import { tellChanged } from '../db/queries/tasks'
import { log } from '../log'
import { volumeMedium } from '../places'
import { readerStates } from './readers'

const EVERY_MS = 3_000

/** What lies in the readers and which volumes answer, as one text that changes when somebody plugs something. */
async function devicesNow(db: Db): Promise<string> {
  const [states, rows] = await Promise.all([readerStates(db), volumes(db)])
  const answering = await Promise.all(rows.map(async (row) => ((await volumeMedium(db, row)) ? row.id : '')))
  return JSON.stringify([states.map(({ row, state, cardName, loadId }) => [row.id, state, cardName, loadId]), answering])
}

/** Tells open pages when a card or drive comes or goes; nobody has to reload. Returns how to stop. */
export function watchDevices(db: Db, isWatched: () => boolean): () => void {
  let earlier: string | undefined
  let busy = false
  const look = async () => {
    if (busy || !isWatched()) return
    busy = true
    try {
      const now = await devicesNow(db)
      if (earlier !== undefined && now !== earlier) await tellChanged(db, 'cards', 'copies', 'storage', 'productions')
      earlier = now
    } catch (error) {
      log.warn(error, 'devices could not be looked at')
    } finally {
      busy = false
    }
  }
  const timer = setInterval(() => void look(), EVERY_MS)
  return () => clearInterval(timer)
}
