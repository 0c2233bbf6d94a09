import { sql } from 'kysely'
import { USUAL_HOURS, type CycleHours } from '../../../core/copies/cycle'
import type { UsualRule } from '../../../contract/rules'
import type { NoticedFolders } from '../../../contract/noticed'
import type { UnattendedRule } from '../../../contract/unattended'
import type { PlanRulesBody } from '../../../contract/gear'
import type { Db } from '../connection'

/** The first of the rules that come with the application (`migrations/0036-rules.ts`). */
export const AT_HOME_ID = '00000000-0000-4000-8000-000000000001'
const DEFAULTS: UsualRule = { ruleId: AT_HOME_ID, atHome: true }

/** Common practice, no source. */
const RULES: PlanRulesBody = { fillLimit: 0.9, spareCards: 1, factor: 1.2, mains: 50 }

async function read<T extends object>(db: Db, key: string, defaults: T): Promise<T> {
  const row = await db.selectFrom('setting').select('value').where('key', '=', key).executeTakeFirst()
  return { ...defaults, ...row?.value }
}

const write = (db: Db, key: string, value: object) =>
  db
    .insertInto('setting')
    .values({ key, value: JSON.stringify(value) })
    .onConflict((at) => at.column('key').doUpdateSet({ value: JSON.stringify(value) }))
    .execute()

/** Which rule says when a card may be formatted, as the person chose it; the careful one until then. */
export const readSettings = (db: Db): Promise<UsualRule> => read(db, 'person', DEFAULTS)

/** Keeps what of it is given; the rest stays as it is. */
export const writeSettings = (db: Db, settings: { readonly [Name in keyof UsualRule]?: UsualRule[Name] | undefined }) =>
  db
    .insertInto('setting')
    .values({ key: 'person', value: JSON.stringify(settings) })
    .onConflict((at) => at.column('key').doUpdateSet({ value: sql`setting.value || excluded.value` }))
    .execute()

/** How carefully recordings are planned, as the person chose it. */
export const readPlanRules = (db: Db): Promise<PlanRulesBody> => read(db, 'planning', RULES)

/** Keeps how carefully recordings are planned. */
export const writePlanRules = (db: Db, rules: PlanRulesBody) => write(db, 'planning', rules)

/** Folders beside the usual ones in which cards and drives are noticed. */
export const readNoticed = (db: Db): Promise<NoticedFolders> => read(db, 'noticed', { folders: [] })

/** Keeps them. */
export const writeNoticed = (db: Db, noticed: NoticedFolders) => write(db, 'noticed', noticed)

/** The rule for the tired: off until somebody switches it on. */
export const readUnattended = (db: Db): Promise<UnattendedRule> =>
  read(db, 'unattended', { on: false, productionId: null, volumeIds: [] })

/** Keeps it. */
export const writeUnattended = (db: Db, rule: UnattendedRule) => write(db, 'unattended', rule)

/** When copies are read again by themselves. */
export const readCycle = (db: Db): Promise<CycleHours> => read(db, 'cycle', USUAL_HOURS)

/** Keeps it. */
export const writeCycle = (db: Db, hours: CycleHours) => write(db, 'cycle', hours)

/** How fast a computer makes checksums, in bytes per second; `undefined` before it was measured. */
export const hashSpeed = async (db: Db, host: string): Promise<number | undefined> =>
  (await read<{ hashBytesPerSecond?: number }>(db, `computer ${host}`, {})).hashBytesPerSecond

/** Keeps it. */
export const putHashSpeed = (db: Db, host: string, hashBytesPerSecond: number) =>
  write(db, `computer ${host}`, { hashBytesPerSecond })

/** How far the story of the demo has come: its day, the first evening, and what is said of it while it goes on. */
export interface DemoStory {
  /** ISO 8601; `null` where there is no story. */
  readonly day: string | null
  readonly today: string | null
  readonly says: string | null
  readonly done: boolean
}

export const readStory = (db: Db): Promise<DemoStory> =>
  read(db, 'story', { day: null, today: null, says: null, done: false })

export const writeStory = (db: Db, story: DemoStory) => write(db, 'story', story)
