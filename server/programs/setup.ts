import { randomUUID } from 'node:crypto'
import { mkdir, rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { openDatabase, type Db, inTransaction } from '../db/connection'
import { addProduction } from '../db/queries/productions'
import { addReader } from '../db/queries/readers'
import { addVolume, putMount } from '../db/queries/volumes'
import type { Medium, SiteKind } from '../../core/copies/medium'
import type { VolumeKind } from '../../contract/storage'
import { benchFolder, databaseUrl, hostName } from '../home'
import { MARKER } from '../media/marker'
import { findBench } from '../demo/findBench'
import { addGear } from '../demo/gear'
import { makeFirstCard, makeOtherCards } from '../demo/media'
import { STORY } from '../demo/storyNames'
import { writeStory } from '../db/queries/settings'

/** Tests begin with all cards and nothing that goes on by itself. */
const TELLS_STORY = process.env.YENDRA_STORY !== 'no'
/** So many days ago the garboard was filmed. */
const STORY_DAYS = 9

interface DemoVolume {
  readonly name: string
  readonly kind: VolumeKind
  readonly site: string
  readonly capacityBytes: number
  /** MB/s reading and writing; without them the volume is not on the bench and known from the records only. */
  readonly speed?: readonly [number, number]
  readonly plugged?: boolean
  readonly medium: Medium
}

const VOLUMES: readonly DemoVolume[] = [
  {
    name: 'Slipway',
    medium: 'solid-state',
    kind: 'edit',
    site: 'workshop',
    capacityBytes: 1e12,
    speed: [520, 420],
    plugged: true,
  },
  {
    name: 'Tide 1',
    medium: 'disk',
    kind: 'archive',
    site: 'house',
    capacityBytes: 4e12,
    speed: [170, 150],
    plugged: true,
  },
  {
    name: 'Tide 2',
    medium: 'disk',
    kind: 'archive',
    site: 'bag',
    capacityBytes: 4e12,
    speed: [170, 150],
    plugged: true,
  },
  {
    name: 'Lantern',
    medium: 'flash',
    kind: 'phone',
    site: 'on the person',
    capacityBytes: 128e9,
    speed: [90, 60],
    plugged: false,
  },
  {
    name: 'Saltings bucket',
    medium: 'cloud',
    kind: 'cloud',
    site: 'cloud',
    capacityBytes: 500e9,
    speed: [12, 2.5],
    plugged: true,
  },
  { name: 'Ebb', medium: 'disk', kind: 'archive', site: 'house', capacityBytes: 4e12 },
  {
    name: 'Neap',
    medium: 'disk',
    kind: 'archive',
    site: 'aunt’s flat',
    capacityBytes: 3e12,
    ...(TELLS_STORY && { speed: [140, 120] as const, plugged: false }),
  },
]

const SITES: Record<string, SiteKind> = {
  workshop: 'stays',
  house: 'stays',
  'aunt’s flat': 'stays',
  bag: 'carried',
  'on the person': 'carried',
  cloud: 'online',
}

/** Bytes of the past, in GB: production, volume, originals, generated, outputs. */
const PAST = [
  ['Stripping the clinker hull', 'Ebb', 586, 212, 14],
  ['Stripping the clinker hull', 'Neap', 586, 0, 14],
  ['Sail loft', 'Ebb', 1120, 377, 22],
  ['Sail loft', 'Neap', 1120, 0, 22],
] as const

async function addVolumes(db: Db): Promise<Map<string, string>> {
  const ids = new Map<string, string>()
  for (const { name, kind, site, medium, capacityBytes, speed, plugged } of VOLUMES) {
    const id = randomUUID()
    const rootPath = speed ? join(benchFolder(), 'volumes', name.toLowerCase().replaceAll(' ', '-')) : null
    if (rootPath) {
      await mkdir(join(rootPath, dirname(MARKER)), { recursive: true })
      await writeFile(join(rootPath, MARKER), `${JSON.stringify({ id })}\n`)
    }
    await addVolume(db, {
      id,
      name,
      kind,
      site,
      medium,
      simulated: rootPath !== null,
      capacityBytes,
    })
    if (rootPath) await putMount(db, id, hostName(), rootPath)
    if (speed)
      await db
        .insertInto('benchDevice')
        .values({
          id,
          role: 'volume',
          capacityBytes,
          readBytesPerSecond: speed[0] * 1e6,
          writeBytesPerSecond: speed[1] * 1e6,
          plugged: plugged === true,
          card: null,
          insertedAt: null,
        })
        .execute()
    ids.set(name, id)
  }
  for (const [name, kind] of Object.entries(SITES))
    await db.updateTable('site').set({ kind }).where('name', '=', name).execute()
  return ids
}

async function addProductions(db: Db, today: string, later: string): Promise<Map<string, string>> {
  const ids = new Map<string, string>()
  for (const [title, client, shootOn] of [
    ['Sail loft', 'Estuary sailing club', '2026-04-18'],
    ['Stripping the clinker hull', 'own channel', '2026-08-22'],
    ...(TELLS_STORY ? [[STORY.title, 'own channel', daysFrom(today, -STORY_DAYS)] as const] : []),
    ['Launch day', 'own channel', later],
    ['Steam-bending ribs', 'own channel', today],
  ] as const) {
    const made = await addProduction(db, { title, client, shootOn })
    if (made) ids.set(title, made.id)
  }
  return ids
}

const daysFrom = (day: string, days: number) => new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10)

