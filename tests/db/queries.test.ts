import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { inTransaction, type Db } from '../../server/db/connection'
import { lock } from '../../server/db/lock'
import { knownBytes } from '../../server/db/queries/bytes'
import * as cards from '../../server/db/queries/cards'
import { loadsLike } from '../../server/db/queries/loadsLike'
import * as copies from '../../server/db/queries/copies'
import { databaseTime, putMirrorListing } from '../../server/db/queries/mirrors'
import { addReader } from '../../server/db/queries/readers'
import { addProduction, production } from '../../server/db/queries/productions'
import { AT_HOME_ONLY, REUSE_ON_THE_JOB } from '../../core/copies/rule'
import { ruleChoices, ruleOf } from '../../server/db/queries/clearRules'
import { readSettings, writeSettings } from '../../server/db/queries/settings'
import { addCopyProofs } from '../../server/db/queries/proofs'
import { addSaid, answersOf, formattedOf, playedOf } from '../../server/db/queries/said'
import { search } from '../../server/db/queries/search'
import { putCardListing } from '../../server/db/queries/seen'
import { doubtCard, isCardDoubted, trustCard } from '../../server/db/queries/stays'
import { listingDigest } from '../../server/engine/medium/walk'
import { decidedPlan } from '../../server/facts/copyPlan'
import { loadStates } from '../../server/facts/loadStates'
import { productionFacts } from '../../server/facts/productions'
import { more } from '../more'
import { newVolume, testCluster } from './database'
import { device, listed, proved } from './rows'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db

async function factsOf(id: string, now = Date.now()) {
  const row = await production(db, id)
  return row && (await productionFacts(db, [row], { host: 'here', now, looked: true })).get(id)
}

beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('yendra_queries')
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

async function newProduction(title = `Steam-bending ribs ${randomUUID()}`) {
  const made = await addProduction(db, { title })
  if (!made) throw new Error('no production')
  return made
}

/** A load of two files and a link in a new production. */
async function newLoad() {
  const { id: productionId } = await newProduction()
  const reader = await addReader(db, { name: randomUUID(), rootPath: null, simulated: false, host: 'here' })
  const sums = { readerId: reader.id, fileCount: 2, sizeBytes: 300, leftOut: 1 }
  const { id: loadId } = await cards.addLoad(db, { productionId, label: 'Curlew A', ...sums })
  const look = (...entries: ReturnType<typeof listed>[]) =>
    putCardListing(db, {
      loadId,
      readerId: reader.id,
      node: '1:2',
      device,
      print: listingDigest(entries),
      entries,
      shiftMs: 0,
    })
  await look(listed('a.mp4', 100, 1.5), listed('b\xff.mp4', 200, 2.5), listed('link', 0, 0))
  const entries = (await cards.entriesOf(db, loadId)).filter((entry) => entry.kind === 'file')
  const [a, b] = entries.map((entry) => entry.id)
  if (a === undefined || b === undefined) throw new Error('no entries')
  return { productionId, loadId, look, a, b }
}

async function mirrorOf(loadId: string, volumeId: string) {
  await copies.planCopy(db, loadId, volumeId, 'Ribs/Cards/Curlew A')
  const run = { loadId, runId: randomUUID(), folders: new Map([[volumeId, 'Ribs/Cards/Curlew A']]) }
  const prove = (...records: Parameters<typeof addCopyProofs>[2]) => addCopyProofs(db, run, records)
  const counts = async () => (await copies.mirrorsOf(db, [loadId])).find((mirror) => mirror.volumeId === volumeId)
  return { prove, counts }
}

/** What the volume lists, as the observer writes it down. */
const list = async (loadId: string, volumeId: string, files: Record<string, [number, number]>, equal = true) =>
  putMirrorListing(db, {
    loadId,
    volumeId,
    begunAt: await databaseTime(db),
    present: true,
    node: '1:3',
    device,
    mounted: [],
    files: new Map(
      Object.entries(files).map(([path, [sizeBytes, modifiedMs]]) => [
        path,
        { sizeBytes, modifiedMs, inode: null, changedMs: null },
      ]),
    ),
    keepsLocalTime: () => Promise.resolve(equal),
    endsOf: () => Promise.resolve('0e'),
  })

