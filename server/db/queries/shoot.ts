import type { RecordingPlan } from '../../../core/shoot/plan'
import type { NewShot } from '../../../core/shoot/shots'
import type { DayBody, PlanBody, ShotBody } from '../../../contract/shoot'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { versionIn } from './versions'
import { lock } from '../lock'

export interface PlanRow extends RecordingPlan {
  readonly productionId: string
  readonly version: number
}

/** The recording plans of productions; those that plan nothing have none. */
export async function plansOf(db: Db, productionIds: readonly string[]): Promise<PlanRow[]> {
  const mine = anyOf('production_id', productionIds)
  const [plans, takes, cameras, cards] = await Promise.all([
    db.selectFrom('plan').selectAll().where(mine).execute(),
    db.selectFrom('plannedTakes').selectAll().where(mine).orderBy('place').execute(),
    db.selectFrom('plannedCamera').selectAll().where(mine).orderBy('place').execute(),
    db.selectFrom('plannedCard').selectAll().where(mine).orderBy('place').execute(),
  ])
  return plans.map(({ productionId, version }) => ({
    productionId,
    version,
    takes: takes
      .filter((row) => row.productionId === productionId)
      .map(({ cameraId, modeId, secondsPerTake, takes: count, angles, factor }) => ({
        ...{ cameraId, modeId, secondsPerTake, takes: count, angles, factor },
      })),
    cameras: cameras
      .filter((row) => row.productionId === productionId)
      .map(({ cameraId, bothSlots, cardBytes, cardBytesPerSecond }) => ({
        ...{ cameraId, bothSlots, cardBytes, cardBytesPerSecond },
        cardIds: cards
          .filter((card) => card.productionId === productionId && card.cameraId === cameraId)
          .map((card) => card.cardId),
      })),
  }))
}

export async function planOf(db: Db, productionId: string): Promise<PlanRow> {
  const [plan] = await plansOf(db, [productionId])
  return plan ?? { productionId, version: 0, takes: [], cameras: [] }
}

/**
 * Changes the whole plan and returns its new version; `undefined` when it is no longer the version that was changed. A
 * card goes into one camera: the last that names it. Throws when a camera, mode or card is not known (`isHeld`).
 */
export const putPlan = (db: Db, productionId: string, { version, takes, cameras }: PlanBody) =>
  inTransaction(db, async (tx) => {
    await tx
      .insertInto('plan')
      .values({ productionId })
      .onConflict((at) => at.doNothing())
      .execute()
    const changed = await tx
      .updateTable('plan')
      .set({ version: version + 1 })
      .where('productionId', '=', productionId)
      .where('version', '=', version)
      .returning('version')
      .executeTakeFirst()
    if (!changed) return undefined
    for (const table of ['plannedTakes', 'plannedCamera', 'plannedCard'] as const)
      await tx.deleteFrom(table).where('productionId', '=', productionId).execute()
    if (cameras.length > 0)
      await tx
        .insertInto('plannedCamera')
        .values(
          cameras.map(({ cameraId, bothSlots, cardBytes, cardBytesPerSecond }, place) => ({
            ...{ productionId, place, cameraId, bothSlots, cardBytes, cardBytesPerSecond },
          })),
        )
        .execute()
    if (takes.length > 0)
      await tx
        .insertInto('plannedTakes')
        .values(takes.map((one, place) => ({ ...one, productionId, place })))
        .execute()
    const cards = new Map(
      cameras.flatMap(({ cameraId, cardIds }) => cardIds.map((cardId) => [cardId, cameraId] as const)),
    )
    if (cards.size > 0)
      await tx
        .insertInto('plannedCard')
        .values([...cards].map(([cardId, cameraId], place) => ({ cardId, cameraId, productionId, place })))
        .execute()
    return changed.version
  })

/** Each camera as it was planned for the newest production but one. */
export async function lastPlans(db: Db, exceptId: string): Promise<Pick<RecordingPlan, 'takes' | 'cameras'>> {
  const newest = await db
    .selectFrom('plannedCamera')
    .innerJoin('production', 'production.id', 'plannedCamera.productionId')
    .where('production.id', '<>', exceptId)
    .distinctOn('plannedCamera.cameraId')
    .select(['plannedCamera.cameraId', 'production.id as productionId'])
    .orderBy('plannedCamera.cameraId')
    .orderBy('production.createdAt', 'desc')
    .execute()
  const plans = await plansOf(db, [...new Set(newest.map((one) => one.productionId))])
  const of = <T extends { readonly cameraId: string }>(pick: (plan: RecordingPlan) => readonly T[]) =>
    newest.flatMap(({ cameraId, productionId }) =>
      plans
        .filter((plan) => plan.productionId === productionId)
        .flatMap((plan) => pick(plan).filter((one) => one.cameraId === cameraId)),
    )
  return { takes: of((plan) => plan.takes), cameras: of((plan) => plan.cameras) }
}

/** Whether each mode of a plan is one of its camera. */
export async function modesFit(db: Db, takes: readonly { cameraId: string; modeId: string }[]): Promise<boolean> {
  const ids = takes.map((one) => one.modeId)
  const rows = await db.selectFrom('recordingMode').select(['id', 'cameraId']).where(anyOf('id', ids)).execute()
  return takes.every((one) => rows.some((row) => row.id === one.modeId && row.cameraId === one.cameraId))
}