async function makeDemo(db: Db): Promise<void> {
  const begun = Date.now()
  console.log('Making the demo: a card with real clips, drives, productions …')
  await rm(benchFolder(), { recursive: true, force: true })
  const today = new Date().toISOString().slice(0, 10)
  const root = join(benchFolder(), 'cards')
  const cards = await makeFirstCard(root, new Date(today))
  if (!TELLS_STORY) cards.push(...(await makeOtherCards(root, new Date(today))))
  await inTransaction(db, async (tx) => {
    const volumes = await addVolumes(tx)
    const later = daysFrom(today, 12)
    const productions = await addProductions(tx, today, later)
    await addGear(tx, productions, later)
    for (const [title, volume, originals, generated, outputs] of PAST) {
      for (const [byteClass, gigabytes] of [
        ['originals', originals],
        ['generated', generated],
        ['outputs', outputs],
      ] as const) {
        if (gigabytes > 0)
          await tx
            .insertInto('ledger')
            .values({
              productionId: productions.get(title) ?? '',
              volumeId: volumes.get(volume) ?? '',
              byteClass,
              sizeBytes: gigabytes * 1e9,
            })
            .execute()
      }
    }
    await tx
      .insertInto('benchCard')
      .values([...cards])
      .execute()
    for (const [name, card] of [
      ['Bench reader', 'Curlew A'],
      ['Second reader', null],
      ...(TELLS_STORY ? [[STORY.reader, null] as const] : []),
    ] as const) {
      const { id } = await addReader(tx, { name, rootPath: null, simulated: true, host: hostName() })
      await tx
        .insertInto('benchDevice')
        .values({
          id,
          role: 'reader',
          capacityBytes: 128e9,
          readBytesPerSecond: 90e6,
          writeBytesPerSecond: 1,
          plugged: true,
          card,
          insertedAt: card === null ? null : new Date(),
        })
        .execute()
    }
    if (TELLS_STORY) await writeStory(tx, { day: daysFrom(today, -STORY_DAYS), today, says: null, done: false })
    await tx
      .insertInto('setting')
      .values({ key: 'demo', value: JSON.stringify({ made: new Date().toISOString() }) })
      .execute()
  })
  console.log(`The demo is made (${((Date.now() - begun) / 1000).toFixed(0)} s).`)
}

const db = await openDatabase(databaseUrl())
const made = await db.selectFrom('setting').select('key').where('key', '=', 'demo').executeTakeFirst()
try {
  if (process.argv[2] === 'demo' && !made) await makeDemo(db)
  else await findBench(db)
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  process.exitCode = 1
}
await db.destroy()
