import { withoutEscapes } from '../../copies/pathText'
import { fileTitle, freeTitle, titleWith } from '../../units/fileTitle'
import { counted, formatBytes } from '../../units/quantity'
import { stemOf, withoutEnding } from '../../units/filePath'
import type { Verdict } from './review'

/** What a folder of the production takes by itself; `none` is made and filled by hand. */
export const FOLDER_TAKES = ['a-roll', 'b-roll', 'sound', 'none'] as const
export type FolderTakes = (typeof FOLDER_TAKES)[number]

export interface TemplateFolder {
  /** Below the folder of the production, with `/` between parts. */
  readonly path: string
  readonly takes: FolderTakes
}

/** Folders of a production. Common practice, no source. */
export const USUAL_TEMPLATE: readonly TemplateFolder[] = [
  { path: 'Video/A-roll', takes: 'a-roll' },
  { path: 'Video/B-roll', takes: 'b-roll' },
  { path: 'Audio/Music', takes: 'none' },
  { path: 'Audio/Effects', takes: 'none' },
  { path: 'Audio/Recorded', takes: 'sound' },
  { path: 'Assets', takes: 'none' },
  { path: 'Library', takes: 'none' },
  { path: 'Output', takes: 'none' },
]
/** Where the edit keeps its own files: once something lies there, nothing of the view is moved any more. */
export const LIBRARY = 'Library'

/**
 * What makes a clip A-roll: who filmed it (a camera, or a load whose camera is not known), what it was rated, or its
 * shot.
 */
export interface SortRule {
  readonly by: 'camera' | 'verdict' | 'shot'
  readonly is: string
}

/** How files of the view share their bytes with the proved copies on the same volume. */
export const LINK_WAYS = ['reflink', 'hard', 'copy'] as const
export type LinkWay = (typeof LINK_WAYS)[number]

export interface SortSettings {
  readonly template: readonly TemplateFolder[]
  readonly aRoll: readonly SortRule[]
  /** Clips that are kept, or all that were not rejected. */
  readonly which: 'keep' | 'not-rejected'
  readonly links: LinkWay
  /** Nothing that lies in the view is moved, renamed or taken away. */
  readonly editBegun: boolean
}

/** One file of a clip, as its proved copy lies on a volume. */
export interface SortFile {
  readonly entryId: number
  /** As the camera named it, printable. */
  readonly fileName: string
  readonly sizeBytes: number
  /** Its proved copy lies on the volume of the view, so that a link can share it. */
  readonly isHere: boolean
}

export interface SortClip {
  readonly id: string
  /** The chosen name; `null` keeps the camera’s. */
  readonly name: string | null
  readonly load: string
  readonly loadId: string
  readonly cameraId: string | null
  readonly verdict: Verdict | null
  readonly shotId: string | null
  readonly isSound: boolean
  readonly pictureMade: boolean
  /** Where a person put it, whatever the rules say. */
  readonly folder: string | null
  /** Picture first, then the sound beside it, and further parts of one take. */
  readonly files: readonly SortFile[]
  /** Numbered frames: they keep their names, in a folder of their own. */
  readonly isRun: boolean
}

/** A file of the view as it was placed. */
export interface Placed {
  readonly path: string
  readonly entryId: number
  readonly sizeBytes: number
}

export type SortStep =
  | { readonly kind: 'add'; readonly path: string; readonly entryId: number; readonly sizeBytes: number }
  | {
      readonly kind: 'move'
      readonly path: string
      readonly entryId: number
      readonly from: string
      readonly sizeBytes: number
    }
  | { readonly kind: 'remove'; readonly path: string; readonly entryId: number; readonly sizeBytes: number }

export interface SortPlan {
  readonly steps: readonly SortStep[]
  /** Files that lie where they belong. */
  readonly kept: number
  /** Files that would be moved or taken away, and stay since the edit has begun. */
  readonly held: readonly { readonly path: string; readonly to: string | null }[]
  /** Bytes that are written once more where links are impossible, or not wanted. */
  readonly doubledBytes: number
}

/** The folder that a clip belongs into: by hand, else by its kind and the rules. */
export function sortedFolder(
  clip: SortClip,
  { template, aRoll }: Pick<SortSettings, 'template' | 'aRoll'>,
): string | undefined {
  if (clip.folder !== null && template.some((one) => one.path === clip.folder)) return clip.folder
  const first = (takes: FolderTakes) => template.find((one) => one.takes === takes)?.path
  if (clip.isSound) return first('sound') ?? first('b-roll')
  const isA = aRoll.some(({ by, is }) =>
    by === 'camera' ? is === (clip.cameraId ?? clip.loadId) : is === (by === 'verdict' ? clip.verdict : clip.shotId),
  )
  return first(isA ? 'a-roll' : 'b-roll') ?? first(isA ? 'b-roll' : 'a-roll')
}

export interface WantedFile extends Placed {
  readonly clipId: string
  readonly isHere: boolean
}

/**
 * Where every file of the view belongs. No two files get one path, also not by capital letters: of clips that two cards
 * call alike the first as filmed keeps the name, and the others carry that of their load. Clips as they were filmed.
 */
export function sortedFiles(
  clips: readonly SortClip[],
  settings: Pick<SortSettings, 'template' | 'aRoll'>,
): WantedFile[] {
  const taken = new Set<string>()
  return clips.flatMap((clip) => {
    const folder = sortedFolder(clip, settings)
    const first = clip.files[0]
    if (folder === undefined || !first) return []
    const base = fileTitle(clip.name ?? withoutEscapes(stemOf(first.fileName)))
    const filesAs = (name: string) => named(clip, `${folder}/${name}`)
    const isFree = (name: string) => filesAs(name).every(({ path }) => !taken.has(path.toLowerCase()))
    const files = filesAs(
      isFree(base) ? base : freeTitle(fileTitle(`${base} ${clip.load}`), isFree, (turn) => ` ${turn}`),
    )
    for (const { path } of files) taken.add(path.toLowerCase())
    return files
  })
}

