import { DANGERS } from '../../core/copies/danger'
import { markOf } from '../../core/copies/mark'
import type { ChartAsked, ChartHead, ChartLine, ChartProduction } from '../../contract/chart'
import type { Page } from '../../contract/page'
import { inTransaction, type Db } from '../db/connection'
import { keptLines, keptTotals } from '../db/queries/keptCharts'
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
  inTransaction(db, async (tx) => {
    const ids = await takeDue(tx, limit)
    if (ids.length === 0) return 0
    const states = await statesOf(tx, { host, now: Date.now(), looked: true }, ids)
    await putLines(
      tx,
      states.map(({ load, danger, copies, rule }) => ({
        ...{ loadId: load.id, danger: danger.rank },
        ...{ oldestProofAt: danger.oldestProofAt, dueAt: danger.dueAt },
        copies: copies.flatMap((copy) =>
          copy.firstVerifiedAt === undefined
            ? []
            : [
                {
                  ...{ volumeId: copy.volumeId, oldestAt: copy.firstVerifiedAt },
                  others: copies.filter((other) => other !== copy && markOf(other, rule) >= 2).length,
                },
              ],
        ),
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
  const loadIds = rows.flatMap((row) => row.loadId ?? [])
  const states = await statesOf(db, asked, loadIds)
  const kept = await keptLines(
    db,
    rows.filter((row) => row.loadId === null).map((row) => row.id),
    loadIds,
  )
  const productions = await productionsOf(db, states, kept)
  const lines = new Map<string, ChartLine>()
  for (const state of states) {
    const said = kept.find((line) => line.loadId === state.load.id)
    const production = productions(state.load.productionId)
    if (production) lines.set(state.load.id, lineOf(state, production, said))
  }
  for (const line of kept)
    if (line.loadId === null) lines.set(line.id, keptLineOf(line, productions(line.productionId ?? line.production)))
  return { rows: rows.flatMap((row) => lines.get(row.id) ?? []), next }
}

type Kept = Awaited<ReturnType<typeof keptLines>>[number]

/** Productions by their ids, and those that only a kept chart knows by their titles. */
async function productionsOf(db: Db, states: readonly LoadState[], kept: readonly Kept[]) {
  const ids = [...states.map(({ load }) => load.productionId), ...kept.flatMap((line) => line.productionId ?? [])]
  const known = await chartProductions(db, [...new Set(ids)])
  const titles = [...known.map((one) => one.title), ...kept.map((line) => line.production)]
  const totals = await keptTotals(db, [...new Set(titles)])
  const totalOf = (title: string) => totals.find((one) => one.title === title)
  const found = new Map<string, ChartProduction>()
  for (const { putAwayAt, loads, sizeBytes, ...one } of known) {
    const more = totalOf(one.title)
    const sums = { loads: loads + (more?.loads ?? 0), sizeBytes: (sizeBytes ?? 0) + (more?.sizeBytes ?? 0) }
    found.set(one.id, { ...one, ...sums, away: putAwayAt !== null })
  }
  for (const line of kept) {
    const { production: title, client, shootOn } = line
    const { loads = 0, sizeBytes = 0 } = totalOf(title) ?? {}
    if (line.productionId === null && !found.has(title.toLowerCase()))
      found.set(title.toLowerCase(), {
        id: null,
        title,
        client: client || null,
        shootOn,
        away: false,
        loads,
        sizeBytes,
      })
  }
  return (key: string) => found.get(key) ?? found.get(key.toLowerCase())
}

const inKeptChart = ({ fileName, at }: Kept) => ({ fileName, at: at.toISOString() })

/** A load that only a kept chart knows: nothing of it is proved. */
function keptLineOf(line: Kept, production: ChartProduction | undefined): ChartLine {
  const { id, label, camera, sizeBytes, formatted, copies } = line
  const names = new Intl.ListFormat('en-GB').format(copies.map((copy) => copy.name))
  return {
    ...{ id, loadId: null, label, camera: camera || null, fileCount: null, sizeBytes, copies: [] },
    production: production ?? {
      ...{ id: null, title: line.production, client: line.client || null, shootOn: line.shootOn },
      ...{ away: false, loads: 1, sizeBytes: sizeBytes ?? 0 },
    },
    kept: inKeptChart(line),
    said: copies,
    ...{ formattedAt: null, formattedAgainst: null, formattedBecause: null, formattedSaid: formatted || null },
    wouldBeClearAt: null,
    danger: DANGERS.indexOf('few'),
    dangers: [
      `No copy of “${label}” is proved: ` +
        (copies.length === 0
          ? 'the kept chart names no drive that it is on.'
          : `only a kept chart says that it is on ${names}.`),
    ],
  }
}

function lineOf(state: LoadState, production: ChartProduction, kept: Kept | undefined): ChartLine {
  const { load, copies, rule, clear, danger } = state
  const whole = copies.filter((copy) => markOf(copy, rule) >= 2)
  const seen = whole.flatMap((copy) => copy.seenAt ?? []).sort()
  // What was ever copied by us is known better than it was said.
  const said = kept?.copies.filter((copy) => !copies.some((one) => one.volumeId === copy.volumeId)) ?? []
  return {
    ...{ id: load.id, loadId: load.id, production, label: load.label, camera: load.cameraName },
    kept: kept && said.length > 0 ? inKeptChart(kept) : null,
    said,
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
    formattedSaid: (state.formattedAt === undefined && kept?.formatted) || null,
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
