import type { Db } from '../connection'
import type { NewProduction } from '../../../contract/productions'
import type { Settings } from '../../../contract/copies'

export const productions = (db: Db) => db.selectFrom('production').selectAll().orderBy('createdAt', 'desc').execute()

export const production = (db: Db, id: string) =>
  db.selectFrom('production').selectAll().where('id', '=', id).executeTakeFirst()

export const addProduction = (db: Db, { title, client, shootOn }: NewProduction) =>
  db
    .insertInto('production')
    .values({ title, client, shootOn: shootOn || null })
    .returningAll()
    .executeTakeFirstOrThrow()

const DEFAULTS: Settings = { policy: 'at-home-only', atHome: true }

export async function readSettings(db: Db): Promise<Settings> {
  const row = await db.selectFrom('setting').select('value').where('key', '=', 'person').executeTakeFirst()
  return { ...DEFAULTS, ...row?.value }
}

export const writeSettings = (db: Db, settings: Settings) =>
  db
    .insertInto('setting')
    .values({ key: 'person', value: JSON.stringify(settings) })
    .onConflict((at) => at.column('key').doUpdateSet({ value: JSON.stringify(settings) }))
    .execute()
