import { createHash } from 'node:crypto'
import { execFileSync } from 'node:child_process'
import {
  copyFileSync,
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join } from 'node:path'
import type { LoadView, ReaderView } from '../../contract/cards'
import type { LoadCopies } from '../../contract/copies'
import type { Page } from '../../contract/page'
import type { TaskView } from '../../contract/tasks'
import { Slot } from '../clear/mounts'
import { ownClip, type Station } from '../clear/station'

/** What a drive is made of: what can be done to it unseen differs. */
export type DriveKind = 'ext4' | 'btrfs' | 'exfat' | 'folder'

/** A medium in its place, or out of it; what it holds while it is out is kept here. */
export interface Place {
  readonly name: string
  readonly at: string
  readonly kind: DriveKind
  /** `to` is where a folder goes. */
  out(to?: string): void
  putIn(image?: string): void
  isIn: boolean
}

export const hashOf = (bytes: Buffer): string => createHash('sha1').update(bytes).digest('hex')

/** Files below a folder with the hash of their bytes; links, and what is mounted inside, are left out. */
export function contentOf(root: string, skip: ReadonlySet<string> = new Set()): Map<string, string> {
  const found = new Map<string, string>()
  const walk = (folder: string) => {
    for (const name of existsSync(join(root, folder)) ? readdirSync(join(root, folder)) : []) {
      const path = folder === '' ? name : `${folder}/${name}`
      if (skip.has(path) || name === 'lost+found' || name === 'FILLING.BIN') continue
      // What is mounted there may show a folder that is gone.
      const stats = lstatSync(join(root, path), { throwIfNoEntry: false })
      if (!stats) continue
      if (stats.isDirectory()) walk(path)
      else if (stats.isFile()) found.set(path, hashOf(readFileSync(join(root, path))))
    }
  }
  walk('')
  return found
}

/** A physical card: what it holds is known whether it lies in a reader or not. */
export interface Card {
  readonly name: string
  /** Its image, or its folder. */
  readonly image: string
  files: Map<string, string>
}

/** A folder whose content is another card’s by renaming, where nothing can be mounted. */
export class FolderPlace implements Place {
  isIn = true
  readonly kind = 'folder'
  constructor(
    readonly name: string,
    readonly at: string,
    readonly away: string,
  ) {}

  out(to = this.away): void {
    renameSync(this.at, to)
    this.isIn = false
  }

  putIn(image = this.away): void {
    renameSync(image, this.at)
    this.isIn = true
  }
}

/** A mounted image. */
export class MountPlace implements Place {
  isIn = true
  #slot: Slot
  #image: string

  constructor(
    readonly name: string,
    readonly at: string,
    image: string,
    readonly kind: DriveKind,
  ) {
    this.#slot = new Slot(at, image, kind === 'exfat' ? 'mount.exfat-fuse' : 'mount')
    this.#image = image
  }

  out(): void {
    this.#slot.out()
    this.isIn = false
  }

  putIn(image = this.#image): void {
    this.#image = image
    this.#slot.putIn(image)
    this.isIn = true
  }
}

const FILMED_AT = Date.parse('2026-11-14T10:00:00Z')

/** The world that the programs live in, with everything that is true of it. */
export class World {
  readonly cards = new Map<string, Card>()
  readonly drives: { readonly place: Place; readonly volumeId: string; away: Map<string, string>; bound: string[] }[] =
    []
  /** The card in the reader. */
  held: Card | undefined
  /** Which physical card each load was read from. */
  readonly loadCards = new Map<string, string>()
  productionId = ''
  readerId = ''
  title = ''
  /** The books as they were at some time, to be put back. */
  booksCopy: { readonly text: string; readonly marks: number } | undefined
  #clips = 0
  steps = 0
  yes = 0

  constructor(
    readonly station: Station,
    readonly root: string,
    readonly reader: Place,
  ) {}

