import { cardFindings, openQuestions, withAnswers, type Finding, type ScannedClip } from '../../core/cards/findings'
import { clearToFormat, type ClearAnswer } from '../../core/copies/clear'
import { markOf, type CopyFacts } from '../../core/copies/mark'
import { checkDelivery } from '../../core/exports/check'
import { destinationOf } from '../../core/exports/destination'
import type { ProductionFacts } from '../../core/line/line'
import { allPass } from '../../core/media/check'
import { checkProxy } from '../../core/proxies/check'
import { HALF_SIZE } from '../../core/proxies/recipe'
import { recordingBudget } from '../../core/shoot/recording'
import { frameRate, parseFrameRate } from '../../core/units/frameRate'
import type { Db } from '../db/connection'
import * as cards from '../db/queries/cards'
import * as copies from '../db/queries/copies'
import { answersOf, latestEvents } from '../db/queries/events'
import { deliverablesOf } from '../db/queries/exports'
import { productions, readSettings } from '../db/queries/productions'
import { proxiesOf } from '../db/queries/proxies'
import { bagsOf } from '../db/queries/shelf'
import { cameraPlans } from '../db/queries/shoot'
import { knownBytes, volumes } from '../db/queries/storage'
import type { Medium } from '../engine/medium'
import { volumeMedium } from '../places'
import { readerStates } from './readers'
import { volumeViews } from './volumes'

type LoadRow = Awaited<ReturnType<typeof cards.loadsOf>>[number]
type ClipRow = Awaited<ReturnType<typeof cards.clipsOf>>[number]
type DeliverableRow = Awaited<ReturnType<typeof deliverablesOf>>[number]
type Events = Awaited<ReturnType<typeof latestEvents>>

export const planOf = (row: Awaited<ReturnType<typeof cameraPlans>>[number]) => ({
  camera: row.camera, widthPx: row.widthPx, heightPx: row.heightPx, rate: parseFrameRate(row.rate) ?? frameRate(25),
  videoBitsPerSecond: row.videoBitsPerSecond, audioBitsPerSecond: row.audioBitsPerSecond, secondsPerTake: row.secondsPerTake, takes: row.takes,
  cardBytes: row.cardBytes, cardBytesPerSecond: row.cardBytesPerSecond, fillLimit: row.fillLimit,
})

export interface LoadState {
  readonly load: LoadRow
  readonly copies: readonly (CopyFacts & { readonly folder: string })[]
  readonly clear: ClearAnswer
  readonly formattedAt: string | undefined
  readonly returned: boolean
}

/** Copies, clear-to-format and format state of loads, from facts alone. */
export async function loadStates(db: Db, loads: readonly LoadRow[], events: Events): Promise<LoadState[]> {
  const ids = loads.map((load) => load.id)
  const [plans, counts, settings, states, connected] = await Promise.all([copies.copyPlans(db, ids), copies.copyCounts(db, ids), readSettings(db), readerStates(db), connectedVolumes(db)])
  const lost = await lostMirrors(plans, connected)
  return loads.map((load) => {
    const eventAt = (kind: string, volumeId: string | null = null) => events.find((event) => event.loadId === load.id && event.kind === kind && event.volumeId === volumeId)?.at
    const formatted = eventAt('said-formatted')
    const looked = eventAt('looked-at')
    const facts = plans.filter((plan) => plan.loadId === load.id).map((plan) => {
      const count = counts.find((one) => one.loadId === load.id && one.volumeId === plan.volumeId)
      return {
        volumeId: plan.volumeId, volumeName: plan.name, site: plan.site, folder: plan.folder, connected: connected.has(plan.volumeId),
        filesWanted: load.fileCount, filesCopied: Number(count?.proved ?? 0), filesVerified: Number(count?.fromMedium ?? 0),
        filesVerifiedFromCache: Number(count?.proved ?? 0) - Number(count?.fromMedium ?? 0), filesMismatched: Number(count?.mismatched ?? 0), filesInConflict: Number(count?.conflicts ?? 0),
        mirrorLost: lost.has(plan) && count !== undefined,
        sizeBytes: Number(count?.sizeBytes ?? 0), lastVerifiedAt: count?.lastProvedAt?.toISOString(), spotPlayedAt: eventAt('spot-played', plan.volumeId)?.toISOString(),
      }
    })
    const cardInReader = states.some((state) => state.loadId === load.id)
    const returned = formatted !== undefined && looked !== undefined && looked > formatted
    const clear = clearToFormat({ copies: facts, policy: settings.policy, atHome: settings.atHome, cardInReader, filesLeftOut: load.leftOut, formattedAt: returned ? undefined : formatted?.toISOString() })
    return { load, copies: facts, clear, formattedAt: formatted?.toISOString(), returned }
  })
}

