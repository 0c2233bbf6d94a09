import {
  sortedFiles,
  sortPlan,
  type SortClip,
  type SortPlan,
  type SortSettings,
  type WantedFile,
} from '../../core/cards/review/sorted'
import type { Db } from '../db/connection'
import { placedFiles, sortableClips, sortableFiles } from '../db/queries/sorted'
import { fileNameOf } from '../../core/units/filePath'

/**
 * A file of the view with where its proved copy lies: on which volume, below which mirror, under which path, with which
 * hash.
 */
export interface SortSource {
  readonly volumeId: string
  readonly folder: string
  readonly path: Buffer
  readonly hash: string
}

export interface Sorted {
  readonly clips: readonly SortClip[]
  readonly wanted: readonly WantedFile[]
  readonly plan: SortPlan
  readonly sources: ReadonlyMap<number, SortSource>
  /** Clips of which no connected volume has a proved copy of every file. */
  readonly unproved: number
}

/** What would bring the sorted view of a production on a volume up to date, from rows alone. */
export async function sortedOf(
  db: Db,
  host: string,
  productionId: string,
  volumeId: string,
  settings: SortSettings,
): Promise<Sorted> {
  const [rows, files, placed] = await Promise.all([
    sortableClips(db, productionId, settings.which),
    sortableFiles(db, { productionId, volumeId, host }),
    placedFiles(db, productionId, volumeId),
  ])
  const byClip = new Map<string, (typeof files)[number][]>()
  for (const file of files) {
    const own = byClip.get(file.clipId)
    if (own) own.push(file)
    else byClip.set(file.clipId, [file])
  }
  const sources = new Map<number, SortSource>()
  for (const { entryId, holder, folder, path, hash } of files)
    if (holder !== null && folder !== null && hash !== null)
      sources.set(entryId, { volumeId: holder, folder, path, hash })
  const all = rows.map(({ hasPicture, hasVideo, ...row }): SortClip => ({
    ...row,
    isSound: !hasVideo && !hasPicture && !row.isRun,
    files: (byClip.get(row.id) ?? []).map(({ entryId, pathText, sizeBytes, holder }) => ({
      entryId,
      fileName: fileNameOf(pathText),
      sizeBytes,
      isHere: holder === volumeId,
    })),
  }))
  // What lies in the view stays a part of it while the drive of its copy is away.
  const there = new Set(placed.map((file) => file.entryId))
  const clips = all.filter(({ files: own }) => own.every(({ entryId }) => sources.has(entryId) || there.has(entryId)))
  const wanted = sortedFiles(clips, settings)
  return { clips, wanted, plan: sortPlan(wanted, placed, settings), sources, unproved: all.length - clips.length }
}
