import { randomUUID } from 'node:crypto'
import { CamelCasePlugin, Kysely, Migrator, PostgresDialect, sql } from 'kysely'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { migrations } from '../../server/db/migrations'
import { knownBytes } from '../../server/db/queries/bytes'
import { rangesOf, TIME_TICKS } from '../../core/cards/review/review'
import { frameRate } from '../../core/units/frameRate'
import { nominalBitsPerSecond } from '../../core/shoot/mode'
import * as copies from '../../server/db/queries/copies'
import { clients } from '../../server/db/queries/locker'
import { answersOf, formattedOf, playedOf } from '../../server/db/queries/said'
import { planOf } from '../../server/db/queries/shoot'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
beforeAll(async () => {
  cluster = await testCluster()
})
afterAll(() => cluster.stop())

/** An empty database as the first so many migrations left it. */
async function migrated(name: string, steps: number) {
  const pool = new pg.Pool({ connectionString: cluster.url(name) })
  pool.on('error', () => undefined)
  const db = new Kysely<unknown>({
    dialect: new PostgresDialect({ pool }),
    plugins: [new CamelCasePlugin({ maintainNestedObjectKeys: true })],
  })
  const known = Object.fromEntries(Object.entries(migrations).slice(0, steps))
  const { error } = await new Migrator({
    db,
    provider: { getMigrations: () => Promise.resolve(known) },
  }).migrateToLatest()
  if (error) throw error as Error
  return db
}

/** A database as the first two migrations left it, with a load copied twice, played, formatted and answered for. */
async function oldDatabase(name: string) {
  const db = await migrated(name, 2)
  const [production, twin, load, tide, slipway, reader, task] = Array.from({ length: 7 }, () => randomUUID())
  const run = (text: string) => sql.raw(text).execute(db)
  await run(
    `insert into production (id, title, client) values ('${production}', 'Ribs', 'own channel'), ('${twin}', 'ribs', 'Own channel')`,
  )
  // Two plans of one camera in one mode, and one of another.
  for (const [camera, rate, takes] of [
    ['Curlew', '25/1', 6],
    ['Curlew', '25/1', 2],
    ['Plover', '100/1', 8],
  ])
    await run(`insert into camera_plan (production_id, camera, width_px, height_px, rate, video_bits_per_second, audio_bits_per_second,
      seconds_per_take, takes, card_bytes, card_bytes_per_second, fill_limit)
      values ('${production}', '${camera}', 3840, 2160, '${rate}', 100000000, 256000, 600, ${takes}, 128000000000, 30000000, 0.9)`)
  await run(`insert into reader (id, name, simulated, host) values ('${reader}', 'left slot', false, 'here')`)
  for (const [id, site] of [
    [tide, 'house'],
    [slipway, 'the bag'],
  ])
    await run(
      `insert into volume (id, name, kind, site, root_path, simulated, capacity_bytes, host) values ('${id}', '${id}', 'archive', '${site}', '/media/${id}', false, 1000, 'here')`,
    )
  await run(
    `insert into load (id, production_id, reader_id, label, file_count, size_bytes, left_out) values ('${load}', '${production}', '${reader}', 'Curlew A', 3, 600, 1)`,
  )
  await run(`insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms, state) values
    ('${load}', 'A.MP4', 'A.MP4', 'file', 100, 1.5, 'on-card'), ('${load}', 'A.XML', 'A.XML', 'file', 200, 2, 'on-card'),
    ('${load}', 'C.MP4', 'C.MP4', 'file', 300, 3, 'on-card'), ('${load}', 'GONE.MP4', 'GONE.MP4', 'file', 7, 3, 'gone'), ('${load}', 'link', 'link', 'link', 0, 0, 'on-card')`)
  await run(
    `insert into task (id, kind, state, title, production_id, load_id, input, host) values ('${task}', 'copy', 'done', 'Copy', '${production}', '${load}', '{}', 'here')`,
  )
  for (const id of [tide, slipway])
    await run(`insert into copy_plan (load_id, volume_id, folder) values ('${load}', '${id}', 'Ribs/Cards/Curlew A')`)
  // One file differed first and was proved later; one copy lacks a file.
  await run(`insert into copy_fact (load_id, entry_id, volume_id, kind, hash, from_medium, task_id)
    select '${load}', id, '${tide}', 'mismatch', 'aa', false, '${task}' from load_entry where path_text = 'A.MP4'`)
  await run(`insert into copy_fact (load_id, entry_id, volume_id, kind, hash, from_medium, task_id)
    select '${load}', e.id, v.id::uuid, 'proved', md5(e.path_text), true, '${task}' from load_entry e, (values ('${tide}'), ('${slipway}')) v (id)
    where e.kind = 'file' and not (v.id = '${slipway}' and e.path_text = 'C.MP4')`)
  await run(`insert into clip (load_id, entry_id, path_text, name, size_bytes, sidecars, has_picture, picture_made)
    select '${load}', id, path_text, path_text, size_bytes, 0, true, true from load_entry where path_text in ('A.MP4', 'C.MP4')`)
  const old = {
    container: 'mov,mp4',
    seconds: 4,
    sizeBytes: 100,
    bitsPerSecond: 200,
    indexFirst: true,
    audio: { codec: 'aac', channels: 2, sampleRateHz: 48000 },
    video: {
      ...{ codec: 'h264', profile: 'High', level: 40, widthPx: 1920, heightPx: 1080, rate: { num: 25, den: 1 } },
      ...{ frames: 100, seconds: 4, pixelFormat: 'yuv420p', sampleAspect: '1:1', rotationDegrees: 0 },
      ...{ bitsPerSecond: 100, colour: 'bt709/none/bt709' },
    },
  }
  await run(`update clip set probe = '${JSON.stringify(old)}' where name = 'A.MP4'`)
  await run(
    `insert into event (kind, load_id, detail) values ('looked-at', '${load}', '{"readerId": "${reader}", "print": "p"}')`,
  )
  await run(
    `insert into event (kind, load_id, volume_id, clip_id) select 'spot-played', '${load}', '${tide}', id from clip where name = 'A.MP4'`,
  )
  await run(
    `insert into event (kind, load_id, detail) values ('answered', '${load}', '{"key": "gap\\nA0001\\nA0003", "answer": "Another mode"}')`,
  )
  await run(`insert into event (kind, load_id) values ('said-formatted', '${load}')`)
  const { rows } = await sql<{ n: number }>`select count(*)::int as n from copy_fact`.execute(db)
  await db.destroy()
  return {
    production: production ?? '',
    load: load ?? '',
    tide: tide ?? '',
    slipway: slipway ?? '',
    proofs: rows[0]?.n ?? 0,
  }
}

