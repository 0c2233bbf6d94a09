import { Router } from 'express'
import { chartCsv, chartCsvHead, type ChartLoad } from '../../../core/copies/chartCsv'
import { journalSentence } from '../../../core/copies/journal'
import { chartApi, MOST_LINES, type ChartHead, type ChartLine } from '../../../contract/chart'
import { cycleApi } from '../../../contract/cycle'
import { inTransaction } from '../../db/connection'
import { addKeptChart, keptCharts, takeKeptChartBack } from '../../db/queries/keptCharts'
import { oddNamesOf } from '../../db/queries/copies'
import { copiedFiles, journalOf } from '../../db/queries/loadJournal'
import { writeCycle } from '../../db/queries/settings'
import { tellChanged } from '../../db/queries/tasks'
import { chartHead, chartLines } from '../../facts/chart'
import { cycleView } from '../../facts/cycle'
import { loadCopies } from '../../facts/loadCopies'
import type { Context } from '../context'
import { notFound } from '../problem'
import { serve, serveStream } from '../route'
import { freshStates, loadOf } from './known'

/** The chart of all loads: its lines, one of them opened, and all of it as a table. */
export function chartRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()
  const asked = () => ({ host, now: Date.now(), looked: true })

  serve(router, chartApi.head, () => chartHead(db, asked()))
  serve(router, cycleApi.one, () => cycleView(db, host, new Date()))
  serve(router, cycleApi.set, async ({ body }) => {
    await writeCycle(db, body)
    await tellChanged(db, 'chart')
  })
  serve(router, chartApi.page, ({ query }) => chartLines(db, asked(), query))

  serve(router, chartApi.kept, async () =>
    (await keptCharts(db)).map(({ id, fileName, at, lines, takenBackAt }) => ({
      ...{ id, fileName, at: at.toISOString(), lines, takenBackAt: takenBackAt?.toISOString() ?? null },
    })),
  )

  serve(router, chartApi.bringKeptChart, async ({ body }) => {
    const came = await inTransaction(db, (tx) => addKeptChart(tx, body))
    await tellChanged(db, 'chart')
    return came ?? { added: 0, already: body.lines.length, known: 0 }
  })

  serve(router, chartApi.takeKeptChartBack, async ({ params }) => {
    if (!(await inTransaction(db, (tx) => takeKeptChartBack(tx, params.id)))) throw notFound('That chart')
    await tellChanged(db, 'chart')
  })

  serve(router, chartApi.load, async ({ params }) => {
    const load = await loadOf(context, params.id)
    const [state] = await freshStates(context, [load])
    if (!state) throw notFound('That load')
    const odd = await oddNamesOf(db, [load.id])
    return loadCopies(db, state, { withOddNames: new Set(odd.map((row) => row.loadId)), isScanned: true })
  })

  serve(router, chartApi.files, async ({ params, query }) => {
    const load = await loadOf(context, params.id)
    const { rows, next } = await copiedFiles(db, load.id, query.troubled, query)
    return {
      rows: rows.map(({ id, pathText, sizeBytes, state, on }) => ({
        ...{ id, path: pathText, sizeBytes, onCard: state === 'on-card' },
        on: on.map((one) => ({ ...one, provedAt: new Date(one.provedAt).toISOString() })),
      })),
      next,
    }
  })

  serve(router, chartApi.journal, async ({ params, query }) => {
    const load = await loadOf(context, params.id)
    const { rows, next } = await journalOf(db, load.id, query)
    return {
      rows: rows.map(({ id, at, detail }) => ({
        ...{ id, at: at.toISOString(), kind: detail.kind },
        sentence: journalSentence(detail),
      })),
      next,
    }
  })

  serveStream(router, chartApi.csv, async ({ query, res }) => {
    res.type('text/csv').attachment('copy chart.csv')
    const { volumes } = await chartHead(db, asked())
    res.write(chartCsvHead())
    for (let after: string | undefined; ;) {
      const page = await chartLines(db, asked(), { ...query, sort: 'place', down: false, limit: MOST_LINES, after })
      if (res.destroyed) return
      if (!res.write(chartCsv(asTable(page.rows, volumes))))
        await new Promise((go) => res.once('drain', go).once('close', go))
      if (page.next === null) break
      after = page.next
    }
    res.end()
  })
  return router
}

const asTable = (lines: readonly ChartLine[], volumes: ChartHead['volumes']): ChartLoad[] =>
  lines.map((line) => {
    const { title, client, shootOn } = line.production
    const copies = line.copies.map((copy) => {
      const volume = volumes.find((one) => one.id === copy.volumeId)
      return { ...copy, volume: volume?.name ?? '', site: volume?.site ?? '' }
    })
    return { ...line, production: title, client, shootOn, copies }
  })
