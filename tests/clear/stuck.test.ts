import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { LoadView } from '../../contract/cards'
import type { Page } from '../../contract/page'
import type { TaskView } from '../../contract/tasks'
import { more } from '../more'
import { isLong } from '../long'
import { newWorld, ownClip, startStation, until, type Station, type World } from './station'

let station: Station
let db: pg.Client
beforeAll(async () => {
  station = await startStation()
  db = new pg.Client({ connectionString: station.databaseUrl })
  await db.connect()
})
afterAll(async () => {
  await db.end()
  await station.stop()
})

const taskNow = (id: string) => station.get<TaskView>(`/tasks/${id}`)
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/** A clip in a folder of a card. */
function film(world: World, path: string): void {
  mkdirSync(join(world.card, path, '..'), { recursive: true })
  writeFileSync(join(world.card, path), ownClip(path))
}

describe('a search for a free name ends', () => {
  more('where three clips of one very long name go into one folder', async () => {
    const world = await newWorld(station, [])
    const name = `${'long name of a bow plank '.repeat(5).slice(0, 110)}.MP4`
    for (const folder of ['A', 'B', 'C']) film(world, `${folder}/${name}`)
    await world.look()
    await world.copy()
    for (const clip of await world.clips())
      await station.send('PUT', `/clips/${clip.id}/review`, { verdict: 'keep', ranges: [], note: '', shotId: null })
    const view = {
      template: [{ path: 'Video', takes: 'a-roll' }],
      aRoll: [],
      which: 'keep',
      links: 'copy',
      editBegun: false,
    }
    const set = await station.send('PUT', `/productions/${world.productionId}/sorted`, {
      ...view,
      volumeId: world.volumeIds[0],
    })
    expect(set.status).toBe(204)
    expect((await station.task(`/productions/${world.productionId}/sorted`)).sentence).toContain('3 files added')
    expect(new Set(readdirSync(join(world.slipway, world.title, 'Video'))).size).toBe(3)
  })

  more('where two cards of one very long label are scanned', async () => {
    const world = await newWorld(station, [])
    // Letters of two bytes each: no room is left for a number behind them.
    const label = 'ö'.repeat(79)
    const look = () => station.task(`/readers/${world.readerId}/scan`, { productionId: world.productionId, label })
    const folders: string[] = []
    for (const turn of [1, 2, 3]) {
      execFileSync('rm', ['-rf', join(world.card, 'DCIM')])
      film(world, `DCIM/100CURLW/CURL000${turn}.MP4`)
      expect((await look()).state).toBe('done')
      const { rows } = await station.get<Page<LoadView>>(`/productions/${world.productionId}/loads`)
      expect(rows).toHaveLength(turn)
      await world.copy()
      folders.push(...readdirSync(join(world.slipway, world.title, 'Cards')))
    }
    expect(new Set(folders.filter((name) => !name.includes('.xxh64'))).size).toBe(3)
  })
})

describe('labels and checksum lists', () => {
  it.each([['Card Y', 'Card Y.xxh64'], ...(isLong ? [['Card Z.xxh64', 'Card Z']] : [])])(
    '“%s” and “%s” have lists of their own, and can both be checked',
    async (...labels) => {
      const world = await newWorld(station, [])
      for (const [turn, label] of labels.entries()) {
        execFileSync('rm', ['-rf', join(world.card, 'DCIM')])
        film(world, `DCIM/100CURLW/CURL000${turn}.MP4`)
        await station.task(`/readers/${world.readerId}/scan`, { productionId: world.productionId, label })
        expect((await world.copy()).sentence).toContain('All 1 file proved')
      }
      const cards = join(world.slipway, world.title, 'Cards')
      const lists = readdirSync(cards, { withFileTypes: true }).filter((entry) => entry.isFile())
      expect(lists).toHaveLength(2)
      for (const { name } of lists) execFileSync('xxhsum', ['--strict', '--quiet', '-c', name], { cwd: cards })
    },
  )

  it('write over nothing of anybody else’s', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const cards = join(world.slipway, world.title, 'Cards')
    mkdirSync(join(cards, 'Curlew A.sha256'), { recursive: true })
    writeFileSync(join(cards, 'Curlew A.xxh64'), 'a letter of mine')
    await world.look()
    expect((await world.copy()).sentence).toContain('All 1 file proved')
    expect(execFileSync('cat', [join(cards, 'Curlew A.xxh64')], { encoding: 'utf8' })).toBe('a letter of mine')
    execFileSync('xxhsum', ['--strict', '--quiet', '-c', 'Curlew A list.xxh64'], { cwd: cards })
  })

  it('a production called as what is set aside gets another folder', async () => {
    const made = await station.post('/productions', { title: 'set aside' })
    expect(made.status).toBe(201)
    const { rows } = await db.query<{ folder: string }>(`select folder from production where id = $1`, [made.body.id])
    expect(rows[0]?.folder).toBe('set aside (production)')
  })
})

