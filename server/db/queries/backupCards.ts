import { anyOf } from '../anyOf'
import type { Db } from '../connection'

/** A second card with the content of a load was seen; a new stay of a known one counts as seen anew. Returns its id. */
export const putBackupCard = (
  db: Db,
  card: { readonly loadId: string; readonly key: string; readonly name: string; readonly exact: boolean },
) =>
  db
    .insertInto('twin')
    .values(card)
    .onConflict((at) => at.columns(['loadId', 'key']).doUpdateSet({ name: card.name, exact: card.exact }))
    .returning('id')
    .executeTakeFirstOrThrow()

/** It was put into a reader again, or scanned. */
export const seeBackupCardAgain = (db: Db, id: string) =>
  db.updateTable('twin').set({ seenAt: new Date() }).where('id', '=', id).execute()

/** Twins of loads, each with its latest reading that went through. */
export const backupCardsOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('twin')
    .leftJoinLateral(
      (at) =>
        at
          .selectFrom('twinReading')
          .selectAll()
          .whereRef('twinReading.twinId', '=', 'twin.id')
          .orderBy('id', 'desc')
          .limit(1)
          .as('reading'),
      (join) => join.onTrue(),
    )
    .selectAll('twin')
    .select(['reading.at as readAt', 'reading.print as readPrint', 'reading.stayId as readStayId'])
    .select(['reading.filesEqual', 'reading.filesMemory', 'reading.filesWrong'])
    .where(anyOf('twin.load_id', loadIds))
    .orderBy('firstSeenAt')
    .execute()

export type BackupCardRow = Awaited<ReturnType<typeof backupCardsOf>>[number]

/** A backup card was read whole. */
export const addBackupCardReading = (
  db: Db,
  values: {
    twinId: string
    print: string
    filesEqual: number
    filesMemory: number
    filesWrong: number
    sizeBytes: number
    runId: string
    stayId: string | null
  },
) => db.insertInto('twinReading').values(values).execute()

/** A copy of a load begins to read its backup card: of its own card only samples are known from then on. */
export const noteReadFromBackupCard = (db: Db, loadId: string) =>
  db.updateTable('load').set({ readFromTwin: true }).where('id', '=', loadId).execute()
