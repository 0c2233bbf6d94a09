import { parted } from '../../core/units/parted'
import type { Db } from '../db/connection'
import { olderSince } from '../db/queries/records'
import * as cards from '../db/queries/cards'
import { ruleChoices, rulesOfLoads, type RuleChoices } from '../db/queries/clearRules'
import * as copies from '../db/queries/copies'
import { readers, type ReaderRow } from '../db/queries/readers'
import { comparisonsOf, lastKnownStays, staysById } from '../db/queries/stays'
import { volumes } from '../db/queries/volumes'
import { backupCardsOf } from '../db/queries/backupCards'
import { answersOf, formattedOf, foundWrong, playedOf, saidDifferent } from '../db/queries/said'
import { latestCardSeen } from '../db/queries/seen'
import { readersScanned } from '../db/queries/tasks'
import { once, type Asked } from './asked'

/** Everything that the states of loads are made of, in a fixed number of questions. */
async function readRows(db: Db, loads: readonly cards.LoadRow[], asked: Asked, otherwise?: RuleChoices) {
  const ids = loads.map((load) => load.id)
  // Which scans are under way is read before what they wrote: one that ends meanwhile has written all of it.
  const [looking, counts, answers, formatted, seen, backupCardRows] = await Promise.all([
    once(db, asked, readersScanned),
    cards.entryCounts(db, ids),
    answersOf(db, ids),
    formattedOf(db, ids),
    latestCardSeen(db, ids),
    backupCardsOf(db, ids),
  ])
  const choices = otherwise ?? (await once(db, asked, ruleChoices))
  const [rules, inReaders, pairs, copyRows, older] = await Promise.all([
    rulesOfLoads(db, loads, choices),
    once(db, asked, readers),
    saidDifferent(db),
    readCopies(db, ids, asked),
    olderSince(db),
  ])
  const isOneOf = ({ loadId, twinId }: ReaderRow) =>
    (loadId !== null && ids.includes(loadId)) || backupCardRows.some((one) => one.id === twinId)
  const stayIds = inReaders.filter(isOneOf).flatMap((reader) => reader.stayId ?? [])
  const [stays, comparisons, lastKnown] = await Promise.all([
    stayIds.length > 0 ? staysById(db, stayIds) : [],
    stayIds.length > 0 ? comparisonsOf(db, stayIds) : [],
    // Only older records ask when a card was known.
    older === null ? [] : lastKnownStays(db, ids),
  ])
  const said = pairs.flatMap(({ volumeId, otherVolumeId }) =>
    volumeId && otherVolumeId ? [[volumeId, otherVolumeId] as const] : [],
  )
  const read = { looking, counts, answers, formatted, seen, backupCardRows }
  return { ...read, rules, atHome: choices.atHome, inReaders, copyRows, older, stays, comparisons, lastKnown, said }
}

async function readCopies(db: Db, loadIds: readonly string[], asked: Asked) {
  const [mirrors, times, readings, played, wrong, known] = await Promise.all([
    copies.mirrorsOf(db, loadIds),
    copies.proofTimes(db, loadIds),
    copies.readingsOf(db, loadIds),
    playedOf(db, loadIds),
    foundWrong(db, loadIds),
    once(db, asked, volumes),
  ])
  const doubted = await copies.troubledBytes(db, mirrors)
  return { mirrors, times, readings, played, wrong, doubted, volumes: new Map(known.map((row) => [row.id, row])) }
}

export type StateRows = Awaited<ReturnType<typeof readRows>>
export type CopyRows = StateRows['copyRows']

const byLoad = <Row extends { readonly loadId: string | null }>(rows: readonly Row[]) =>
  parted(rows, (row) => [row.loadId])

/** The rows of one load at a time: an overview of thousands would else go through all of them for each. */
function partedByLoad(rows: StateRows): (loadId: string) => StateRows {
  const { copyRows } = rows
  const own = {
    counts: byLoad(rows.counts),
    answers: byLoad(rows.answers),
    formatted: byLoad(rows.formatted),
    seen: byLoad(rows.seen),
    backupCards: byLoad(rows.backupCardRows),
    mirrors: byLoad(copyRows.mirrors),
    times: byLoad(copyRows.times),
    readings: byLoad(copyRows.readings),
    played: byLoad(copyRows.played),
    wrong: byLoad(copyRows.wrong),
    doubted: byLoad(copyRows.doubted),
  }
  return (loadId) => ({
    ...rows,
    counts: own.counts(loadId),
    answers: own.answers(loadId),
    formatted: own.formatted(loadId),
    seen: own.seen(loadId),
    backupCardRows: own.backupCards(loadId),
    copyRows: {
      ...copyRows,
      mirrors: own.mirrors(loadId),
      times: own.times(loadId),
      readings: own.readings(loadId),
      played: own.played(loadId),
      wrong: own.wrong(loadId),
      doubted: own.doubted(loadId),
    },
  })
}

/** The rows of each load, by its id; under other rules than those that hold, where they are given. */
export const stateRows = async (
  db: Db,
  loads: readonly cards.LoadRow[],
  asked: Asked,
  otherwise?: RuleChoices,
): Promise<(loadId: string) => StateRows> => partedByLoad(await readRows(db, loads, asked, otherwise))
