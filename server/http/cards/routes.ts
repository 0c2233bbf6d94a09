import { Router } from 'express'
import { cardSentence } from '../../../core/cards/load/cardSentence'
import { whereabouts } from '../../../core/cards/load/whereabouts'
import { cardsApi, type LoadView } from '../../../contract/cards'
import * as cards from '../../db/queries/cards'
import { moveClock } from '../../db/queries/clocks'
import { cardParts, giveClips } from '../../db/queries/reassigned'
import { titlesOf } from '../../db/queries/productions'
import { addSaid } from '../../db/queries/said'
import { tellChanged } from '../../db/queries/tasks'
import { clipFiles, clipView } from '../../facts/clips'
import { loadStates, type LoadState } from '../../facts/loadStates'
import { originalOf } from '../../media/originals'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

const loadView = ({ load, isLooking, findings, copies, rule }: LoadState, clipsHere: number): LoadView => ({
  id: load.id,
  productionId: load.productionId,
  productionTitle: load.productionTitle,
  label: load.label,
  scannedAt: load.scannedAt.toISOString(),
  fileCount: load.fileCount,
  sizeBytes: load.sizeBytes,
  sentence: cardSentence({ ...load, seconds: load.lengthMs / 1000 }, findings, isLooking),
  whereabouts: whereabouts(load.clips, copies, rule),
  findings,
  clips: load.clips,
  clipsHere,
  cardId: load.cardId,
  cardByUid: load.cardByUid,
  cameraId: load.cameraId,
})

/** Station 2: loads and clips. */
export function cardRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  serve(router, cardsApi.loads, async ({ params, query }) => {
    const { id } = await productionOf(db, params.id)
    const { rows, next } = await cards.loadPage(db, id, query)
    const [states, parts] = await Promise.all([
      loadStates(db, rows, { host, now: Date.now(), looked: true }),
      cardParts(db, [id]),
    ])
    const here = new Map(parts.map((part) => [part.loadId, part.clips]))
    return { rows: states.map((state) => loadView(state, here.get(state.load.id) ?? 0)), next }
  })

  serve(router, cardsApi.clips, async ({ params, query }) => {
    const { id: productionId } = await productionOf(db, params.id)
    const { rows, next } = await cards.clipPage(db, { productionId, ...query }, query)
    const [files, titles] = await Promise.all([
      clipFiles(db, rows),
      titlesOf(
        db,
        rows.flatMap((row) => (row.productionId === productionId ? [] : row.productionId)),
      ),
    ])
    return { rows: rows.map((row) => clipView(row, files(row), titles.get(row.productionId) ?? null)), next }
  })

  serve(router, cardsApi.clip, async ({ params }) => {
    const row = await cards.clip(db, params.id)
    if (!row) throw notFound('That clip')
    const files = await clipFiles(db, [row])
    return { ...clipView(row, files(row)), loadLabel: row.loadLabel, facts: row.probe, toolLines: row.toolLines }
  })

  serve(router, cardsApi.reassign, async ({ params, body: { clipIds } }) => {
    const { id } = await productionOf(db, params.id)
    if (!(await giveClips(db, clipIds, id))) throw notFound('One of these clips')
    await tellChanged(db, 'cards', 'review', 'productions', 'proxies', 'copies', 'storage')
  })

  serve(router, cardsApi.count, async ({ params: { id: clipId }, req }) => {
    const { clip } = await originalOf(db, clipId)
    const { productionId, loadId, name } = clip
    const order = {
      kind: 'count',
      title: `Count the frames of ${name}`,
      productionId,
      loadId,
      input: { clipId },
    } as const
    return { taskId: await orderTask(context, req, order, `The frames of ${name} are being counted already.`) }
  })

  serve(router, cardsApi.answerFinding, async ({ params, body: answer }) => {
    const load = await cards.load(db, params.id)
    if (!load) throw notFound('That load')
    const [state] = await loadStates(db, [load], { host, now: Date.now(), looked: true })
    // An answer to what nobody asked would settle a finding that comes later.
    if (!state?.findings.some((finding) => finding.key === answer.key && finding.weight !== 'note'))
      throw notFound('That question')
    await addSaid(db, { kind: 'answered', loadId: load.id, detail: answer })
    await tellChanged(db, 'cards', 'productions', 'copies')
  })

  serve(router, cardsApi.moveClock, async ({ params, body: { shiftMs } }) => {
    if (!(await moveClock(db, params.id, shiftMs))) throw notFound('That load')
    await tellChanged(db, 'cards', 'review', 'productions')
  })

  return router
}
