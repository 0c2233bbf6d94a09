import { sql } from 'kysely'
import type { Edit } from '../../core/units/edit'
import { inTransaction, type Db } from './connection'
import { lock } from './lock'

/** Rows that people edit, by what tells them apart; what others refer to stands first. Facts are none of them. */
const KEYS = {
  camera: ['id'],
  recording_mode: ['id'],
  card: ['id'],
  shot: ['id'],
  plan: ['production_id'],
  planned_camera: ['production_id', 'camera_id'],
  planned_card: ['production_id', 'card_id'],
  planned_takes: ['production_id', 'place'],
  review: ['media_file_id'],
  without_proxy: ['media_file_id'],
} as const
export type EditedTable = keyof typeof KEYS
const TABLES = Object.keys(KEYS) as EditedTable[]

/** Rows that a change may touch: those of a table in which a column has one of these ids. */
export interface Touched {
  readonly table: EditedTable
  readonly by: string
  readonly ids: readonly string[]
}

const KEPT_DAYS = 7

/** Somebody changed or removed one of its rows since. */
export class ChangedSince extends Error {}

/**
 * Writes what a person changes and keeps which rows it changed, so that it can be taken back; `undefined` as edit where
 * nothing became another. `touched` may be asked within the transaction.
 */
export const edited = <T>(
  db: Db,
  touched: (tx: Db) => Promise<readonly Touched[]>,
  write: (tx: Db) => Promise<{ readonly answer: T; readonly title: string }>,
): Promise<{ readonly answer: T; readonly edit: Edit | undefined }> =>
  inTransaction(db, async (tx) => {
    // One after the other: what one found before it is what the one before left.
    await lock(tx, 'edits')
    const scopes = await touched(tx)
    const before = await inTurn(scopes, (scope) => rowsOf(tx, scope))
    const { answer, title } = await write(tx)
    const edit = await keep(tx, title, 0, await changesOf(tx, scopes, before))
    return { answer, edit }
  })

/**
 * Puts the rows of a change back as they were, which is a change of its own. Throws `ChangedSince`; `undefined` when
 * there is no such change.
 */
export const takeBack = (
  db: Db,
  id: string,
): Promise<{ readonly edit: Edit; readonly tables: readonly EditedTable[] } | undefined> =>
  inTransaction(db, async (tx) => {
    await lock(tx, 'edits')
    const edit = await tx
      .selectFrom('edit')
      .select(['title', 'turn', 'undone'])
      .select(sql<string>`rows::text`.as('rows'))
      .where('id', '=', id)
      .executeTakeFirst()
    if (!edit) return undefined
    const { title, turn, rows } = edit
    if (edit.undone) throw new ChangedSince('That was taken back already.')
    const tables = await tablesIn(tx, rows)
    const { changed, all } = await changedSince(tx, tables, rows)
    if (changed > 0)
      throw new ChangedSince(
        all === 1
          ? `Not taken back: “${unquoted(title)}” It was changed again since, perhaps in another window.`
          : `Not taken back: “${unquoted(title)}” Of the ${all} rows that it changed ${changed} ` +
              `${changed === 1 ? 'was' : 'were'} changed again since.`,
      )
    for (const table of tables.toReversed()) await dropNew(tx, table, rows)
    for (const table of tables) await putBefore(tx, table, rows)
    if (tables.includes('review') && (await namedTwice(tx, rows)))
      throw new ChangedSince('Another clip has one of these names by now, so nothing was taken back.')
    await tx.updateTable('edit').set({ undone: true }).where('id', '=', id).execute()
    const turned = await keep(tx, title, turn + 1, await turnedRows(tx, tables, rows))
    return { edit: turned ?? { id, title, turn: turn + 1 }, tables }
  })

/** A sentence that is told within another one. */
const unquoted = (title: string) => title.replaceAll(/[“”]/g, '’')

const column = (name: string) => sql.ref(name)
/** A row as text that nothing reads before it is compared or put back: figures and times stay as exact as they are. */
const keyIn = (table: EditedTable, row: string) =>
  sql`jsonb_build_array(${sql.join(KEYS[table].map((key) => sql`${sql.raw(row)}->${sql.lit(key)}`))})`

async function inTurn<A, B>(all: readonly A[], act: (one: A) => Promise<B>): Promise<B[]> {
  const done: B[] = []
  for (const one of all) done.push(await act(one))
  return done
}

async function rowsOf(tx: Db, { table, by, ids }: Touched): Promise<string> {
  const { rows } = await sql<{ all: string }>`
    select coalesce(jsonb_agg(to_jsonb(x)), '[]')::text as all
    from (select * from ${sql.table(table)} where ${column(by)} = any(${[...ids]}::uuid[]) for update) x`.execute(tx)
  return rows[0]?.all ?? '[]'
}

/** Of each row that became another one, what it was and what it is. */
async function changesOf(tx: Db, scopes: readonly Touched[], before: readonly string[]): Promise<string[]> {
  return inTurn([...scopes.entries()], async ([at, { table, by, ids }]) => {
    const { rows } = await sql<{ all: string }>`
      select coalesce(jsonb_agg(jsonb_build_object('table', ${table}::text, 'before', was.row, 'after', is_now.row)), '[]')::text as all
      from jsonb_array_elements(${before[at] ?? '[]'}::jsonb) as was (row)
        full join (select to_jsonb(x) as row from ${sql.table(table)} x where ${column(by)} = any(${[...ids]}::uuid[])) is_now
          on ${keyIn(table, 'was.row')} = ${keyIn(table, 'is_now.row')}
      where was.row is distinct from is_now.row`.execute(tx)
    return rows[0]?.all ?? '[]'
  })
}

