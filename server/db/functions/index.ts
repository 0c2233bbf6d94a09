import { createHash } from 'node:crypto'
import { sql, type Kysely } from 'kysely'
import type { Database } from '../schema'
import bytes from './bytes.sql?raw'
import chart from './chart.sql?raw'
import copies from './copies.sql?raw'
import media from './media.sql?raw'
import search from './search.sql?raw'

const TEXT = [bytes, copies, media, search, chart].join('\n')
const PRINT = createHash('sha256').update(TEXT).digest('hex')

/** Gives a database at the newest schema the functions and triggers of this version, where it has those of another. */
export async function giveFunctions(db: Kysely<Database>): Promise<void> {
  if (await hasThese(db)) return
  await db.transaction().execute(async (tx) => {
    // Two programs may open it at once.
    await sql`lock table function_text in exclusive mode`.execute(tx)
    if (await hasThese(tx)) return
    await sql.raw(TEXT).execute(tx)
    await tx.deleteFrom('functionText').execute()
    await tx.insertInto('functionText').values({ print: PRINT }).execute()
  })
}

const hasThese = async (db: Kysely<Database>): Promise<boolean> =>
  (await db.selectFrom('functionText').select('print').executeTakeFirst())?.print === PRINT
