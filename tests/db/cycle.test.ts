import { sql } from 'kysely'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { USUAL_HOURS } from '../../core/copies/cycle'
import type { TaskInput } from '../../contract/taskKinds'
import type { Db } from '../../server/db/connection'
import { addReading } from '../../server/db/queries/proofs'
import { writeCycle } from '../../server/db/queries/settings'
import { refreshLines } from '../../server/facts/chart'
import { cycleView } from '../../server/facts/cycle'
import { ProofByNight } from '../../server/jobs/rules/proofByNight'
import type { NextTask } from '../../server/jobs/work'
import { fill } from '../bench/fill'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db
let loads: { id: string; label: string }[]
let volumes: { id: string; name: string }[]
const run = (statement: string) => sql.raw(statement).execute(db)

beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('yendra_cycle')
  await fill(db, { productions: 1, loadsEach: 3, filesEach: 2, clipsEach: 1, readings: [1, 1, 1] })
  loads = await db.selectFrom('load').select(['id', 'label']).orderBy('label').execute()
  volumes = await db.selectFrom('volume').select(['id', 'name']).orderBy('name').execute()
  for (const { id } of volumes)
    await run(`insert into mount (volume_id, host, path, connected) values ('${id}', 'here', '/media/${id}', true)`)
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

const aged = (load: number, volume: number, days: number) =>
  run(`update copy_file set proved_at = now() - interval '${days} days'
    where load_id = '${loads[load]?.id}' and volume_id = '${volumes[volume]?.id}'`)
const settled = async () => {
  while ((await refreshLines(db, 'here', 40)) > 0);
}

beforeEach(async () => {
  await run(`delete from reading`)
  await run(`update mount set connected = true`)
  await run(`update volume set put_away_at = null`)
  await run(`update copy_file set standing = 'verified', proved_at = now()`)
  await writeCycle(db, { ...USUAL_HOURS, atStart: false })
})

const NIGHT = new Date(2026, 10, 3, 2)

/** What the rule would order at some time, turn by turn; each ends at once. */
function rule(now: () => Date) {
  const ordered: { input: TaskInput<'check'>; title: string }[] = []
  const order = (task: NextTask) => {
    ordered.push({ input: task.input as TaskInput<'check'>, title: task.title })
    return Promise.resolve()
  }
  return { ordered, proof: new ProofByNight(db, 'here', order, { now, everyMs: 0 }) }
}

describe('what is read by night', () => {
  it('is the most endangered first: fewest other good copies, then the oldest proof', async () => {
    await aged(0, 0, 170)
    await aged(0, 1, 175)
    await aged(1, 2, 165)
    // Its other copies are not whole: it is the only one.
    await run(
      `update copy_file set standing = 'missing' where load_id = '${loads[1]?.id}' and volume_id <> '${volumes[2]?.id}'`,
    )
    await aged(2, 0, 100)
    await settled()
    const { ordered, proof } = rule(() => NIGHT)
    for (let turn = 0; turn < 6; turn += 1) await proof.turn()
    expect(ordered.map((one) => one.title)).toEqual([
      'By night: read “Curlew 2” again on Volume 3',
      'By night: read “Curlew 1” again on Volume 2',
      'By night: read “Curlew 1” again on Volume 1',
    ])
    expect(ordered[0]?.input).toMatchObject({
      how: 'cycle',
      mostBytes: 500e9,
      until: new Date(2026, 10, 3, 6).toISOString(),
    })
  })

  it('keeps to the hours, to what may be read in a night, and to drives that are there', async () => {
    await aged(0, 0, 200)
    await settled()
    const day = rule(() => new Date(2026, 10, 3, 12))
    await day.proof.turn()
    await addReading(db, {
      ...{ loadId: loads[0]?.id ?? '', volumeId: volumes[0]?.id ?? '', how: 'cycle', seed: null, files: 1 },
      ...{ sizeBytes: 400e9, wrong: 0, retried: 0, bytesPerSecond: null, runId: loads[0]?.id ?? '' },
    })
    await run(`update reading set at = '${new Date(2026, 10, 3, 1, 30).toISOString()}'`)
    const night = rule(() => NIGHT)
    await night.proof.turn()
    await run(`update reading set size_bytes = 500e9`)
    const full = rule(() => NIGHT)
    await full.proof.turn()
    await run(`update reading set size_bytes = 0`)
    // What stands on a volume that is put away is a copy all the same.
    await run(`update volume set put_away_at = now() where id = '${volumes[0]?.id}'`)
    await run(`update mount set connected = false`)
    const away = rule(() => NIGHT)
    await away.proof.turn()
    expect([day.ordered, full.ordered, away.ordered]).toEqual([[], [], []])
    expect(night.ordered).toMatchObject([{ input: { mostBytes: 100e9 } }])
    expect((await cycleView(db, 'here', NIGHT)).sentence).toBe(
      '1 copy on Volume 1 was not read within 180 days. Connect Volume 1, then it is read.',
    )
  })

  it('is a sample of the newest load once after a drive was connected, when nothing goes on for a minute', async () => {
    await run(`update copy_file set proved_at = now() - interval '2 days'`)
    await run(`update load set created_at = now() where label = 'Curlew 3'`)
    await run(`update mount set connected = volume_id = '${volumes[1]?.id}'`)
    await settled()
    await writeCycle(db, { ...USUAL_HOURS, on: false, atStart: true })
    let now = Date.now()
    const { ordered, proof } = rule(() => new Date(now))
    const after = async (seconds: number) => {
      now += seconds * 1000
      await proof.turn()
      return ordered.length
    }
    expect([await after(0), await after(59), await after(2), await after(60), await after(900)]).toEqual([
      0, 0, 1, 1, 1,
    ])
    expect(ordered[0]).toMatchObject({
      ...{ title: 'Read a sample of the newest load, “Curlew 3”, on Volume 2', input: { how: 'start' } },
    })
    // Taken out and put in again it is asked for once more, and not where it was read since the day before.
    await run(`update mount set connected = false`)
    await after(1)
    await run(`update mount set connected = volume_id = '${volumes[1]?.id}'`)
    expect([await after(1), await after(61)]).toEqual([1, 2])
    await run(`update copy_file set proved_at = now()`)
    await run(`update mount set connected = volume_id = '${volumes[0]?.id}'`)
    expect([await after(1), await after(61), await after(61)]).toEqual([2, 2, 2])
  })
})
