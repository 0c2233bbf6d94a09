import { rangesOf, TIME_TICKS } from '../../../core/cards/review/review'
import { markOf } from '../../../core/copies/mark'
import type { Db } from '../../../server/db/connection'
import { clipPage, loadsOf } from '../../../server/db/queries/cards'
import { clipFiles } from '../../../server/facts/clips'
import { loadStates } from '../../../server/facts/loadStates'
import { BOOKS_HOST } from './make'

/** When a kept database is asked: answers that speak of ages do not change from one day to the next. */
const ASKED_AT = Date.parse('2026-11-29T12:00:00Z')

/** What is said of every load of a kept database, in an order that does not depend on ids. */
export async function bookAnswers(db: Db) {
  // Whatever lay in a reader then is in none now: a card that is put in is another one until it was compared.
  await db
    .updateTable('reader')
    .set({ state: 'empty', loadId: null, twinId: null, same: false, difference: null })
    .execute()
  const productions = await db.selectFrom('production').select(['id', 'title']).orderBy('title').execute()
  const loads = await loadsOf(
    db,
    productions.map((one) => one.id),
  )
  const states = await loadStates(db, loads, { host: BOOKS_HOST, now: ASKED_AT, looked: true })
  const reviews = await db
    .selectFrom('review')
    .innerJoin('mediaFile', 'mediaFile.id', 'review.mediaFileId')
    .selectAll('review')
    .select('mediaFile.probe')
    .orderBy('mediaFileId')
    .execute()
  const asked = { limit: 200, after: undefined, down: false }
  const clips = await Promise.all(
    productions.map(async ({ id, title }) => {
      const page = await clipPage(db, { productionId: id, loadId: null, show: 'all', q: '', sort: 'name' }, asked)
      const files = await clipFiles(db, page.rows)
      return {
        title,
        clips: page.rows.map((row) => {
          const { name, seconds, proxy, wrong, sizeBytes, recordedAt } = row
          const { parts } = files(row)
          return { name, seconds, parts: parts > 1 ? parts : null, proxy, wrong, sizeBytes, recordedAt }
        }),
      }
    }),
  )
  return {
    loads: states.map((state) => ({
      label: state.load.label,
      clips: state.load.clips,
      playable: state.load.playable,
      rig: state.load.rigName,
      findings: state.findings,
      copies: state.copies.map((copy) => ({ ...copy, mark: markOf(copy, state.rule) })),
      clear: state.clear,
      formattedAt: state.formattedAt,
      formattedAgainst: state.formattedAgainst,
      returned: state.returned,
      twins: state.backupCards.map(({ name, facts, isFormatted }) => ({ name, facts, isFormatted })),
    })),
    clips,
    // In frames, as they were written down when the first of these books were made.
    reviews: reviews.map(({ verdict, times, note, name, folder, probe }) => ({
      ...{ verdict, note, name, folder },
      ranges: rangesOf(times, probe?.video?.rate ?? TIME_TICKS),
    })),
  }
}
