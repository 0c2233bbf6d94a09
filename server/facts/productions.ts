import { openQuestions, openStops } from '../../core/cards/findings/findings'
import type { ProductionFacts } from '../../core/line/facts'
import type { KnownPlace } from '../../core/line/known'
import { onOneDrive } from '../../core/storage/oneDrive'
import { parted } from '../../core/units/parted'
import type { Db } from '../db/connection'
import { knownBytes } from '../db/queries/bytes'
import { loadsOf } from '../db/queries/cards'
import { deliverableCounts } from '../db/queries/exports'
import { cardParts } from '../db/queries/reassigned'
import type { ProductionRow } from '../db/queries/productions'
import { reviewStates } from '../db/queries/reviewStates'
import { bagCounts } from '../db/queries/shelf'
import { plansOf } from '../db/queries/shoot'
import { readersScanned } from '../db/queries/tasks'
import { once, type Asked } from './asked'
import { gearOf, gearRowsOf } from './gear'
import { loadStates, type LoadState } from './loadStates'
import { budgetOf } from './plan'
import { proxyCounts } from './proxies'
import { volumeViews } from './volumes'
import { waitingCards } from './waiting'

/** Everything the line needs of productions, in a fixed number of questions and without counting anything. */
export async function productionFacts(
  db: Db,
  productions: readonly ProductionRow[],
  asked: Asked,
): Promise<Map<string, ProductionFacts>> {
  const ids = productions.map((one) => one.id)
  const [plans, loads, parts, deliverables, bags, reviewed, bytes, looking, drives] = await Promise.all([
    plansOf(db, ids),
    loadsOf(db, ids),
    cardParts(db, ids),
    deliverableCounts(db, ids),
    bagCounts(db, ids),
    reviewStates(db, ids, asked.host),
    knownBytes(db, ids),
    once(db, asked, readersScanned),
    volumeViews(db, asked),
  ])
  // Nobody asks for the gear of productions that plan nothing.
  const gearRows = plans.length > 0 ? await gearRowsOf(db, asked) : undefined
  const shown = new Set(loads.map(({ id }) => id))
  const others = gearRows?.loads.filter(({ id }) => !shown.has(id)) ?? []
  const states = await loadStates(db, [...loads, ...others], asked)
  const gear = gearRows && gearOf(gearRows, states)
  const waiting = await waitingCards(db, asked)
  const byProduction = <Row extends { readonly productionId: string }>(rows: readonly Row[]) =>
    parted(rows, (row) => [row.productionId])
  const [partsOf, bytesOf] = [byProduction(parts), byProduction(bytes)]
  const partsOfLoad = parted(
    parts.filter((part) => part.clips > 0),
    (part) => [part.loadId],
  )
  const statesOf = parted(states, ({ load }) => [
    load.productionId,
    ...partsOfLoad(load.id).map((part) => part.productionId),
  ])
  return new Map(
    productions.map((production) => {
      const isOf = (row: { readonly productionId: string }) => row.productionId === production.id
      const ownParts = new Map(partsOf(production.id).map((one) => [one.loadId, one]))
      const own = statesOf(production.id)
      const size = bytesOf(production.id)
      const closed = own.length === 0 && size.length > 0
      // A card of which nothing tells for whom it is may be for any of them.
      const here = closed ? [] : waiting.filter(({ belongs }) => belongs === undefined || isOf(belongs))
      const cardsLooking = here.filter(({ reader }) => looking.has(reader.id)).length
      const plan = plans.find(isOf)
      const facts: ProductionFacts = {
        plan: planFacts(plan && gear ? budgetOf(plan, gear, production) : undefined),
        cardsWaiting: here.length - cardsLooking,
        cardsLooking,
        loads: own.map((state) => ({
          ...loadFacts(state, isOf(state.load)),
          clips: ownParts.get(state.load.id)?.clips ?? 0,
        })),
        proxies: proxyFacts(proxyCounts([...ownParts.values()])),
        storage: storageFacts(size, drives),
        ...shelfFacts(deliverables.find(isOf), bags.find(isOf), drives),
        review: reviewed.get(production.id) ?? UNREVIEWED,
        closed,
        known: closed ? knownPlaces(size, drives) : [],
        shootOn: production.shootOn,
      }
      return [production.id, facts]
    }),
  )
}

