import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canMount, unmountAll } from '../clear/mounts'
import { usually } from '../clear/rules'
import { startStation, type Station } from '../clear/station'
import { walk } from './walk'

/** Of the whole walk, in steps and in time; the long run gives its own. */
const STEPS = Number(process.env.YENDRA_MODEL_STEPS ?? 120)
const TIME_MS = Number(process.env.YENDRA_MODEL_MS ?? 36_000)
/** One world of so many commands at most, then the next; a long run makes fewer worlds and stays longer in each. */
const PORTION = Number(process.env.YENDRA_MODEL_PORTION ?? 60)
/** Where a long run writes down what it did, and goes on from. */
const LOG = process.env.YENDRA_MODEL_LOG

let station: Station
beforeAll(async () => {
  station = await startStation({ YENDRA_PATIENCE_MS: '5000', YENDRA_BOOKS_PAUSE_MS: '0' })
  // exFAT is served by a program here, so that what is read back may come from memory: the rule of this model accepts
  // it.
  await usually(station, { acceptMemory: true })
})
afterAll(async () => {
  unmountAll()
  await station.stop()
})

const lastSeed = (): number => {
  const lines = LOG !== undefined && existsSync(LOG) ? readFileSync(LOG, 'utf8').trim().split('\n') : []
  return (JSON.parse(lines.at(-1) || '{"seed":20261128}') as { seed: number }).seed
}

describe('a world in which everything happens', () => {
  it('gets no yes that would lose a byte, loses no last copy to us, and comes to rest', async () => {
    const begun = Date.now()
    const [total, real] = [{ steps: 0, yes: 0 }, { steps: 0 }]
    for (let seed = lastSeed() + 1; total.steps < STEPS && Date.now() - begun < TIME_MS; seed += 1) {
      // Every eighth world is of plain folders, as where nobody may mount.
      const isReal = canMount && seed % 8 !== 0
      const { steps, yes, counts } = await walk(station, seed, PORTION, isReal)
      total.steps += steps
      total.yes += yes
      if (isReal) real.steps += steps
      if (LOG !== undefined) appendFileSync(LOG, `${JSON.stringify({ seed, steps, yes, isReal, counts })}\n`)
    }
    // A walk in which nobody ever says yes would see no wrong one.
    expect(total.yes).toBeGreaterThan(0)
    console.log(`${total.steps} steps, ${real.steps} of them on real mounts, ${total.yes} times yes`)
  })
})
