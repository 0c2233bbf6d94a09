import { sql } from 'kysely'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'

/** What is counted of cards in each production that has clips of them. */
export const cardParts = (db: Db, productionIds: readonly string[]) =>
  db.selectFrom('loadSummary').selectAll().where(anyOf('production_id', productionIds)).execute()

export type CardPart = Awaited<ReturnType<typeof cardParts>>[number]

/**
 * Gives clips to a production, each with all its files. What was said of them stays, but for the shot and the name that the
 * production before gave them. False where one is no clip, and then nothing changes.
 */
export const giveClips = (db: Db, clipIds: readonly string[], productionId: string): Promise<boolean> =>
  inTransaction(db, async (tx) => {
    const clips = await tx.selectFrom('clip').select(['id', 'takeId', 'memberOf']).where(anyOf('id', clipIds)).execute()
    if (clips.length < new Set(clipIds).size) return false
    const firsts = clips.map((clip) => clip.memberOf ?? clip.takeId ?? clip.id)
    const { rows: moved } = await sql<{ id: string }>`
      with take as (select id, lens_of from clip where id = any(${firsts}::uuid[]) or take_id = any(${firsts}::uuid[])),
        head as (select coalesce(lens_of, id) as id from take),
        whole as (select id from take union select id from clip where lens_of in (select id from head) union select id from head)
      update clip set production_id = ${productionId}
      where (id in (select id from whole) or member_of in (select id from whole)) and production_id <> ${productionId}
      returning id`.execute(tx)
    await tx
      .updateTable('review')
      .set({ shotId: null, name: null })
      .where(
        anyOf(
          'clip_id',
          moved.map((clip) => clip.id),
        ),
      )
      .execute()
    return true
  })
