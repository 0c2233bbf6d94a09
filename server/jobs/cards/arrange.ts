import { clipsOf, type Clip } from '../../../core/cards/clips'
import { clipFindings, type Finding } from '../../../core/cards/findings'
import type { FrameRun } from '../../../core/cards/frameRuns'
import type { ListedFile } from '../../../core/cards/load'
import { LEAST_UNKNOWN_BYTES, unknownKindFinding } from '../../../core/cards/unknownKind'
import * as cards from '../../db/queries/cards'
import {
  arrangeClips,
  clipIds,
  looseFiles,
  mediaFiles,
  otherPaths,
  type ArrangedClip,
} from '../../db/queries/clipFiles'
import { inTransaction, type Db } from '../../db/connection'

export interface LookedFiles {
  readonly runs: readonly FrameRun[]
  /** Other files by the media file that they go with. */
  readonly beside: ReadonlyMap<string, readonly ListedFile[]>
  readonly entryIdOf: (path: string) => number | undefined
}

/** Puts the files that were read together to clips, and writes down which make which. Returns how many clips they are. */
export async function arrange(db: Db, loadId: string, { runs, beside, entryIdOf }: LookedFiles): Promise<number> {
  // Frames that could not be read have no facts that tell them from films.
  const frames = new Set(runs.flatMap((run) => run.frames.map(({ path }) => path)))
  const media = (await mediaFiles(db, loadId)).filter(({ path }) => !frames.has(path))
  const clips = clipsOf(media, runs, beside)
  const ids = await clipIds(db, loadId)
  const rows = clips.flatMap((clip) => arranged(clip, entryIdOf, ids))
  await inTransaction(db, (tx) => arrangeClips(tx, loadId, rows))
  return rows.filter(({ part }) => (part ?? 1) === 1).length
}

/** A clip by the ids of its rows and entries. */
function arranged(
  { main, files, take }: Clip,
  entryIdOf: LookedFiles['entryIdOf'],
  ids: ReadonlyMap<number, string>,
): ArrangedClip[] {
  const idOf = (path: string) => ids.get(entryIdOf(path) ?? -1)
  const id = idOf(main)
  if (id === undefined) return []
  return [
    {
      id,
      files: files.flatMap(({ path, role, number }) => {
        const entryId = entryIdOf(path)
        return entryId === undefined ? [] : [{ entryId, role, number }]
      }),
      takeId: (take && idOf(take.first)) ?? null,
      part: take?.part ?? null,
      parts: take?.parts ?? null,
    },
  ]
}

/** What is odd about a load's clips, from what was read of them. */
export async function findInClips(db: Db, loadId: string): Promise<Finding[]> {
  const shootOn = (await cards.load(db, loadId))?.shootOn ?? undefined
  const clips = await cards.scannedClips(db, loadId)
  return [
    ...clipFindings(clips, shootOn, await otherPaths(db, loadId)),
    ...unknownKindFinding(await looseFiles(db, loadId, LEAST_UNKNOWN_BYTES), clips.length),
  ]
}
