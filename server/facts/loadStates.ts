import { openStops, type Finding } from '../../core/cards/findings/findings'
import { forgottenSentence, lastSeenSentence, TOUCHED } from '../../core/cards/load/stay'
import { clearToFormat, type ClearAnswer, type ClearQuestion } from '../../core/copies/clear'
import type { CardKnown } from '../../core/copies/clearQuestion'
import { marksApart, type Apart } from '../../core/copies/apart'
import { dangerOf, USUAL_CYCLE_DAYS, type Danger } from '../../core/copies/danger'
import { deviceRelation } from '../../core/copies/device'
import type { CopyFacts } from '../../core/copies/mark'
import { playedStill } from '../../core/copies/copyState'
import { AT_HOME_ONLY, type ClearRule } from '../../core/copies/rule'
import type { Db } from '../db/connection'
import type * as cards from '../db/queries/cards'
import type { ReaderRow } from '../db/queries/readers'
import type { StayRow } from '../db/queries/stays'
import type { RuleChoices } from '../db/queries/clearRules'
import { mediumOfVolume, type VolumeRow } from '../db/queries/volumes'
import type { Asked } from './asked'
import { findingsOf } from './findings'
import { stateRows, type CopyRows, type StateRows } from './stateRows'
import { backupCardStates, type BackupCardState } from './backupCards'

type LoadRow = cards.LoadRow

/** A copy with where it lies and how its drive is related to those of the other copies. */
export interface CopyState extends CopyFacts {
  readonly folder: string
  readonly sharesDriveWith: readonly string[]
  readonly mayShareDriveWith: readonly { readonly volumeId: string; readonly volumeName: string }[]
  readonly saidDifferentFrom: readonly string[]
}

/** Everything that is true of a load now. */
export interface LoadState {
  readonly load: LoadRow
  /** A scan of its card is under way, or waits to be. */
  readonly isLooking: boolean
  readonly findings: readonly Finding[]
  readonly copies: readonly CopyState[]
  readonly clear: ClearAnswer
  /** How far its copies have come, by drives. */
  readonly apart: Apart
  /** What stands against it on the chart, whatever lies in a reader now. */
  readonly danger: Danger
  /** What a yes asks of it. */
  readonly rule: ClearRule
  readonly formattedAt: string | undefined
  readonly formattedAgainst: string | undefined
  /** Why it was formatted all the same, as the person said. */
  readonly formattedBecause: string | undefined
  /** It was said to be formatted, and its clips were on the card again. */
  readonly returned: boolean
  /** It was said to be formatted, and lies in a reader with all that was on it. */
  readonly saidButThere: boolean
  /** What was last seen of its card, which is in no reader now, where that speaks against a yes. */
  readonly lastSeen: string | undefined
  /** Where its card, or the backup card that is asked about, lies now, and whether it is known to be that card. */
  readonly card:
    | {
        readonly readerName: string
        readonly isKnown: boolean
        /** Files on it were rewritten. */
        readonly isTouched: boolean
      }
    | undefined
  readonly backupCards: readonly BackupCardState[]
  /** The backup card that the answer is about: it lies in a reader, and the load’s own card does not. */
  readonly asked: BackupCardState | undefined
}

/** Whether the scan that is under way in its reader is at its card: it lies there, or became known by that scan. */
function isLookedAt(load: LoadRow, holding: ReaderRow | undefined, looking: ReadonlyMap<string, Date>): boolean {
  const since = looking.get(holding?.id ?? load.readerId ?? '')
  return since !== undefined && (holding !== undefined || load.scannedAt >= since)
}

const underWay = (label: string) => `“${label}” is being scanned.`
const unfinishedScan = (label: string) => `The scan of “${label}” did not finish: scan it again.`

/**
 * Findings, copies, clear-to-format and format state of loads, from rows alone, in a fixed number of questions; under
 * other rules than those that hold, where they are given.
 */
export async function loadStates(
  db: Db,
  loads: readonly LoadRow[],
  asked: Asked,
  otherwise?: RuleChoices,
): Promise<LoadState[]> {
  const rowsOf = await stateRows(db, loads, asked, otherwise)
  return loads.map((load) => stateOf(load, rowsOf(load.id), asked))
}

