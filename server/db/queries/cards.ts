import { sql } from 'kysely'
import type { CountedKind, EntryCount } from '../../../core/cards/findings'
import type { Probe } from '../../../core/media/probe'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import type { Database } from '../schema'

const allLoads = (db: Db) =>
  db
    .selectFrom('load')
    .innerJoin('production', 'production.id', 'load.productionId')
    .selectAll('load')
    .select(['production.shootOn', 'production.folder as productionFolder'])

export const loadsOf = (db: Db, productionIds: readonly string[]) =>
  allLoads(db).where(anyOf('load.production_id', productionIds)).orderBy('load.createdAt').execute()

export const load = (db: Db, id: string) => allLoads(db).where('load.id', '=', id).executeTakeFirst()

export type LoadRow = NonNullable<Awaited<ReturnType<typeof load>>>

/** The clips of loads: those on the card, and those gone from it of which a volume ever held a proved copy. */
export const clipsOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('clip')
    .innerJoin('loadEntry', 'loadEntry.id', 'clip.entryId')
    .selectAll('clip')
    .select((at) => at('loadEntry.state', '=', 'on-card').as('onCard'))
    .where(anyOf('clip.load_id', loadIds))
    .where((at) =>
      at.or([
        at('loadEntry.state', '=', 'on-card'),
        at.and([at('loadEntry.state', '=', 'gone'), at('loadEntry.copied', '=', true)]),
      ]),
    )
    .orderBy('clip.pathText')
    .execute()

export type ClipRow = Awaited<ReturnType<typeof clipsOf>>[number]

/** A clip with the load, production and path bytes it belongs to. */
export const clip = (db: Db, id: string) =>
  db
    .selectFrom('clip')
    .innerJoin('load', 'load.id', 'clip.loadId')
    .innerJoin('loadEntry', 'loadEntry.id', 'clip.entryId')
    .selectAll('clip')
    .select(['load.label as loadLabel', 'loadEntry.path as pathBytes', 'loadEntry.sizeBytes as entryBytes'])
    .where('clip.id', '=', id)
    .executeTakeFirst()

/** Whether another clip of the load has the same folder and the same name up to its ending. */
export const hasTwin = async (db: Db, clip: { id: string; loadId: string; pathText: string }): Promise<boolean> => {
  const stem = clip.pathText.replace(/\.[^./]*$/, '').toLowerCase()
  const twin = await db
    .selectFrom('clip')
    .select('id')
    .where('loadId', '=', clip.loadId)
    .where('id', '<>', clip.id)
    .where(sql<boolean>`lower(regexp_replace(path_text, '\.[^./]*$', '')) = ${stem}`)
    .executeTakeFirst()
  return twin !== undefined
}

/** What lay on the card at the latest look. */
export const entriesOf = (db: Db, loadId: string) =>
  db
    .selectFrom('loadEntry')
    .selectAll()
    .where('loadId', '=', loadId)
    .where('state', '=', 'on-card')
    .orderBy('path')
    .execute()

export type EntryRow = Awaited<ReturnType<typeof entriesOf>>[number]

