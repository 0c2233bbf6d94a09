import type { Router } from 'express'
import { repairApi } from '../../../contract/repair'
import { repairSentence } from '../../../core/copies/repair'
import { counted } from '../../../core/units/quantity'
import { repairPlanOf } from '../../facts/repair'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict } from '../problem'
import { serve } from '../route'
import { loadOf } from './known'

/** Mending copies from others. */
export function repairRoutes(router: Router, context: Context): void {
  const { db, host, looks } = context

  serve(router, repairApi.plan, async ({ query: { loadId } }) => {
    if (loadId) await loadOf(context, loadId)
    const plan = await repairPlanOf(db, host, loadId || null)
    return { ...plan, sentence: repairSentence(plan) }
  })

  serve(router, repairApi.mend, async ({ body: { loadId, decisions }, req }) => {
    const load = loadId ? await loadOf(context, loadId) : undefined
    const seen = await repairPlanOf(db, host, load?.id ?? null)
    // What lies there now decides, and not what was seen when the plan was shown.
    await looks.ask([...new Set(seen.steps.map((step) => step.loadId))])
    const plan = await repairPlanOf(db, host, load?.id ?? null)
    if (plan.decisions !== decisions)
      throw conflict('This differs from the plan you saw, so nothing was done. Look at the plan again, then say yes.')
    const steps = plan.steps.filter((step) => step.missingBytes === 0)
    if (steps.length === 0) throw conflict(repairSentence(plan))
    const files = steps.reduce((sum, step) => sum + step.entryIds.length, 0)
    const names = new Intl.ListFormat('en-GB').format([...new Set(steps.map((step) => step.volumeName))])
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'repair',
        title: `Repair ${counted(files, 'file')} on ${names}`,
        productionId: load?.productionId ?? null,
        loadId: load?.id ?? null,
        input: {
          steps: steps.map((step) => ({
            ...{ loadId: step.loadId, volumeId: step.volumeId, entryIds: [...step.entryIds] },
            from: typeof step.from === 'string' ? null : step.from.volumeId,
            onlyRead: step.from === 'nothing',
          })),
        },
      },
      'Copies are being repaired already. Wait for it, or stop it first.',
    )
    return { taskId }
  })
}
