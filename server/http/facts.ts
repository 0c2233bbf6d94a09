import { openQuestions, openStops } from '../../core/cards/findings'
import { markOf } from '../../core/copies/mark'
import { checkDelivery } from '../../core/exports/check'
import { destinationOf } from '../../core/exports/destination'
import type { ProductionFacts } from '../../core/line/line'
import { allPass } from '../../core/media/check'
import { checkProxy } from '../../core/proxies/check'
import { HALF_SIZE } from '../../core/proxies/recipe'
import { recordingBudget } from '../../core/shoot/recording'
import { frameRate, parseFrameRate } from '../../core/units/frameRate'
import type { Db } from '../db/connection'
import { loadsOf } from '../db/queries/cards'
import { deliverablesOf } from '../db/queries/exports'
import { productions } from '../db/queries/productions'
import { proxiesOf } from '../db/queries/proxies'
import { bagsOf } from '../db/queries/shelf'
import { cameraPlans } from '../db/queries/shoot'
import { knownBytes } from '../db/queries/storage'
import { loadStates } from './loads'
import { readerStates } from './readers'
import { volumeViews } from './volumes'

type DeliverableRow = Awaited<ReturnType<typeof deliverablesOf>>[number]

export const planOf = (row: Awaited<ReturnType<typeof cameraPlans>>[number]) => ({
  camera: row.camera,
  widthPx: row.widthPx,
  heightPx: row.heightPx,
  rate: parseFrameRate(row.rate) ?? frameRate(25),
  videoBitsPerSecond: row.videoBitsPerSecond,
  audioBitsPerSecond: row.audioBitsPerSecond,
  secondsPerTake: row.secondsPerTake,
  takes: row.takes,
  cardBytes: row.cardBytes,
  cardBytesPerSecond: row.cardBytesPerSecond,
  fillLimit: row.fillLimit,
})

/** The checks of a deliverable's real file against its destination. */
export function deliveryChecks(row: DeliverableRow) {
  const destination = destinationOf(row.destinationId)
  const master = row.master?.video
  if (!destination || !master) return []
  return checkDelivery(
    { destination, rate: master.rate, seconds: master.seconds, withSound: row.master?.audio !== undefined },
    row.probe,
    row.bars,
  )
}

/** Everything the line needs, for all productions in a fixed number of questions. */
export async function allProductionFacts(db: Db): Promise<Map<string, ProductionFacts>> {
  const all = await productions(db)
  const ids = all.map((one) => one.id)
  const [plans, loads, deliverables, bags, bytes, states, drives] = await Promise.all([
    cameraPlans(db, ids),
    loadsOf(db, ids),
    deliverablesOf(db, ids),
    bagsOf(db, ids),
    knownBytes(db),
    readerStates(db),
    volumeViews(db),
  ])
  const loadFacts = await loadStates(db, loads)
  const clips = loadFacts.flatMap((state) => state.clips)
  const proxies = await proxiesOf(
    db,
    clips.map((clip) => clip.id),
  )
  const waiting = states.filter((state) => state.state === 'card' && !state.loadId).length
  const today = new Date().toISOString().slice(0, 10)
  return new Map(
    all.map((production) => {
      const own = loadFacts.filter((state) => state.load.productionId === production.id)
      const proxied = own.flatMap((state) => state.clips.filter((clip) => clip.probe?.video && !clip.trouble))
      const madeProxies = proxied.flatMap((clip) => {
        const made = proxies.find((proxy) => proxy.clipId === clip.id)
        return made && clip.probe ? [allPass(checkProxy(clip.probe, made.probe, HALF_SIZE.fraction))] : []
      })
      const budgets = plans
        .filter((plan) => plan.productionId === production.id)
        .map((plan) => recordingBudget(planOf(plan)))
      const rendered = deliverables.filter((row) => row.productionId === production.id)
      const shelved = bags.filter((row) => row.productionId === production.id)
      const size = bytes.filter((row) => row.productionId === production.id)
      const used = new Set(size.map((row) => row.volumeId))
      const closed = own.length === 0 && size.length > 0
      const filmedYet = !production.shootOn || production.shootOn <= today
      const facts: ProductionFacts = {
        plan: {
          cameras: budgets.length,
          sizeBytes: sum(budgets, (one) => one.sizeBytes),
          cards: sum(budgets, (one) => one.cards),
          tooSlow: budgets.filter((one) => !one.sustained).length,
        },
        // A card that nobody has looked at may belong to any production that is being filmed.
        cardsWaiting: closed || shelved.length > 0 || !filmedYet ? 0 : waiting,
        loads: own.map((state) => ({
          label: state.load.label,
          clips: state.clips.length,
          stops: openStops(state.findings),
          questions: openQuestions(state.findings),
          marks: state.copies.map(markOf).sort((a, b) => b - a),
          clear: state.clear.clear,
          formatted: state.formattedAt !== undefined && !state.returned,
        })),
        proxies: {
          wanted: proxied.length,
          made: madeProxies.length,
          failed: madeProxies.filter((pass) => !pass).length,
        },
        storage: {
          sizeBytes: sum(size, (row) => row.sizeBytes),
          tightVolume: drives.find((drive) => drive.connected && used.has(drive.id) && drive.budget.state !== 'roomy')
            ?.name,
        },
        exports: { made: rendered.length, failed: rendered.filter((row) => !allPass(deliveryChecks(row))).length },
        bags: { written: shelved.length, verified: shelved.filter((row) => row.verifiedAt).length },
        closed,
      }
      return [production.id, facts]
    }),
  )
}

const sum = <T>(items: readonly T[], of: (item: T) => number) => items.reduce((total, item) => total + of(item), 0)