describe('facts about copies', () => {
  it('count by the latest proof of each file, in the same transaction', async () => {
    const { loadId, a, b } = await newLoad()
    const tide = await newVolume(db, 'Tide')
    const { prove, counts } = await mirrorOf(loadId, tide)
    await prove(
      { kind: 'mismatch', fileId: a, destinationId: tide, wanted: '00ff', found: '00fe' },
      { kind: 'conflict', fileId: b, destinationId: tide, wanted: '00ff', found: '7 bytes' },
      { kind: 'source-failed', fileId: b, message: 'cannot be read', code: 'EIO' },
    )
    expect(await counts()).toMatchObject({ filesVerified: 0, filesDiffer: 1, filesConflict: 1, sizeBytes: 0 })
    const troubles = await copies.copyTroubles(db, loadId).execute()
    expect(troubles.map((trouble) => trouble.pathText)).toEqual(['a.mp4', 'b\\xff.mp4'])
    await prove(proved(a, tide), proved(b, tide, { fromMedium: false }))
    expect(await counts()).toMatchObject({
      filesVerified: 1,
      filesMemory: 1,
      filesDiffer: 0,
      filesConflict: 0,
      sizeBytes: 300,
    })
    expect((await copies.provedOn(db, loadId, tide)).map((file) => file.path.toString('latin1'))).toEqual([
      'a.mp4',
      'b\xff.mp4',
    ])
    const all = await db.selectFrom('proof').select('outcome').where('loadId', '=', loadId).orderBy('id').execute()
    expect(all.map((proof) => proof.outcome)).toEqual(['differs', 'conflict', 'equal', 'equal'])
  })

  it('tell which files stand how by one sum, also where as many of others do', async () => {
    const { loadId, look, a, b } = await newLoad()
    const tide = await newVolume(db, 'Tide')
    const { prove } = await mirrorOf(loadId, tide)
    const print = async () => {
      const load = await cards.load(db, loadId)
      return load && (await decidedPlan(db, 'here', load, [tide])).decisions[0]?.print
    }
    const onlyA = async (id: number, other: number) => {
      await prove(proved(id, tide), {
        kind: 'mismatch',
        fileId: other,
        destinationId: tide,
        wanted: '00ff',
        found: '00fe',
      })
      return print()
    }
    const untouched = await print()
    const [first, other, again] = [await onlyA(a, b), await onlyA(b, a), await onlyA(a, b)]
    expect(new Set([untouched, first, other]).size).toBe(3)
    expect(again).toBe(first)
    // The card lost one file and has another, of which no volume holds anything.
    await look(listed('a.mp4', 100, 1.5), listed('c.mp4', 200, 2.5))
    const before = await print()
    await look(listed('a.mp4', 100, 1.5), listed('d.mp4', 200, 2.5))
    expect(await print()).not.toBe(before)
    await look(listed('a.mp4', 100, 1.5), listed('c.mp4', 200, 2.5))
    expect(await print()).toBe(before)
    const counted = db
      .selectFrom('copyFile')
      .select((at) => at.fn.sum<string>(sql`hashtextextended(standing, entry_id)`).as('print'))
      .where('loadId', '=', loadId)
      .where('onCard', '=', true)
    expect((await copies.mirror(db, loadId, tide))?.print).toBe((await counted.executeTakeFirst())?.print)
  })

  it('end when the volume lists the file otherwise, and stand again only when it was read again', async () => {
    const { loadId, a, b } = await newLoad()
    const tide = await newVolume(db, 'Tide')
    const { prove, counts } = await mirrorOf(loadId, tide)
    await prove(proved(a, tide), proved(b, tide, { sizeBytes: 200, modifiedMs: 2.5 }))
    expect(await list(loadId, tide, { 'a.mp4': [100, 1.9], 'b\xff.mp4': [200, 2.5] })).toBe(false)
    expect(await list(loadId, tide, { 'a.mp4': [99, 1.5] })).toBe(true)
    expect(await counts()).toMatchObject({ filesVerified: 0, filesMissing: 1, filesChanged: 1, sizeBytes: 0 })
    await list(loadId, tide, { 'a.mp4': [100, 1.5], 'b\xff.mp4': [200, 2.5] })
    expect(await counts()).toMatchObject({ filesVerified: 0, filesMissing: 0, filesChanged: 2, sizeBytes: 0 })
    await prove(proved(a, tide), proved(b, tide, { sizeBytes: 200, modifiedMs: 2.5 }))
    expect(await counts()).toMatchObject({ filesVerified: 2, filesMissing: 0, filesChanged: 0, sizeBytes: 300 })
    const changes = await db
      .selectFrom('seenChange')
      .innerJoin('seen', 'seen.id', 'seenId')
      .select('change')
      .where('volumeId', '=', tide)
      .execute()
    expect(changes.map((one) => one.change).sort()).toEqual(['gone', 'there', 'there', 'there', 'there'])
  })

  it('survive a clock that moved by whole hours only when samples of the content are equal', async () => {
    const { loadId, a, b } = await newLoad()
    const later = { 'a.mp4': [100, 3_600_001.5], 'b\xff.mp4': [200, 3_600_002.5] } as Record<string, [number, number]>
    for (const [equal, verified] of [
      [false, 0],
      [true, 2],
    ] as const) {
      const tide = await newVolume(db, `Tide ${equal}`)
      const { prove, counts } = await mirrorOf(loadId, tide)
      await prove(proved(a, tide), proved(b, tide, { sizeBytes: 200, modifiedMs: 2.5 }))
      await list(loadId, tide, later, equal)
      expect(await counts()).toMatchObject({ filesVerified: verified, filesChanged: 2 - verified })
    }
  })

  it('forget that a file was played once it was missing or rewritten, not when it was only read again', async () => {
    const { loadId, a } = await newLoad()
    const tide = await newVolume(db, 'Tide')
    const { prove } = await mirrorOf(loadId, tide)
    const playedAt = async () => {
      const [load] = await cards.loadsOf(db, [(await cards.load(db, loadId))?.productionId ?? ''])
      const [state] = load ? await loadStates(db, [load], { host: 'here', now: Date.now(), looked: true }) : []
      return state?.copies[0]?.spotPlayedAt !== undefined
    }
    await prove(proved(a, tide))
    await addSaid(db, { kind: 'spot-played', loadId, volumeId: tide, entryId: a })
    expect(await playedAt()).toBe(true)
    await prove(proved(a, tide, { placed: false }))
    expect(await playedAt()).toBe(true)
    await list(loadId, tide, {})
    await list(loadId, tide, { 'a.mp4': [100, 1.5] })
    expect(await playedAt()).toBe(false)
    await prove(proved(a, tide, { placed: false }))
    expect(await playedAt()).toBe(false)
    await addSaid(db, { kind: 'spot-played', loadId, volumeId: tide, entryId: a })
    expect(await playedAt()).toBe(true)
    await prove(proved(a, tide, { placed: true }))
    expect(await playedAt()).toBe(false)
    expect(await playedOf(db, [loadId])).toHaveLength(2)
  })

  it('name the volumes that hold a file, the edit drive first', async () => {
    const { loadId, a, b } = await newLoad()
    const [tide, slipway] = [await newVolume(db, 'Tide'), await newVolume(db, 'Slipway', 'edit')]
    for (const id of [tide, slipway]) await (await mirrorOf(loadId, id)).prove(proved(a, id))
    const holders = await copies.holdersOf(db, 'here', loadId, a)
    expect(holders.map((holder) => holder.id)).toEqual([slipway, tide])
    expect(await copies.holdersOf(db, 'here', loadId, b)).toEqual([])
  })

  it('add up to the bytes of a production by volume and class', async () => {
    const { productionId, loadId, a, b } = await newLoad()
    const tide = await newVolume(db, 'Tide')
    const { prove } = await mirrorOf(loadId, tide)
    await prove(proved(a, tide), proved(b, tide))
    await prove(proved(a, tide))
    const ledger = { productionId, volumeId: tide, byteClass: 'generated' as const, sizeBytes: 5e12 }
    await db.insertInto('ledger').values(ledger).execute()
    const own = await knownBytes(db, [productionId])
    expect(own).toEqual(
      expect.arrayContaining([{ productionId, volumeId: tide, byteClass: 'originals', sizeBytes: 300 }, ledger]),
    )
    expect(own).toHaveLength(2)
  })

  it('are never deleted with what they are about', async () => {
    // Source: PostgreSQL documentation, pg_constraint.confdeltype: c is cascade, n is set null.
    const facts = [
      'seen',
      'seen_change',
      'proof',
      'said',
      'reading',
      'load',
      'load_entry',
      'load_sample',
      'copy_file',
      'mirror',
      'media_file',
      'take_file',
      'proxy',
      'deliverable',
      'bag',
      'ledger',
    ]
    const { rows: cascades } = await sql<{ name: string }>`
      select conrelid::regclass::text as name from pg_constraint where contype = 'f' and confdeltype in ('c', 'n', 'd')`.execute(
      db,
    )
    expect(cascades.map((row) => row.name).filter((name) => facts.includes(name))).toEqual([])
    const { rows: unindexed } = await sql<{ name: string }>`
      select c.conrelid::regclass::text || '.' || a.attname as name from pg_constraint c
      join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
      where c.contype = 'f' and not exists (select 1 from pg_index i where i.indrelid = c.conrelid and i.indkey[0] = c.conkey[1])
        and c.conrelid::regclass::text not like 'pgboss%'`.execute(db)
    expect(unindexed.map((row) => row.name)).toEqual([])
  })
})