/** Other productions that have a plan, the newest first. */
export const plannedProductions = (db: Db, exceptId: string) =>
  db
    .selectFrom('plannedTakes')
    .innerJoin('production', 'production.id', 'plannedTakes.productionId')
    .where('production.id', '<>', exceptId)
    .select(['production.id', 'production.title', 'production.createdAt'])
    .distinct()
    .orderBy('production.createdAt', 'desc')
    .limit(50)
    .execute()

/** Shots of a production in the order of its list. */
export const shotsOf = (db: Db, productionId: string) =>
  db
    .selectFrom('shot')
    .selectAll()
    .select(versionIn('shot').as('version'))
    .where('productionId', '=', productionId)
    .orderBy('place')
    .orderBy('id')
    .execute()

const lockList = (tx: Db, productionId: string) => lock(tx, `shots ${productionId}`)

/** Adds shots at the end of the list. */
export const addShots = (db: Db, productionId: string, shots: readonly NewShot[]) =>
  inTransaction(db, async (tx) => {
    await lockList(tx, productionId)
    const last = await tx
      .selectFrom('shot')
      .select(({ fn }) => [fn.max('place').as('place'), fn.countAll<number>().as('count')])
      .where('productionId', '=', productionId)
      .executeTakeFirstOrThrow()
    const first = last.count === 0 ? 0 : last.place + 1
    await tx
      .insertInto('shot')
      .values(
        shots.map(({ deliverables, filmedAt, ...shot }, at) => ({
          ...shot,
          filmedAt: filmedAt === null ? null : new Date(filmedAt),
          productionId,
          place: first + at,
          deliverables: JSON.stringify(deliverables),
        })),
      )
      .execute()
    return last.count + shots.length
  })

/** Changes a shot; `undefined` when there is none. */
export const changeShot = (db: Db, id: string, { deliverables, ...shot }: ShotBody) =>
  db
    .updateTable('shot')
    .set({ ...shot, deliverables: JSON.stringify(deliverables) })
    .where('id', '=', id)
    .returning('id')
    .executeTakeFirst()

/** Puts a shot before another one of its list, or at the end. False when there is no such shot. */
export const moveShot = (db: Db, id: string, before: string | null): Promise<boolean> =>
  inTransaction(db, async (tx) => {
    const shot = await tx.selectFrom('shot').select('productionId').where('id', '=', id).executeTakeFirst()
    if (!shot) return false
    // Two moves at once give one order.
    await lockList(tx, shot.productionId)
    const all = await tx
      .selectFrom('shot')
      .select('id')
      .where('productionId', '=', shot.productionId)
      .orderBy('place')
      .orderBy('id')
      .execute()
    const rest = all.map((row) => row.id).filter((one) => one !== id)
    const at = before === null ? rest.length : rest.indexOf(before)
    if (at < 0) return before === id
    const order = [...rest.slice(0, at), id, ...rest.slice(at)]
    for (const [place, one] of order.entries())
      await tx.updateTable('shot').set({ place }).where('id', '=', one).where('place', '<>', place).execute()
    return true
  })

/** Ticks a shot off, or takes the tick back; `undefined` when there is none. */
export const tickShot = (db: Db, id: string, filmedAt: string | null) =>
  db
    .updateTable('shot')
    .set({ filmedAt: filmedAt === null ? null : new Date(filmedAt) })
    .where('id', '=', id)
    .returning('id')
    .executeTakeFirst()

/** One shot; `undefined` when there is none. */
export const shot = (db: Db, id: string) =>
  db.selectFrom('shot').select(['id', 'name', 'productionId']).where('id', '=', id).executeTakeFirst()

/** Media files that are matched to a shot. */
export const clipsOfShot = async (db: Db, id: string): Promise<string[]> =>
  (await db.selectFrom('review').select('mediaFileId').where('shotId', '=', id).execute()).map((row) => row.mediaFileId)

export const removeShot = (db: Db, id: string) =>
  db.deleteFrom('shot').where('id', '=', id).returning('id').executeTakeFirst()

/** The day sheet of a production; empty until somebody writes it. */
export async function daySheet(db: Db, productionId: string): Promise<Pick<DayBody, 'place' | 'calls'>> {
  const row = await db.selectFrom('daySheet').selectAll().where('productionId', '=', productionId).executeTakeFirst()
  return { place: row?.place ?? '', calls: row?.calls ?? [] }
}

/** Keeps the day of a production: its date and zone with the production, the rest on its sheet. */
export const putDay = (db: Db, productionId: string, { shootOn, timeZone, place, calls }: DayBody) =>
  inTransaction(db, async (tx) => {
    const sheet = { place, calls: JSON.stringify(calls) }
    await tx
      .updateTable('production')
      .set({ shootOn: shootOn || null, timeZone })
      .where('id', '=', productionId)
      .execute()
    await tx
      .insertInto('daySheet')
      .values({ productionId, ...sheet })
      .onConflict((at) => at.column('productionId').doUpdateSet(sheet))
      .execute()
  })
