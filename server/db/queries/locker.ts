import { sql } from 'kysely'
import type { ClientBody, SiteBody } from '../../../contract/gear'
import type { Db } from '../connection'
import { versionIn } from './versions'

/** What can be put away and brought back. */
export type Thing =
  'production' | 'camera' | 'recording_mode' | 'card' | 'volume' | 'site' | 'reader' | 'client' | 'clear_rule'

/** Puts something away, or brings it back. False when there is no such thing. */
export async function putAway(db: Db, thing: Thing, id: string, away: boolean): Promise<boolean> {
  const when = away ? sql`coalesce(put_away_at, clock_timestamp())` : sql`null`
  const { rows } =
    await sql`update ${sql.table(thing)} set put_away_at = ${when} where id = ${id} returning id`.execute(db)
  return rows.length > 0
}

/** Gives something another name. False when there is no such thing; throws when the name is taken (`isTaken`). */
export async function rename(db: Db, thing: 'reader', id: string, name: string) {
  const { rows } = await sql`update ${sql.table(thing)} set name = ${name} where id = ${id} returning id`.execute(db)
  return rows.length > 0
}

/** Removes what no fact hangs on. False when there is no such thing; throws when something refers to it (`isHeld`). */
export async function erase(db: Db, thing: 'camera' | 'card' | 'client', id: string): Promise<boolean> {
  const { rows } = await sql`delete from ${sql.table(thing)} where id = ${id} returning id`.execute(db)
  return rows.length > 0
}

/** The client of that name, whatever its case; made when there is none. `null` of no name. */
export async function clientNamed(db: Db, name: string): Promise<string | null> {
  if (name === '') return null
  const { rows } = await sql<{ id: string }>`
    insert into client (name) values (${name})
    on conflict (lower(name)) do update set put_away_at = null returning id`.execute(db)
  return rows[0]?.id ?? null
}

/** Changes a client. `undefined` when there is none; throws when the name is taken (`isTaken`). */
export const changeClient = (db: Db, id: string, body: ClientBody) =>
  db.updateTable('client').set(body).where('id', '=', id).returning('id').executeTakeFirst()

/** Changes a site. `undefined` when there is none; throws when the name is taken (`isTaken`). */
export const changeSite = (db: Db, id: string, body: SiteBody) =>
  db.updateTable('site').set(body).where('id', '=', id).returning('id').executeTakeFirst()

export const addClient = (db: Db, name: string) =>
  db.insertInto('client').values({ name }).returning('id').executeTakeFirstOrThrow()

/** Clients with how many productions each has. */
export const clients = (db: Db) =>
  db
    .selectFrom('client')
    .leftJoin('production', 'production.clientId', 'client.id')
    .select([
      'client.id',
      'client.name',
      'client.ruleId',
      'client.raw',
      'client.putAwayAt',
      versionIn('client').as('version'),
    ])
    .select(({ fn }) => fn.count<number>('production.id').as('productions'))
    .groupBy('client.id')
    .orderBy('client.name')
    .execute()

/** Sites with how many volumes are kept at each. */
export const sites = (db: Db) =>
  db
    .selectFrom('site')
    .leftJoin('volume', 'volume.siteId', 'site.id')
    .select(['site.id', 'site.name', 'site.kind', 'site.putAwayAt', versionIn('site').as('version')])
    .select(({ fn }) => fn.count<number>('volume.id').as('volumes'))
    .groupBy('site.id')
    .orderBy('site.name')
    .execute()

/** Volumes with how many loads each holds a copy of, or is meant to. */
export const heldVolumes = (db: Db, host: string) =>
  db
    .selectFrom('volume')
    .innerJoin('site', 'site.id', 'volume.siteId')
    .leftJoin('mirror', 'mirror.volumeId', 'volume.id')
    .leftJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'volume.id').on('mount.host', '=', host))
    .select([
      'volume.id',
      'volume.name',
      'volume.kind',
      'volume.capacityBytes',
      'volume.medium',
      'volume.cycleDays',
      'mount.device',
      'volume.putAwayAt',
      'site.name as site',
      versionIn('volume').as('version'),
    ])
    .select(({ fn }) => fn.count<number>('mirror.loadId').as('loads'))
    .groupBy(['volume.id', 'site.name', 'mount.device'])
    .orderBy('volume.createdAt')
    .execute()

/** Readers with how many loads were scanned in each. */
export const heldReaders = (db: Db) =>
  db
    .selectFrom('reader')
    .leftJoin('load', 'load.readerId', 'reader.id')
    .select(['reader.id', 'reader.name', 'reader.rootPath', 'reader.putAwayAt', versionIn('reader').as('version')])
    .select(({ fn }) => fn.count<number>('load.id').as('loads'))
    .groupBy('reader.id')
    .orderBy('reader.createdAt')
    .execute()

/** Productions that were put away, with their loads. */
export const awayProductions = (db: Db) =>
  db
    .selectFrom('production')
    .leftJoin('load', 'load.productionId', 'production.id')
    .where('production.putAwayAt', 'is not', null)
    .select(['production.id', 'production.title', 'production.putAwayAt', versionIn('production').as('version')])
    .select(({ fn }) => fn.count<number>('load.id').as('loads'))
    .groupBy('production.id')
    .orderBy('production.putAwayAt', 'desc')
    .limit(200)
    .execute()
