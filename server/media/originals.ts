import { formatBytes } from '../../core/units/quantity'
import type { Db } from '../db/connection'
import { clip as clipRow } from '../db/queries/cards'
import { holdersOf } from '../db/queries/copies'
import { volume as volumeRow } from '../db/queries/volumes'
import { production } from '../db/queries/productions'
import { joinPath, type Medium } from '../engine/medium/medium'
import { hostName } from '../home'
import { CannotWork } from './cannotWork'
import { fullPath, volumeMedium } from './mediumOf'

/** A clip's original on a connected volume, as it was proved. Work is done from copies, never from the card. */
export async function originalOf(db: Db, clipId: string) {
  const clip = await clipRow(db, clipId)
  const owner = clip && (await production(db, clip.productionId))
  if (!clip || !owner) throw new CannotWork('This clip is no longer known.')
  const video = clip.probe?.video
  if (!clip.probe || !video) throw new CannotWork(`${clip.name} has no readable picture.`)
  if (clip.probe.sequence)
    throw new CannotWork(`${clip.name} is a clip of single frames, one file each, which cannot be used as a film yet.`)
  for (const holder of await holdersOf(db, hostName(), clip.loadId, clip.entryId)) {
    const medium = await volumeMedium(db, holder)
    const path = joinPath(Buffer.from(holder.folder), clip.pathBytes)
    // A copy that somebody moved by hand must not hide the other one.
    const entry = await medium?.entry(path).catch(() => undefined)
    if (medium && entry?.kind === 'file' && entry.sizeBytes === clip.entryBytes)
      return { clip, owner, probe: clip.probe, video, path: fullPath(medium, path) }
  }
  throw new CannotWork(`No connected volume holds a proved copy of ${clip.name}. Copy its card first.`)
}

/** A volume that is connected and has room for what is planned. */
export async function targetVolume(
  db: Db,
  volumeId: string,
  neededBytes: number,
): Promise<{ name: string; medium: Medium }> {
  const row = await volumeRow(db, hostName(), volumeId)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium) throw new CannotWork(`${row?.name ?? 'That volume'} is not connected.`)
  const { freeBytes } = await medium.room()
  if (freeBytes < neededBytes)
    throw new CannotWork(
      `${row.name} has ${formatBytes(freeBytes)} free and about ${formatBytes(neededBytes)} are ` +
        'needed. Make room or choose another volume.',
    )
  return { name: row.name, medium }
}
