import type { TaskInput } from '../../../../contract/taskKinds'
import * as copies from '../../../db/queries/copies'
import { SET_ASIDE } from '../../../../core/units/fileTitle'
import { addNote } from '../../../db/queries/journal'
import { volume as volumeRow } from '../../../db/queries/volumes'
import { liveAttempts } from '../../../db/queries/tasks'
import type { CopyDestination } from '../../../engine/copy/copyOrder'
import { joinPath, type Medium } from '../../../engine/medium/medium'
import { MeasuredMedium } from '../../../engine/copy/measured'
import { setAside } from '../../../engine/copy/publish'
import type { SeenThere } from '../../../facts/copyPlan'
import { removeStaleParts } from '../../../media/attempts'
import { partsOf, volumeMedium } from '../../../media/mediumOf'
import { scanMirror, movedOut } from '../../../observer/mirrorScan'
import type { Work } from '../../work'
import type { SourceEntry } from './source'

export interface Target extends CopyDestination {
  readonly name: string
  readonly measured: MeasuredMedium
  readonly there: SeenThere
}

/** Makes a volume ready for a copy; a sentence when it cannot be. */
export async function prepareTarget(
  work: Work,
  input: TaskInput<'copy'>,
  id: string,
  folder: string,
  files: readonly SourceEntry[],
): Promise<Target | string> {
  const { db, host, attemptId } = work
  const row = await volumeRow(db, host, id)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium) return `${row?.name ?? 'A volume'} is not connected: nothing was copied there.`
  await copies.planCopy(db, input.loadId, id, folder)
  await removeStaleParts({ db, host, volumeId: id, medium, live: await liveAttempts(db) })
  // What lies there now, before anything is added: a file that is gone has not been played, whatever is made in its
  // place.
  const mirror = { loadId: input.loadId, volumeId: id, folder }
  const look = await scanMirror(db, mirror, medium)
  const moved = input.setAside ? await setConflictsAside(work, input.loadId, row, medium, Buffer.from(folder)) : []
  const there = moved.length > 0 ? await movedOut(db, look, moved) : look.files
  const lying = files.filter((file) => there.has(file.path.toString('latin1')))
  const inTheWay = new Set((await knownInTheWay(db, input.loadId, id)).map(({ entryId }) => entryId))
  const strangers = lying.filter(
    (file) => there.get(file.path.toString('latin1'))?.sizeBytes !== file.sizeBytes && !inTheWay.has(file.id),
  )
  const { freeBytes } = await medium.room()
  const measured = new MeasuredMedium(medium)
  return {
    id,
    name: row.name,
    measured,
    medium: measured.medium,
    folder: Buffer.from(folder),
    parts: partsOf(attemptId),
    there: {
      thereBytes: bytesOf(lying),
      freeBytes,
      strangers: { files: strangers.length, sizeBytes: bytesOf(strangers) },
    },
  }
}

const bytesOf = (files: readonly SourceEntry[]): number => files.reduce((sum, file) => sum + file.sizeBytes, 0)

/** Files of a load that are known to collide on a volume. */
const knownInTheWay = (db: Work['db'], loadId: string, volumeId: string) =>
  copies
    .copyTroubles(db, loadId)
    .where('copyFile.volumeId', '=', volumeId)
    .where('copyFile.standing', 'in', ['conflict', 'differs', 'changed'])
    .execute()

/** Moves files that collide out of the way on their volume; nothing is deleted. Returns their paths in the mirror. */
async function setConflictsAside(
  { db, taskId }: Work,
  loadId: string,
  row: { id: string; name: string },
  medium: Medium,
  base: Buffer,
): Promise<Buffer[]> {
  const stuck = await knownInTheWay(db, loadId, row.id)
  for (const trouble of stuck) {
    const from = joinPath(base, trouble.path)
    await setAside(medium, from, joinPath(Buffer.from(SET_ASIDE), Buffer.from(taskId), trouble.path))
  }
  if (stuck.length > 0)
    await addNote(db, {
      kind: 'set-aside',
      loadId,
      volumeId: row.id,
      detail: { paths: stuck.slice(0, 1000).map((trouble) => trouble.pathText) },
    })
  return stuck.map((trouble) => trouble.path)
}
