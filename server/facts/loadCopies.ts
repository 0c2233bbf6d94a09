import { COPY_TROUBLES } from '../../core/copies/copyState'
import { DIFFERENCE_WORDS } from '../../core/copies/difference'
import { beforeScan } from '../../core/copies/clear'
import { markOf } from '../../core/copies/mark'
import type { LoadCopies } from '../../contract/copies'
import type { Db } from '../db/connection'
import { copyTroubles } from '../db/queries/copies'
import type { LoadState } from './loadStates'

const SHOWN_TROUBLES = 100

interface LoadCopiesAsked {
  /** Loads with names that only the second checksum list can hold. */
  readonly withOddNames: ReadonlySet<string>
  /** Card and drives were scanned for this answer. */
  readonly isScanned: boolean
}

/** A load as the station of the copies shows it, with the names of what is wrong with them. */
export async function loadCopies(
  db: Db,
  state: LoadState,
  { withOddNames, isScanned }: LoadCopiesAsked,
): Promise<LoadCopies> {
  const {
    load,
    copies,
    rule,
    formattedAt,
    formattedAgainst,
    formattedBecause,
    returned,
    backupCards,
    asked,
    saidButThere,
    card,
  } = state
  const places = [
    ...(card ? [asked ? 'the backup card' : 'the card'] : []),
    ...copies.flatMap((copy) => (copy.connected && markOf(copy, rule) >= 2 ? [copy.volumeName] : [])),
  ]
  const answer = isScanned ? { clear: state.clear } : beforeScan(state.clear, places)
  const troubled = copies.some(
    (copy) => copy.filesMismatched + copy.filesInConflict + copy.filesMissing + copy.filesDoubted > 0,
  )
  const troubles = troubled ? await copyTroubles(db, load.id).limit(SHOWN_TROUBLES).execute() : []
  return {
    loadId: load.id,
    label: load.label,
    sizeBytes: load.sizeBytes,
    fileCount: load.fileCount,
    clear: answer.clear,
    checking: answer.checking ?? null,
    formattedAt: returned ? null : (formattedAt ?? null),
    formattedAgainst: returned && !saidButThere ? null : (formattedAgainst ?? null),
    formattedBecause: returned && !saidButThere ? null : (formattedBecause ?? null),
    rule,
    copies: copies.map((copy) => ({
      ...copy,
      mark: markOf(copy, rule),
      hasOddNames: withOddNames.has(load.id),
      troubles: copy.mirrorLost
        ? []
        : troubles.flatMap((one) =>
            one.volumeId === copy.volumeId
              ? [
                  {
                    path: one.pathText,
                    sentence: one.difference ? DIFFERENCE_WORDS[one.difference] : (COPY_TROUBLES[one.standing] ?? ''),
                  },
                ]
              : [],
          ),
    })),
    playable: load.playable,
    twins: backupCards.map(({ id, name, reader, readAt, facts, format, isFormatted }) => ({
      ...{ id, name, readerName: reader?.name ?? null, readAt: readAt?.toISOString() ?? null },
      filesEqual: facts.filesVerified + facts.filesVerifiedFromCache,
      filesWrong: facts.filesMismatched,
      formattedAt: isFormatted ? (format?.at.toISOString() ?? null) : null,
    })),
    asked: asked?.id ?? null,
    saidButThere,
    card: card ?? null,
    sources: copies
      .filter((copy) => copy.connected && !copy.mirrorLost && copy.filesCopied > 0)
      .map((copy) => ({
        ...{ volumeId: copy.volumeId, volumeName: copy.volumeName },
        files: copy.filesVerified + copy.filesVerifiedFromCache,
      }))
      .filter(({ files }) => files > 0)
      .sort((a, b) => b.files - a.files),
  }
}
