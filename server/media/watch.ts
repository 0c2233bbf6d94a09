import { constants } from 'node:fs'
import type { FileHandle } from 'node:fs/promises'
import type { MediaFacts } from '../../core/media/facts'
import type { Db } from '../db/connection'
import { clip as clipRow } from '../db/queries/cards'
import { holdersOf } from '../db/queries/copies'
import { readers } from '../db/queries/readers'
import { joinPath, type Medium } from '../engine/medium/medium'
import { openHere } from '../engine/medium/openHere'
import { hostName } from '../home'
import { CannotWork } from './cannotWork'
import { fullPath, inPlace, readerContent, volumeMedium } from './mediumOf'

export type ClipOnCard = NonNullable<Awaited<ReturnType<typeof clipRow>>>
export type WatchedClip = ClipOnCard & { readonly probe: MediaFacts }

/** A place that has a clip now: a copy of its load, or the card it was filmed on. */
export interface WatchPlace {
  readonly from: 'copy' | 'card'
  readonly name: string
  readonly volumeId: string | null
  readonly medium: Medium
  /** Of the load on it: the mirror, or the root of the card. */
  readonly folder: Buffer
}

/** Whether a clip could be read as media, so that something of it can be shown. */
export const hasBeenRead = (clip: ClipOnCard): clip is WatchedClip => clip.probe !== null

/** A clip that was read, by its id; `undefined` when there is none. */
export async function watchedClip(db: Db, id: string): Promise<WatchedClip | undefined> {
  const clip = await clipRow(db, id)
  return clip && hasBeenRead(clip) ? clip : undefined
}

/**
 * Where a clip can be watched now: from a connected copy, else from the card in a reader; `undefined` when nothing has
 * it.
 */
export async function watchPlace(db: Db, clip: WatchedClip): Promise<WatchPlace | undefined> {
  const holds = async (place: WatchPlace) => {
    const entry = await place.medium.entry(joinPath(place.folder, clip.pathBytes)).catch(() => undefined)
    return entry?.kind === 'file' && entry.sizeBytes === clip.entryBytes
  }
  for (const holder of await holdersOf(db, hostName(), clip.loadId, clip.entryId)) {
    const medium = await volumeMedium(db, holder)
    const copy = { from: 'copy', name: holder.name, volumeId: holder.id, folder: Buffer.from(holder.folder) } as const
    if (medium && (await holds({ ...copy, medium }))) return { ...copy, medium }
  }
  for (const reader of await readers(db)) {
    if (reader.putAwayAt !== null || reader.loadId !== clip.loadId || !reader.same) continue
    const content = await readerContent(db, reader)
    if (content === 'empty' || content === 'unreachable') continue
    const card = { from: 'card', name: reader.name, volumeId: null, folder: Buffer.alloc(0) } as const
    if (await holds({ ...card, medium: content.medium })) return { ...card, medium: content.medium }
  }
  return undefined
}

/** The path of a clip's main file at a place. */
export const pathAt = ({ medium, folder }: WatchPlace, pathBytes: Buffer): Buffer =>
  fullPath(medium, joinPath(folder, pathBytes))

/** Opens a clip's main file where it lies. Throws CannotWork when the place went away meanwhile. */
export async function openAt(place: WatchPlace, clip: WatchedClip): Promise<FileHandle> {
  let file: FileHandle | undefined
  const here = await inPlace(place.medium, async () => {
    file = await openHere(pathAt(place, clip.pathBytes), constants.O_RDONLY).catch(() => undefined)
    return true
  })
  if (here && file) return file
  await file?.close()
  throw new CannotWork(`${place.name} went away while ${clip.name} was opened.`)
}
