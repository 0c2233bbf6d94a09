import { cardFindings, openStops, withAnswers, type Finding, type ScannedClip } from '../../core/cards/findings'
import { clearToFormat, type ClearAnswer } from '../../core/copies/clear'
import type { CopyFacts } from '../../core/copies/mark'
import type { Db } from '../db/connection'
import * as cards from '../db/queries/cards'
import * as copies from '../db/queries/copies'
import { answersOf, latestEvents } from '../db/queries/events'
import { readSettings } from '../db/queries/productions'
import type { Medium } from '../engine/medium'
import { readerStates } from './readers'
import { connectedVolumes } from './volumes'

type LoadRow = Awaited<ReturnType<typeof cards.loadsOf>>[number]
type ClipRow = Awaited<ReturnType<typeof cards.clipsOf>>[number]
type EntryRow = Awaited<ReturnType<typeof cards.oddEntries>>[number]
type AnswerRow = Awaited<ReturnType<typeof answersOf>>[number]

export interface LoadState {
  readonly load: LoadRow
  readonly clips: readonly ClipRow[]
  readonly findings: readonly Finding[]
  readonly copies: readonly (CopyFacts & { readonly folder: string })[]
  readonly clear: ClearAnswer
  readonly formattedAt: string | undefined
  /** It was said to be formatted, and its clips were on the card again. */
  readonly returned: boolean
}

/** Clips, findings, copies, clear-to-format and format state of loads, from facts alone, in a fixed number of questions. */
export async function loadStates(db: Db, loads: readonly LoadRow[]): Promise<LoadState[]> {
  const ids = loads.map((load) => load.id)
  const [clips, entries, answers, events] = await Promise.all([
    cards.clipsOf(db, ids),
    cards.oddEntries(db, ids),
    answersOf(db, ids),
    latestEvents(db, ids),
  ])
  const [plans, counts, settings, states, connected] = await Promise.all([
    copies.copyPlans(db, ids),
    copies.copyCounts(db, ids),
    readSettings(db),
    readerStates(db),
    connectedVolumes(db),
  ])
  const lost = await lostMirrors(plans, connected)
  const ownOf = <T extends { loadId: string | null }>(rows: readonly T[], load: LoadRow) =>
    rows.filter((row) => row.loadId === load.id)
  return loads.map((load) => {
    const own = ownOf(clips, load)
    const eventAt = (kind: string, volumeId: string | null = null) =>
      events.find((event) => event.loadId === load.id && event.kind === kind && event.volumeId === volumeId)?.at
    const formatted = eventAt('said-formatted')
    const looked = eventAt('looked-at')
    const returned = formatted !== undefined && looked !== undefined && looked > formatted
    const findings = findingsOf(load, own, ownOf(entries, load), ownOf(answers, load), returned)
    const facts = ownOf(plans, load).map((plan) => {
      const count = counts.find((one) => one.loadId === load.id && one.volumeId === plan.volumeId)
      return {
        volumeId: plan.volumeId,
        volumeName: plan.name,
        site: plan.site,
        folder: plan.folder,
        connected: connected.has(plan.volumeId),
        filesWanted: load.fileCount,
        filesCopied: Number(count?.proved ?? 0),
        filesVerified: Number(count?.fromMedium ?? 0),
        filesVerifiedFromCache: Number(count?.proved ?? 0) - Number(count?.fromMedium ?? 0),
        filesMismatched: Number(count?.mismatched ?? 0),
        filesInConflict: Number(count?.conflicts ?? 0),
        mirrorLost: lost.has(plan) && count !== undefined,
        sizeBytes: Number(count?.sizeBytes ?? 0),
        lastVerifiedAt: count?.lastProvedAt?.toISOString(),
        spotPlayedAt: eventAt('spot-played', plan.volumeId)?.toISOString(),
      }
    })
    const clear = clearToFormat({
      copies: facts,
      policy: settings.policy,
      atHome: settings.atHome,
      cardInReader: states.some((state) => state.loadId === load.id),
      filesLeftOut: load.leftOut,
      thingsWrong: openStops(findings),
      formattedAt: returned ? undefined : formatted?.toISOString(),
    })
    return { load, clips: own, findings, copies: facts, clear, formattedAt: formatted?.toISOString(), returned }
  })
}

/** Copies whose folder is gone from its volume, though that is connected. */
async function lostMirrors<P extends { volumeId: string; folder: string }>(
  plans: readonly P[],
  connected: ReadonlyMap<string, Medium>,
): Promise<Set<P>> {
  const looked = await Promise.all(
    plans.map(async (plan) => {
      const medium = connected.get(plan.volumeId)
      // A volume that is pulled out just now is no proof of anything.
      const there =
        medium === undefined ||
        (await medium.entry(Buffer.from(plan.folder)).then(
          (entry) => entry?.kind === 'folder',
          () => true,
        ))
      return there ? [] : [plan]
    }),
  )
  return new Set(looked.flat())
}

export const scannedClip = (clip: ClipRow): ScannedClip => ({
  path: clip.pathText,
  sizeBytes: clip.sizeBytes,
  seconds: clip.probe?.seconds,
  recordedAt: clip.probe?.recordedAt,
  pictureMade: clip.pictureMade,
  trouble: clip.trouble ?? undefined,
  hasPicture: clip.hasPicture,
})

/** What is to be said of a load's card. */
function findingsOf(
  load: LoadRow,
  clips: readonly ClipRow[],
  entries: readonly EntryRow[],
  answers: readonly AnswerRow[],
  returned: boolean,
): Finding[] {
  const listed = entries.flatMap(({ kind, pathText, sizeBytes, state, copied }) =>
    kind === 'folder'
      ? []
      : [
          {
            path: pathText,
            kind,
            sizeBytes,
            gone: state !== 'gone' ? undefined : copied ? ('copied' as const) : ('lost' as const),
          },
        ],
  )
  const found = withAnswers(
    cardFindings(listed, clips.map(scannedClip), load.shootOn ?? undefined),
    new Map(answers.map((one) => [one.key, one.answer])),
  )
  if (!returned) return found
  return [
    {
      kind: 'returned',
      weight: 'stop',
      paths: [],
      sentence: `You said the card of “${load.label}” was formatted, but its clips are still on it. Was another card formatted?`,
    },
    ...found,
  ]
}
