import { besideWords, type FileRole } from '../../core/cards/clips'
import type { Db } from '../db/connection'
import type { ClipRow } from '../db/queries/cards'
import { filesOfClips, takeSums } from '../db/queries/clipFiles'

/** What belongs to a clip beside its main file, and what all of it comes to: bytes and seconds. */
export interface ClipFiles {
  readonly beside: string
  readonly parts: number
  readonly sizeBytes: number
  readonly seconds: number
}

const mainRole = ({ probe }: ClipRow): FileRole =>
  probe?.sequence ? 'frames' : probe && !probe.video ? 'sound' : 'picture'

/** The files of some clips, asked for in one go. */
export async function clipFiles(db: Db, clips: readonly ClipRow[]): Promise<(clip: ClipRow) => ClipFiles> {
  const counted = await filesOfClips(
    db,
    clips.map(({ id }) => id),
  )
  const sums = await takeSums(
    db,
    clips.flatMap(({ takeId }) => takeId ?? []),
  )
  const counts = new Map<string, Map<FileRole, number>>()
  for (const { clipId, role, files } of counted)
    counts.set(clipId, (counts.get(clipId) ?? new Map<FileRole, number>()).set(role, files))
  const sumOf = new Map(sums.map((sum) => [sum.takeId, sum]))
  return (clip) => {
    const take = clip.takeId === null ? undefined : sumOf.get(clip.takeId)
    return {
      beside: besideWords(counts.get(clip.id) ?? new Map(), mainRole(clip)),
      parts: clip.parts ?? 1,
      sizeBytes: take?.sizeBytes ?? clip.sizeBytes,
      seconds: take?.seconds ?? clip.seconds,
    }
  }
}
