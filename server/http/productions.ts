import { Router } from 'express'
import { lineOf, nextStep } from '../../core/line/line'
import { sameFolder } from '../../core/shelf/bag'
import { settings } from '../../contract/copies'
import { newProduction, type ProductionView } from '../../contract/productions'
import { addProduction, productions, readSettings, writeSettings } from '../db/queries/productions'
import { tellChanged } from '../db/queries/tasks'
import type { Context } from './context'
import { allProductionFacts } from './facts'
import { bodyOf, invalid } from './problem'

export function productionRoutes({ db }: Context): Router {
  const router = Router()

  router.get('/productions', async (_req, res) => {
    const facts = await allProductionFacts(db)
    const views = (await productions(db)).flatMap((row): ProductionView[] => {
      const own = facts.get(row.id)
      return own
        ? [
            {
              id: row.id,
              title: row.title,
              client: row.client,
              shootOn: row.shootOn,
              line: lineOf(own),
              next: nextStep(own),
            },
          ]
        : []
    })
    res.json(views)
  })

  router.post('/productions', async (req, res) => {
    const wanted = await bodyOf(newProduction, req)
    const same = (await productions(db)).find((row) => sameFolder(row.title, wanted.title))
    if (same)
      throw invalid(
        `There is a production called “${same.title}” already, and both would share one folder on every volume. Choose another title.`,
        'title',
      )
    const { id } = await addProduction(db, wanted)
    await tellChanged(db, 'productions')
    res.status(201).json({ id })
  })

  router.get('/settings', async (_req, res) => {
    res.json(await readSettings(db))
  })

  router.put('/settings', async (req, res) => {
    await writeSettings(db, await bodyOf(settings, req))
    await tellChanged(db, 'copies', 'productions')
    res.status(204).end()
  })

  return router
}
