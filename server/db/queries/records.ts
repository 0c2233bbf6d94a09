import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { lock } from '../lock'

const KEY = 'books'

/** What these records are called, and since when they are known to be older than what they had written on a drive. */
export interface OwnRecords {
  readonly id: string
  readonly olderSince: string | null
}

async function read(db: Db): Promise<OwnRecords | undefined> {
  const row = await db.selectFrom('setting').select('value').where('key', '=', KEY).executeTakeFirst()
  return row?.value as OwnRecords | undefined
}

/** When these records were found to be older, as an ISO time; `null` while they are not. */
export const olderSince = async (db: Db): Promise<string | null> => (await read(db))?.olderSince ?? null

/** These records; named when they are asked for the first time. */
export const ownRecords = (db: Db): Promise<OwnRecords> =>
  inTransaction(db, async (tx) => {
    await lock(tx, KEY)
    const known = await read(tx)
    if (known) return known
    const made: OwnRecords = { id: randomUUID(), olderSince: null }
    await put(tx, made)
    return made
  })

const put = (db: Db, value: OwnRecords) =>
  db
    .insertInto('setting')
    .values({ key: KEY, value: JSON.stringify(value) })
    .onConflict((at) => at.column('key').doUpdateSet({ value: JSON.stringify(value) }))
    .execute()

/** They lack what was known when a drive was written on: every proof made until now must be made again. */
export const areOlder = (db: Db): Promise<void> =>
  inTransaction(db, async (tx) => {
    await lock(tx, KEY)
    const known = await read(tx)
    const { rows } = await sql<{ now: Date }>`select clock_timestamp() as now`.execute(tx)
    if (known) await put(tx, { ...known, olderSince: (rows[0]?.now ?? new Date()).toISOString() })
  })

/** Rises with every fact: what is written on drives is old when it has. */
export async function latestFacts(db: Db): Promise<string> {
  const { rows } = await sql<{ state: string }>`
    select coalesce((select max(id) from proof), 0) || ' ' || coalesce((select max(id) from seen), 0) || ' ' ||
      coalesce((select max(id) from said), 0) || ' ' || coalesce((select max(id) from reading), 0) || ' ' ||
      coalesce((select max(id) from comparison), 0) || ' ' ||
      coalesce((select md5(string_agg(concat(id, card_difference, card_doubted_at), ' ' order by id)) from load
        where card_difference is not null or card_doubted_at is not null), '') as state`.execute(db)
  return rows[0]?.state ?? ''
}

/** A new state of the records, before it is written on drives. */
export const newMark = (db: Db) =>
  db.insertInto('booksMark').defaultValues().returning(['token', 'number']).executeTakeFirstOrThrow()

/** Whether a state that was found on a drive is one of these records. */
export const knowsMark = async (db: Db, token: string): Promise<boolean> =>
  (await db.selectFrom('booksMark').select('token').where('token', '=', token).executeTakeFirst()) !== undefined

/** The state stands on these volumes now. */
export const markedVolumes = (db: Db, host: string, volumeIds: readonly string[], number: number) =>
  db
    .updateTable('mount')
    .set({ booksNumber: number, booksAt: new Date() })
    .where('host', '=', host)
    .where(anyOf('volume_id', volumeIds))
    .execute()

/** The newest state. */
export const latestMark = async (db: Db): Promise<number> =>
  (
    await db
      .selectFrom('booksMark')
      .select((at) => at.fn.max('number').as('number'))
      .executeTakeFirst()
  )?.number ?? 0
