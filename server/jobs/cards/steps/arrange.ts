import { clipsOf, type Clip } from '../../../../core/cards/files/clips'
import { type Finding } from '../../../../core/cards/findings/findings'
import type { FrameRun } from '../../../../core/cards/files/frameRuns'
import type { ListedFile } from '../../../../core/cards/load/load'
import { LEAST_UNKNOWN_BYTES, unknownKindFinding } from '../../../../core/cards/files/unknownKind'
import * as cards from '../../../db/queries/cards'
import {
  arrangeTakes,
  looseFiles,
  mediaFileIds,
  mediaFiles,
  otherPaths,
  type PlacedFile,
} from '../../../db/queries/takes'
import { inTransaction, type Db } from '../../../db/connection'
import { clipFindings } from '../../../../core/cards/findings/clipFindings'

export interface ScannedFiles {
  readonly runs: readonly FrameRun[]
  /** Other files by the media file that they go with. */
  readonly beside: ReadonlyMap<string, readonly ListedFile[]>
  readonly entryIdOf: (path: string) => number | undefined
}

/**
 * Puts the files that were read together to takes, and writes down which make which. Returns how many takes they are.
 */
export async function arrange(db: Db, loadId: string, { runs, beside, entryIdOf }: ScannedFiles): Promise<number> {
  // Frames that could not be read have no facts that tell them from films.
  const frames = new Set(runs.flatMap((run) => run.frames.map(({ path }) => path)))
  const media = (await mediaFiles(db, loadId)).filter(({ path }) => !frames.has(path))
  const clips = clipsOf(media, runs, beside)
  const ids = await mediaFileIds(db, loadId)
  const files = clips.flatMap((clip) => placed(clip, entryIdOf, ids))
  await inTransaction(db, (tx) => arrangeTakes(tx, loadId, files))
  return files.filter(({ main, part }) => main && part === 1).length
}

/** The files of a clip by the ids of their entries and rows. */
function placed(
  { main, files, take }: Clip,
  entryIdOf: ScannedFiles['entryIdOf'],
  ids: ReadonlyMap<number, string>,
): PlacedFile[] {
  const idOf = (path: string) => ids.get(entryIdOf(path) ?? -1)
  const takeId = idOf(take?.first ?? main)
  const mainEntry = entryIdOf(main)
  if (takeId === undefined || idOf(main) === undefined) return []
  return files.flatMap(({ path, role, number }) => {
    const entryId = entryIdOf(path)
    if (entryId === undefined) return []
    const mediaFileId = ids.get(entryId) ?? null
    return [{ entryId, takeId, mediaFileId, main: entryId === mainEntry, role, part: take?.part ?? 1, number }]
  })
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