describe('what a card listed', () => {
  it('keeps path bytes, and takes a second look without doubling anything', async () => {
    const { loadId, look, a, b } = await newLoad()
    await look(listed('a.mp4', 100, 1.9), listed('b\xff.mp4', 200, 2.5))
    const again = await cards.entriesOf(db, loadId)
    expect(again.map((entry) => entry.id)).toEqual([a, b])
    expect(again[1]?.path.equals(Buffer.from('b\xff.mp4', 'latin1'))).toBe(true)
    expect(await cards.entryCounts(db, [loadId])).toMatchObject([{ kind: 'odd-name', files: 1, paths: ['b\\xff.mp4'] }])
    expect((await loadsLike(db, ['a.mp4'])).find((known) => known.id === loadId)?.files).toHaveLength(2)
  })

  it('takes no proof over to a file that was rewritten, and none from a file that is gone', async () => {
    const { loadId, look, a, b } = await newLoad()
    const tide = await newVolume(db, 'Tide')
    const { prove, counts } = await mirrorOf(loadId, tide)
    await prove(proved(a, tide), proved(b, tide))
    // One deleted in the camera, one rewritten under its name, one filmed since: nothing on the card is proved.
    await look(listed('a.mp4', 100, 77), listed('c.mp4', 300, 3))
    expect(await counts()).toMatchObject({ filesVerified: 0, sizeBytes: 0 })
    expect(await cards.entryCounts(db, [loadId])).toMatchObject([{ kind: 'gone', files: 1, paths: ['b\\xff.mp4'] }])
    // The deleted one comes back from the rescue: its proof counts again.
    await look(listed('a.mp4', 100, 77), listed('b\xff.mp4', 200, 2.5), listed('c.mp4', 300, 3))
    expect(await counts()).toMatchObject({ filesVerified: 1, sizeBytes: 200 })
    expect(await cards.entriesOf(db, loadId)).toHaveLength(3)
  })
})

