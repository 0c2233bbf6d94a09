import type { FrameRun } from './frameRuns'
import type { ListedFile } from '../load/load'
import { endingOf, folderOf, stemOf } from '../../units/filePath'
import type { MediaFile } from './mediaFile'
import { takesOf, type PlaceInTake } from './takes'

/** What a file is to the clip it belongs to. */
export type FileRole = 'picture' | 'sound' | 'frames' | 'sidecar' | 'camera-proxy' | 'thumbnail'

/** One file of a clip; sets of sound are numbered from 1, frames from 0 with their holes. */
export interface FileOfClip {
  readonly path: string
  readonly role: FileRole
  readonly number: number | null
}

/** A clip as an editor sees it: the file it is known by, all its files, and its place in a take that was split. */
export interface Clip {
  readonly main: string
  readonly files: readonly FileOfClip[]
  readonly take: PlaceInTake | undefined
}

/** What a camera puts behind a clip's name for the files that go with it: `S03`, `M01`, `_proxy`, `T01`. */
const MOST_SUFFIX = 8

/** Whether two folders are one, stand side by side, or one lies in the other. */
const isNear = (one: string, other: string): boolean =>
  one === other || folderOf(one) === folderOf(other) || folderOf(one) === other || one === folderOf(other)

/** How surely a name belongs to another: the same, or the same with something behind it that is no further number. */
function suffixBehind(stem: string, of: string): string | undefined {
  const [long, short] = [stem.toLowerCase(), of.toLowerCase()]
  if (!long.startsWith(short) || long.length - short.length > MOST_SUFFIX) return undefined
  const suffix = stem.slice(of.length)
  const isApart = suffix === '' || /\d$/.test(of) ? !/^\d/.test(suffix) : /^([-_ .]|\d{1,3}$)/.test(suffix)
  return isApart ? suffix : undefined
}

/** Files by their name without the ending, in small letters, so that what goes with one is found without trying all. */
class ByStem<F extends { readonly path: string }> {
  readonly #files = new Map<string, F[]>()

  constructor(files: readonly F[]) {
    for (const file of files) {
      const stem = stemOf(file.path).toLowerCase()
      const same = this.#files.get(stem)
      if (same) same.push(file)
      else this.#files.set(stem, [file])
    }
  }

  /**
   * Those near by whose name a path has, with or without something behind it; the longest names first, the same folder
   * first.
   */
  ownersOf(path: string): F[] {
    const stem = stemOf(path)
    const folder = folderOf(path)
    const found: F[] = []
    for (let length = stem.length; length >= Math.max(1, stem.length - MOST_SUFFIX); length -= 1) {
      const of = stem.slice(0, length)
      if (suffixBehind(stem, of) === undefined) continue
      const near = (this.#files.get(of.toLowerCase()) ?? []).filter(
        (file) => file.path !== path && isNear(folder, folderOf(file.path)),
      )
      found.push(...near.sort((a, b) => rankOf(a.path, folder) - rankOf(b.path, folder)))
    }
    return found
  }
}

const rankOf = (path: string, folder: string): number => (folderOf(path) === folder ? 0 : 1)

const PICTURE_ENDINGS = new Set('thm jpg jpeg png bmp'.split(' '))
/** A still of more than this is a photograph and no thumbnail. */
const MOST_THUMBNAIL_BYTES = 512 * 1024

/**
 * Files beside clips that are no media, by the clip they go with: `CLIP/C0041M01.XML` and `THUMB/C0041T01.JPG` go with
 * `CLIP/C0041.MXF`. Told by names alone.
 */
export function companionsOf<F extends ListedFile>(
  media: readonly { readonly path: string }[],
  others: readonly F[],
): Map<string, F[]> {
  const byStem = new ByStem(media)
  const beside = new Map<string, F[]>()
  for (const other of others) {
    const owner = byStem.ownersOf(other.path)[0]
    if (!owner) continue
    const list = beside.get(owner.path)
    if (list) list.push(other)
    else beside.set(owner.path, [other])
  }
  return beside
}

const companionRole = (file: ListedFile): FileRole =>
  endingOf(file.path) === 'thm' || (PICTURE_ENDINGS.has(endingOf(file.path)) && file.sizeBytes <= MOST_THUMBNAIL_BYTES)
    ? 'thumbnail'
    : 'sidecar'