/**
 * While it acts, PostgreSQL refuses some rows as on a full disk (53100, disk_full; appendix A of its documentation).
 */
async function onFullDisk<T>(event: string, act: () => Promise<T>): Promise<T> {
  await db.query(`create or replace function no_room() returns trigger language plpgsql as $$
    begin raise exception 'could not extend file: No space left on device' using errcode = '53100'; end $$`)
  const table = /on (\w+)/.exec(event)?.[1] ?? ''
  await db.query(`create trigger no_room before ${event} execute function no_room()`)
  try {
    return await act()
  } finally {
    await db.query(`drop trigger no_room on ${table}`)
  }
}

describe('a task whose end cannot be written', () => {
  more('ends when it can be, and is not running for ever', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    await world.look()
    const { id: loadId } = await world.load()
    const list = join(world.slipway, world.title, 'Cards/Curlew A.xxh64')
    const id = await onFullDisk(
      `update on task for each row when (new.ended_at is not null and new.kind = 'copy')`,
      async () => {
        const { body } = await station.post(`/loads/${loadId}/copies`, { volumeIds: world.volumeIds })
        await until(
          () => Promise.resolve(existsSync(list)),
          (there) => there,
        )
        await wait(1500)
        expect((await taskNow(String(body.taskId))).state).toBe('running')
        return String(body.taskId)
      },
    )
    expect(await station.ended(id)).toMatchObject({
      state: 'done',
      sentence: expect.stringContaining('All 1 file proved'),
    })
  })

  it('says that the disk of the books is full', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    await world.look()
    const end = await onFullDisk('insert on proof for each row', () => world.copy())
    expect(end).toMatchObject({ state: 'failed', sentence: expect.stringContaining('records is full') })
    expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([0, 0])
    expect((await world.copy()).sentence).toContain('All 1 file proved')
  })
})

describe('a task that nobody runs', () => {
  const lost = async (state: 'running' | 'queued', world: World) => {
    const input = { loadId: (await world.load()).id, volumeIds: world.volumeIds, setAside: false }
    const { rows } = await db.query<{ id: string }>(
      `insert into task (kind, state, title, production_id, load_id, subject, input, host, created_at)
        select 'copy', $1, 'Copy', $2, $3::uuid, $3::text, $4, host, clock_timestamp() - interval '2 minutes' from reader limit 1 returning id`,
      [state, world.productionId, input.loadId, input],
    )
    const id = rows[0]?.id ?? ''
    if (state === 'running')
      await db.query(
        `insert into attempt (task_id, host, alive_at) select $1, host, clock_timestamp() - interval '2 minutes' from reader limit 1`,
        [id],
      )
    return id
  }

  it.skipIf(!isLong).each(['queued', 'running'] as const)('is found by time and goes on (%s)', async (state) => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    await world.look()
    const id = await lost(state, world)
    expect(await station.ended(id)).toMatchObject({
      state: 'done',
      sentence: expect.stringContaining('All 1 file proved'),
    })
  })

  it('can be stopped', async () => {
    const worker = station.worker()
    const world = await newWorld(station, ['CURL0041.MP4'])
    await world.look()
    worker.kill('SIGSTOP')
    const id = await lost('running', world)
    expect((await station.post(`/tasks/${id}/stop`)).status).toBe(204)
    expect(await taskNow(id)).toMatchObject({
      state: 'stopped',
      sentence: expect.stringContaining('Nobody was working'),
    })
    worker.kill('SIGCONT')
  })
})

describe.skipIf(process.getuid?.() !== 0)('a database that does not answer (needs root to hold it)', () => {
  more('gets a no with its reason in time, and an answer when it is back', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    await world.look()
    await world.copy()
    const { rows } = await db.query<{ pid: number }>(
      `select pid from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`,
    )
    for (const { pid } of rows) process.kill(pid, 'SIGSTOP')
    const begun = performance.now()
    const held = await fetch(`${station.base}/productions/${world.productionId}/copies`)
    expect(performance.now() - begun).toBeLessThan(40_000)
    expect(held.status).toBe(503)
    expect(((await held.json()) as { detail: string }).detail).toMatch(/^No: .* does not answer/)
    for (const { pid } of rows) process.kill(pid, 'SIGCONT')
    const { copies } = await until(
      () => world.copies().catch(() => ({ copies: [] })),
      (now) => now.copies.length === 2,
    )
    expect(copies.map((copy) => copy.mark)).toEqual([2, 2])
  })
})

describe('a connection', () => {
  it('is kept for longer than people and programs pause', async () => {
    // Source: what the server itself promises, in seconds (RFC 9112, 9.3; the header is common practice).
    const { headers } = await fetch(`${station.base}/productions`)
    expect(headers.get('keep-alive')).toBe('timeout=65')
  })
})
