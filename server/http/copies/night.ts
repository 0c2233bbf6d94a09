import type { Router } from 'express'
import { copiesApi } from '../../../contract/copies'
import { unattendedApi } from '../../../contract/unattended'
import { copyQueue, emptyQueue, putInQueue } from '../../db/queries/copyQueue'
import { readers } from '../../db/queries/readers'
import { writeUnattended } from '../../db/queries/settings'
import { tellChanged } from '../../db/queries/tasks'
import { startNextCopy } from '../../enqueue/copyQueue'
import { nightOf } from '../../facts/night'
import { unattendedView } from '../../facts/unattended'
import type { Context } from '../context'
import { conflict } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { namesOf } from './known'

/** All cards one after the other, and what is copied while nobody watches. */
export function nightRoutes(router: Router, context: Context): void {
  const { db, host, looks } = context

  serve(router, copiesApi.night, async ({ params, query: { volumeIds } }) => {
    const { id } = await productionOf(db, params.id)
    const [night, queue, inReaders] = await Promise.all([
      nightOf(db, { host, now: Date.now() }, id, volumeIds.split(',').filter(Boolean)),
      copyQueue(db, host),
      readers(db),
    ])
    const unlooked = inReaders.filter((row) => row.putAwayAt === null && row.state === 'card' && !row.same)
    return {
      ...night,
      unlooked: unlooked.map((row) => row.cardName ?? row.name),
      queue: queue.filter((one) => one.productionId === id).map((one) => one.label),
    }
  })

  serve(router, copiesApi.copyAll, async ({ params, body: { volumeIds } }) => {
    const { id } = await productionOf(db, params.id)
    await namesOf(context, volumeIds)
    await looks.ask()
    const { steps } = await nightOf(db, { host, now: Date.now() }, id, volumeIds)
    if (steps.length === 0) throw conflict('No card in a reader needs a copy on these volumes.')
    await putInQueue(
      db,
      host,
      steps.map(({ loadId, plan }) => ({ loadId, plan, volumeIds })),
    )
    await startNextCopy(db, context.boss)
    await tellChanged(db, 'copies', 'tasks')
  })

  serve(router, copiesApi.emptyQueue, async ({ params }) => {
    const { id } = await productionOf(db, params.id)
    await emptyQueue(db, id)
    await tellChanged(db, 'copies')
  })

  serve(router, unattendedApi.one, () => unattendedView(db, host, Date.now()))

  serve(router, unattendedApi.set, async ({ body }) => {
    if (body.productionId !== null) await productionOf(db, body.productionId)
    await namesOf(context, body.volumeIds)
    await writeUnattended(db, body)
    await tellChanged(db, 'copies')
  })
}