/**
 * Puts a card's files together to clips: what goes with what is told by names and confirmed by what was read (length,
 * frame, time). Nothing is guessed: a file whose length contradicts its name stays a clip of its own.
 */
export function clipsOf(
  media: readonly MediaFile[],
  runs: readonly FrameRun[],
  beside: ReadonlyMap<string, readonly ListedFile[]>,
): Clip[] {
  const members = membersOf(media)
  const takes = takesOf(media.filter((file) => !members.has(file.path)))
  const owned = new Map<string, FileOfClip[]>()
  for (const [path, { main, role, number }] of members) {
    const list = owned.get(main) ?? []
    list.push({ path, role, number }, ...companionFiles(beside, path))
    owned.set(main, list)
  }
  const single = media.flatMap((file): Clip[] => {
    if (members.has(file.path)) return []
    const role: FileRole = file.hasVideo || !file.hasSound ? 'picture' : 'sound'
    const inSet = (owned.get(file.path) ?? []).some((other) => other.role === role)
    return [
      {
        main: file.path,
        files: [
          { path: file.path, role, number: inSet ? 1 : null },
          ...companionFiles(beside, file.path),
          ...(owned.get(file.path) ?? []),
        ],
        take: takes.get(file.path),
      },
    ]
  })
  const sequences = runs.map((run): Clip => {
    const main = run.frames[0]?.path ?? run.folder
    return {
      main,
      files: [
        ...run.frames.map(({ path }, at) => ({ path, role: 'frames' as const, number: run.places[at] ?? at })),
        ...companionFiles(beside, main),
      ],
      take: undefined,
    }
  })
  return [...single, ...sequences]
}

const companionFiles = (beside: ReadonlyMap<string, readonly ListedFile[]>, path: string): FileOfClip[] =>
  (beside.get(path) ?? []).map((file) => ({ path: file.path, role: companionRole(file), number: null }))

interface Member {
  readonly main: string
  readonly role: FileRole
  readonly number: number | null
}

/** Lengths that a camera gives the same take in two files differ by less than this. Common practice, no source. */
const SAME_LENGTH_SECONDS = 0.5
/** Where no time of recording bears it out, the length must. */
const SURE_LENGTH_SECONDS = 0.05
const SAME_START_MS = 2000

const isAsLong = (one: MediaFile, other: MediaFile): boolean =>
  one.seconds > 0 &&
  other.seconds > 0 &&
  Math.abs(one.seconds - other.seconds) <= (startsWith(one, other) ? SAME_LENGTH_SECONDS : SURE_LENGTH_SECONDS)

/** `undefined` where one of the two does not say when it was recorded. */
const startsWith = (one: MediaFile, other: MediaFile): boolean | undefined =>
  one.recordedMs === undefined || other.recordedMs === undefined
    ? undefined
    : Math.abs(one.recordedMs - other.recordedMs) <= SAME_START_MS

/** Media files that are no clip of their own, with what they belong to. */
function membersOf(media: readonly MediaFile[]): Map<string, Member> {
  const members = new Map<string, Member>()
  const byStem = new ByStem(media)
  const byCounter = new Map<string, MediaFile[]>()
  for (const file of media) {
    const counter = counterIn(file.path)
    if (counter !== undefined) byCounter.set(counter, [...(byCounter.get(counter) ?? []), file])
  }
  const owned = new Set<string>()
  for (const file of media) {
    if (file.isWrong) continue
    const named = byStem.ownersOf(file.path).filter((owner) => startsWith(file, owner) !== false)
    const original = named.find((owner) => isProxyOf(file, owner)) ?? timedOriginal(file, byCounter)
    const film = original ? undefined : named.find((owner) => isSoundOf(file, owner))
    const main = original ?? film
    if (!main || owned.has(file.path)) continue
    owned.add(main.path)
    members.set(file.path, { main: main.path, role: original ? 'camera-proxy' : 'sound', number: null })
  }
  for (const set of soundSets(
    media.filter((file) => !file.isWrong && !members.has(file.path) && !owned.has(file.path)),
  )) {
    const [first, ...rest] = set
    for (const [at, file] of rest.entries())
      if (first) members.set(file.path, { main: first.path, role: 'sound', number: at + 2 })
  }
  // What belongs to a member belongs to its owner: one level is all a clip has.
  for (const [path, member] of members) {
    const above = members.get(member.main)
    if (above) members.set(path, { ...member, main: above.main })
  }
  return members
}

