import type { ExpressionBuilder } from 'kysely'
import { contentOf } from '../../../core/cards/load'
import type { Probe } from '../../../core/media/probe'
import type { Db } from '../connection'
import type { Database } from '../schema'
import { NO_ID } from './shoot'

export const readers = (db: Db) => db.selectFrom('reader').selectAll().orderBy('createdAt').execute()

export const reader = (db: Db, id: string) =>
  db.selectFrom('reader').selectAll().where('id', '=', id).executeTakeFirst()

export const addReader = (
  db: Db,
  values: { name: string; rootPath: string | null; simulated: boolean; host: string },
) => db.insertInto('reader').values(values).returning('id').executeTakeFirstOrThrow()

const allLoads = (db: Db) =>
  db
    .selectFrom('load')
    .innerJoin('production', 'production.id', 'load.productionId')
    .selectAll('load')
    .select('production.shootOn')

export const loadsOf = (db: Db, productionIds: readonly string[]) =>
  allLoads(db)
    .where('productionId', 'in', [...productionIds, NO_ID])
    .orderBy('load.createdAt')
    .execute()

export const load = (db: Db, id: string) => allLoads(db).where('load.id', '=', id).executeTakeFirst()

/** The clips of loads: those on the card, and those gone from it of which a volume holds a proved copy. */
export const clipsOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('clip')
    .innerJoin('loadEntry', 'loadEntry.id', 'clip.entryId')
    .selectAll('clip')
    .select((at) => at('loadEntry.state', '=', 'on-card').as('onCard'))
    .where('clip.loadId', 'in', [...loadIds, NO_ID])
    .where((at) =>
      at.or([at('loadEntry.state', '=', 'on-card'), at.and([at('loadEntry.state', '=', 'gone'), provedSomewhere(at)])]),
    )
    .orderBy('clip.pathText')
    .execute()

/** Whether any volume ever held a proved copy of an entry. */
const provedSomewhere = (at: ExpressionBuilder<Database, 'loadEntry'>) =>
  at.exists(
    at
      .selectFrom('copyFact')
      .select('copyFact.id')
      .whereRef('copyFact.entryId', '=', 'loadEntry.id')
      .where('copyFact.kind', '=', 'proved'),
  )

/** A clip with the load, production and path bytes it belongs to. */
export const clip = (db: Db, id: string) =>
  db
    .selectFrom('clip')
    .innerJoin('load', 'load.id', 'clip.loadId')
    .innerJoin('loadEntry', 'loadEntry.id', 'clip.entryId')
    .selectAll('clip')
    .select(['load.productionId', 'load.label as loadLabel', 'loadEntry.path as pathBytes'])
    .where('clip.id', '=', id)
    .executeTakeFirst()

/** Entries that findings look at: more than plain files and folders, names that need escaping, files gone since an earlier look. */
export const oddEntries = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('loadEntry')
    .select((at) => ['loadId', 'pathText', 'kind', 'sizeBytes', 'state', provedSomewhere(at).as('copied')])
    .where('loadId', 'in', [...loadIds, NO_ID])
    .where('state', '!=', 'replaced')
    .where('kind', '!=', 'folder')
    .where((at) => at.or([at('kind', '!=', 'file'), at('pathText', 'like', '%\\\\%'), at('state', '=', 'gone')]))
    .orderBy('loadId')
    .orderBy('path')
    .limit(5000)
    .execute()

/** What lay on the card at the latest look. */
export const entriesOf = (db: Db, loadId: string) =>
  db
    .selectFrom('loadEntry')
    .selectAll()
    .where('loadId', '=', loadId)
    .where('state', '=', 'on-card')
    .orderBy('path')
    .execute()

