import { fileTitle } from '../../../core/shelf/bag'
import type { Settings } from '../../../contract/copies'
import type { NewProduction } from '../../../contract/productions'
import type { Db } from '../connection'

export const productions = (db: Db) => db.selectFrom('production').selectAll().orderBy('createdAt', 'desc').execute()

export const production = (db: Db, id: string) =>
  db.selectFrom('production').selectAll().where('id', '=', id).executeTakeFirst()

/** `undefined` when another production has that folder: the database decides, so that two at once cannot both have it. */
export const addProduction = (
  db: Db,
  { title, client, shootOn, timeZone }: Partial<NewProduction> & { title: string },
) =>
  db
    .insertInto('production')
    .values({
      title,
      client: client ?? '',
      shootOn: shootOn || null,
      folder: fileTitle(title),
      timeZone: timeZone || Intl.DateTimeFormat().resolvedOptions().timeZone,
    })
    .onConflict((at) => at.doNothing())
    .returningAll()
    .executeTakeFirst()

const DEFAULTS: Settings = { policy: 'at-home-only', atHome: true, acceptMemory: false, proofHours: 24 }

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
