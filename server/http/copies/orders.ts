import { randomUUID } from 'node:crypto'
import type { Router } from 'express'
import { decidedOtherwise, decisionsText, namedDecisions } from '../../../core/copies/decisions'
import { copiesApi } from '../../../contract/copies'
import { backupCardsOf } from '../../db/queries/backupCards'
import { decidedPlan } from '../../facts/copyPlan'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'
import { loadOf, namesOf } from './known'

/** The plan of a copy, and the order that names it. */
export function planRoutes(router: Router, context: Context): void {
  const { db, host } = context

  serve(router, copiesApi.plan, async ({ params, query: { volumeIds, from } }) => {
    const load = await loadOf(context, params.id)
    const ids = volumeIds.split(',').filter(Boolean)
    const { plan, decisions } = await decidedPlan(db, host, load, ids, { from: from || undefined })
    return { ...plan, decisions: decisionsText(decisions) }
  })

  serve(router, copiesApi.copy, async ({ params, body: { volumeIds, setAside, from, decisions }, req }) => {
    const load = await loadOf(context, params.id)
    const names = await namesOf(context, volumeIds)
    if (from !== null && volumeIds.includes(from))
      throw invalid('A copy is not copied onto itself. Choose another volume to copy to.', 'volumeIds')
    const source = from === null ? '' : ` from ${await namesOf(context, [from])}`
    const now = await decidedPlan(db, host, load, volumeIds, { from: from ?? undefined })
    const { plan } = now
    if (decisions !== null) {
      const seen = namedDecisions(decisions)
      if (!seen) throw invalid('That is no plan that was shown. Ask for the plan again.', 'decisions')
      const otherwise = decidedOtherwise(seen, now.decisions)
      if (otherwise.length > 0)
        throw conflict(
          `This differs from the plan you saw, so nothing was written. ${otherwise.join(' ')} Look at the ` +
            'plan below, then copy again.',
        )
    }
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'copy',
        title: `Copy “${load.label}”${source} to ${names}`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, volumeIds, setAside, from, plan, seen: decisions !== null },
      },
      `“${load.label}” is being copied already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })
}

/** Reading again: copies, backup cards, and the card itself. */
export function readingRoutes(router: Router, context: Context): void {
  serve(router, copiesApi.check, async ({ params, body: { volumeIds, how }, req }) => {
    const load = await loadOf(context, params.id)
    const names = await namesOf(context, volumeIds)
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'check',
        title:
          how === 'whole' ? `Read “${load.label}” again on ${names}` : `Read a sample of “${load.label}” on ${names}`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, volumeIds, how, seed: randomUUID() },
      },
      `“${load.label}” is being read again already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  serve(router, copiesApi.readTwin, async ({ params: { id, twinId }, req }) => {
    const load = await loadOf(context, id)
    const backup = (await backupCardsOf(context.db, [load.id])).find((one) => one.id === twinId)
    if (!backup) throw notFound('That backup card')
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'twin',
        title: `Read the backup card “${backup.name}” of “${load.label}”`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, twinId },
      },
      `The backup card “${backup.name}” is being read already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  serve(router, copiesApi.readCard, async ({ params: { id }, req }) => {
    const load = await loadOf(context, id)
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'twin',
        title: `Read the card of “${load.label}” whole`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, twinId: null },
      },
      `The card of “${load.label}” is being read already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })
}