/** Files of every load, as a card would list them, to know a card again. */
export async function knownLoads(db: Db) {
  const rows = await db
    .selectFrom('loadEntry')
    .select(['loadId', 'pathText', 'sizeBytes', 'modifiedMs'])
    .where('kind', '=', 'file')
    .where('state', '=', 'on-card')
    .execute()
  const byLoad = new Map<string, { path: string; sizeBytes: number; modifiedMs: number }[]>()
  for (const { loadId, pathText, ...row } of rows) {
    const files = byLoad.get(loadId) ?? []
    files.push({ path: pathText, ...row })
    byLoad.set(loadId, files)
  }
  return [...byLoad].map(([id, files]) => ({ id, files }))
}

export interface NewLoad {
  readonly productionId: string
  readonly readerId: string
  readonly label: string
  readonly fileCount: number
  readonly sizeBytes: number
  readonly leftOut: number
}

export const addLoad = (db: Db, values: NewLoad) =>
  db.insertInto('load').values(values).returning('id').executeTakeFirstOrThrow()

export const renewLoad = (db: Db, id: string, values: Omit<NewLoad, 'productionId' | 'label'>) =>
  db
    .updateTable('load')
    .set({ ...values, scannedAt: new Date() })
    .where('id', '=', id)
    .execute()

export interface NewEntry {
  readonly path: Buffer
  readonly pathText: string
  readonly kind: 'file' | 'folder' | 'link' | 'special'
  readonly sizeBytes: number
  readonly modifiedMs: number
}

const CHUNK = 1000

const inChunks = async <T>(items: readonly T[], write: (chunk: T[]) => Promise<unknown>): Promise<void> => {
  for (let at = 0; at < items.length; at += CHUNK) await write(items.slice(at, at + CHUNK))
}

/** A file with another size or time is other content; folders and links are what their name and kind say. */
const sameContent = (a: Omit<NewEntry, 'pathText'>, b: Omit<NewEntry, 'pathText'>) =>
  a.kind === b.kind && (a.kind !== 'file' || contentOf(a) === contentOf(b))

/**
 * Writes what a card lists now. Entries known already keep their id, and with it their proofs; what is no longer there
 * is marked as gone, and what has other content now gets a new row that nothing is proved of yet.
 */
export async function putEntries(db: Db, loadId: string, entries: readonly NewEntry[]): Promise<void> {
  const known = await db
    .selectFrom('loadEntry')
    .select(['id', 'path', 'kind', 'sizeBytes', 'modifiedMs', 'state'])
    .where('loadId', '=', loadId)
    .where('state', '!=', 'replaced')
    .execute()
  const here = new Map(entries.map((entry) => [entry.path.toString('latin1'), entry]))
  const kept = new Set<string>()
  const changes = { 'on-card': [] as number[], gone: [] as number[], replaced: [] as number[] }
  for (const row of known) {
    const key = row.path.toString('latin1')
    const now = here.get(key)
    const state = now === undefined ? 'gone' : sameContent(row, now) ? 'on-card' : 'replaced'
    if (state === 'on-card') kept.add(key)
    if (state !== row.state) changes[state].push(row.id)
  }
  for (const state of ['on-card', 'gone', 'replaced'] as const) {
    await inChunks(changes[state], (ids) => db.updateTable('loadEntry').set({ state }).where('id', 'in', ids).execute())
  }
  await inChunks(
    entries.filter((entry) => !kept.has(entry.path.toString('latin1'))),
    (fresh) =>
      db
        .insertInto('loadEntry')
        .values(fresh.map((entry) => ({ loadId, ...entry })))
        .execute(),
  )
}

export interface NewClip {
  readonly loadId: string
  readonly entryId: number
  readonly pathText: string
  readonly name: string
  readonly sizeBytes: number
  readonly sidecars: number
  readonly probe: Probe | undefined
  readonly trouble: string | undefined
  readonly hasPicture: boolean
  readonly pictureMade: boolean
}

export const putClip = (db: Db, { probe, trouble, ...rest }: NewClip) => {
  const values = { ...rest, probe: probe ? JSON.stringify(probe) : null, trouble: trouble ?? null }
  return db
    .insertInto('clip')
    .values(values)
    .onConflict((conflict) => conflict.column('entryId').doUpdateSet(values))
    .returning('id')
    .executeTakeFirstOrThrow()
}
