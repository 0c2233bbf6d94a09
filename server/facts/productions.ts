import { openQuestions, openStops } from '../../core/cards/findings'
import { markOf } from '../../core/copies/mark'
import type { ProductionFacts } from '../../core/line/line'
import { allPass } from '../../core/media/check'
import { recordingBudget } from '../../core/shoot/recording'
import { dayIn } from '../../core/units/day'
import type { Db } from '../db/connection'
import { knownBytes } from '../db/queries/bytes'
import { loadsOf } from '../db/queries/cards'
import { deliverablesOf } from '../db/queries/exports'
import { readers } from '../db/queries/places'
import { productions } from '../db/queries/productions'
import { proxiesOf } from '../db/queries/proxies'
import { bagsOf } from '../db/queries/shelf'
import { cameraPlans } from '../db/queries/shoot'
import { deliveryChecks } from './deliveries'
import { loadStates, type Asked } from './loads'
import { planOf } from './plans'
import { proxyChecks } from './proxies'
import { volumeViews } from './volumes'

/** Everything the line needs, for all productions in a fixed number of questions. */
export async function allProductionFacts(db: Db, asked: Asked): Promise<Map<string, ProductionFacts>> {
  const all = await productions(db)
  const ids = all.map((one) => one.id)
  const [plans, loads, deliverables, bags, bytes, inReaders, drives, proxies] = await Promise.all([
    cameraPlans(db, ids),
    loadsOf(db, ids),
    deliverablesOf(db, ids),
    bagsOf(db, ids),
    knownBytes(db),
    readers(db),
    volumeViews(db, asked.host),
    proxiesOf(db, ids),
  ])
  const loadFacts = await loadStates(db, loads, asked)
  const proxyOf = new Map(proxies.map((proxy) => [proxy.clipId, proxy]))
  const waiting = inReaders.filter((reader) => reader.state === 'card' && !reader.same).length
  return new Map(
    all.map((production) => {
      const own = loadFacts.filter((state) => state.load.productionId === production.id)
      const proxied = own.flatMap((state) => state.clips.filter((clip) => clip.probe?.video && !clip.trouble))
      const madeProxies = proxied.flatMap((clip) => {
        const made = proxyOf.get(clip.id)
        return made && clip.probe ? [allPass(proxyChecks(clip.probe, made))] : []
      })
      const budgets = plans
        .filter((plan) => plan.productionId === production.id)
        .map((plan) => recordingBudget(planOf(plan)))
      const rendered = deliverables.filter((row) => row.productionId === production.id)
      const shelved = bags.filter((row) => row.productionId === production.id)
      const size = bytes.filter((row) => row.productionId === production.id)
      const used = new Set(size.map((row) => row.volumeId))
      const closed = own.length === 0 && size.length > 0
      const filmedYet = !production.shootOn || production.shootOn <= dayIn(production.timeZone, asked.now)
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
          marks: state.copies.map((copy) => markOf(copy, state.settings)).sort((a, b) => b - a),
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
