import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { BenchMedium } from './bench/benchMedium'
import type { Fault } from './bench/faults'
import type { Db } from './db/connection'
import { benchCard, benchDevice, clearFault } from './db/queries/bench'
import { hostName } from './home'
import { FolderMedium } from './engine/folder'
import type { Medium } from './engine/medium'

/** A volume is known by this file at its root, never by where it is mounted. */
export const MARKER = '.yendra/volume.json'

export interface VolumePlace {
  readonly id: string
  readonly rootPath: string | null
  readonly simulated: boolean
  readonly host: string
}

async function hasMarker(root: string, id: string): Promise<boolean> {
  try {
    const marker = JSON.parse(await readFile(join(root, MARKER), 'utf8')) as { id?: unknown }
    return marker.id === id
  } catch {
    return false
  }
}

const struck = (db: Db, id: string) => (fault: Fault) => void clearFault(db, id, fault.kind).catch(() => undefined)

/** The volume as a medium, or `undefined` while it is not connected to this machine. */
export async function volumeMedium(db: Db, volume: VolumePlace): Promise<Medium | undefined> {
  if (!volume.rootPath || volume.host !== hostName() || !(await hasMarker(volume.rootPath, volume.id))) return undefined
  if (!volume.simulated) return new FolderMedium(volume.rootPath)
  const device = await benchDevice(db, volume.id)
  return device?.plugged ? new BenchMedium(volume.rootPath, device, struck(db, volume.id)) : undefined
}

export interface ReaderContent {
  readonly medium: Medium
  readonly cardName: string
  readonly insertedAt: Date | undefined
}

/** What lies in a reader: a card, nothing, or a folder that cannot be reached. */
export async function readerContent(
  db: Db,
  reader: VolumePlace & { readonly name: string },
): Promise<ReaderContent | 'empty' | 'unreachable'> {
  if (reader.simulated) {
    const device = await benchDevice(db, reader.id)
    if (!device?.plugged) return 'unreachable'
    const card = device.card ? await benchCard(db, device.card) : undefined
    if (!card) return 'empty'
    return {
      medium: new BenchMedium(card.folder, device, struck(db, reader.id)),
      cardName: card.name,
      insertedAt: device.insertedAt ?? undefined,
    }
  }
  if (!reader.rootPath) return 'unreachable'
  const medium = new FolderMedium(reader.rootPath)
  try {
    return (await medium.list(Buffer.alloc(0))).length > 0
      ? { medium, cardName: reader.name, insertedAt: undefined }
      : 'empty'
  } catch {
    return 'unreachable'
  }
}

/** Absolute path of something on a medium, as bytes. */
export const fullPath = (medium: Medium, path: Buffer): Buffer => Buffer.concat([Buffer.from(`${medium.root}/`), path])