describe('what was said, and settings', () => {
  it('is added, never changed; the latest of a kind counts', async () => {
    const { loadId } = await newLoad()
    await addSaid(db, { kind: 'formatted', loadId, against: 'Not yet.' })
    await addSaid(db, { kind: 'formatted', loadId })
    await addSaid(db, { kind: 'answered', loadId, detail: { key: 'gap', answer: 'Another mode' } })
    expect(await formattedOf(db, [loadId])).toMatchObject([{ loadId, against: null }])
    expect(await answersOf(db, [loadId])).toEqual([{ loadId, key: 'gap', answer: 'Another mode' }])
    expect(await answersOf(db, [])).toEqual([])
  })

  it('starts with the careful rule', async () => {
    const { usual, rules, atHome } = await ruleChoices(db)
    expect([rules.get(usual), atHome]).toMatchObject([AT_HOME_ONLY, true])
    const ruleId = [...rules.keys()].find((id) => id !== usual) ?? ''
    await writeSettings(db, { ruleId, atHome: false })
    expect(await readSettings(db)).toEqual({ ruleId, atHome: false })
    expect(ruleOf(await ruleChoices(db), ruleId)).toMatchObject(REUSE_ON_THE_JOB)
  })

  it('keeps a shoot day as a day, without a zone, and one folder for one production', async () => {
    const made = await addProduction(db, { title: 'Launch day', client: 'own channel', shootOn: '2026-12-06' })
    expect((await production(db, made?.id ?? ''))?.shootOn).toBe('2026-12-06')
    expect(await addProduction(db, { title: 'launch: DAY' })).toBeUndefined()
  })

  it('a card that waits is announced by the production that it is for, bagged or not, and by all where nothing tells', async () => {
    const [hull, other] = [(await newProduction()).id, (await newProduction()).id]
    const day = (id: string, shootOn: string) =>
      db.updateTable('production').set({ shootOn, timeZone: 'Pacific/Auckland' }).where('id', '=', id).execute()
    await day(hull, '2026-11-26')
    const host = 'here'
    const reader = await addReader(db, { name: randomUUID(), rootPath: null, simulated: false, host })
    const filmed = (at: string | null) => {
      const filmedAt = at === null ? null : new Date(at)
      return db
        .updateTable('reader')
        .set({ state: 'card', cardName: 'x', filmedFrom: filmedAt, filmedTo: filmedAt })
        .where('id', '=', reader.id)
        .execute()
    }
    const waiting = async () => {
      const [one, two] = [await factsOf(hull), await factsOf(other)]
      return [one?.cardsWaiting, two?.cardsWaiting]
    }
    await filmed(null)
    expect(await waiting()).toEqual([1, 1])
    // Source: IANA time zone database: Auckland is 13 hours ahead of UTC in November.
    await filmed('2026-11-25T11:30:00Z')
    expect(await waiting()).toEqual([1, 0])
    // A day that lies ahead hides no card.
    await day(other, '2099-11-26')
    await day(hull, '2099-11-26')
    expect(await waiting()).toEqual([1, 1])
    await db.updateTable('reader').set({ state: 'empty' }).where('id', '=', reader.id).execute()
  })
})

