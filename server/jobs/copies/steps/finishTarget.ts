import { counted } from '../../../../core/units/quantity'
import type * as cards from '../../../db/queries/cards'
import * as copies from '../../../db/queries/copies'
import { liveAttempts } from '../../../db/queries/tasks'
import { writeLists } from '../../../engine/copy/lists'
import { removeStaleParts } from '../../../media/attempts'
import { scanMirror } from '../../../observer/mirrorScan'
import type { Work } from '../../work'
import type { Target } from './target'

/** Checksum lists beside the mirror, and a listing of it, so that what is known of it is what lies there. */
export async function finishTarget(
  work: Work,
  to: Pick<Target, 'id' | 'name' | 'medium' | 'folder' | 'parts'>,
  loadId: string,
  onCard: readonly Pick<cards.EntryRow, 'id' | 'path'>[],
  troubles: string[],
): Promise<void> {
  const { db, host, control } = work
  const known = await copies.knownHashes(db, loadId)
  const kept = await copies.provedOn(db, loadId, to.id)
  const belonging = new Map([
    ...kept.map((file) => [file.entryId, file.path] as const),
    ...onCard.map((file) => [file.id, file.path] as const),
  ])
  const files = [...belonging].map(([id, path]) => ({ path, hash: known.get(id) }))
  files.sort((a, b) => a.path.compare(b.path))
  const { medium, folder, parts } = to
  try {
    await writeLists({ medium, folder, parts, files, gate: control.gate })
    await scanMirror(db, { loadId, volumeId: to.id, folder: folder.toString() }, medium)
    const live = await liveAttempts(db)
    live.delete(work.attemptId)
    const stay = await removeStaleParts({ db, host, volumeId: to.id, medium, live })
    if (stay > 0)
      troubles.push(
        `${counted(stay, 'whole file')} of an earlier try ${stay === 1 ? 'stays' : 'stay'} on ` +
          `${to.name}, under .yendra/parts: no other proved copy of ${stay === 1 ? 'it' : 'them'} could be ` +
          'opened just now.',
      )
  } catch (error) {
    // Pulled out just after its last file: its proofs stand, the lists come with the next copy.
    if (
      await medium.place().then(
        () => true,
        () => false,
      )
    )
      throw error
  }
}
