import { isNameless } from '../../core/cards/load/backupCard'
import { USUAL_CYCLE_DAYS } from '../../core/copies/danger'
import type { CopyFacts } from '../../core/copies/mark'
import type { LoadRow } from '../db/queries/cards'
import type { ReaderRow } from '../db/queries/readers'
import type { formattedOf } from '../db/queries/said'
import type { StayRow } from '../db/queries/stays'
import type { BackupCardRow } from '../db/queries/backupCards'

type Format = Awaited<ReturnType<typeof formattedOf>>[number]

/** A second card with the content of a load: where it lies, how far it was read, and what was said of it. */
export interface BackupCardState {
  readonly id: string
  readonly name: string
  /** The reader in which it lies now, just as it was seen first. */
  readonly reader: ReaderRow | undefined
  readonly seenAt: Date
  readonly readAt: Date | undefined
  readonly format: Format | undefined
  /** It was said to be formatted, and was not seen since. */
  readonly isFormatted: boolean
  /** What counts of it as a copy. */
  readonly facts: CopyFacts
}

/**
 * Whether the card in a reader is the one that was read: in the stay of the reading it is; later where it has a name of
 * its own and was compared with copies since it was put in. One without a name may be the other card.
 */
function isReadCard(row: BackupCardRow, reader: ReaderRow, stays: readonly StayRow[]): boolean {
  if (row.readStayId !== null && row.readStayId === reader.stayId) return true
  const stay = stays.find((one) => one.id === reader.stayId)
  return !isNameless(row.key) && stay?.twinId === row.id && stay.knownHow === 'compared'
}

/**
 * The backup cards of a load, from rows. A reading counts for what the card listed then: one that lists something else
 * was not read.
 */
export function backupCardStates(
  load: LoadRow,
  rows: readonly BackupCardRow[],
  inReaders: readonly ReaderRow[],
  stays: readonly StayRow[],
  formats: readonly Format[],
): BackupCardState[] {
  return rows
    .filter((row) => row.loadId === load.id)
    .map((row) => {
      const reader = inReaders.find((one) => one.twinId === row.id && one.state === 'card' && one.putAwayAt === null)
      const format = formats.find((one) => one.twinId === row.id)
      const isRead =
        row.readAt !== null && (!reader || (reader.print === row.readPrint && isReadCard(row, reader, stays)))
      const equal = isRead ? (row.filesEqual ?? 0) : 0
      const memory = isRead ? (row.filesMemory ?? 0) : 0
      const readAt = isRead ? (row.readAt ?? undefined) : undefined
      return {
        ...{ id: row.id, name: row.name, reader, seenAt: row.seenAt, readAt, format },
        isFormatted: format !== undefined && format.at >= row.seenAt,
        facts: {
          ...{ volumeId: row.id, volumeName: `the backup card “${row.name}”`, site: '' },
          ...{ siteKind: undefined, medium: undefined, filesPlayed: [], foundWrong: [] },
          connected: reader !== undefined,
          device: reader?.device ?? undefined,
          filesWanted: load.fileCount,
          filesCopied: equal + memory,
          filesVerified: equal,
          filesVerifiedFromCache: memory,
          filesMismatched: isRead ? (row.filesWrong ?? 0) : 0,
          ...{ filesInConflict: 0, filesMissing: 0, mirrorLost: false, sizeBytes: load.sizeBytes },
          ...{ filesDoubted: 0, doubtedBytes: 0, mounted: [] },
          firstVerifiedAt: readAt?.toISOString(),
          lastVerifiedAt: readAt?.toISOString(),
          ...{ readAgainAt: undefined, seenAt: row.seenAt.toISOString(), spotPlayedAt: undefined },
          cycleDays: USUAL_CYCLE_DAYS,
          playedAsPreview: false,
        },
      }
    })
}
