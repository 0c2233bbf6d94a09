import { markOf } from '../../core/copies/mark'
import type { ChartAsked, ChartHead, ChartLine, ChartProduction } from '../../contract/chart'
import type { Page } from '../../contract/page'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import { chartChoices, chartPage, chartProductions, dueLoads, putLines, takeDue, worstLoads } from '../db/queries/chart'
import { volumes } from '../db/queries/volumes'
import { once, type Asked } from './asked'
import { loadStates, type LoadState } from './loadStates'

/** Others in danger are counted so far. */
const MOST_OTHERS = 99
const MOST_DUE = 1000

/**
 * Reckons the lines of at most so many loads of which something is otherwise. Returns how many there were; 0 when none
 * waits.
 */
export const refreshLines = (db: Db, host: string, limit: number): Promise<number> =>
  db.transaction().execute(async (tx) => {
    const ids = await takeDue(tx, limit)
    if (ids.length === 0) return 0
    const states = await statesOf(tx, { host, now: Date.now(), looked: true }, ids)
    await putLines(
      tx,
      states.map(({ load, danger }) => ({
        ...{ loadId: load.id, danger: danger.rank },
        ...{ oldestProofAt: danger.oldestProofAt, dueAt: danger.dueAt },
      })),
    )
    return ids.length
  })

async function statesOf(db: Db, asked: Asked, ids: readonly string[]): Promise<LoadState[]> {
  const states = await loadStates(db, await loadsById(db, ids), asked)
  const byId = new Map(states.map((state) => [state.load.id, state]))
  return ids.flatMap((id) => byId.get(id) ?? [])
}

/** Lines of the chart as the rows say now; which they are, and in what order, was reckoned before. */
export async function chartLines(db: Db, asked: Asked, query: ChartAsked): Promise<Page<ChartLine>> {
  const { rows, next } = await chartPage(db, query)
  const states = await statesOf(
    db,
    asked,
    rows.map((row) => row.loadId),
  )
  const ids = [...new Set(states.map(({ load }) => load.productionId))]
  const productions = new Map(
    (await chartProductions(db, ids)).map(({ putAwayAt, ...one }) => [one.id, { ...one, away: putAwayAt !== null }]),
  )
  return {
    rows: states.flatMap((state) => {
      const production = productions.get(state.load.productionId)
      return production ? [lineOf(state, production)] : []
    }),
    next,
  }
}

function lineOf(state: LoadState, production: ChartProduction): ChartLine {
  const { load, copies, rule, clear, danger } = state
  const whole = copies.filter((copy) => markOf(copy, rule) >= 2)
  const seen = whole.flatMap((copy) => copy.seenAt ?? []).sort()
  return {
    ...{ loadId: load.id, production, label: load.label, camera: load.cameraName },
    ...{ fileCount: load.fileCount, sizeBytes: load.sizeBytes },
    copies: copies.map((copy) => ({
      ...{ volumeId: copy.volumeId, mark: markOf(copy, rule), filesCopied: copy.filesCopied },
      ...{ provedFrom: copy.firstVerifiedAt ?? null, provedTo: copy.lastVerifiedAt ?? null },
      wrong:
        copy.mirrorLost ||
        copy.filesMismatched + copy.filesInConflict + copy.filesMissing + copy.filesDoubted + copy.foundWrong.length >
          0,
    })),
    formattedAt: state.returned ? null : (state.formattedAt ?? null),
    formattedAgainst: state.formattedAgainst ?? null,
    formattedBecause: state.formattedBecause ?? null,
    wouldBeClearAt: clear.clear ? (seen[0] ?? null) : null,
    danger: danger.rank,
    dangers: danger.sentences,
  }
}

/** The columns of the chart, what it can be narrowed to, and the sentence that stands above it. */
export async function chartHead(db: Db, asked: Asked): Promise<ChartHead> {
  const [known, choices, due, worst] = await Promise.all([
    once(db, asked, volumes),
    chartChoices(db),
    dueLoads(db, MOST_DUE),
    worstLoads(db, MOST_OTHERS + 1),
  ])
  // What was mended since its line was reckoned is not told as the worst any more.
  const nearest = await statesOf(
    db,
    asked,
    worst.slice(0, 5).map((row) => row.loadId),
  )
  const [first] = nearest.filter((state) => state.danger.rank > 0).sort((a, b) => b.danger.rank - a.danger.rank)
  return {
    volumes: known.map(({ id, name, siteId, site, connected, putAwayAt }) => ({
      ...{ id, name, siteId, site, connected: connected === true, away: putAwayAt !== null },
    })),
    ...choices,
    worst: first
      ? {
          sentence: first.danger.sentences[0] ?? '',
          ...{ loadId: first.load.id, productionId: first.load.productionId, title: first.load.productionTitle },
        }
      : null,
    others: Math.max(0, worst.length - 1),
    due,
  }
}
