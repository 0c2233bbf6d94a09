import type { TaskInput } from '../../../contract/taskKinds'
import { deviceRelation, type DeviceIdentity } from '../../../core/copies/device'
import { formatBytes } from '../../../core/units/quantity'
import type { EntryRow } from '../../db/queries/cards'
import * as copies from '../../db/queries/copies'
import { addNote } from '../../db/queries/journal'
import { volume as volumeRow } from '../../db/queries/places'
import { liveAttempts } from '../../db/queries/tasks'
import type { CopyDestination } from '../../engine/copyOrder'
import { joinPath, type Medium } from '../../engine/medium'
import { setAside } from '../../engine/publish'
import { removeStaleParts } from '../../media/attempts'
import { listMirror } from '../../media/listing'
import { partsOf, volumeMedium } from '../../media/places'
import { lookAtMirror } from '../../observer/mirrorLook'
import type { Work } from '../work'

export interface Target extends CopyDestination {
  readonly name: string
  readonly neededBytes: number
  readonly device: DeviceIdentity
}

/** Makes a volume ready for a copy; a sentence when it cannot be. */
export async function prepareTarget(
  work: Work,
  input: TaskInput<'copy'>,
  id: string,
  folder: string,
  files: readonly EntryRow[],
): Promise<Target | string> {
  const { db, host, attemptId } = work
  const row = await volumeRow(db, host, id)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium) return `${row?.name ?? 'A volume'} is not connected: nothing was copied there.`
  await copies.planCopy(db, input.loadId, id, folder)
  await removeStaleParts(medium, await liveAttempts(db))
  // What lies there now, before anything is added: a file that is gone has not been played, whatever is made in its place.
  await lookAtMirror(db, { loadId: input.loadId, volumeId: id, folder }, medium)
  const base = Buffer.from(folder)
  if (input.setAside) await setConflictsAside(work, input.loadId, row, medium, base)
  const there = await listMirror(medium, base).catch(() => undefined)
  const missing = files.filter((file) => there?.get(file.path.toString('latin1')) === undefined)
  const neededBytes = missing.reduce((sum, file) => sum + file.sizeBytes, 0)
  return {
    id,
    name: row.name,
    medium,
    folder: base,
    parts: partsOf(attemptId),
    neededBytes,
    device: await medium.device(),
  }
}

/** Moves files that collide out of the way on their volume; nothing is deleted. */
async function setConflictsAside(
  { db, taskId }: Work,
  loadId: string,
  row: { id: string; name: string },
  medium: Medium,
  base: Buffer,
): Promise<void> {
  const stuck = await copies
    .copyTroubles(db, loadId)
    .where('copyFile.volumeId', '=', row.id)
    .where('copyFile.standing', 'in', ['conflict', 'differs', 'changed'])
    .execute()
  for (const trouble of stuck) {
    const from = joinPath(base, trouble.path)
    await setAside(medium, from, joinPath(Buffer.from('Set aside'), Buffer.from(taskId), trouble.path))
  }
  if (stuck.length > 0)
    await addNote(db, {
      kind: 'set-aside',
      loadId,
      volumeId: row.id,
      detail: { paths: stuck.slice(0, 1000).map((trouble) => trouble.pathText) },
    })
}

const here = ({ device }: Target) => ({ device, connected: true })

/** Volumes with room, and a sentence for each without; volumes on one device share its room. */
export async function roomFaults(ready: readonly Target[]): Promise<{ targets: Target[]; faults: string[] }> {
  const targets: Target[] = []
  const faults: string[] = []
  for (const to of ready) {
    const { freeBytes } = await to.medium.room()
    const beside = targets.filter((other) => deviceRelation(here(other), here(to)) === 'same')
    const needed = to.neededBytes + beside.reduce((sum, other) => sum + other.neededBytes, 0)
    if (needed <= freeBytes) {
      targets.push(to)
      continue
    }
    const lack = needed - freeBytes
    const shared =
      beside.length > 0 ? ` together with ${beside.map((other) => other.name).join(' and ')} on the same drive` : ''
    faults.push(
      `${to.name} is full: ${formatBytes(needed)} are needed${shared} and ${formatBytes(freeBytes)} are free, so ${formatBytes(lack)} (${lack} bytes) are missing. Nothing was copied there; make room or choose another volume.`,
    )
  }
  return { targets, faults }
}
