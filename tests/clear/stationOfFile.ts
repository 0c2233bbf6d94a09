import { afterAll, beforeAll } from 'vitest'
import { unmountAll } from './mounts'
import { startStation, type Station } from './station'

/** Starts a station for all tests of a file, and ends it with them and with what they have mounted. */
export function stationOfFile(take: (station: Station) => void, env: NodeJS.ProcessEnv = {}): void {
  let station: Station | undefined
  beforeAll(async () => {
    station = await startStation(env)
    take(station)
  })
  afterAll(async () => {
    unmountAll()
    await station?.stop()
  })
}
