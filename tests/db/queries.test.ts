import { randomUUID } from 'node:crypto'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startPostgres, type Cluster } from '../../scripts/lib/postgres.mjs'
import { openDatabase, type Db } from '../../server/db/connection'
import * as cards from '../../server/db/queries/cards'
import * as copies from '../../server/db/queries/copies'
import { addEvent, answersOf, latestEvents } from '../../server/db/queries/events'
import { addProduction, productions, readSettings, writeSettings } from '../../server/db/queries/productions'
import { addVolume, knownBytes } from '../../server/db/queries/storage'
import {
  addTask,
  endTask,
  openTaskOf,
  openTasks,
  recentTasks,
  setTaskState,
  task,
  taskView,
} from '../../server/db/queries/tasks'

let cluster: Cluster
let db: Db
const home = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-db-'))

beforeAll(async () => {
  chmodSync(home, 0o755)
  cluster = await startPostgres(home, { tests: true })
  db = await openDatabase(cluster.database('yendra_queries'))
})

afterAll(async () => {
  await db.destroy()
  await cluster.stop()
  rmSync(home, { recursive: true, force: true })
})

const newVolume = async (name: string) => {
  const id = randomUUID()
  await addVolume(db, {
    id,
    name: `${name} ${id}`,
    kind: 'archive',
    site: 'house',
    rootPath: null,
    simulated: false,
    capacityBytes: 1e12,
    host: 'here',
  })
  return id
}

/** A load of two files in a new production, and a copy task for it. */
async function newLoad() {
  const production = await addProduction(db, { title: 'Steam-bending ribs', client: '', shootOn: '' })
  const reader = await cards.addReader(db, { name: randomUUID(), rootPath: null, simulated: false, host: 'here' })
  const load = await cards.addLoad(db, {
    productionId: production.id,
    readerId: reader.id,
    label: 'Curlew A',
    fileCount: 2,
    sizeBytes: 300,
    leftOut: 1,
  })
  await cards.putEntries(db, load.id, [
    { path: Buffer.from('a.mp4'), pathText: 'a.mp4', kind: 'file', sizeBytes: 100, modifiedMs: 1.5 },
    { path: Buffer.from('b\xff.mp4', 'latin1'), pathText: 'b\\xff.mp4', kind: 'file', sizeBytes: 200, modifiedMs: 2.5 },
    { path: Buffer.from('link'), pathText: 'link', kind: 'link', sizeBytes: 0, modifiedMs: 0 },
  ])
  const entries = (await cards.entriesOf(db, load.id)).filter((entry) => entry.kind === 'file')
  const copyTask = await addTask(db, {
    kind: 'copy',
    title: 'Copy',
    productionId: production.id,
    loadId: load.id,
    input: {},
    host: 'here',
  })
  return { productionId: production.id, loadId: load.id, entries, taskId: copyTask.id }
}

const proved = (fileId: number, destinationId: string) =>
  ({ kind: 'proved', fileId, destinationId, hash: '00ff', fromMedium: true, already: false }) as const