function stateOf(load: LoadRow, rows: StateRows, { now, looked }: Asked): LoadState {
  const { said, older } = rows
  const rule = rows.rules.get(load.id) ?? AT_HOME_ONLY
  const place = placeOf(load, rows)
  const { backupCards, asked, format, there, saidButThere, returned } = place
  const findings = findingsOf(
    load,
    rows.counts.filter((count) => count.loadId === load.id),
    rows.answers.filter((answer) => answer.loadId === load.id),
    returned ? `the ${asked ? 'backup card' : 'card'} of “${load.label}”` : undefined,
  )
  const copies = withRelations(copyFacts(load, rows.copyRows), said)
  const known = there && cardKnown(load, there, rows.stays, rows.comparisons, copies)
  const isLooking = isLookedAt(load, place.holding, rows.looking)
  const lastSeen = there ? undefined : lastSeenOf(load, copies)
  const question: ClearQuestion = {
    copies,
    backupCards: asked ? [] : backupCards.filter((one) => !one.isFormatted).map((one) => one.facts),
    askedBackupCard: asked?.facts,
    readFromBackupCard: load.readFromTwin,
    ...{ rule, atHome: rows.atHome, clipsPlayable: load.playable },
    cardInReader: there?.same === true,
    cardKnown: known,
    cardDifference: differenceOf(load, rows, { there, isLooking, lastSeen }),
    cardStanding: { device: there?.device ?? place.look?.device ?? undefined, connected: there !== undefined },
    saidDifferent: said,
    filesLeftOut: load.leftOut,
    thingsWrong: openStops(findings),
    formattedAt: returned ? undefined : format?.at.toISOString(),
    olderSince: older ?? undefined,
    ...{ now, looked },
    saidButThere: saidButThere ? there?.name : undefined,
  }
  return {
    ...{ load, isLooking, findings, copies, rule, returned, saidButThere, lastSeen, backupCards, asked },
    clear: clearToFormat(question),
    apart: marksApart(question),
    danger: dangerOf(question, { label: load.label, files: load.fileCount }),
    formattedAt: format?.at.toISOString(),
    formattedAgainst: format?.against ?? undefined,
    formattedBecause: format?.reason ?? undefined,
    card: there && {
      readerName: there.name,
      isKnown: known?.how !== undefined,
      isTouched: known?.how === undefined && known?.touched === true,
    },
  }
}

/** Where a load’s card lies, or the backup card that is asked about, and what was said of a format of it. */
function placeOf(load: LoadRow, { formatted, backupCardRows, inReaders, stays, seen }: StateRows) {
  const formats = formatted.filter((one) => one.loadId === load.id)
  const backupCards = backupCardStates(load, backupCardRows, inReaders, stays, formats)
  const holding = inReaders.find((reader) => reader.loadId === load.id && reader.twinId === null)
  const asked = holding ? undefined : backupCards.find((one) => one.reader)
  const there = holding ?? asked?.reader
  const format = asked ? asked.format : formats.find((one) => one.twinId === null)
  const look = seen.find((one) => one.loadId === load.id)
  const seenAt = asked ? asked.seenAt : look?.at
  const saidButThere = format !== undefined && there?.same === true
  const returned = saidButThere || (format !== undefined && seenAt !== undefined && seenAt > format.at)
  return { backupCards, holding, asked, there, format, look, saidButThere, returned }
}

/** What speaks against a card that is in no reader. */
function lastSeenOf(load: LoadRow, copies: readonly CopyFacts[]): string | undefined {
  const isProved = copies.some((copy) => copy.filesVerified + copy.filesVerifiedFromCache > 0)
  return lastSeenSentence(load.label, load.cardDifference, isProved && load.cardDoubtedAt !== null)
}

interface Seen {
  readonly there: ReaderRow | undefined
  readonly isLooking: boolean
  readonly lastSeen: string | undefined
}

/**
 * How the card differs from what was copied, by what is known best: what lies there, what was last seen, or nothing at
 * all.
 */
function differenceOf(
  load: LoadRow,
  { older, lastKnown }: StateRows,
  { there, isLooking, lastSeen }: Seen,
): string | undefined {
  // What the observer wrote of a scan that had not ended is no news while it goes on.
  const difference = there && isLooking && !load.lookDone ? underWay(load.label) : there?.difference
  const knownAt = lastKnown.find((one) => one.loadId === load.id)?.at
  const isForgotten = !there && older !== null && !(knownAt && knownAt > new Date(older))
  const unfinished = load.lookDone ? undefined : isLooking ? underWay(load.label) : unfinishedScan(load.label)
  return difference ?? lastSeen ?? (isForgotten ? forgottenSentence(load.label) : undefined) ?? unfinished
}

