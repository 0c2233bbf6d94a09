import { Router } from 'express'
import { copiesApi } from '../../../contract/copies'
import * as cards from '../../db/queries/cards'
import { oddNamesOf } from '../../db/queries/copies'
import { loadCopies } from '../../facts/loadCopies'
import { loadStates, type LoadState } from '../../facts/loadStates'
import { samplePlayed } from '../../facts/playSample'
import type { Context } from '../context'
import { productionOf } from '../productionOf'
import { serve, serveStream } from '../route'
import { freshStates, loadOf, namesOf } from './known'
import { nightRoutes } from './night'
import { planRoutes, readingRoutes } from './orders'
import { sendCopy } from './play'
import { repairRoutes } from './repair'
import { ruleRoutes } from './rules'
import { saidRoutes } from './said'

/** Station 3: plans, copies, checks, playing, and the answer whether a card may be formatted. */
export function copyRoutes(context: Context): Router {
  const { db } = context
  const router = Router()

  async function copiesOf(loads: readonly cards.LoadRow[], states: readonly LoadState[], isScanned: boolean) {
    const odd = await oddNamesOf(
      db,
      loads.map((load) => load.id),
    )
    const asked = { withOddNames: new Set(odd.map((row) => row.loadId)), isScanned }
    return Promise.all(states.map((state) => loadCopies(db, state, asked)))
  }

  serve(router, copiesApi.all, async ({ params, query }) => {
    const owner = await productionOf(db, params.id)
    const { rows: loads, next } = await cards.loadPage(db, owner.id, query)
    return { rows: await copiesOf(loads, await freshStates(context, loads), true), next }
  })

  serve(router, copiesApi.known, async ({ params, query }) => {
    const owner = await productionOf(db, params.id)
    const { rows: loads, next } = await cards.loadPage(db, owner.id, query)
    const states = await loadStates(db, loads, { host: context.host, now: Date.now(), looked: true })
    return { rows: await copiesOf(loads, states, false), next }
  })

  serveStream(router, copiesApi.play, ({ params: { id: loadId, volumeId, clipId }, query, req, res }) => {
    const { fromSeconds, seconds } = query
    return sendCopy(
      db,
      { loadId, volumeId, clipId },
      fromSeconds === null ? undefined : { fromSeconds, seconds },
      req,
      res,
    )
  })

  serve(router, copiesApi.sample, async ({ params: { id, volumeId }, query: { seed } }) => {
    const load = await loadOf(context, id)
    await namesOf(context, [volumeId])
    return samplePlayed(db, { load, volumeId, host: context.host, seed })
  })

  ruleRoutes(router, context)
  planRoutes(router, context)
  nightRoutes(router, context)
  readingRoutes(router, context)
  saidRoutes(router, context)
  repairRoutes(router, context)
  return router
}
