import { afterAll, beforeAll, expect, it } from 'vitest'
import { putMount } from '../../server/db/queries/volumes'
import { findBench } from '../../server/demo/findBench'
import { hostName } from '../../server/home'
import { newVolume, testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
beforeAll(async () => (cluster = await testCluster()))
afterAll(() => cluster.stop())

it('the bench finds its cards and drives where its folder lies now, whatever they are called by now, and nothing else', async () => {
  const db = await cluster.open('bench')
  const before = process.env.YENDRA_HOME
  process.env.YENDRA_HOME = '/moved/demo'
  try {
    const [simulated, real] = [await newVolume(db, 'Was Tide 1 once'), await newVolume(db, 'Ebb')]
    await putMount(db, simulated, hostName(), '/earlier/demo/bench/volumes/tide-1')
    await putMount(db, real, hostName(), '/media/ebb')
    const device = { readBytesPerSecond: 1, writeBytesPerSecond: 1, plugged: true, card: null, insertedAt: null }
    await db
      .insertInto('benchDevice')
      .values({ id: simulated, role: 'volume', capacityBytes: 1e12, ...device })
      .execute()
    const card = { name: 'Curlew A', folder: '/earlier/demo/bench/cards/curlew-a', story: 'three clips' }
    await db.insertInto('benchCard').values(card).execute()
    await findBench(db)
    const mounts = await db.selectFrom('mount').select(['volumeId', 'path']).execute()
    expect(new Map(mounts.map(({ volumeId, path }) => [volumeId, path]))).toEqual(
      new Map([
        [simulated, '/moved/demo/bench/volumes/tide-1'],
        [real, '/media/ebb'],
      ]),
    )
    expect(await db.selectFrom('benchCard').select('folder').execute()).toEqual([
      { folder: '/moved/demo/bench/cards/curlew-a' },
    ])
  } finally {
    process.env.YENDRA_HOME = before
    await db.destroy()
  }
})