async function connectedVolumes(db: Db): Promise<Map<string, Medium>> {
  const rows = await volumes(db)
  const media = await Promise.all(rows.map(async (row) => [row.id, await volumeMedium(db, row)] as const))
  return new Map(media.flatMap(([id, medium]) => (medium ? [[id, medium] as const] : [])))
}

/** Copies whose folder is gone from its volume, though that is connected. */
async function lostMirrors<P extends { volumeId: string; folder: string }>(plans: readonly P[], connected: ReadonlyMap<string, Medium>): Promise<Set<P>> {
  const looked = await Promise.all(plans.map(async (plan) => {
    const medium = connected.get(plan.volumeId)
    // A volume that is pulled out just now is no proof of anything.
    const there = medium === undefined || (await medium.entry(Buffer.from(plan.folder)).then((entry) => entry?.kind === 'folder', () => true))
    return there ? [] : [plan]
  }))
  return new Set(looked.flat())
}

/** Everything that findings are made of, of any number of loads. */
export interface FindingFacts {
  readonly clips: readonly ClipRow[]
  readonly entries: Awaited<ReturnType<typeof cards.oddEntries>>
  readonly answers: Awaited<ReturnType<typeof answersOf>>
}

export async function findingFacts(db: Db, loadIds: readonly string[]): Promise<FindingFacts> {
  const [clips, entries, answers] = await Promise.all([cards.clipsOf(db, loadIds), cards.oddEntries(db, loadIds), answersOf(db, loadIds)])
  return { clips, entries, answers }
}

export const scannedClip = (clip: ClipRow): ScannedClip => ({
  path: clip.pathText, sizeBytes: clip.sizeBytes, seconds: clip.probe?.seconds, recordedAt: clip.probe?.recordedAt, pictureMade: clip.pictureMade,
  trouble: clip.trouble ?? undefined, hasPicture: clip.hasPicture,
})

/** What is to be said of a load's card. */
export function findingsOf({ load, returned }: LoadState, { clips, entries, answers }: FindingFacts, shootOn: string | null): Finding[] {
  const asked = cardFindings(
    entries.flatMap((entry) => (entry.loadId !== load.id || entry.kind === 'folder' ? [] : [{ path: entry.pathText, kind: entry.kind, sizeBytes: entry.sizeBytes, gone: entry.state === 'gone' ? (entry.copied ? ('copied' as const) : ('lost' as const)) : undefined }])),
    clips.filter((clip) => clip.loadId === load.id).map(scannedClip),
    shootOn ?? undefined,
  )
  const found = withAnswers(asked, new Map(answers.flatMap((one) => (one.loadId === load.id ? [[one.key, one.answer] as const] : []))))
  if (!returned) return found
  return [{ kind: 'returned', weight: 'stop', paths: [], sentence: `You said the card of “${load.label}” was formatted, but its clips are still on it. Was another card formatted?` }, ...found]
}

