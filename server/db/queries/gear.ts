import { sql } from 'kysely'
import type { CameraBody, CardBody, ModeFigures } from '../../../contract/gear'
import { inTransaction, type Db } from '../connection'
import { versionIn } from './versions'

/** All cameras with the loads that they filmed, in the order in which they were added. */
export const cameras = (db: Db) =>
  db
    .selectFrom('camera')
    .selectAll()
    .select(versionIn('camera').as('version'))
    .select((at) => [
      at
        .selectFrom('load')
        .whereRef('load.cameraId', '=', 'camera.id')
        .select(({ fn }) => fn.countAll<number>().as('n'))
        .as('loads'),
      at
        .selectFrom('recorded')
        .whereRef('recorded.cameraId', '=', 'camera.id')
        .where('recorded.loadId', 'is', null)
        .select(({ fn }) => fn.countAll<number>().as('n'))
        .as('booked'),
    ])
    .orderBy('createdAt')
    .execute()

/** All recording modes, in the order in which they were added. */
export const modes = (db: Db) =>
  db
    .selectFrom('recordingMode')
    .selectAll()
    .select(versionIn('recording_mode').as('version'))
    .orderBy('createdAt')
    .execute()

/** All cards, each with its newest load and how many it has had. */
export const cards = (db: Db) =>
  db
    .selectFrom('card')
    .leftJoinLateral(
      (at) =>
        at
          .selectFrom('load')
          .whereRef('load.cardId', '=', 'card.id')
          .select(['load.id as loadId', 'load.createdAt as loadedAt', sql<number>`count(*) over ()`.as('loads')])
          .orderBy('load.createdAt', 'desc')
          .limit(1)
          .as('newest'),
      (join) => join.onTrue(),
    )
    .selectAll('card')
    .select(versionIn('card').as('version'))
    .select(['newest.loadId', 'newest.loadedAt', 'newest.loads'])
    .orderBy('card.name')
    .execute()

/**
 * Loads that nobody has given to a card yet and that bear a name in lower case, the newest of each; a second load of
 * one name is called `Curlew A (2)`.
 */
export const namesakeLoads = (db: Db, names: readonly string[]) => {
  const name = sql<string>`lower(btrim(regexp_replace(load.label, ' \\(\\d+\\)$', '')))`
  return db
    .selectFrom('load')
    .distinctOn(name)
    .select(['load.id', name.as('name'), 'load.createdAt'])
    .where('load.cardId', 'is', null)
    .where(sql<boolean>`${name} = any(${[...names]}::text[])`)
    .orderBy(name)
    .orderBy('load.createdAt', 'desc')
    .execute()
}

/** Productions whose day has not passed by `today` and that count on cards, the next day first. */
export const cardPromises = (db: Db, today: string) =>
  db
    .selectFrom('plannedCard')
    .innerJoin('production', 'production.id', 'plannedCard.productionId')
    .where('production.putAwayAt', 'is', null)
    .where((at) => at.or([at('production.shootOn', 'is', null), at('production.shootOn', '>=', today)]))
    .select(['plannedCard.cardId', 'plannedCard.cameraId', 'production.id as productionId', 'production.title'])
    .select('production.shootOn')
    .orderBy('production.shootOn')
    .execute()

/** Adds a camera and returns its id. Throws when its name is taken (`isTaken`). */
export const addCamera = (db: Db, values: CameraBody) =>
  db.insertInto('camera').values(values).returning('id').executeTakeFirstOrThrow()

/** Changes a camera; `undefined` when there is none. */
export const changeCamera = (db: Db, id: string, values: CameraBody) =>
  db.updateTable('camera').set(values).where('id', '=', id).returning('id').executeTakeFirst()

export const cameraKnown = (db: Db, id: string) =>
  db.selectFrom('camera').select('id').where('id', '=', id).executeTakeFirst()

/** Adds a mode to a camera and returns its id. */
export const addMode = (db: Db, cameraId: string, name: string, figures: ModeFigures) =>
  db
    .insertInto('recordingMode')
    .values({ cameraId, name, figures: JSON.stringify(figures) })
    .returning('id')
    .executeTakeFirstOrThrow()

/** Changes a mode; `undefined` when there is none. */
export const changeMode = (db: Db, id: string, name: string, figures: ModeFigures) =>
  db
    .updateTable('recordingMode')
    .set({ name, figures: JSON.stringify(figures) })
    .where('id', '=', id)
    .returning('id')
    .executeTakeFirst()

/** Adds a card and returns its id. Throws when its name is taken (`isTaken`). */
export const addCard = (db: Db, values: CardBody) =>
  db.insertInto('card').values(values).returning('id').executeTakeFirstOrThrow()

/** Changes a card; `undefined` when there is none. */
export const changeCard = (db: Db, id: string, values: CardBody) =>
  db.updateTable('card').set(values).where('id', '=', id).returning('id').executeTakeFirst()

/** Which card a load lies on and which camera filmed it. False when one of the three is not known. */
export async function setLoadGear(
  db: Db,
  loadId: string,
  gear: { cardId: string | null; cameraId: string | null },
): Promise<boolean> {
  return inTransaction(db, async (tx) => {
    const load = await tx
      .updateTable('load')
      .set({ ...gear, cardByUid: false })
      .where('id', '=', loadId)
      .returning('id')
      .executeTakeFirst()
    for (const table of ['recorded', 'offload'] as const)
      await tx.updateTable(table).set({ cameraId: gear.cameraId }).where('loadId', '=', loadId).execute()
    return load !== undefined
  })
}