/** Files of loads as a card would list them, to know a card again: only loads that share a path with what it lists. */
export async function loadsLike(db: Db, paths: readonly string[]) {
  const rows = await db
    .with('likely', (from) =>
      from
        .selectFrom('loadEntry')
        .select('loadId')
        .distinct()
        .where('kind', '=', 'file')
        .where('state', '=', 'on-card')
        .where(sql<boolean>`path_text = any(${[...paths]}::text[])`),
    )
    .selectFrom('loadEntry')
    .innerJoin('likely', 'likely.loadId', 'loadEntry.loadId')
    .select(['loadEntry.loadId', 'pathText', 'sizeBytes', 'modifiedMs'])
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

const SHOWN_PATHS = 20

/** What was counted of loads' entries at the latest look, each with the first few paths. */
export async function entryCounts(db: Db, loadIds: readonly string[]): Promise<(EntryCount & { loadId: string })[]> {
  const counts = await db.selectFrom('loadFinding').selectAll().where(anyOf('load_id', loadIds)).execute()
  return Promise.all(
    counts.map(async ({ loadId, kind, files, print }) => {
      const paths = await oddEntries(db, loadId, kind as CountedKind)
        .limit(SHOWN_PATHS)
        .execute()
      return { loadId, kind: kind as CountedKind, files, key: print, paths: paths.map((row) => row.pathText) }
    }),
  )
}

function oddEntries(db: Db, loadId: string, kind: CountedKind) {
  const all = db.selectFrom('loadEntry').select('pathText').where('loadId', '=', loadId).orderBy('path')
  switch (kind) {
    case 'lost':
    case 'gone':
      return all
        .where('kind', '=', 'file')
        .where('state', '=', 'gone')
        .where('copied', '=', kind === 'gone')
    case 'odd-name':
      return all.where('kind', '=', 'file').where('state', '=', 'on-card').where('odd', '=', true)
    case 'link':
    case 'special':
      return all.where('kind', '=', kind).where('state', '=', 'on-card')
  }
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

export const renewLoad = (
  db: Db,
  id: string,
  values: Omit<NewLoad, 'productionId' | 'label'> & { lookDone: boolean },
) =>
  db
    .updateTable('load')
    .set({ ...values, scannedAt: new Date() })
    .where('id', '=', id)
    .execute()

/** Everything that a look found is written down. */
export const finishLook = (db: Db, id: string) =>
  db.updateTable('load').set({ lookDone: true }).where('id', '=', id).execute()

export const samplesOf = (db: Db, loadId: string) =>
  db
    .selectFrom('loadSample')
    .innerJoin('loadEntry', 'loadEntry.id', 'loadSample.entryId')
    .select([
      'loadEntry.id as entryId',
      'loadEntry.path',
      'loadEntry.pathText',
      'loadEntry.sizeBytes',
      'loadEntry.modifiedMs',
      'loadSample.hash',
    ])
    .where('loadSample.loadId', '=', loadId)
    .where('loadEntry.state', '=', 'on-card')
    .execute()

export async function addSamples(
  db: Db,
  rows: readonly { loadId: string; entryId: number; hash: string }[],
): Promise<void> {
  if (rows.length === 0) return
  await db
    .insertInto('loadSample')
    .values([...rows])
    .onConflict((at) => at.column('entryId').doNothing())
    .execute()
}

export interface NewClip {
  readonly loadId: string
  readonly productionId: string
  readonly entryId: number
  readonly pathText: string
  readonly name: string
  readonly sizeBytes: number
  readonly probe: Probe | undefined
  readonly trouble: string | undefined
  readonly cut: string | undefined
  readonly hasPicture: boolean
  readonly pictureMade: boolean
  readonly sidecarIds: readonly number[]
}

/** A clip with the files that belong to it. */
export async function putClip(
  db: Db,
  { probe, trouble, cut, sidecarIds, productionId, ...rest }: NewClip,
): Promise<{ id: string }> {
  const values = {
    ...rest,
    sidecars: sidecarIds.length,
    probe: probe ? JSON.stringify(probe) : null,
    trouble: trouble ?? null,
    cut: cut ?? null,
  }
  return db.transaction().execute(async (tx) => {
    const { id } = await tx
      .insertInto('clip')
      .values({ ...values, productionId })
      .onConflict((conflict) => conflict.column('entryId').doUpdateSet(values))
      .returning('id')
      .executeTakeFirstOrThrow()
    await tx.deleteFrom('clipFile').where('clipId', '=', id).execute()
    const role: Database['clipFile']['role'] = rest.hasPicture ? 'picture' : 'sound'
    const sidecars = sidecarIds.map((entryId) => ({ clipId: id, entryId, role: 'sidecar' as const, number: null }))
    await tx
      .insertInto('clipFile')
      .values([{ clipId: id, entryId: rest.entryId, role, number: null }, ...sidecars])
      .execute()
    return { id }
  })
}