/** What is known of the card that lies in a reader, in this stay of it. */
function cardKnown(
  load: LoadRow,
  reader: ReaderRow,
  stays: readonly StayRow[],
  comparisons: StateRows['comparisons'],
  copies: readonly CopyFacts[],
): CardKnown {
  const stay = stays.find((one) => one.id === reader.stayId)
  const isOf = stay?.loadId === load.id && stay.twinId === reader.twinId
  const compared = comparisons.find((one) => one.stayId === reader.stayId && one.loadId === load.id)
  const how = isOf ? (stay.knownHow ?? undefined) : undefined
  // Its ends are believed only until it can be compared with what was proved.
  const notYet =
    how === 'ends' && copies.some((copy) => copy.connected && copy.filesVerified + copy.filesVerifiedFromCache > 0)
  return {
    readerName: reader.name,
    how: notYet ? undefined : how,
    compared: notYet ? undefined : compared,
    touched: stay?.tried.includes(TOUCHED) ?? false,
    swapsSeen: stay?.swapsSeen ?? false,
  }
}

function copyFacts(load: LoadRow, rows: CopyRows): (CopyFacts & { folder: string })[] {
  return rows.mirrors
    .filter((mirror) => mirror.loadId === load.id)
    .map((mirror) => {
      const volume: VolumeRow | undefined = rows.volumes.get(mirror.volumeId)
      const of = <T extends { loadId: string | null; volumeId: string | null }>(all: readonly T[]) =>
        all.filter((one) => one.loadId === load.id && one.volumeId === mirror.volumeId)
      const [time] = of(rows.times)
      const [reading] = of(rows.readings)
      const played = of(rows.played).filter((one) =>
        playedStill({
          playedAt: one.at.getTime(),
          placedAt: one.placedAt.getTime(),
          absentAt: one.absentAt?.getTime(),
          standing: one.standing,
        }),
      )
      const filesMissing = mirror.filesMissing + mirror.filesChanged
      const proved = mirror.filesVerified + mirror.filesMemory
      return {
        volumeId: mirror.volumeId,
        volumeName: mirror.volumeName,
        site: volume?.site ?? '',
        siteKind: volume?.siteKind ?? undefined,
        medium: volume && mediumOfVolume(volume),
        folder: mirror.folder,
        connected: volume?.connected === true,
        device: volume?.device ?? undefined,
        filesWanted: load.fileCount,
        filesCopied: proved,
        filesVerified: mirror.filesVerified,
        filesVerifiedFromCache: mirror.filesMemory,
        filesMismatched: mirror.filesDiffer,
        filesInConflict: mirror.filesConflict,
        filesMissing,
        filesDoubted: mirror.filesDoubted,
        doubtedBytes: of(rows.doubted)[0]?.doubtedBytes ?? 0,
        mounted: mirror.mounted,
        mirrorLost: !mirror.present && proved + filesMissing > 0,
        sizeBytes: mirror.sizeBytes,
        firstVerifiedAt: time?.first.toISOString(),
        lastVerifiedAt: time?.last.toISOString(),
        readAgainAt: reading?.at.toISOString(),
        seenAt: mirror.seenAt?.toISOString(),
        spotPlayedAt: played.at(-1)?.at.toISOString(),
        playedAsPreview: played.length > 0 && played.every((one) => one.asPreview),
        cycleDays: volume?.cycleDays ?? USUAL_CYCLE_DAYS,
        foundWrong: of(rows.wrong).map(({ entryId, clipId, path, note, readSince }) => ({
          ...{ entryId, clipId, path, note, readSince },
        })),
        filesPlayed: [...new Set(played.flatMap((one) => one.entryId ?? []))],
      }
    })
}

function withRelations(
  facts: readonly (CopyFacts & { folder: string })[],
  said: readonly (readonly [string, string])[],
): CopyState[] {
  return facts.map((copy) => {
    const others = facts.filter((other) => other !== copy)
    const isSaid = (other: CopyFacts) =>
      said.some((pair) => pair.includes(copy.volumeId) && pair.includes(other.volumeId))
    const related = (relation: string) => others.filter((other) => deviceRelation(copy, other) === relation)
    const unknown = related('unknown').filter((other) => copy.device && other.device)
    return {
      ...copy,
      sharesDriveWith: related('same').map((other) => other.volumeName),
      mayShareDriveWith: unknown
        .filter((other) => !isSaid(other))
        .map(({ volumeId, volumeName }) => ({ volumeId, volumeName })),
      saidDifferentFrom: unknown.filter(isSaid).map((other) => other.volumeName),
    }
  })
}
