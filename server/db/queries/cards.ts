import type { Probe } from '../../../core/media/probe'
import type { Db } from '../connection'
import { NO_ID } from './shoot'

export const readers = (db: Db) => db.selectFrom('reader').selectAll().orderBy('createdAt').execute()

export const reader = (db: Db, id: string) => db.selectFrom('reader').selectAll().where('id', '=', id).executeTakeFirst()

export const addReader = (db: Db, values: { name: string; rootPath: string | null; simulated: boolean; host: string }) =>
  db.insertInto('reader').values(values).returning('id').executeTakeFirstOrThrow()

export const loadsOf = (db: Db, productionIds: readonly string[]) =>
  db.selectFrom('load').selectAll().where('productionId', 'in', [...productionIds, NO_ID]).orderBy('createdAt').execute()

export const load = (db: Db, id: string) => db.selectFrom('load').selectAll().where('id', '=', id).executeTakeFirst()

export const clipsOf = (db: Db, loadIds: readonly string[]) =>
  db.selectFrom('clip').selectAll().where('loadId', 'in', [...loadIds, NO_ID]).orderBy('pathText').execute()

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

/** Entries that are more than plain files and folders, or whose names need escaping: all that findings look at. */
export const oddEntries = (db: Db, loadId: string) =>
  db.selectFrom('loadEntry').select(['pathText', 'kind', 'sizeBytes']).where('loadId', '=', loadId)
    .where((at) => at.or([at('kind', 'in', ['link', 'special']), at('pathText', 'like', '%\\\\%')])).limit(1000).execute()

export const entriesOf = (db: Db, loadId: string) => db.selectFrom('loadEntry').selectAll().where('loadId', '=', loadId).orderBy('path').execute()

/** Files of every load, as a card would list them, to know a card again. */
export async function knownLoads(db: Db) {
  const rows = await db.selectFrom('loadEntry').select(['loadId', 'pathText', 'sizeBytes', 'modifiedMs']).where('kind', '=', 'file').execute()
  const byLoad = new Map<string, { path: string; sizeBytes: number; modifiedMs: number }[]>()
  for (const row of rows) byLoad.set(row.loadId, [...(byLoad.get(row.loadId) ?? []), { path: row.pathText, sizeBytes: row.sizeBytes, modifiedMs: row.modifiedMs }])
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

export const addLoad = (db: Db, values: NewLoad) => db.insertInto('load').values(values).returning('id').executeTakeFirstOrThrow()

export const renewLoad = (db: Db, id: string, values: Omit<NewLoad, 'productionId' | 'label'>) =>
  db.updateTable('load').set({ ...values, scannedAt: new Date() }).where('id', '=', id).execute()

export interface NewEntry {
  readonly path: Buffer
  readonly pathText: string
  readonly kind: 'file' | 'folder' | 'link' | 'special'
  readonly sizeBytes: number
  readonly modifiedMs: number
}

const CHUNK = 1000

/** Writes what a card lists; entries known already keep their id and take the new size and time. */
export async function putEntries(db: Db, loadId: string, entries: readonly NewEntry[]): Promise<void> {
  for (let at = 0; at < entries.length; at += CHUNK) {
    await db.insertInto('loadEntry').values(entries.slice(at, at + CHUNK).map((entry) => ({ loadId, ...entry })))
      .onConflict((conflict) => conflict.columns(['loadId', 'path']).doUpdateSet((excluded) => ({ kind: excluded.ref('excluded.kind'), sizeBytes: excluded.ref('excluded.sizeBytes'), modifiedMs: excluded.ref('excluded.modifiedMs') })))
      .execute()
  }
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
  return db.insertInto('clip').values(values).onConflict((conflict) => conflict.column('entryId').doUpdateSet(values)).returning('id').executeTakeFirstOrThrow()
}