async function keep(tx: Db, title: string, turn: number, changes: readonly string[]): Promise<Edit | undefined> {
  const all = sql.join(
    changes.map((one) => sql`${one}::jsonb`),
    sql` || `,
  )
  await sql`delete from edit where at < clock_timestamp() - make_interval(days => ${KEPT_DAYS})`.execute(tx)
  const { rows } = await sql<{ id: string }>`
    insert into edit (title, turn, rows) select ${title}, ${turn}, changed.rows from (select ${all} as rows) changed
    where jsonb_array_length(changed.rows) > 0 returning id`.execute(tx)
  return rows[0] && { id: rows[0].id, title, turn }
}

async function tablesIn(tx: Db, rows: string): Promise<EditedTable[]> {
  const { rows: found } = await sql<{ name: string }>`
    select distinct change->>'table' as name from jsonb_array_elements(${rows}::jsonb) change`.execute(tx)
  return TABLES.filter((table) => found.some(({ name }) => name === table))
}

const NONE = sql`'null'::jsonb`
const changesIn = (table: EditedTable, rows: string) => sql`
  (select change->'before' as before, change->'after' as after from jsonb_array_elements(${rows}::jsonb) change
    where change->>'table' = ${table}) change`
/** The row of a table that a change is about, as it was or as it is. */
const about = (table: EditedTable) => sql`
  jsonb_populate_record(null::${sql.table(table)}, case when change.after = ${NONE} then change.before else change.after end) k`
const sameKey = (table: EditedTable) =>
  sql.join(
    KEYS[table].map((key) => sql`x.${column(key)} = k.${column(key)}`),
    sql` and `,
  )

async function changedSince(tx: Db, tables: readonly EditedTable[], rows: string) {
  const counts = await inTurn(tables, async (table) => {
    const { rows: found } = await sql<{ changed: number; all: number }>`
      select count(*) filter (where ${
        // Of a plan itself there is a version alone, which goes on by every turn; its rows stand beside it.
        table === 'plan' ? sql`x.production_id is null` : sql`coalesce(to_jsonb(x), ${NONE}) <> change.after`
      })::int as changed, count(*)::int as all
      from ${changesIn(table, rows)} cross join lateral ${about(table)} left join ${sql.table(table)} x on ${sameKey(table)}`.execute(
      tx,
    )
    return found[0] ?? { changed: 0, all: 0 }
  })
  const sum = (of: 'changed' | 'all') => counts.reduce((total, one) => total + one[of], 0)
  return { changed: sum('changed'), all: sum('all') }
}

/** A plan that was begun stays as an empty one, so that its version goes on. */
const dropNew = (tx: Db, table: EditedTable, rows: string) =>
  table === 'plan'
    ? sql`update plan x set version = x.version + 1 from ${changesIn(table, rows)} cross join lateral ${about(table)}
    where ${sameKey(table)} and change.before = ${NONE}`.execute(tx)
    : sql`delete from ${sql.table(table)} x using ${changesIn(table, rows)} cross join lateral ${about(table)}
    where ${sameKey(table)} and change.before = ${NONE}`.execute(tx)

async function putBefore(tx: Db, table: EditedTable, rows: string): Promise<void> {
  const { rows: columns } = await sql<{ name: string }>`
    select column_name as name from information_schema.columns
    where table_schema = 'public' and table_name = ${table} and is_generated = 'NEVER'`.execute(tx)
  const keys: readonly string[] = KEYS[table]
  const rest = columns.filter(({ name }) => !keys.includes(name))
  // The version of a plan goes on: who saw the one before must not write over what was put back.
  const before =
    table === 'plan'
      ? sql`change.before || jsonb_build_object('version', (change.after->>'version')::int + 1)`
      : sql`change.before`
  await sql`
    insert into ${sql.table(table)} select k.* from ${changesIn(table, rows)}
      cross join lateral jsonb_populate_record(null::${sql.table(table)}, ${before}) k
    where change.before <> ${NONE}
    on conflict (${sql.join(keys.map(column))}) do ${
      rest.length === 0
        ? sql`nothing`
        : sql`update set ${sql.join(rest.map(({ name }) => sql`${column(name)} = excluded.${column(name)}`))}`
    }`.execute(tx)
}

/** What taking a change back changed: the same rows the other way round, as they are now. */
const turnedRows = (tx: Db, tables: readonly EditedTable[], rows: string) =>
  inTurn(tables, async (table) => {
    const { rows: found } = await sql<{ all: string }>`
      select jsonb_agg(jsonb_build_object('table', ${table}::text, 'before', change.after, 'after', to_jsonb(x)))::text as all
      from ${changesIn(table, rows)} cross join lateral ${about(table)} left join ${sql.table(table)} x on ${sameKey(table)}`.execute(
      tx,
    )
    return found[0]?.all ?? '[]'
  })

/** Whether two clips of one production have one name, of those that were put back. */
async function namedTwice(tx: Db, rows: string): Promise<boolean> {
  const { rows: found } = await sql`
    select from review said join media_file file on file.id = said.media_file_id
    where file.production_id in (
      select back.production_id from ${changesIn('review', rows)} join media_file back on back.id = (change.after->>'media_file_id')::uuid
        or back.id = (change.before->>'media_file_id')::uuid)
    group by file.production_id, lower(said.name) having lower(said.name) is not null and count(*) > 1 limit 1`.execute(
    tx,
  )
  return found.length > 0
}
