import { createHash } from 'node:crypto'
import { sql } from 'kysely'
import type { KeptLine } from '../../../core/copies/keptChart'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { addSaid } from './said'

/**
 * Brings a chart in that was kept by hand. Inside a transaction of the caller. `undefined` when the same lines are in
 * there already.
 */
export async function addKeptChart(
  tx: Db,
  { fileName, lines }: { readonly fileName: string; readonly lines: readonly KeptLine[] },
) {
  const print = createHash('sha256').update(JSON.stringify(lines)).digest('hex')
  // Two windows may send the same chart at once.
  await sql`lock table kept_chart in exclusive mode`.execute(tx)
  const same = await tx
    .selectFrom('keptChart')
    .select('id')
    .where('print', '=', print)
    .where('takenBackAt', 'is', null)
    .executeTakeFirst()
  if (same) return undefined
  const before = await keptWords(tx)
  const { id: importId } = await tx
    .insertInto('keptChart')
    .values({ fileName, print, lines: lines.length, takenBackAt: null })
    .returning('id')
    .executeTakeFirstOrThrow()
  await sql`
    insert into kept_line (import_id, number, client, production, shoot_on, label, camera, size_bytes, formatted, year, place)
    select ${importId}, number, client, production, "shootOn", load, camera, "sizeBytes", formatted, 0, ''
    from jsonb_to_recordset(${JSON.stringify(lines.map((line, number) => ({ ...line, number })))}::jsonb)
      as line(number integer, client text, production text, "shootOn" date, load text, camera text, "sizeBytes" bigint, formatted text)`.execute(
    tx,
  )
  await sql`
    insert into kept_copy (line_id, name, volume_id, said)
    select line.id, copy.name, (select volume.id from volume where lower(volume.name) = lower(copy.name)), copy.said
    from jsonb_to_recordset(${JSON.stringify(lines.flatMap((line, number) => copiesIn(line).map((copy) => ({ ...copy, number }))))}::jsonb)
      as copy(number integer, name text, said text)
      join kept_line line on line.import_id = ${importId} and line.number = copy.number`.execute(tx)
  await addSaid(tx, { kind: 'kept-chart', detail: { importId, fileName, lines: lines.length } })
  await placeKeptLines(tx, [...new Set(lines.map((line) => line.production))])
  await showNewest(tx)
  const known = await tx
    .selectFrom('keptLine')
    .select((at) => at.fn.countAll<number>().as('lines'))
    .where('importId', '=', importId)
    .where('loadId', 'is not', null)
    .executeTakeFirstOrThrow()
  const already = lines.filter((line) => before.has(wordsOf(line))).length
  return { added: lines.length - already, already, known: Number(known.lines) }
}

/** Each drive once, however its name is written. */
const copiesIn = ({ copies }: KeptLine) => [...new Map(copies.map((copy) => [copy.name.toLowerCase(), copy])).values()]

const wordsOf = (line: KeptLine) =>
  JSON.stringify([
    ...[line.client, line.production, line.shootOn, line.load, line.camera, line.sizeBytes, line.formatted],
    copiesIn(line)
      .map(({ name, said }) => [name, said])
      .sort(),
  ])

/** What a kept chart says now, word by word. */
async function keptWords(tx: Db): Promise<ReadonlySet<string>> {
  const rows = await tx
    .selectFrom('keptLine')
    .select(['client', 'production', 'shootOn', 'label as load', 'camera', 'sizeBytes', 'formatted'])
    .select(
      sql<KeptLine['copies']>`coalesce((select jsonb_agg(jsonb_build_object('name', name, 'said', said))
        from kept_copy where line_id = kept_line.id), '[]')`.as('copies'),
    )
    .where('shown', '=', true)
    .execute()
  return new Set(rows.map(wordsOf))
}

/** Takes a chart back: what an older one said of the same loads holds again. False when there is none that holds. */
export async function takeKeptChartBack(tx: Db, id: string): Promise<boolean> {
  const taken = await tx
    .updateTable('keptChart')
    .set({ takenBackAt: sql`clock_timestamp()` })
    .where('id', '=', id)
    .where('takenBackAt', 'is', null)
    .returning(['fileName', 'lines'])
    .executeTakeFirst()
  if (!taken) return false
  await addSaid(tx, { kind: 'kept-chart-taken-back', detail: { importId: id, ...taken } })
  await showNewest(tx)
  return true
}

