import { sql } from 'kysely'
import { AT_HOME_ONLY, strictest, type ClearRule } from '../../../core/copies/rule'
import { parted } from '../../../core/units/parted'
import type { RuleBody } from '../../../contract/rules'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { readSettings } from './settings'
import { versionIn } from './versions'

/** All rules, those that came with the application first. */
export const clearRules = (db: Db) =>
  db
    .selectFrom('clearRule')
    .select(['id', 'name', 'copies', 'devices', 'media', 'sites', 'played', 'cardOut', 'atDesk', 'proofHours'])
    .select(['acceptMemory', 'shipped', 'putAwayAt'])
    .select(versionIn('clear_rule').as('version'))
    .orderBy('shipped', 'desc')
    .orderBy('createdAt')
    .orderBy('name')
    .execute()

/** Writes a rule. Throws when its name is taken (`isTaken`). */
export const addRule = (db: Db, body: RuleBody) =>
  db.insertInto('clearRule').values(body).returning('id').executeTakeFirstOrThrow()

/** Changes a rule that is a person’s own. `undefined` when there is none; throws when its name is taken. */
export const changeRule = (db: Db, id: string, body: RuleBody) =>
  db
    .updateTable('clearRule')
    .set(body)
    .where('id', '=', id)
    .where('shipped', '=', false)
    .returning('id')
    .executeTakeFirst()

/** Clients and productions with a rule of their own. */
export const ruleChoosers = async (db: Db) => {
  const [clients, productions] = await Promise.all([
    db.selectFrom('client').select(['id', 'name', 'ruleId']).where('ruleId', 'is not', null).execute(),
    db.selectFrom('production').select(['id', 'title as name', 'ruleId']).where('ruleId', 'is not', null).execute(),
  ])
  return { clients, productions }
}

/** Gives a production a rule of its own, or takes it away. False where there is no such production or rule. */
export async function chooseRule(db: Db, productionId: string, ruleId: string | null): Promise<boolean> {
  const { rows } = await sql`update production set rule_id = ${ruleId} where id = ${productionId} returning id`.execute(
    db,
  )
  return rows.length > 0
}

/** Which rule holds where. */
export interface RuleChoices {
  readonly rules: ReadonlyMap<string, ClearRule>
  /** By its id; holds where nobody chose another. */
  readonly usual: string
  /** Rules of productions for which one was chosen, or for whose client. */
  readonly chosen: ReadonlyMap<string, string>
  readonly atHome: boolean
}

/** Which rule holds for which production. */
export async function ruleChoices(db: Db): Promise<RuleChoices> {
  const [rules, { atHome, ruleId }, chosen] = await Promise.all([
    db.selectFrom('clearRule').selectAll().execute(),
    readSettings(db),
    db
      .selectFrom('production')
      .leftJoin('client', 'client.id', 'production.clientId')
      .select(['production.id', sql<string>`coalesce(production.rule_id, client.rule_id)`.as('ruleId')])
      .where((at) => at.or([at('production.ruleId', 'is not', null), at('client.ruleId', 'is not', null)]))
      .execute(),
  ])
  return {
    rules: new Map(rules.map((rule) => [rule.id, rule])),
    usual: ruleId,
    chosen: new Map(chosen.map((row) => [row.id, row.ruleId])),
    atHome,
  }
}

/** The rule of a production; that which is asked for everywhere where it names one that is not there. */
export const ruleOf = ({ rules, usual, chosen }: RuleChoices, productionId: string): ClearRule =>
  rules.get(chosen.get(productionId) ?? usual) ?? rules.get(usual) ?? AT_HOME_ONLY

/**
 * The rule that each load obeys, by its id: that of its production, and where other productions have clips of it the
 * strictest of all of them, point by point.
 */
export async function rulesOfLoads(
  db: Db,
  loads: readonly { readonly id: string; readonly productionId: string }[],
  choices: RuleChoices,
): Promise<ReadonlyMap<string, ClearRule>> {
  const parts =
    choices.chosen.size === 0
      ? []
      : await db
          .selectFrom('loadSummary')
          .select(['loadId', 'productionId'])
          .where('clips', '>', 0)
          .where(
            anyOf(
              'load_id',
              loads.map((load) => load.id),
            ),
          )
          .execute()
  const partsOf = parted(parts, (part) => [part.loadId])
  return new Map(
    loads.map(({ id, productionId }) => [
      id,
      strictest([ruleOf(choices, productionId), ...partsOf(id).map((part) => ruleOf(choices, part.productionId))]),
    ]),
  )
}

/** The rule that the load of a file obeys. */
export async function ruleOfEntry(db: Db, entryId: number): Promise<ClearRule> {
  const [choices, load] = await Promise.all([
    ruleChoices(db),
    db
      .selectFrom('loadEntry')
      .innerJoin('load', 'load.id', 'loadEntry.loadId')
      .select(['load.id', 'load.productionId'])
      .where('loadEntry.id', '=', entryId)
      .executeTakeFirst(),
  ])
  return (load && (await rulesOfLoads(db, [load], choices)).get(load.id)) ?? AT_HOME_ONLY
}

/** Productions of a client that chose no rule for themselves. */
export const productionsOfClient = async (db: Db, clientId: string): Promise<string[]> =>
  (
    await db
      .selectFrom('production')
      .select('id')
      .where('clientId', '=', clientId)
      .where('ruleId', 'is', null)
      .execute()
  ).map((row) => row.id)

/** The rule that a production chose, and that of its client. `undefined` where there is no such production. */
export const rulesOfProduction = (db: Db, productionId: string) =>
  db
    .selectFrom('production')
    .leftJoin('client', 'client.id', 'production.clientId')
    .select(['production.ruleId as own', 'client.ruleId as ofClient', 'client.name as client'])
    .where('production.id', '=', productionId)
    .executeTakeFirst()

/** The newest loads of which nobody says that their card was formatted. */
export const newestUnformatted = (db: Db, limit: number) =>
  db
    .selectFrom('load')
    .select('load.id')
    .where(
      sql<boolean>`coalesce((
        select kind from said where said.load_id = load.id and kind in ('formatted', 'unformatted') and twin_id is null
        order by id desc limit 1), '') <> 'formatted'`,
    )
    .orderBy('load.createdAt', 'desc')
    .limit(limit)
    .execute()
