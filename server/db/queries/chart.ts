import { sql, type SelectQueryBuilder } from 'kysely'
import type { ChartAsked } from '../../../contract/chart'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { branchOfPage, pageOf } from '../page'
import type { Database } from '../schema'
import { placeKeptLines, keptTitles } from './keptCharts'

/** Asked once for a question, so that an index is searched for it. */
const NOW = sql`(select clock_timestamp())`

/** A line as it was just reckoned. */
export interface ReckonedLine {
  readonly loadId: string
  readonly danger: number
  readonly oldestProofAt: string | undefined
  /** When it is to be reckoned again, though nothing is written meanwhile. */
  readonly dueAt: string | undefined
  readonly copies: readonly ProvedCopy[]
}

/** A copy with proofs, and how many other whole proved copies there are. */
interface ProvedCopy {
  readonly volumeId: string
  readonly oldestAt: string
  readonly others: number
}

/**
 * Takes loads out of those that are due, at most so many. Inside the transaction that writes their lines: what happens
 * in between makes them due anew, and one at a time writes, so that no older answer is written after a newer one.
 */
export async function takeDue(tx: Db, limit: number): Promise<string[]> {
  await sql`select pg_advisory_xact_lock(hashtext('lines of the chart'))`.execute(tx)
  const { rows } = await sql<{ loadId: string }>`
    with first as (
      select distinct load_id from (select load_id from chart_due where due_at <= ${NOW} order by due_at limit ${limit * 20}) due
      limit ${limit})
    delete from chart_due where id in (
      -- However often something of a load became otherwise, it is worked out once.
      select id from chart_due where load_id in (select load_id from first) and due_at <= ${NOW})
    returning load_id`.execute(tx)
  return [...new Set(rows.map((row) => row.loadId))]
}

/** Whether lines wait to be reckoned, counted up to `most`. */
export const dueLoads = async (db: Db, most: number): Promise<number> => {
  const { rows } = await sql<{ loads: number }>`
    select least(count(distinct load_id), ${most})::int as loads from (select load_id from chart_due where due_at <= ${NOW} order by due_at limit ${most * 20}) as due`.execute(
    db,
  )
  return rows[0]?.loads ?? 0
}

/** Writes lines of the chart with their places in its order. Source of the order: the date of a production, newest first. */
export async function putLines(tx: Db, lines: readonly ReckonedLine[]): Promise<void> {
  const ids = lines.map((line) => line.loadId)
  await sql`
    insert into chart_line (load_id, production_id, client_id, year, place, danger, oldest_proof_at)
    select load.id, production.id, production.client_id, extract(year from at.day),
      (99999999 - to_char(at.day, 'YYYYMMDD')::integer) || ' ' || production.id || ' ' || to_char(load.created_at at time zone 'UTC', 'YYYYMMDDHH24MISSUS'),
      line.danger, line."oldestProofAt"
    from jsonb_to_recordset(${JSON.stringify(lines)}::jsonb) as line("loadId" uuid, danger smallint, "oldestProofAt" timestamptz)
      join load on load.id = line."loadId" join production on production.id = load.production_id,
      lateral (select coalesce(production.shoot_on, (production.created_at at time zone 'UTC')::date) as day) as at
    on conflict (load_id) do update set production_id = excluded.production_id, client_id = excluded.client_id,
      year = excluded.year, place = excluded.place, danger = excluded.danger, oldest_proof_at = excluded.oldest_proof_at`.execute(
    tx,
  )
  await tx.deleteFrom('chartPlace').where(anyOf('load_id', ids)).execute()
  await sql`
    insert into chart_place (of_id, place, load_id)
    select mirror.volume_id, line.place, line.load_id from chart_line line join mirror on mirror.load_id = line.load_id
      where line.load_id = any(${ids}::uuid[])
    union select volume.site_id, line.place, line.load_id from chart_line line join mirror on mirror.load_id = line.load_id
      join volume on volume.id = mirror.volume_id where line.load_id = any(${ids}::uuid[])`.execute(tx)
  await tx.deleteFrom('chartCopy').where(anyOf('load_id', ids)).execute()
  const copies = lines.flatMap(({ loadId, copies: own }) => own.map((copy) => ({ loadId, ...copy })))
  await sql`
    insert into chart_copy (load_id, volume_id, oldest_at, others)
    select "loadId", "volumeId", "oldestAt", others
    from jsonb_to_recordset(${JSON.stringify(copies)}::jsonb) as copy("loadId" uuid, "volumeId" uuid, "oldestAt" timestamptz, others smallint)`.execute(
    tx,
  )
  const titles = await keptTitles(tx, ids)
  if (titles.length > 0) await placeKeptLines(tx, titles)
  const later = lines.flatMap(({ loadId, dueAt }) => (dueAt ? [{ loadId, dueAt: new Date(dueAt) }] : []))
  // An older time of the same load comes first, and finds what is true then.
  if (later.length > 0) {
    await tx
      .deleteFrom('chartDue')
      .where(
        anyOf(
          'load_id',
          later.map((one) => one.loadId),
        ),
      )
      .where('dueAt', '>', sql<Date>`clock_timestamp()`)
      .execute()
    await tx.insertInto('chartDue').values(later).execute()
  }
}

