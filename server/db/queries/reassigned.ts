import { sql } from 'kysely'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'

/** What is counted of cards in each production that has clips of them. */
export const cardParts = (db: Db, productionIds: readonly string[]) =>
  db.selectFrom('loadSummary').selectAll().where(anyOf('production_id', productionIds)).execute()

export type CardPart = Awaited<ReturnType<typeof cardParts>>[number]

/**
 * Gives clips to a production, each with all its files. What was said of them stays, but for the shot and the name that
 * the production before gave them. False where one is no clip, and then nothing changes.
 */
export const giveClips = (db: Db, clipIds: readonly string[], productionId: string): Promise<boolean> =>
  inTransaction(db, async (tx) => {
    const places = await tx.selectFrom('takeFile').select('takeId').where(anyOf('media_file_id', clipIds)).execute()
    if (places.length < new Set(clipIds).size) return false
    const ids = places.map((place) => place.takeId)
    const { rows: moved } = await sql<{ id: string }>`
      with moment as (select coalesce(rig_take_id, id) as id from take where id = any(${ids}::uuid[])),
        whole as (select id from moment union select take.id from take join moment on moment.id = take.rig_take_id)
      update media_file set production_id = ${productionId}
      where id in (select f.media_file_id from take_file f join whole on whole.id = f.take_id)
        and production_id <> ${productionId}
      returning id`.execute(tx)
    await tx
      .updateTable('review')
      .set({ shotId: null, name: null })
      .where(
        anyOf(
          'media_file_id',
          moved.map((clip) => clip.id),
        ),
      )
      .execute()
    return true
  })