/** A file name that is too long keeps its number and ending: they tell the frames of a run apart. */
function frameTitle(fileName: string): string {
  const tail = /\d*(\.[^.]*)?$/.exec(fileName)?.[0] ?? ''
  const name = fileTitle(fileName)
  return name.endsWith(tail)
    ? name
    : titleWith(fileName.slice(0, fileName.length - tail.length), fileTitle(`x${tail}`).slice(1))
}

function named(clip: SortClip, base: string): WantedFile[] {
  if (clip.isRun)
    return clip.files.map((file) => ({
      ...placedAt(file, `${base}/${frameTitle(withoutEscapes(file.fileName))}`),
      clipId: clip.id,
    }))
  const used = new Map<string, number>()
  return clip.files.map((file) => {
    // Parts of a take have one ending, the sound beside a picture another.
    const ending = withoutEscapes(file.fileName.slice(withoutEnding(file.fileName).length))
    const turn = (used.get(ending.toLowerCase()) ?? 0) + 1
    used.set(ending.toLowerCase(), turn)
    return {
      ...placedAt(file, `${base}${turn === 1 ? '' : ` part ${turn}`}${fileTitle(`x${ending}`).slice(1)}`),
      clipId: clip.id,
    }
  })
}

const placedAt = ({ entryId, sizeBytes, isHere }: SortFile, path: string) => ({ path, entryId, sizeBytes, isHere })

/**
 * What brings a view up to date: files that are to be added, moved or taken away. Once the edit has begun it only adds,
 * and says what it leaves. Moves come before additions, so that a name that is given up can be taken.
 */
export function sortPlan(
  wanted: readonly WantedFile[],
  placed: readonly Placed[],
  { editBegun, links }: Pick<SortSettings, 'editBegun' | 'links'>,
): SortPlan {
  const there = new Map(placed.map((file) => [file.entryId, file]))
  const wantedIds = new Set(wanted.map((file) => file.entryId))
  const away = placed.filter((file) => !wantedIds.has(file.entryId))
  const moving = wanted.flatMap((file) => {
    const now = there.get(file.entryId)
    return now && now.path !== file.path ? [{ file, now }] : []
  })
  const adding = wanted.filter((file) => !there.has(file.entryId))
  const held = editBegun
    ? [
        ...moving.map(({ file, now }) => ({ path: now.path, to: file.path })),
        ...away.map(({ path }) => ({ path, to: null })),
      ]
    : []
  // What stays keeps its name from whoever would have got it.
  const kept = new Set((editBegun ? placed : []).map((file) => file.path.toLowerCase()))
  const steps: SortStep[] = [
    ...(editBegun ? [] : away.map((file): SortStep => ({ kind: 'remove', ...bare(file) }))),
    ...(editBegun ? [] : moving.map(({ file, now }): SortStep => ({ kind: 'move', ...bare(file), from: now.path }))),
    ...adding.map((file): SortStep => ({ kind: 'add', ...bare(file), path: freePath(file.path, kept) })),
  ]
  return {
    steps,
    kept: wanted.length - moving.length - adding.length,
    held,
    doubledBytes: adding.reduce((sum, file) => sum + (links === 'copy' || !file.isHere ? file.sizeBytes : 0), 0),
  }
}

const bare = ({ path, entryId, sizeBytes }: Placed) => ({ path, entryId, sizeBytes })

function freePath(path: string, taken: Set<string>): string {
  const stem = withoutEnding(path)
  const ending = path.slice(stem.length)
  let free = path
  for (let turn = 2; taken.has(free.toLowerCase()); turn += 1) free = `${stem} ${turn}${ending}`
  taken.add(free.toLowerCase())
  return free
}

/**
 * The plan in one sentence: `12 files to add and 1 to move, without a second copy of the bytes.` Kept clips without a
 * proved copy wait, and are said so.
 */
export function sortSentence({ steps, kept, held, doubledBytes }: SortPlan, unproved = 0): string {
  const count = (kind: SortStep['kind']) => steps.filter((step) => step.kind === kind).length
  const parts = (
    [
      ['add', 'to add'],
      ['move', 'to move'],
      ['remove', 'to remove'],
    ] as const
  ).flatMap(([kind, words]) => (count(kind) > 0 ? [`${counted(count(kind), 'file')} ${words}`] : []))
  const rest = [
    held.length > 0 &&
      `; ${counted(held.length, 'file')} stay${held.length === 1 ? 's' : ''} where the edit knows ` +
        `${held.length === 1 ? 'it' : 'them'}`,
    unproved > 0 &&
      `; ${counted(unproved, 'clip')} wait${unproved === 1 ? 's' : ''} for a proved copy that is connected`,
  ]
    .filter(Boolean)
    .join('')
  if (parts.length === 0)
    return kept + held.length === 0
      ? 'No kept clip has a proved copy on this volume yet.'
      : `The sorted view is up to date: ${counted(kept, 'file')}${rest}.`
  const bytes =
    doubledBytes > 0 ? `, ${formatBytes(doubledBytes)} a second time` : ', without a second copy of the bytes'
  return `${new Intl.ListFormat('en-GB').format(parts)}${count('add') > 0 ? bytes : ''}${rest}.`
}