/** The checks of a deliverable's real file against its destination. */
export function deliveryChecks(row: DeliverableRow) {
  const destination = destinationOf(row.destinationId)
  const master = row.master?.video
  if (!destination || !master) return []
  return checkDelivery({ destination, rate: master.rate, seconds: master.seconds, withSound: row.master?.audio !== undefined }, row.probe, row.bars)
}

/** Everything the line needs, for all productions in a fixed number of questions. */
export async function allProductionFacts(db: Db): Promise<Map<string, ProductionFacts>> {
  const all = await productions(db)
  const ids = all.map((one) => one.id)
  const [plans, loads, deliverables, bags, bytes, states, drives] = await Promise.all([cameraPlans(db, ids), cards.loadsOf(db, ids), deliverablesOf(db, ids), bagsOf(db, ids), knownBytes(db), readerStates(db), volumeViews(db)])
  const loadIds = loads.map((load) => load.id)
  const [odd, events] = await Promise.all([findingFacts(db, loadIds), latestEvents(db, loadIds)])
  const { clips } = odd
  const [proxies, loadFacts] = await Promise.all([proxiesOf(db, clips.map((clip) => clip.id)), loadStates(db, loads, events)])
  const waiting = states.filter((state) => state.state === 'card' && !state.loadId).length
  const today = new Date().toISOString().slice(0, 10)
  return new Map(all.map((production) => {
    const own = loadFacts.filter((state) => state.load.productionId === production.id)
    const ownIds = new Set(own.map((state) => state.load.id))
    const proxied = clips.filter((clip) => ownIds.has(clip.loadId) && clip.probe?.video && !clip.trouble)
    const madeProxies = proxied.flatMap((clip) => {
      const made = proxies.find((proxy) => proxy.clipId === clip.id)
      return made && clip.probe ? [allPass(checkProxy(clip.probe, made.probe, HALF_SIZE.fraction))] : []
    })
    const budgets = plans.filter((plan) => plan.productionId === production.id).map((plan) => recordingBudget(planOf(plan)))
    const rendered = deliverables.filter((row) => row.productionId === production.id)
    const shelved = bags.filter((row) => row.productionId === production.id)
    const size = bytes.filter((row) => row.productionId === production.id)
    const used = new Set(size.map((row) => row.volumeId))
    const closed = own.length === 0 && size.length > 0
    const filmedYet = !production.shootOn || production.shootOn <= today
    const facts: ProductionFacts = {
      plan: { cameras: budgets.length, sizeBytes: sum(budgets, (one) => one.sizeBytes), cards: sum(budgets, (one) => one.cards), tooSlow: budgets.filter((one) => !one.sustained).length },
      // A card that nobody has looked at may belong to any production that is being filmed.
      cardsWaiting: closed || shelved.length > 0 || !filmedYet ? 0 : waiting,
      loads: own.map((state) => {
        const found = findingsOf(state, odd, production.shootOn)
        return {
          label: state.load.label, clips: clips.filter((clip) => clip.loadId === state.load.id).length,
          stops: found.filter((one) => one.weight === 'stop').length, questions: openQuestions(found),
          marks: state.copies.map(markOf).sort((a, b) => b - a), clear: state.clear.clear, formatted: state.formattedAt !== undefined && !state.returned,
        }
      }),
      proxies: { wanted: proxied.length, made: madeProxies.length, failed: madeProxies.filter((pass) => !pass).length },
      storage: { sizeBytes: sum(size, (row) => row.sizeBytes), tightVolume: drives.find((drive) => drive.connected && used.has(drive.id) && drive.budget.state !== 'roomy')?.name },
      exports: { made: rendered.length, failed: rendered.filter((row) => !allPass(deliveryChecks(row))).length },
      bags: { written: shelved.length, verified: shelved.filter((row) => row.verifiedAt).length },
      closed,
    }
    return [production.id, facts]
  }))
}

const sum = <T>(items: readonly T[], of: (item: T) => number) => items.reduce((total, item) => total + of(item), 0)
