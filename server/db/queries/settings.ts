import type { Settings } from '../../../contract/copies'
import type { Db } from '../connection'

const DEFAULTS: Settings = { policy: 'at-home-only', atHome: true, acceptMemory: false, proofHours: 24 }

/** When a card may be formatted, as the person chose it; the careful way until then. */
export async function readSettings(db: Db): Promise<Settings> {
  const row = await db.selectFrom('setting').select('value').where('key', '=', 'person').executeTakeFirst()
  return { ...DEFAULTS, ...row?.value }
}

/** Keeps when a card may be formatted. */
export const writeSettings = (db: Db, settings: Settings) =>
  db
    .insertInto('setting')
    .values({ key: 'person', value: JSON.stringify(settings) })
    .onConflict((at) => at.column('key').doUpdateSet({ value: JSON.stringify(settings) }))
    .execute()
