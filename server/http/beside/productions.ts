import { Router } from 'express'
import { lineOf, nextStep } from '../../../core/line/line'
import { fileTitle } from '../../../core/shelf/bag'
import { productionsApi } from '../../../contract/productions'
import { addProduction, productions, readSettings, writeSettings } from '../../db/queries/productions'
import { tellChanged } from '../../db/queries/tasks'
import { allProductionFacts } from '../../facts/productions'
import type { Context } from '../context'
import { invalid } from '../problem'
import { serve } from '../route'

export function productionRoutes({ db, host }: Context): Router {
  const router = Router()

  serve(router, productionsApi.all, async () => {
    const facts = await allProductionFacts(db, { host, now: Date.now(), looked: true })
    return (await productions(db)).flatMap((row) => {
      const own = facts.get(row.id)
      const { id, title, client, shootOn } = row
      return own ? [{ id, title, client, shootOn, line: lineOf(own), next: nextStep(own) }] : []
    })
  })

  serve(router, productionsApi.add, async ({ body }) => {
    const made = await addProduction(db, body)
    if (!made)
      throw invalid(
        `There is a production in the folder “${await standingFolder(body.title)}” already, and both would share it on every volume. Choose another title.`,
        'title',
      )
    await tellChanged(db, 'productions')
    return { id: made.id }
  })

  async function standingFolder(title: string): Promise<string> {
    const folder = fileTitle(title).toLowerCase()
    return (await productions(db)).find((row) => row.folder.toLowerCase() === folder)?.folder ?? title
  }

  serve(router, productionsApi.settings, () => readSettings(db))

  serve(router, productionsApi.setSettings, async ({ body }) => {
    await writeSettings(db, body)
    await tellChanged(db, 'copies', 'productions')
  })

  return router
}
