import { Router } from 'express'
import { passes } from '../../../core/shoot/shots'
import { shootApi, type ShotTick, type ShotView } from '../../../contract/shoot'
import * as shoot from '../../db/queries/shoot'
import { tellChanged } from '../../db/queries/tasks'
import { isHeld } from '../../db/taken'
import type { Context } from '../context'
import { invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { serveChange } from '../serveChange'
import type { Db } from '../../db/connection'
import type { Touched } from '../../db/edits'
import { undoably } from '../undoably'
import { counted } from '../../../core/units/quantity'

/** Shots of one production at most. */
const MOST_SHOTS = 2000

/** The shot list of a production. */
export function shotRoutes({ db }: Context): Router {
  const router = Router()
  const ofList = (id: string) => [{ table: 'shot', by: 'production_id', ids: [id] }] as const
  const ofShot = (id: string) => [{ table: 'shot', by: 'id', ids: [id] }] as const
  const changed = () => tellChanged(db, 'productions')

  async function known(id: string) {
    const shot = await shoot.shot(db, id)
    if (!shot) throw notFound('That shot')
    return shot
  }

  serve(router, shootApi.shots, async ({ params }) => {
    const rows = await shoot.shotsOf(db, (await productionOf(db, params.id)).id)
    return rows.map(({ id, version, name, cameraId, deliverables, notes, filmedAt }): ShotView => ({
      ...{ id, version, name, cameraId, deliverables, notes },
      filmedAt: filmedAt?.toISOString() ?? null,
    }))
  })

  serve(router, shootApi.addShots, async ({ params, body, res }) => {
    const { id } = await productionOf(db, params.id)
    const shots = body.shots.flatMap((shot) => passes(shot, body.passes))
    if (shots.some((shot) => shot.name.length > 120)) throw invalid('Keep the name under 100 characters.', 'name')
    const before = await shoot.shotsOf(db, id)
    if (before.length + shots.length > MOST_SHOTS)
      throw invalid(`A list has at most ${MOST_SHOTS} shots. Remove some, or make another production.`, 'shots')
    const title =
      shots.length === 1 ? `“${shots[0]?.name}” is on the list.` : `${counted(shots.length, 'shot')} are on the list.`
    await kept(() => undoably({ db, res }, ofList(id), title, (tx) => shoot.addShots(tx, id, shots)))
    await changed()
  })

  serveChange(router, { db, row: 'shot' }, shootApi.changeShot, async ({ params, body, res }) => {
    const write = (tx: Db) => shoot.changeShot(tx, params.id, body)
    if (!(await kept(() => undoably({ db, res }, ofShot(params.id), `“${body.name}” was changed.`, write))))
      throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.moveShot, async ({ params, body, res }) => {
    const shot = await known(params.id)
    const write = (tx: Db) => shoot.moveShot(tx, params.id, body.before)
    if (!(await undoably({ db, res }, ofList(shot.productionId), `“${shot.name}” was moved.`, write)))
      throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.tickShot, async ({ params, body, res }) => {
    const shot = await known(params.id)
    const title = `“${shot.name}” is ${body.filmedAt === null ? 'open again' : 'filmed'}.`
    await undoably({ db, res }, ofShot(params.id), title, (tx) => shoot.tickShot(tx, params.id, body.filmedAt))
    await changed()
  })

  serve(router, shootApi.removeShot, async ({ params, res }) => {
    const shot = await known(params.id)
    // Clips that are matched to it are so no more.
    const touched = async (tx: Db): Promise<Touched[]> => [
      ...ofShot(params.id),
      { table: 'review', by: 'media_file_id', ids: await shoot.clipsOfShot(tx, params.id) },
    ]
    const write = (tx: Db) => shoot.removeShot(tx, params.id)
    if (!(await undoably({ db, res }, touched, `“${shot.name}” is off the list.`, write))) throw notFound('That shot')
    await changed()
  })

  serve(router, shootApi.giveTicks, async ({ params, body, res }) => {
    const { id, title } = await productionOf(db, params.id)
    if (body.productionId !== id)
      throw invalid(`These are ticks of another production, not of “${title}”.`, 'productionId')
    const { news, unknown } = newTicks(await shoot.shotsOf(db, id), body.ticks)
    const taken = `${counted(news.length, 'tick')} taken over from the phone.`
    await undoably({ db, res }, ofList(id), taken, async (tx) => {
      for (const { shotId, filmedAt } of news) await shoot.tickShot(tx, shotId, filmedAt)
    })
    await changed()
    return { changed: news.length, unknown }
  })

  return router
}

/** Writes a shot; refused where its camera is none of the gear book. */
async function kept<T>(write: () => Promise<T>): Promise<T> {
  try {
    return await write()
  } catch (error) {
    if (isHeld(error)) throw invalid('That camera is not in the gear book.', 'cameraId')
    throw error
  }
}

/** Ticks of a phone that differ from what is known, and how many are of shots that this list has not. */
function newTicks(shots: Awaited<ReturnType<typeof shoot.shotsOf>>, ticks: readonly ShotTick[]) {
  const known = new Map(shots.map((shot) => [shot.id, shot.filmedAt?.toISOString() ?? null]))
  const mine = ticks.filter((tick) => known.has(tick.shotId))
  const news = mine.filter((tick) => known.get(tick.shotId) !== timeOf(tick.filmedAt))
  return { news, unknown: ticks.length - mine.length }
}

const timeOf = (at: string | null) => (at === null ? null : new Date(at).toISOString())