describe('an existing database', () => {
  it('opens with every proof it had, and says of every copy what it said before', async () => {
    const old = await oldDatabase('yendra_old')
    const db = await cluster.open('yendra_old')
    const proofs = await db.selectFrom('proof').selectAll().orderBy('id').execute()
    expect(proofs).toHaveLength(old.proofs)
    expect(proofs.map((proof) => proof.path.toString())).toContain('Ribs/Cards/Curlew A/A.MP4')
    const mirrors = await copies.mirrorsOf(db, [old.load])
    expect(mirrors.find((one) => one.volumeId === old.tide)).toMatchObject({
      filesVerified: 3,
      filesDiffer: 0,
      sizeBytes: 600,
      copiedBytes: 607,
    })
    expect(mirrors.find((one) => one.volumeId === old.slipway)).toMatchObject({ filesVerified: 2, sizeBytes: 300 })
    expect((await knownBytes(db, [old.production])).map((row) => row.sizeBytes).sort()).toEqual([307, 607])
    expect(await playedOf(db, [old.load])).toHaveLength(1)
    expect(await formattedOf(db, [old.load])).toHaveLength(1)
    expect((await answersOf(db, [old.load]))[0]).toMatchObject({
      answer: 'Another mode',
      key: expect.stringMatching(/^gap [0-9a-f]{14}$/),
    })
    const read = await db
      .selectFrom('mediaFile')
      .select(['probe', 'proxyBytes'])
      .where('name', '=', 'A.MP4')
      .executeTakeFirst()
    // What the reader of those days did not know is open until the next look.
    expect(read?.probe).toMatchObject({
      version: 1,
      seconds: 4,
      videos: [{ matrix: 'bt709', primaries: 'bt709', cadence: { kind: 'not measured', average: 25 }, frames: 100 }],
      sounds: [{ channels: 2 }],
    })
    expect(read?.probe?.video?.transfer).toBeUndefined()
    expect(read?.proxyBytes).toBeGreaterThan(100_000)
    // Plans of cameras are takes in modes of the gear book now, and clients are one whatever their case.
    const plan = await planOf(db, old.production)
    expect(plan.takes.map((one) => [one.takes, one.secondsPerTake])).toEqual([
      [6, 600],
      [2, 600],
      [8, 600],
    ])
    expect(plan.takes[0]?.modeId).toBe(plan.takes[1]?.modeId)
    expect(plan.cameras.map((one) => one.cardBytes)).toEqual([128e9, 128e9])
    const modes = await db.selectFrom('recordingMode').select('figures').orderBy('createdAt').execute()
    expect(modes.map((mode) => nominalBitsPerSecond(mode.figures))).toEqual([100_256_000, 100_256_000])
    expect((await clients(db)).map((one) => one.productions)).toEqual([2])
    const folders = await db.selectFrom('production').select('folder').orderBy('createdAt').execute()
    expect(folders.map((row) => row.folder)).toEqual(['Ribs', 'ribs (2)'])
    const files = await db
      .selectFrom('takeFile')
      .innerJoin('loadEntry', 'loadEntry.id', 'entryId')
      .select(['pathText', 'role'])
      .orderBy('pathText')
      .execute()
    expect(files).toEqual([
      { pathText: 'A.MP4', role: 'picture' },
      { pathText: 'A.XML', role: 'sidecar' },
      { pathText: 'C.MP4', role: 'picture' },
    ])
    expect(
      (await db.selectFrom('site').selectAll().orderBy('name').execute()).map(({ name, kind }) => [name, kind]),
    ).toEqual([
      ['house', null],
      ['the bag', 'carried'],
    ])
    expect(await db.selectFrom('mount').selectAll().execute()).toHaveLength(2)
    await db.destroy()
  })

  it('keeps every range where it was shown, in frames of any rate and in thousandths of a second', async () => {
    const db = await migrated('yendra_ranges', 25)
    const [production, reader, load] = [randomUUID(), randomUUID(), randomUUID()]
    const run = (text: string) => sql.raw(text).execute(db)
    await run(`insert into production (id, title, folder) values ('${production}', 'Ribs', 'Ribs')`)
    await run(`insert into reader (id, name, simulated, host) values ('${reader}', 'left slot', false, 'here')`)
    await run(`insert into load (id, production_id, reader_id, label, file_count, size_bytes, left_out)
      values ('${load}', '${production}', '${reader}', 'Curlew A', 4, 400, 0)`)
    const ranges = [
      { from: 10, to: 35 },
      { from: 1_000_001, to: 1_000_002 },
    ]
    const clips = [
      ['constant', { video: { rate: { num: 25, den: 1 } } }, ranges],
      ['ntsc', { video: { rate: { num: 30_000, den: 1001 } } }, ranges],
      ['sound', { audio: {} }, ranges],
      ['none', { video: { rate: { num: 25, den: 1 } } }, []],
    ] as const
    for (const [name, probe, own] of clips) {
      const id = randomUUID()
      await run(`insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms, state)
        values ('${load}', '${name}', '${name}', 'file', 100, 1, 'on-card')`)
      await run(`insert into clip (id, load_id, production_id, entry_id, path_text, name, size_bytes, sidecars, has_picture, picture_made, probe)
        select '${id}', '${load}', '${production}', id, '${name}', '${name}', 100, 0, true, true, '${JSON.stringify(probe)}'
        from load_entry where path_text = '${name}'`)
      await run(`insert into review (clip_id, verdict, ranges) values ('${id}', 'keep', '${JSON.stringify(own)}')`)
    }
    await db.destroy()
    const now = await cluster.open('yendra_ranges')
    const rows = await now
      .selectFrom('review')
      .innerJoin('mediaFile', 'mediaFile.id', 'review.mediaFileId')
      .select(['mediaFile.name', 'review.times'])
      .execute()
    const times = (name: string) => rows.find((row) => row.name === name)?.times ?? []
    expect(times('constant')[0]).toEqual({ from: 400_000, to: 1_400_000 })
    expect(rangesOf(times('constant'), frameRate(25))).toEqual(ranges)
    expect(rangesOf(times('ntsc'), frameRate(30_000, 1001))).toEqual(ranges)
    expect(rangesOf(times('sound'), TIME_TICKS)).toEqual(ranges)
    expect(times('none')).toEqual([])
    await now.destroy()
  })
})
