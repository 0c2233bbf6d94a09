import { Router } from 'express'
import { figuresOf, gearApi, modeBodyOf } from '../../../contract/gear'
import { nominalBitsPerSecond } from '../../../core/shoot/mode'
import { modeOfFacts } from '../../../core/shoot/modeOfClip'
import { clip } from '../../db/queries/cards'
import * as gear from '../../db/queries/gear'
import { writePlanRules } from '../../db/queries/settings'
import { tellChanged } from '../../db/queries/tasks'
import { isTaken } from '../../db/taken'
import { gearView } from '../../facts/gear'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'
import { serveChange } from '../serveChange'
import { undoably } from '../undoably'
import type { EditedTable } from '../../db/edits'

/** Cameras with their modes, cards, and how carefully is planned with them. */
export function gearRoutes({ db, host }: Context): Router {
  const router = Router()
  const changed = () => tellChanged(db, 'gear', 'productions')

  const row = (table: EditedTable, id: string) => [{ table, by: 'id', ids: [id] }]

  /** Writes something that has a name of its own. */
  async function kept<T>(what: string, write: () => Promise<T | undefined>): Promise<T> {
    try {
      const done = await write()
      if (done === undefined) throw notFound(`That ${what}`)
      await changed()
      return done
    } catch (error) {
      if (isTaken(error)) throw invalid(`There is a ${what} of that name already. Choose another.`, 'name')
      throw error
    }
  }

  serve(router, gearApi.all, () => gearView(db, { host, now: Date.now(), looked: true }))

  serve(router, gearApi.addCamera, ({ body }) => kept('camera', () => gear.addCamera(db, body)))
  serveChange(router, { db, row: 'camera' }, gearApi.changeCamera, async ({ params, body, res }) => {
    await kept('camera', () =>
      undoably({ db, res }, row('camera', params.id), `“${body.name}” was changed.`, (tx) =>
        gear.changeCamera(tx, params.id, body),
      ),
    )
  })

  serve(router, gearApi.addMode, async ({ params, body }) => {
    if (!(await gear.cameraKnown(db, params.id))) throw notFound('That camera')
    return kept('mode', () => gear.addMode(db, params.id, body.name, figuresOf(body)))
  })
  serveChange(router, { db, row: 'recording_mode' }, gearApi.changeMode, async ({ params, body, res }) => {
    await kept('mode', () =>
      undoably({ db, res }, row('recording_mode', params.id), `“${body.name}” was changed.`, (tx) =>
        gear.changeMode(tx, params.id, body.name, figuresOf(body)),
      ),
    )
  })

  serve(router, gearApi.modeOfClip, async ({ params }) => {
    const found = await clip(db, params.id)
    if (!found) throw notFound('That clip')
    const mode = found.probe && modeOfFacts(found.probe, found.sizeBytes)
    if (!mode) throw conflict(`${found.name} has no length that could be read: take another clip.`)
    return modeBodyOf({
      ...mode,
      measuredBitsPerSecond: Math.round(mode.measuredBitsPerSecond ?? nominalBitsPerSecond(mode)),
    })
  })

  serve(router, gearApi.addCard, ({ body }) => kept('card', () => gear.addCard(db, body)))
  serveChange(router, { db, row: 'card' }, gearApi.changeCard, async ({ params, body, res }) => {
    await kept('card', () =>
      undoably({ db, res }, row('card', params.id), `“${body.name}” was changed.`, (tx) =>
        gear.changeCard(tx, params.id, body),
      ),
    )
  })

  serveChange(router, { db, row: 'rules' }, gearApi.setRules, async ({ body }) => {
    await writePlanRules(db, body)
    await changed()
  })

  return router
}
