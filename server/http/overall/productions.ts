import { Router } from 'express'
import { lineOf } from '../../../core/line/line'
import { needs, nextStep } from '../../../core/line/needs'
import { productionFolder } from '../../../core/units/fileTitle'
import { productionsApi, type ProductionView } from '../../../contract/productions'
import {
  addProduction,
  changeProduction,
  productionIn,
  productionPage,
  type ProductionRow,
} from '../../db/queries/productions'
import { tellChanged } from '../../db/queries/tasks'
import { productionFacts } from '../../facts/productions'
import type { Context } from '../context'
import { invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { serveChange } from '../serveChange'

/** Of more needs than these nobody reads the last. */
const MOST_NEEDS = 12

/** Productions with their lines. */
export function productionRoutes({ db, host }: Context): Router {
  const router = Router()

  async function views(rows: readonly ProductionRow[]): Promise<ProductionView[]> {
    const facts = await productionFacts(db, rows, { host, now: Date.now(), looked: true })
    return rows.flatMap(({ id, version, title, client, shootOn, folder, timeZone }) => {
      const own = facts.get(id)
      const about = { id, version, title, client, shootOn, folder, timeZone }
      const known = own?.closed ? own.known : null
      return own
        ? [{ ...about, line: lineOf(own), next: nextStep(own), needs: needs(own).slice(0, MOST_NEEDS), known }]
        : []
    })
  }

  serve(router, productionsApi.all, async ({ query }) => {
    const { rows, next } = await productionPage(db, query)
    return { rows: await views(rows), next }
  })

  serve(router, productionsApi.one, async ({ params }) => {
    const [view] = await views([await productionOf(db, params.id)])
    if (!view) throw notFound('That production')
    return view
  })

  serve(router, productionsApi.add, async ({ body }) => {
    const made = await addProduction(db, body)
    if (!made)
      throw invalid(
        'There is a production in the folder ' +
          `“${(await productionIn(db, productionFolder(body.title)))?.folder ?? body.title}” already, and ` +
          'both would share it on every volume. Choose another title.',
        'title',
      )
    await tellChanged(db, 'productions')
    return { id: made.id }
  })

  serveChange(router, { db, row: 'production' }, productionsApi.change, async ({ params, body }) => {
    if (!(await changeProduction(db, params.id, body))) throw notFound('That production')
    await tellChanged(db, 'productions', 'gear')
  })

  return router
}