describe('a production of 66 000 clips', () => {
  more('is answered for, though no statement may bind more than 65 535 values', async () => {
    // Source: PostgreSQL protocol, Bind message: the number of parameters is an Int16.
    const { loadId, productionId } = await newLoad()
    await sql`with entry as (
        insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms)
        select ${loadId}, convert_to('C' || n || '.MP4', 'UTF8'), 'C' || n || '.MP4', 'file', 1, 0 from generate_series(1, 66000) n returning id, path_text)
      insert into media_file (load_id, production_id, entry_id, path_text, name, size_bytes, has_picture, picture_made)
      select ${loadId}, ${productionId}, id, path_text, path_text, 1, true, true from entry`.execute(db)
    expect((await factsOf(productionId))?.loads[0]?.clips).toBe(66_000)
  })
})

describe('searching', () => {
  it('finds productions, clips and volumes by the beginnings of their words, and takes nothing for a pattern', async () => {
    const { id: productionId } = await newProduction('Kedge & warp')
    const { loadId, a, b } = await newLoad()
    const clip = (entryId: number, name: string) =>
      cards.putClip(db, {
        ...{ loadId, productionId, entryId, pathText: name, name, sizeBytes: 1, probe: undefined },
        ...{ trouble: undefined, cut: undefined, hasPicture: false, pictureMade: false },
      })
    await clip(a, 'WHIM0041.MP4')
    await clip(b, 'night_tide whimbrel 2.MOV')
    const names = async (typed: string) => (await search(db, typed)).map((hit) => `${hit.kind} ${hit.name}`)
    expect(await names('kedg')).toEqual(['production Kedge & warp'])
    expect(await names('warp ked')).toEqual(['production Kedge & warp'])
    expect(await names('edge')).toEqual([])
    expect((await names('whim')).sort()).toEqual(['clip WHIM0041.MP4', 'clip night_tide whimbrel 2.MOV'])
    expect(await names('WHIM00')).toEqual(['clip WHIM0041.MP4'])
    expect(await names('tide whimbrel')).toEqual(['clip night_tide whimbrel 2.MOV'])
    for (const pattern of ['%', '_', '\\', "'", '&', ':*', 'w%m'])
      expect(await names(`${pattern}zzz`), pattern).toEqual([])
    expect((await search(db, '')).every((hit) => hit.kind === 'production')).toBe(true)
  })
})

describe('writes that wait for each other in a circle', () => {
  it('are made anew, and both are there', async () => {
    const arrived: string[] = []
    const write = (name: string, first: string, second: string) =>
      inTransaction(db, async (tx) => {
        await lock(tx, first)
        const isFirstTry = !arrived.includes(name)
        arrived.push(name)
        // Each holds what the other one wants next.
        while (isFirstTry && new Set(arrived).size < 2) await new Promise((resolve) => setTimeout(resolve, 5))
        await lock(tx, second)
        return (await addProduction(tx, { title: name }))?.id
      })
    const made = await Promise.all([write('Ebb', 'one', 'other'), write('Flood', 'other', 'one')])
    expect(arrived).toHaveLength(3)
    for (const id of made) expect(await production(db, id ?? '')).toBeDefined()
  })
})

it('a card that was written on is doubted once something of it is proved, until it is read whole after that', async () => {
  const { loadId, a } = await newLoad()
  const tide = await newVolume(db, 'Tide')
  const trust = (since: Date) => trustCard(db, { stayId: randomUUID(), loadId, since })
  await doubtCard(db, loadId)
  expect(await isCardDoubted(db, loadId)).toBe(false)
  await (await mirrorOf(loadId, tide)).prove(proved(a, tide))
  expect(await isCardDoubted(db, loadId)).toBe(true)
  const before = await databaseTime(db)
  await doubtCard(db, loadId)
  await trust(before)
  expect(await isCardDoubted(db, loadId)).toBe(true)
  await trust(await databaseTime(db))
  expect(await isCardDoubted(db, loadId)).toBe(false)
})