/** A smaller picture of the same take: as long, with fewer pixels, or as many at less than half the bytes. */
const isProxyOf = (file: MediaFile, owner: MediaFile): boolean =>
  file.hasVideo &&
  owner.hasVideo &&
  isAsLong(file, owner) &&
  file.sizeBytes < owner.sizeBytes &&
  (file.framePx < owner.framePx || (file.framePx === owner.framePx && file.sizeBytes * 2 < owner.sizeBytes))

const isSoundOf = (file: MediaFile, owner: MediaFile): boolean =>
  file.hasSound && !file.hasVideo && owner.hasVideo && !owner.hasSound && isAsLong(file, owner)

const counterIn = (path: string): string | undefined => /(\d{3,})\D*$/.exec(stemOf(path))?.[1]

/**
 * Another name, but the same number in a folder beside, or with another ending, at the same time and as long: only
 * where it is the one such film.
 */
function timedOriginal(file: MediaFile, byCounter: ReadonlyMap<string, readonly MediaFile[]>): MediaFile | undefined {
  const counter = counterIn(file.path)
  if (!file.hasVideo || counter === undefined) return undefined
  const folder = folderOf(file.path)
  const fitting = (byCounter.get(counter) ?? []).filter(
    (owner) =>
      owner !== file &&
      (folderOf(owner.path) !== folder || endingOf(owner.path) !== endingOf(file.path)) &&
      isNear(folder, folderOf(owner.path)) &&
      startsWith(file, owner) === true &&
      isProxyOf(file, owner),
  )
  return fitting.length === 1 ? fitting[0] : undefined
}

/**
 * Sound recorded to one file a channel: names that differ in their last number or sign alone, just as long, with one
 * channel's coding; and the mix that a recorder writes beside them.
 */
function soundSets(media: readonly MediaFile[]): MediaFile[][] {
  const sets = new Map<string, MediaFile[]>()
  const mixes = new Map<string, MediaFile[]>()
  for (const file of media) {
    if (file.hasVideo || !file.hasSound) continue
    const [, base, sign] = /^(.+?)[-_. ]((?:tr|ch)?(?:\d{1,2}|l|r)|lr|mix)$/i.exec(stemOf(file.path)) ?? []
    if (base === undefined || sign === undefined) continue
    const take = [folderOf(file.path), base.toLowerCase(), file.codec, file.seconds.toFixed(3)].join('\0')
    const isMix = /^(lr|mix)$/i.test(sign)
    const [among, key] = isMix ? [mixes, take] : [sets, `${take}\0${file.sizeBytes}`]
    among.set(key, [...(among.get(key) ?? []), file])
  }
  return [...sets].flatMap(([key, set]) => {
    if (set.length < 2) return []
    set.sort((a, b) => (a.path < b.path ? -1 : 1))
    return [[...set, ...(mixes.get(key.slice(0, key.lastIndexOf('\0'))) ?? [])]]
  })
}

const ROLE_WORDS: Record<FileRole, readonly [one: string, many: string]> = {
  picture: ['picture', 'pictures'],
  sound: ['sound', 'files of sound'],
  frames: ['frame', 'frames'],
  'camera-proxy': ['camera proxy', 'camera proxies'],
  thumbnail: ['thumbnail', 'thumbnails'],
  sidecar: ['sidecar', 'sidecars'],
}
const ROLES = Object.keys(ROLE_WORDS) as FileRole[]

/**
 * What stands beside the files that a take is known by, in words: `camera proxy, thumbnail and 2 sidecars`; empty when
 * they are alone.
 */
export function companionWords(counts: ReadonlyMap<FileRole, number>): string {
  const words = ROLES.flatMap((role) => {
    const files = counts.get(role) ?? 0
    const [one, many] = ROLE_WORDS[role]
    return files < 1 ? [] : [files === 1 ? one : `${files} ${many}`]
  })
  return new Intl.ListFormat('en-GB').format(words)
}
