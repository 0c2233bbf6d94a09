import { cameraByHabits } from '../../core/cards/files/habit'
import { openStops } from '../../core/cards/findings/findings'
import { markOf } from '../../core/copies/mark'
import { unsafeElsewhere } from '../../core/line/needs'
import { MOST_ROWS } from '../../contract/page'
import { bigCard, bigState, type BigCard, type WatchedCard } from '../../core/copies/unattended'
import type { UnattendedRule, UnattendedView } from '../../contract/unattended'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import { copyQueue } from '../db/queries/copyQueue'
import { productionPage } from '../db/queries/productions'
import { readers, type ReaderRow } from '../db/queries/readers'
import { readUnattended } from '../db/queries/settings'
import { staysById } from '../db/queries/stays'
import { readersScanned } from '../db/queries/tasks'
import { copiedLately, latestTask } from '../db/queries/unattended'
import { cameraHabits } from './cameraHabits'
import { loadStates, type LoadState } from './loadStates'
import { productionFacts } from './productions'

const OPEN: readonly string[] = ['queued', 'running', 'paused']
const LATELY_MS = 16 * 3_600_000

/** A card in a reader, with what is said of it and what is to be ordered. */
export interface WatchedReader {
  readonly reader: ReaderRow
  readonly load: LoadState['load'] | undefined
  readonly card: BigCard
}

/** Every card that lies in a reader of this computer, as the rule for the tired sees it. */
export async function watchedReaders(db: Db, host: string, now: number): Promise<WatchedReader[]> {
  const [rows, looking, known, queue, rule] = await Promise.all([
    readers(db),
    readersScanned(db),
    cameraHabits(db),
    copyQueue(db, host),
    readUnattended(db),
  ])
  const held = rows.filter((row) => row.host === host && row.putAwayAt === null && row.state === 'card')
  const loads = await loadsById(
    db,
    held.flatMap((row) => (row.loadId !== null && row.same ? row.loadId : [])),
  )
  const [states, stays] = await Promise.all([
    loadStates(db, loads, { host, now, looked: true }),
    staysById(
      db,
      held.flatMap((row) => row.stayId ?? []),
    ),
  ])
  return Promise.all(
    held.map(async (reader) => {
      const state = reader.same ? states.find((one) => one.load.id === reader.loadId) : undefined
      // What went wrong with the card before it says nothing of this one.
      const since = stays.find((stay) => stay.id === reader.stayId)?.cameAt ?? new Date()
      const latest = state ? undefined : await latestTask(db, 'scan', reader.id)
      const scan = latest && latest.createdAt >= since ? latest : undefined
      const watched: WatchedCard = {
        name: reader.cardName ?? reader.name,
        ruleOn: rule.on,
        looking: looking.has(reader.id),
        scanFault: scan?.state === 'failed' ? (scan.sentence ?? 'Its scan failed.') : undefined,
        cameraKnown: cameraByHabits(reader.habits, known) !== undefined,
        load:
          state &&
          (await watchedLoad(db, state, {
            since,
            isQueued: queue.some((one) => one.loadId === state.load.id),
          })),
      }
      return { reader, load: state?.load, card: bigCard(watched) }
    }),
  )
}

async function watchedLoad(
  db: Db,
  state: LoadState,
  { since, isQueued }: { readonly since: Date; readonly isQueued: boolean },
): Promise<WatchedCard['load']> {
  const { load, copies, rule, findings } = state
  const task = await latestTask(db, 'copy', load.id)
  const isOpen = isQueued || (task !== undefined && OPEN.includes(task.state))
  const { done = 0, total = 0 } = (isOpen && task?.progress) || {}
  const isSince = task !== undefined && task.createdAt > load.scannedAt && task.createdAt >= since
  return {
    label: load.label,
    lookDone: load.lookDone,
    verified: provedDrives(state),
    wrong: openStops(findings),
    played: copies.some((copy) => markOf(copy, rule) === 3),
    copying: isOpen ? (total > 0 ? done / total : 0) : undefined,
    copyFault:
      isSince && !isOpen
        ? [task.sentence ?? 'The copy ended without two proved copies.', ...task.troubles.slice(0, 2)].join(' ')
        : undefined,
  }
}

/** Whole verified copies, those on one drive counted once, and at most two. */
const provedDrives = ({ apart }: LoadState): number => apart.marks.filter((mark) => mark >= 2).length

/** What the big screen shows. */
export async function unattendedView(db: Db, host: string, now: number): Promise<UnattendedView> {
  const rule: UnattendedRule = await readUnattended(db)
  const watched = await watchedReaders(db, host, now)
  const cards = watched.map(({ card: { name, state, sentence, share } }) => ({ name, state, sentence, share }))
  const here = new Set(watched.flatMap(({ load }) => load?.id ?? []))
  const lately = rule.productionId ? await copiedLately(db, rule.productionId, new Date(now - LATELY_MS)) : []
  const gone = await loadStates(
    db,
    await loadsById(
      db,
      lately.filter((id) => !here.has(id)),
    ),
    { host, now, looked: true },
  )
  const earlier = gone
    .filter((state) => state.formattedAt === undefined || state.returned)
    .map((state) => {
      const proved = provedDrives(state) >= 2 && openStops(state.findings) === 0
      const sentence = proved
        ? 'proved twice; play one clip from a copy'
        : 'not proved twice, or something is wrong with it: do not format'
      return { label: state.load.label, proved, sentence }
    })
  const elsewhere = await unsafeOf(db, host, now, new Set([...here, ...gone.map(({ load }) => load.id)]))
  // A card that was pulled out in the middle is the first thing to know, after footage that may be lost.
  const state = bigState([
    ...cards,
    ...earlier.map(({ proved }) => ({ state: proved ? 'proved' : 'wrong' }) as const),
    ...elsewhere.map(({ isDanger }) => ({ state: isDanger ? 'danger' : 'unsafe' }) as const),
  ])
  const unsafe = elsewhere.slice(0, MOST_UNSAFE)
  return { rule, state, cards, unsafe, moreUnsafe: elsewhere.length - unsafe.length, earlier }
}

const MOST_UNSAFE = 6

/** What is not safe of all productions, the worst first, but for loads that are told of already. */
async function unsafeOf(db: Db, host: string, now: number, told: ReadonlySet<string>) {
  const { rows } = await productionPage(db, { limit: MOST_ROWS, down: true })
  const facts = await productionFacts(db, rows, { host, now, looked: true })
  return rows
    .flatMap(({ id, title }) => {
      const own = facts.get(id)
      return (own ? unsafeElsewhere(own, told) : []).map(({ sentence, grade }) => ({
        ...{ title, sentence },
        isDanger: grade === 'danger',
      }))
    })
    .toSorted((a, b) => Number(b.isDanger) - Number(a.isDanger))
}
