import { realpath } from 'node:fs/promises'
import type { Db } from '../db/connection'
import { FolderMedium } from '../engine/medium/folder'
import type { Medium } from '../engine/medium/medium'
import { TimedMedium } from '../engine/medium/withinTimeout'
import { ReaderProcess } from '../engine/tool/readerProcess'
import { volumeUidOf } from '../engine/medium/volumeUid'
import { markerIn } from './marker'

export { linksOf } from '../engine/medium/device'
export type { Medium }

/** Where parts of files wait until they are proved, one folder an attempt. */
export const PARTS = '.yendra/parts'
export const partsOf = (attemptId: string): Buffer => Buffer.from(`${PARTS}/${attemptId}`)

export interface VolumePlace {
  readonly id: string
  readonly simulated: boolean
  /** Where it appears on this computer. */
  readonly rootPath: string | null
}

export interface ReaderPlace extends VolumePlace {
  readonly name: string
}

export interface ReaderContent {
  readonly medium: Medium
  readonly cardName: string
  /** What the system calls the file system of the card. */
  volumeUid(): Promise<string | undefined>
}

/** A card whose files are read in a program of its own, so that none of them can keep everything waiting. */
export interface CardFiles {
  readonly medium: Medium
  end(): void
}

export function cardFiles({ simulated }: { readonly simulated: boolean }, { medium }: ReaderContent): CardFiles {
  // A simulated reader answers for itself.
  if (simulated) return { medium, end: () => undefined }
  const reader = new ReaderProcess(medium)
  const through = new Proxy(medium, {
    get(target, name) {
      if (name === 'open') return (path: Buffer) => reader.medium.open(path)
      if (name === 'sample') return (path: Buffer, sizeBytes: number) => reader.medium.sample?.(path, sizeBytes)
      const value: unknown = Reflect.get(target, name, target)
      return typeof value === 'function' ? (value.bind(target) as unknown) : value
    },
  })
  return { medium: through, end: () => reader.end() }
}

/** Makes media of places that are no folders of this computer; the first factory that knows a place answers for it. */
export interface PlaceFactory {
  volumeMedium(db: Db, volume: VolumePlace): Promise<Medium | undefined>
  readerContent(db: Db, reader: ReaderPlace): Promise<ReaderContent | 'empty' | 'unreachable'>
}

let simulated: PlaceFactory | undefined

/** Called once by each program, before anything is asked. */
export function registerSimulated(factory: PlaceFactory): void {
  simulated = factory
}

export async function hasMarker(root: string, id: string): Promise<boolean> {
  return (await markerIn(root)) === id
}

/** The volume as a medium, or `undefined` while it is not connected to this machine. */
export async function volumeMedium(db: Db, volume: VolumePlace): Promise<Medium | undefined> {
  if (!volume.rootPath) return undefined
  const medium = volume.simulated ? await simulated?.volumeMedium(db, volume) : new FolderMedium(volume.rootPath)
  if (!medium) return undefined
  const known = await inPlace(medium, () => hasMarker(medium.root, volume.id))
  return known === true ? medium : undefined
}

/**
 * Does something on a medium; `undefined` when its root was another folder before than after (device and inode), so
 * that what was read may be of another drive that came to the same mount point meanwhile.
 */
export async function inPlace<T>(medium: Medium, act: () => Promise<T>): Promise<T | undefined> {
  const before = await medium.place().catch(() => undefined)
  if (before === undefined) return undefined
  const answer = await act()
  return (await medium.place().catch(() => undefined)) === before ? answer : undefined
}

/** What lies in a reader: a card, nothing, or a folder that cannot be reached. */
export async function readerContent(db: Db, reader: ReaderPlace): Promise<ReaderContent | 'empty' | 'unreachable'> {
  if (reader.simulated) return (await simulated?.readerContent(db, reader)) ?? 'unreachable'
  if (!reader.rootPath) return 'unreachable'
  // A link that was put in its place leads to another folder than the one that was registered.
  if ((await realpath(reader.rootPath).catch(() => undefined)) !== reader.rootPath) return 'unreachable'
  const { medium } = new TimedMedium(new FolderMedium(reader.rootPath))
  try {
    if ((await medium.list(Buffer.alloc(0))).length === 0) return 'empty'
    const volumeUid = () => volumeUidOf(medium.root).catch(() => undefined)
    return { medium, cardName: reader.name, volumeUid }
  } catch {
    return 'unreachable'
  }
}

/** Absolute path of something on a medium, as bytes. */
export const fullPath = (medium: Medium, path: Buffer): Buffer => Buffer.concat([Buffer.from(`${medium.root}/`), path])
