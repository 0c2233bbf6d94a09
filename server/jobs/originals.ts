import { clip as clipRow } from '../db/queries/cards'
import { holdersOf } from '../db/queries/copies'
import { production } from '../db/queries/productions'
import { volume as volumeRow } from '../db/queries/storage'
import type { Db } from '../db/connection'
import { joinPath, type Medium } from '../engine/medium'
import { fullPath, volumeMedium } from '../places'
import { CannotWork } from './work'
import { formatBytes } from '../../core/units/quantity'

/** A clip's original on a connected volume. Work is done from copies, never from the card. */
export async function originalOf(db: Db, clipId: string) {
  const clip = await clipRow(db, clipId)
  const owner = clip && (await production(db, clip.productionId))
  if (!clip || !owner) throw new CannotWork('This clip is no longer known.')
  const video = clip.probe?.video
  if (!clip.probe || !video) throw new CannotWork(`${clip.name} has no readable picture.`)
  for (const holder of await holdersOf(db, clip.loadId, clip.entryId)) {
    const medium = await volumeMedium(db, holder)
    if (medium)
      return {
        clip,
        owner,
        probe: clip.probe,
        video,
        path: fullPath(medium, joinPath(Buffer.from(holder.folder), clip.pathBytes)),
      }
  }
  throw new CannotWork(`No connected volume holds a proved copy of ${clip.name}. Copy its card first.`)
}

/** A volume that is connected and has room for what is planned. */
export async function targetVolume(
  db: Db,
  volumeId: string,
  neededBytes: number,
): Promise<{ name: string; medium: Medium }> {
  const row = await volumeRow(db, volumeId)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium) throw new CannotWork(`${row?.name ?? 'That volume'} is not connected.`)
  const { freeBytes } = await medium.room()
  if (freeBytes < neededBytes)
    throw new CannotWork(
      `${row.name} has ${formatBytes(freeBytes)} free and about ${formatBytes(neededBytes)} are needed. Make room or choose another volume.`,
    )
  return { name: row.name, medium }
}

/** Gives a finished part the first free name: `film.mp4`, `film (2).mp4` … */
export async function publishFree(
  medium: Medium,
  part: Buffer,
  folder: string,
  base: string,
  ending: string,
): Promise<string> {
  await medium.makeFolder(Buffer.from(folder))
  for (let turn = 1; ; turn += 1) {
    const path = `${folder}/${base}${turn === 1 ? '' : ` (${turn})`}${ending}`
    if ((await medium.publish(part, Buffer.from(path))) === 'named') {
      await medium.settleFolders([Buffer.from(folder)])
      return path
    }
  }
}