/** Of each load the newest chart that was not taken back is what holds. */
const showNewest = (tx: Db) =>
  sql`
    update kept_line set shown = newest.is_shown from (
      select line.id, taken_back_at is null and row_number() over (
        partition by lower(line.production), lower(line.label), taken_back_at is null order by at desc, number desc) = 1 as is_shown
      from kept_line line join kept_chart on kept_chart.id = line.import_id) as newest
    where newest.id = kept_line.id and kept_line.shown <> newest.is_shown`.execute(tx)

/** Where lines stand on the chart, and which production and load of ours they tell of, by titles. */
export const placeKeptLines = (tx: Db, titles: readonly string[]) =>
  sql`
    update kept_line line set production_id = now.production_id, client_id = now.client_id, load_id = now.load_id,
      year = extract(year from now.day), place = (99999999 - to_char(now.day, 'YYYYMMDD')::integer) || ' ' ||
        coalesce(now.production_id::text, md5(lower(line.production))) || ' kept ' || lpad(line.number::text, 6, '0')
    from (
      select line.id, ours.id as production_id, coalesce(ours.client_id, client.id) as client_id,
        (select load.id from load where load.production_id = ours.id and lower(load.label) = lower(line.label) order by created_at desc limit 1) as load_id,
        coalesce(ours.shoot_on, (ours.created_at at time zone 'UTC')::date,
          min(line.shoot_on) over (partition by lower(line.production)), (kept_chart.at at time zone 'UTC')::date) as day
      from kept_line line join kept_chart on kept_chart.id = line.import_id
        left join lateral (select * from production where lower(title) = lower(line.production) order by created_at desc limit 1) as ours on true
        left join lateral (select id from client where lower(name) = lower(line.client) limit 1) as client on true
      where lower(line.production) in (select lower(title) from unnest(${[...titles]}::text[]) title)
    ) as now where now.id = line.id`.execute(tx)

/** Titles in kept charts that name productions of loads, or named them until now. */
export const keptTitles = async (tx: Db, loadIds: readonly string[]): Promise<string[]> =>
  (
    await sql<{ title: string }>`
      select distinct lower(title) as title from load join production on production.id = load.production_id
      where load.id = any(${[...loadIds]}::uuid[]) and exists (select from kept_line where lower(kept_line.production) = lower(title))
      union select lower(kept_line.production) from load join kept_line on kept_line.production_id = load.production_id where load.id = any(${[...loadIds]}::uuid[])`.execute(
      tx,
    )
  ).rows.map((row) => row.title)

/** Lines of kept charts by their ids, or that tell of loads, with the drives that they name. */
export const keptLines = (db: Db, ids: readonly string[], loadIds: readonly string[]) =>
  db
    .selectFrom('keptLine')
    .innerJoin('keptChart', 'keptChart.id', 'keptLine.importId')
    .selectAll('keptLine')
    .select(['keptChart.fileName', 'keptChart.at'])
    .select(
      sql<{ volumeId: string | null; name: string; said: string }[]>`coalesce((
        select jsonb_agg(jsonb_build_object('volumeId', volume_id, 'name', name, 'said', said) order by name)
        from kept_copy where line_id = kept_line.id), '[]')`.as('copies'),
    )
    .where('keptLine.shown', '=', true)
    .where((at) => at.or([anyOf('kept_line.id', ids), anyOf('kept_line.load_id', loadIds)]))
    .execute()

/** What kept charts alone know of productions, by titles as they are given. */
export const keptTotals = async (db: Db, titles: readonly string[]) =>
  (
    await sql<{ title: string; loads: number; sizeBytes: number }>`
      select title, count(*)::int as loads, coalesce(sum(size_bytes), 0)::bigint as size_bytes
      from unnest(${[...titles]}::text[]) title join kept_line on lower(production) = lower(title)
      where shown and load_id is null group by title`.execute(db)
  ).rows

/** Charts that came in, the newest first. */
export const keptCharts = (db: Db) => db.selectFrom('keptChart').selectAll().orderBy('at', 'desc').limit(100).execute()