const isKeptAt = async (db: Db, volumeId: string, siteId: string) =>
  (await db.selectFrom('volume').select('siteId').where('id', '=', volumeId).executeTakeFirst())?.siteId === siteId

interface PlacedLine {
  readonly id: string
  readonly loadId: string | null
}

/** Lines of the chart, narrowed: loads, and what kept charts alone know, which is proved nowhere and so in danger. */
export async function chartPage(
  db: Db,
  { clientId, productionId, siteId, volumeId, year, danger, ...page }: ChartAsked,
) {
  // Whatever is on a volume is at its site.
  const isAtSite = siteId !== '' && volumeId !== '' && (await isKeptAt(db, volumeId, siteId))
  const [first = null, second = null] = [volumeId, isAtSite ? '' : siteId].filter((id) => id !== '')
  const common = [
    ...(clientId === '' ? [] : [sql`line.client_id = ${clientId}`]),
    ...(productionId === '' ? [] : [sql`line.production_id = ${productionId}`]),
    ...(year === null ? [] : [sql`line.year = ${year}`]),
  ]
  const ofLoads = [
    ...common,
    ...(danger ? [sql`line.danger > 0`] : []),
    ...(first === null ? [] : [sql`placed.of_id = ${first}`]),
    ...(second === null
      ? []
      : [
          sql`exists (select from chart_place other where other.of_id = ${second} and other.place = line.place and other.load_id = line.load_id)`,
        ]),
  ]
  const ofKept = [
    ...common,
    sql`line.shown and line.load_id is null`,
    ...(volumeId === ''
      ? []
      : [sql`exists (select from kept_copy where line_id = line.id and volume_id = ${volumeId})`]),
    ...(siteId === ''
      ? []
      : [
          sql`exists (select from kept_copy join volume on volume.id = volume_id where line_id = line.id and site_id = ${siteId})`,
        ]),
  ]
  // The order is that of an index: that of the volume or site, where it is narrowed to one.
  const place = first === null ? sql`line.place` : sql`placed.place`
  const isOfPlaceAlone = first !== null && second === null && ofLoads.length === 1
  const id = isOfPlaceAlone ? sql`placed.load_id` : sql`line.load_id`
  const lines = sql<PlacedLine & { place: string }>`(
    (select ${id} as id, ${id} as load_id, ${place} as place
      from ${isOfPlaceAlone ? sql`chart_place placed` : first === null ? sql`chart_line line` : sql`chart_line line join chart_place placed on placed.load_id = line.load_id and placed.place = line.place`}
      where ${sql.join([sql`true`, ...ofLoads], sql` and `)} ${branchOfPage(place, id, 'text', page)})
    union all
    (select line.id, null, line.place from kept_line line
      where ${sql.join(ofKept, sql` and `)} ${branchOfPage(sql`line.place`, sql`line.id`, 'text', page)})
  )`.as('line')
  // What is joined here is no table of the schema.
  const query = db.selectFrom(lines).select(['id', 'loadId']) as unknown as SelectQueryBuilder<
    Database,
    never,
    PlacedLine
  >
  return pageOf(query, { by: 'line.place', type: 'text', id: 'line.id' }, page)
}

/** Loads in danger, the worst first. */
export const worstLoads = (db: Db, limit: number) =>
  db
    .selectFrom('chartLine')
    .select(['loadId', 'danger'])
    .where('danger', '>', 0)
    .orderBy('danger', 'desc')
    .orderBy('place')
    .limit(limit)
    .execute()

/** Which clients, productions and years the chart can be narrowed to. */
export const chartProductions = (db: Db, ids: readonly string[]) =>
  db
    .selectFrom('production')
    .leftJoin('client', 'client.id', 'production.clientId')
    .select(['production.id', 'production.title', 'production.shootOn', 'client.name as client'])
    .select(['production.putAwayAt'])
    .select(sql<number>`(select sum(size_bytes)::bigint from load where production_id = production.id)`.as('sizeBytes'))
    .select(sql<number>`(select count(*)::int from load where production_id = production.id)`.as('loads'))
    .where(anyOf('production.id', ids))
    .execute()

/** Clients and years that have lines, and whether there are any; each is one step in an index. */
export async function chartChoices(db: Db) {
  const [clients, years, any, kept] = await Promise.all([
    db
      .selectFrom('client')
      .select(['id', 'name'])
      .where(
        sql<boolean>`exists (select from chart_line where client_id = client.id)
          or exists (select from kept_line where client_id = client.id and shown)`,
      )
      .orderBy('name')
      .execute(),
    sql<{ year: number }>`
      with recursive every as (
        (select year from chart_line order by year desc limit 1)
        union all select (select year from chart_line where year < every.year order by year desc limit 1) from every where every.year is not null)
      select year from every where year is not null`.execute(db),
    db.selectFrom('load').select('id').limit(1).executeTakeFirst(),
    sql<{ year: number }>`select distinct year from kept_line where shown and load_id is null`.execute(db),
  ])
  const every = new Set([...years.rows, ...kept.rows].map((row) => row.year))
  return {
    clients,
    years: [...every].sort((a, b) => b - a),
    loads: any !== undefined,
    kept: kept.rows.length > 0,
  }
}
