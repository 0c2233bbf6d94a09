import { sql } from 'kysely'
import type { LensCard, LensClip, RigOddity } from '../../../core/cards/load/rig'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import type { TakeRow } from './takes'

/** Cards of a production with the rig that they are in, by rig and lens. */
export const rigCards = (db: Db, productionId: string) =>
  db
    .selectFrom('load')
    .leftJoin('rig', 'rig.id', 'load.rigId')
    .select(['load.id as loadId', 'load.label', 'load.rigId', 'load.lens', 'load.rigOdd', 'load.lookDone'])
    .select(['load.noRig', 'load.rigProposed'])
    .select(sql<number>`(select sum(media)::int from load_summary where load_id = load.id)`.as('clips'))
    .select(['rig.name', 'rig.sentence'])
    .where('load.productionId', '=', productionId)
    .orderBy('rig.createdAt')
    .orderBy('load.lens')
    .orderBy('load.createdAt')
    .execute()

/** What cards filmed, in the order in which they filmed it; files of one take each by itself. */
export async function lensCards(db: Db, loads: readonly { loadId: string; label: string }[]): Promise<LensCard[]> {
  const rows = await db
    .selectFrom('mediaFile')
    .select(['id', 'loadId', 'name', 'seconds'])
    .select('recordedAt as at')
    .where(
      anyOf(
        'load_id',
        loads.map((load) => load.loadId),
      ),
    )
    .where('shown', '=', true)
    .where('hasVideo', '=', true)
    // Counters go on where clocks may have been set.
    .orderBy('sortPath')
    .orderBy('id')
    .execute()
  const clips = new Map<string, LensClip[]>()
  for (const { loadId, at, ...clip } of rows) {
    const startMs = Date.parse(at)
    const known = clips.get(loadId) ?? []
    known.push({ ...clip, startMs: Number.isNaN(startMs) ? undefined : startMs })
    clips.set(loadId, known)
  }
  return loads.map(({ loadId, label }) => ({ loadId, label, clips: clips.get(loadId) ?? [] }))
}

/**
 * Ties cards of a production into a rig, the first lens first. False where one is no card of it, or is in a rig
 * already.
 */
export const tieRig = (
  db: Db,
  productionId: string,
  { name, loadIds }: { readonly name: string; readonly loadIds: readonly string[] },
): Promise<boolean> =>
  inTransaction(db, async (tx) => {
    const { id } = await tx.insertInto('rig').values({ productionId, name }).returning('id').executeTakeFirstOrThrow()
    for (const [at, loadId] of loadIds.entries()) {
      const tied = await tx
        .updateTable('load')
        .set({ rigId: id, lens: at + 1 })
        .where('id', '=', loadId)
        .where('productionId', '=', productionId)
        .where('rigId', 'is', null)
        .returning('id')
        .executeTakeFirst()
      if (!tied) throw new NotTied()
    }
    return true
  }).catch((error: unknown) => {
    if (error instanceof NotTied) return false
    throw error
  })

class NotTied extends Error {}

/**
 * Unties a rig; its cards stay, and so does what was said of their clips. Returns its production, `undefined` when
 * there is none.
 */
export const untieRig = (db: Db, rigId: string): Promise<string | undefined> =>
  inTransaction(db, async (tx) => {
    await sql`update take set rig_take_id = null from media_file file join load on load.id = file.load_id
      where file.id = take.id and load.rig_id = ${rigId} and take.rig_take_id is not null`.execute(tx)
    await tx.updateTable('load').set({ rigId: null, lens: null, rigOdd: null }).where('rigId', '=', rigId).execute()
    return (await tx.deleteFrom('rig').where('id', '=', rigId).returning('productionId').executeTakeFirst())
      ?.productionId
  })

/** Which cards of a production seem to be one rig. */
export const proposeRig = (db: Db, productionId: string, loadIds: readonly string[]) =>
  db
    .updateTable('load')
    .set({ rigProposed: sql<boolean>`id = any(${[...loadIds]}::uuid[])` })
    .where('productionId', '=', productionId)
    .where(sql<boolean>`rig_proposed <> (id = any(${[...loadIds]}::uuid[]))`)
    .execute()

/** These cards are no rig, as a person said. */
export const refuseRig = (db: Db, productionId: string, loadIds: readonly string[]) =>
  db
    .updateTable('load')
    .set({ noRig: true })
    .where('productionId', '=', productionId)
    .where(anyOf('id', loadIds))
    .execute()

/** What a rig comes to: its sentence, what is odd about each card, and which clips are one take with another. */
export const putRig = (
  db: Db,
  rigId: string,
  found: {
    readonly sentence: string
    readonly odd: readonly { readonly loadId: string; readonly oddities: readonly RigOddity[] }[]
    readonly lenses: readonly { readonly id: string; readonly of: string }[]
  },
): Promise<void> =>
  inTransaction(db, async (tx) => {
    await tx.updateTable('rig').set({ sentence: found.sentence }).where('id', '=', rigId).execute()
    for (const { loadId, oddities } of found.odd)
      await tx
        .updateTable('load')
        .set({ rigOdd: oddities.length === 0 ? null : JSON.stringify(oddities) })
        .where('id', '=', loadId)
        .execute()
    await sql`with said as (
        select distinct lens.take_id as id, head.take_id as "of"
        from jsonb_to_recordset(${JSON.stringify(found.lenses)}::jsonb) as f(id uuid, "of" uuid)
          join take_file lens on lens.media_file_id = f.id join take_file head on head.media_file_id = f."of"
        where lens.take_id <> head.take_id),
      meant as (
        select distinct on (id) id, "of" from (select id, "of" from said union all select "of", "of" from said) both_ways
        order by id, id = "of" desc, "of")
      update take set rig_take_id = meant."of"
      from media_file file join load on load.id = file.load_id left join meant on meant.id = file.id
      where take.id = file.id and load.rig_id = ${rigId} and take.rig_take_id is distinct from meant."of"`.execute(tx)
  })

/** Takes that the other lenses of a rig filmed with one. */
export const otherLenses = async (db: Db, { id, rigTakeId }: TakeRow): Promise<string[]> =>
  rigTakeId === null
    ? []
    : (await db.selectFrom('take').select('id').where('rigTakeId', '=', rigTakeId).where('id', '<>', id).execute()).map(
        (take) => take.id,
      )
