import type { Db } from '../db/connection'
import { tellChanged } from '../db/queries/tasks'
import { log } from '../log'
import { readerStates, readersSeen } from './readers'
import { connectedVolumes, volumesSeen } from './volumes'

const EVERY_MS = 3_000

/** Tells open pages when a card or drive comes or goes; nobody has to reload. Returns how to stop. */
export function watchDevices(db: Db, isHeard: () => boolean): () => void {
  const changes = () => readersSeen.changes + volumesSeen.changes
  let told = changes()
  let busy = false
  const look = async () => {
    if (busy || !isHeard()) return
    busy = true
    try {
      await Promise.all([readerStates(db), connectedVolumes(db)])
      if (changes() !== told) await tellChanged(db, 'cards', 'copies', 'storage', 'productions')
      told = changes()
    } catch (error) {
      log.warn(error, 'devices could not be looked at')
    } finally {
      busy = false
    }
  }
  const timer = setInterval(() => void look(), EVERY_MS)
  return () => clearInterval(timer)
}