describe('facts about copies', () => {
  it('count by what was said last of each file on each volume', async () => {
    const { loadId, entries, taskId } = await newLoad()
    const [tide, slipway] = [await newVolume('Tide'), await newVolume('Slipway')]
    const [first, second] = entries.map((entry) => entry.id)
    await copies.addCopyFacts(db, loadId, taskId, [
      { kind: 'mismatch', fileId: first ?? 0, destinationId: tide, wanted: '00ff', found: '00fe' },
      { kind: 'conflict', fileId: second ?? 0, destinationId: tide, wanted: '00ff', found: '7 bytes' },
      proved(first ?? 0, slipway),
      { kind: 'source-failed', fileId: second ?? 0, message: 'cannot be read' },
    ])
    const before = await copies.copyCounts(db, [loadId])
    expect(before.find((count) => count.volumeId === tide)).toMatchObject({
      proved: 0,
      mismatched: 1,
      conflicts: 1,
      sizeBytes: 0,
    })
    expect(before.find((count) => count.volumeId === slipway)).toMatchObject({
      proved: 1,
      fromMedium: 1,
      sizeBytes: 100,
    })
    expect((await copies.copyTroubles(db, loadId)).map((trouble) => trouble.pathText)).toEqual(['a.mp4', 'b\\xff.mp4'])

    await copies.addCopyFacts(
      db,
      loadId,
      taskId,
      entries.map((entry) => proved(entry.id, tide)),
    )
    const after = await copies.copyCounts(db, [loadId])
    expect(after.find((count) => count.volumeId === tide)).toMatchObject({
      proved: 2,
      mismatched: 0,
      conflicts: 0,
      sizeBytes: 300,
    })
    expect(await copies.copyTroubles(db, loadId)).toEqual([])
    expect((await copies.provedOn(db, loadId, tide)).map((fact) => fact.path.toString('latin1'))).toEqual([
      'a.mp4',
      'b\xff.mp4',
    ])
  })

  it('name the volumes that hold a file, the edit drive first', async () => {
    const { loadId, entries, taskId } = await newLoad()
    const tide = await newVolume('Tide')
    const slipway = randomUUID()
    await addVolume(db, {
      id: slipway,
      name: slipway,
      kind: 'edit',
      site: 'workshop',
      rootPath: null,
      simulated: false,
      capacityBytes: 1e12,
      host: 'here',
    })
    for (const id of [tide, slipway]) await copies.planCopy(db, loadId, id, 'Cards/Curlew A')
    const entryId = entries[0]?.id ?? 0
    await copies.addCopyFacts(db, loadId, taskId, [proved(entryId, tide), proved(entryId, slipway)])
    expect((await copies.holdersOf(db, loadId, entryId)).map((holder) => holder.id)).toEqual([slipway, tide])
    expect(await copies.holdersOf(db, loadId, entries[1]?.id ?? 0)).toEqual([])
  })

  it('add up to the bytes of a production by volume and class', async () => {
    const { productionId, loadId, entries, taskId } = await newLoad()
    const tide = await newVolume('Tide')
    await copies.addCopyFacts(
      db,
      loadId,
      taskId,
      [...entries, ...entries].map((entry) => proved(entry.id, tide)),
    )
    await db
      .insertInto('ledger')
      .values({ productionId, volumeId: tide, byteClass: 'generated', sizeBytes: 5e12 })
      .execute()
    const own = (await knownBytes(db)).filter((row) => row.productionId === productionId)
    expect(own).toEqual(
      expect.arrayContaining([
        { productionId, volumeId: tide, byteClass: 'originals', sizeBytes: 300 },
        { productionId, volumeId: tide, byteClass: 'generated', sizeBytes: 5e12 },
      ]),
    )
    expect(own).toHaveLength(2)
  })
})