const planFacts = (budget: ReturnType<typeof budgetOf> | undefined): ProductionFacts['plan'] => ({
  cameras: budget?.cameras.length ?? 0,
  sizeBytes: budget?.sizeBytes ?? 0,
  cards: budget?.cards ?? 0,
  tooSlow: budget?.tooSlow.length ?? 0,
  notClear: (budget?.notClear.length ?? 0) + (budget?.promised.length ?? 0),
  missing: budget?.missing ?? 0,
})

/** What is asked of a card is asked where it was read: in the production that is its own. */
const loadFacts = (state: LoadState, isOwn: boolean) => ({
  id: state.load.id,
  label: state.load.label,
  stops: isOwn ? openStops(state.findings) : 0,
  questions: isOwn ? openQuestions(state.findings) : 0,
  ...state.apart,
  clear: state.clear.clear,
  formatted: state.formattedAt !== undefined && !state.returned,
  unseen: state.lastSeen !== undefined,
  touched: state.card?.isTouched === true,
  foundWrong: state.copies.reduce((sum, copy) => sum + copy.foundWrong.length, 0),
  amiss: state.copies.reduce((sum, copy) => sum + (copy.mirrorLost ? 0 : copy.filesMismatched + copy.filesMissing), 0),
  looking: state.isLooking && !state.load.lookDone,
})

const proxyFacts = (counts: ReturnType<typeof proxyCounts>): ProductionFacts['proxies'] => ({
  wanted: counts.wanted,
  made: counts.equal + counts.differ + counts.unchecked,
  failed: counts.differ,
  unchecked: counts.unchecked,
  without: counts.without,
})

type Drives = Awaited<ReturnType<typeof volumeViews>>

const storageFacts = (size: Awaited<ReturnType<typeof knownBytes>>, drives: Drives): ProductionFacts['storage'] => ({
  sizeBytes: sum(size, (row) => row.sizeBytes),
  tightVolume: drives.find(
    (drive) =>
      !drive.away && drive.connected && size.some((row) => row.volumeId === drive.id) && drive.budget.state !== 'roomy',
  )?.name,
})

const knownPlaces = (size: Awaited<ReturnType<typeof knownBytes>>, drives: Drives): KnownPlace[] =>
  drives.flatMap(({ id, name, site, connected }) =>
    size
      .filter((row) => row.volumeId === id)
      .map(({ byteClass, sizeBytes }) => ({ volumeId: id, name, site, connected, byteClass, sizeBytes })),
  )

const shelfFacts = (
  rendered: Awaited<ReturnType<typeof deliverableCounts>>[number] | undefined,
  shelved: Awaited<ReturnType<typeof bagCounts>>[number] | undefined,
  drives: Drives,
): Pick<ProductionFacts, 'exports' | 'bags'> => ({
  exports: {
    made: rendered?.made ?? 0,
    failed: rendered?.failed ?? 0,
    unshelved: rendered?.unshelved ?? 0,
  },
  bags: {
    written: shelved?.written ?? 0,
    verified: shelved?.verified ?? 0,
    single: (rendered?.shelves ?? []).filter(
      (ids) => ids.length > 0 && onOneDrive(drives.filter((drive) => ids.includes(drive.id))),
    ).length,
  },
})

const UNREVIEWED = { decided: false, named: 0, unnamed: 0, placed: 0, unplaced: 0 }

const sum = <T>(items: readonly T[], of: (item: T) => number) => items.reduce((total, item) => total + of(item), 0)
