import { Router } from 'express'
import { lineOf, nextStep } from '../../../core/line/line'
import { fileTitle } from '../../../core/shelf/bag'
import { settings } from '../../../contract/copies'
import { newProduction, type ProductionView } from '../../../contract/productions'
import { addProduction, productions, readSettings, writeSettings } from '../../db/queries/productions'
import { tellChanged } from '../../db/queries/tasks'
import { allProductionFacts } from '../../facts/productions'
import type { Context } from '../context'
import { bodyOf, invalid } from '../problem'

export function productionRoutes({ db, host }: Context): Router {
  const router = Router()

  router.get('/productions', async (_req, res) => {
    const facts = await allProductionFacts(db, { host, now: Date.now(), looked: true })
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
    const made = await addProduction(db, wanted)
    if (!made)
      throw invalid(
        `There is a production in the folder “${await standingFolder(wanted.title)}” already, and both would share it on every volume. Choose another title.`,
        'title',
      )
    await tellChanged(db, 'productions')
    res.status(201).json({ id: made.id })
  })

  async function standingFolder(title: string): Promise<string> {
    const folder = fileTitle(title).toLowerCase()
    return (await productions(db)).find((row) => row.folder.toLowerCase() === folder)?.folder ?? title
  }

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