describe('what a card listed', () => {
  const listed = (name: string, sizeBytes: number, modifiedMs: number) => ({
    path: Buffer.from(name, 'latin1'),
    pathText: name.replace('\xff', '\\xff'),
    kind: 'file' as const,
    sizeBytes,
    modifiedMs,
  })

  it('keeps path bytes, and takes a second look without doubling anything', async () => {
    const { loadId, entries } = await newLoad()
    await cards.putEntries(db, loadId, [listed('a.mp4', 100, 1.9), listed('b\xff.mp4', 200, 2.5)])
    const again = await cards.entriesOf(db, loadId)
    expect(again.map((entry) => entry.id)).toEqual(entries.map((entry) => entry.id))
    expect(again[1]?.path.equals(Buffer.from('b\xff.mp4', 'latin1'))).toBe(true)
    expect((await cards.oddEntries(db, [loadId])).map((entry) => [entry.pathText, entry.state])).toEqual([
      ['b\\xff.mp4', 'on-card'],
      ['link', 'gone'],
    ])
    expect((await cards.knownLoads(db)).find((known) => known.id === loadId)?.files).toHaveLength(2)
  })

  it('takes no proof over to a file that was written anew, and none from a file that is gone', async () => {
    const { loadId, entries, taskId } = await newLoad()
    const tide = await newVolume('Tide')
    await copies.addCopyFacts(
      db,
      loadId,
      taskId,
      entries.map((entry) => proved(entry.id, tide)),
    )
    // One deleted in the camera, one written anew under its name, one filmed since: nothing on the card is proved.
    await cards.putEntries(db, loadId, [listed('a.mp4', 100, 77), listed('c.mp4', 300, 3)])
    expect(await copies.copyCounts(db, [loadId])).toEqual([])
    const gone = (await cards.oddEntries(db, [loadId])).find((entry) => entry.state === 'gone' && entry.kind === 'file')
    expect(gone).toMatchObject({ pathText: 'b\\xff.mp4', copied: true })
    expect((await copies.provedOn(db, loadId, tide)).map((fact) => fact.entryId)).toEqual([entries[1]?.id])
    // The deleted one comes back from the rescue: its proof counts again.
    await cards.putEntries(db, loadId, [
      listed('a.mp4', 100, 77),
      listed('b\xff.mp4', 200, 2.5),
      listed('c.mp4', 300, 3),
    ])
    expect(await copies.copyCounts(db, [loadId])).toMatchObject([{ proved: 1, sizeBytes: 200 }])
    expect(await cards.entriesOf(db, loadId)).toHaveLength(3)
  })
})

describe('events and settings', () => {
  it('are added, never changed; the latest of a kind counts', async () => {
    const { loadId } = await newLoad()
    await addEvent(db, { kind: 'looked-at', loadId })
    await addEvent(db, { kind: 'looked-at', loadId })
    await addEvent(db, { kind: 'answered', loadId, detail: { key: 'gap', answer: 'Another mode' } })
    const latest = await latestEvents(db, [loadId])
    expect(latest.filter((event) => event.kind === 'looked-at')).toHaveLength(1)
    expect(await answersOf(db, [loadId])).toEqual([{ loadId, key: 'gap', answer: 'Another mode' }])
    expect(await latestEvents(db, [])).toEqual([])
  })

  it('start with the careful policy', async () => {
    expect(await readSettings(db)).toEqual({ policy: 'at-home-only', atHome: true })
    await writeSettings(db, { policy: 'reuse-on-the-job', atHome: false })
    await writeSettings(db, { policy: 'reuse-on-the-job', atHome: true })
    expect(await readSettings(db)).toEqual({ policy: 'reuse-on-the-job', atHome: true })
  })

  it('keep a shoot day as a day, without a zone', async () => {
    const { id } = await addProduction(db, { title: 'Launch day', client: 'own channel', shootOn: '2026-12-06' })
    expect((await productions(db)).find((one) => one.id === id)?.shootOn).toBe('2026-12-06')
  })
})

describe('tasks', () => {
  it('are open until they end, and are taken up again by their own machine', async () => {
    const { loadId, taskId } = await newLoad()
    expect((await openTaskOf(db, 'copy', loadId))?.id).toBe(taskId)
    expect((await openTasks(db, 'here')).map((open) => open.id)).toContain(taskId)
    expect(await openTasks(db, 'elsewhere')).toEqual([])
    expect(await setTaskState(db, taskId, 'paused', ['running'])).toBe(false)
    expect(await setTaskState(db, taskId, 'running', ['queued'])).toBe(true)
    await endTask(db, taskId, { state: 'done', sentence: 'All proved.', troubles: ['one trouble'] })
    expect(await openTaskOf(db, 'copy', loadId)).toBeUndefined()
    const row = await task(db, taskId)
    expect(row && taskView(row)).toMatchObject({
      state: 'done',
      sentence: 'All proved.',
      troubles: ['one trouble'],
      endedAt: expect.any(String),
    })
    expect((await recentTasks(db, 50)).some((one) => one.id === taskId)).toBe(true)
  })
})
