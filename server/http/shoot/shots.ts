import { Router } from 'express'
import { passes } from '../../../core/shoot/shots'
import { shootApi, type ShotView } from '../../../contract/shoot'
import * as shoot from '../../db/queries/shoot'
import { tellChanged } from '../../db/queries/tasks'
import { isHeld } from '../../db/taken'
import type { Context } from '../context'
import { invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { serveChange } from '../serveChange'
import { inTransaction } from '../../db/connection'

/** Shots of one production at most. */
const MOST_SHOTS = 2000

/** The shot list of a production. */
export function shotRoutes({ db }: Context): Router {
  const router = Router()
  const changed = () => tellChanged(db, 'productions')

  async function kept<T>(write: () => Promise<T>): Promise<T> {
    try {
      return await write()
    } catch (error) {
      if (isHeld(error)) throw invalid('That camera is not in the gear book.', 'cameraId')
      throw error
    }
  }

  serve(router, shootApi.shots, async ({ params }) => {
    const rows = await shoot.shotsOf(db, (await productionOf(db, params.id)).id)
    return rows.map(({ id, version, name, cameraId, deliverables, notes, filmedAt }): ShotView => ({
      ...{ id, version, name, cameraId, deliverables, notes },
      filmedAt: filmedAt?.toISOString() ?? null,
    }))
  })

  serve(router, shootApi.addShots, async ({ params, body }) => {
    const { id } = await productionOf(db, params.id)
    const shots = body.shots.flatMap((shot) => passes(shot, body.passes))
    if (shots.some((shot) => shot.name.length > 120)) throw invalid('Keep the name under 100 characters.', 'name')
    const known = await shoot.shotsOf(db, id)
    if (known.length + shots.length > MOST_SHOTS)
      throw invalid(`A list has at most ${MOST_SHOTS} shots. Remove some, or make another production.`, 'shots')
    await kept(() => shoot.addShots(db, id, shots))
    await changed()
  })

  serveChange(router, { db, row: 'shot' }, shootApi.changeShot, async ({ params, body }) => {
    if (!(await kept(() => shoot.changeShot(db, params.id, body)))) throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.moveShot, async ({ params, body }) => {
    if (!(await shoot.moveShot(db, params.id, body.before))) throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.tickShot, async ({ params, body }) => {
    if (!(await shoot.tickShot(db, params.id, body.filmedAt))) throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.removeShot, async ({ params }) => {
    if (!(await shoot.removeShot(db, params.id))) throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.giveTicks, async ({ params, body }) => {
    const { id, title } = await productionOf(db, params.id)
    if (body.productionId !== id)
      throw invalid(`These are ticks of another production, not of “${title}”.`, 'productionId')
    const known = new Map((await shoot.shotsOf(db, id)).map((shot) => [shot.id, shot.filmedAt?.toISOString() ?? null]))
    const mine = body.ticks.filter((tick) => known.has(tick.shotId))
    const news = mine.filter((tick) => known.get(tick.shotId) !== timeOf(tick.filmedAt))
    await inTransaction(db, async (tx) => {
      for (const { shotId, filmedAt } of news) await shoot.tickShot(tx, shotId, filmedAt)
    })
    await changed()
    return { changed: news.length, unknown: body.ticks.length - mine.length }
  })

  return router
}

const timeOf = (at: string | null) => (at === null ? null : new Date(at).toISOString())