  /** Writes a clip on a card at a path. */
  film(root: string, name: string, words: string): void {
    const path = join(root, 'DCIM/100CURLW', name)
    mkdirSync(dirname(path), { recursive: true })
    writeFileSync(path, longClip(words))
    this.#clips += 1
    const at = new Date(FILMED_AT + this.#clips * 60_000)
    utimesSync(path, at, at)
  }

  nextClip = (): string => `CURL${String(this.#clips + 1).padStart(4, '0')}.MP4`

  /** What the card in the reader holds now. */
  readHeld(): void {
    if (!this.held || !this.reader.isIn) return
    this.held.files = contentOf(this.reader.at)
    for (const hash of this.held.files.values()) this.#footage.add(hash)
  }

  readonly #footage = new Set<string>()
  /** Something that a camera wrote once. */
  isFootage = (hash: string): boolean => this.#footage.has(hash)

  /** Something is mounted inside a drive. */
  get isBound(): boolean {
    return this.drives.some((drive) => drive.bound.length > 0)
  }

  /** Bytes on each drive, by their hashes. */
  onDrive(index: number): ReadonlySet<string> {
    const drive = this.drives[index]
    if (!drive) return new Set()
    if (drive.place.isIn) drive.away = contentOf(drive.place.at, new Set(drive.bound))
    return new Set([...drive.away].flatMap(([path, hash]) => (path.startsWith('.yendra/volume') ? [] : hash)))
  }

  /** Every content that is anywhere. */
  everything(): Set<string> {
    this.readHeld()
    return new Set([
      ...[...this.cards.values()].flatMap((card) => [...card.files.values()]),
      ...this.drives.flatMap((_, index) => [...this.onDrive(index)]),
    ])
  }

  async get<T>(path: string): Promise<T> {
    return this.station.get<T>(path)
  }

  readonly loads = async (): Promise<readonly LoadView[]> =>
    (await this.get<Page<LoadView>>(`/productions/${this.productionId}/loads`)).rows

  readonly answers = async (): Promise<readonly LoadCopies[]> =>
    (await this.get<Page<LoadCopies>>(`/productions/${this.productionId}/copies`)).rows

  async task(path: string, body: object = {}): Promise<TaskView | undefined> {
    const answer = await this.station.send('POST', path, body)
    return answer.status === 202 ? this.station.ended(String(answer.body.taskId)) : undefined
  }

  readonly inReader = async (): Promise<ReaderView | undefined> =>
    (await this.get<ReaderView[]>('/readers')).find((row) => row.id === this.readerId)

  /** Whether formatting what a yes is about would lose a byte; a sentence when it would. */
  async lie(): Promise<string | undefined> {
    const answers = await this.answers()
    const yes = answers.filter((answer) => answer.clear.clear)
    if (yes.length === 0) return undefined
    this.yes += 1
    this.readHeld()
    const reader = await this.inReader()
    const drives = this.drives.map((_, index) => this.onDrive(index))
    for (const { loadId, label, clear, copies: told } of yes) {
      const card = reader?.loadId === loadId && this.held ? this.held : this.cards.get(this.loadCards.get(loadId) ?? '')
      if (!card) continue
      for (const [path, hash] of card.files) {
        const copies = drives.filter((drive) => drive.has(hash)).length
        if (copies < 2)
          return [
            `yes to ${label} while ${path} of ${card.name} is on ${copies} drives`,
            ...clear.reasons.map((reason) => reason.sentence),
            ...told.map((one) => `told: ${one.volumeName} ${one.connected ? 'here' : 'away'} mark ${one.mark}`),
            ...this.drives.map(
              ({ place, away }, at) =>
                `true: ${place.name} ${place.isIn ? 'here' : 'away'} ${place.kind} ${String(drives[at]?.has(hash))}: ${[...away].map(([name, of]) => `${name} ${of.slice(0, 6)}`).join(', ')}`,
            ),
            `card: ${[...card.files].map(([name, of]) => `${name} ${of.slice(0, 6)}`).join(', ')}`,
          ].join('\n')
      }
    }
    return undefined
  }
}

const MIDDLE = 600_000

/** A clip with a middle that no sample of its ends reaches: a box of free space (ISO/IEC 14496-12, 8.1.2). */
function longClip(words: string): Buffer {
  const box = Buffer.alloc(MIDDLE, words)
  box.writeUInt32BE(box.length)
  box.write('free', 4, 'latin1')
  return Buffer.concat([ownClip(words), box])
}

/**
 * Other bytes in the middle of every clip below a folder, with size and time kept: a card that looks just like another.
 */
export function otherMiddles(root: string): void {
  for (const path of contentOf(root).keys()) {
    if (!path.endsWith('.MP4')) continue
    const { atime, mtime, size } = statSync(join(root, path))
    const bytes = readFileSync(join(root, path))
    // All but its ends, which reach to the grid of the medium, so that few draws can miss it.
    const box = bytes.readBigUInt64BE(size - MIDDLE)
    bytes.fill(0x5a, 65_536, size - 69_632)
    bytes.writeBigUInt64BE(box, size - MIDDLE)
    writeFileSync(join(root, path), bytes)
    utimesSync(join(root, path), atime, mtime)
  }
}

/** Writes a file anew with its size and time kept. */
export function rewrite(path: string): void {
  const { atime, mtime, size } = statSync(path)
  const bytes = readFileSync(path)
  const at = Math.floor(size / 2)
  bytes[at] = (bytes[at] ?? 0) ^ 0xff
  try {
    writeFileSync(`${path}.new`, bytes)
  } catch {
    // No room for it: then it was not replaced.
    rmSync(`${path}.new`, { force: true })
    return
  }
  renameSync(`${path}.new`, path)
  utimesSync(path, atime, mtime)
}

/** Files of mirrors on a drive, relative to it. */
export const mirrored = (root: string): string[] =>
  [...contentOf(root).keys()].filter((path) => path.includes('/Cards/') && /\.MP4$/.test(path))

export function shiftTimes(root: string, ms: number): void {
  for (const path of mirrored(root)) {
    const moved = new Date(statSync(join(root, path)).mtimeMs + ms)
    utimesSync(join(root, path), moved, moved)
  }
}

export const removeIfThere = (path: string): void => rmSync(path, { recursive: true, force: true })
export const cloneImage = (from: string, to: string): void => {
  if (statSync(from).isDirectory()) execFileSync('cp', ['-a', from, to])
  else copyFileSync(from, to)
}
