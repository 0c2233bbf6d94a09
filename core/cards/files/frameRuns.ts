import { FRAME_ENDINGS, STILL_ENDINGS } from '../../media/mediaName'
import { endingOf } from '../../units/filePath'
import { parseDcfName } from './dcf'
import type { ListedFile } from '../load/load'

/** Which numbers a run of frames spans, which are not there (ranges from–to), and how many frames are too short. */
export interface MissingFrames {
  readonly first: number
  readonly last: number
  readonly missing: readonly { readonly from: number; readonly to: number }[]
  readonly short: number
}

/** One clip that was recorded as numbered frames, a file each. */
export interface FrameRun<F extends ListedFile = ListedFile> extends MissingFrames {
  readonly folder: string
  /** What stands before the number and behind it: `take1_` and `.dng`. */
  readonly before: string
  readonly behind: string
  readonly frames: readonly F[]
  /** Of each frame its place in the run, from 0: a missing one leaves a hole. */
  readonly places: readonly number[]
}

const LEAST_FRAMES = 3
const LEAST_STILLS = 24

/** A hole as long as this and as what stands before or behind it divides two takes that share a folder and a name. */
const LEAST_DIVIDE = 24

/** Whether a file may be one frame of many, by its name alone. */
export const isFrameName = (path: string): boolean => {
  const ending = endingOf(path)
  return FRAME_ENDINGS.has(ending) || STILL_ENDINGS.has(ending)
}

/**
 * Clips among a card's files that are runs of numbered frames: same folder, same name around the number. Stills of a
 * camera's numbered folders are none. `take_0001.dng … take_0050.dng` without 17 and 31 is one run of 48 with two
 * ranges missing.
 */
export function frameRuns<F extends ListedFile>(files: readonly F[]): FrameRun<F>[] {
  const groups = new Map<
    string,
    { folder: string; before: string; behind: string; frames: { at: number; file: F }[] }
  >()
  for (const file of files) {
    if (!isFrameName(file.path) || parseDcfName(file.path)?.folder !== undefined) continue
    const slash = file.path.lastIndexOf('/')
    const dot = file.path.lastIndexOf('.')
    const name = /^(.*?)(\d+)(\D*)$/s.exec(file.path.slice(slash + 1, dot))
    if (!name) continue
    const [, before = '', digits = ''] = name
    const behind = `${name[3] ?? ''}${file.path.slice(dot)}`
    const folder = file.path.slice(0, Math.max(0, slash))
    const key = `${folder}\0${before}\0${behind}`
    const group = groups.get(key) ?? { folder, before, behind, frames: [] }
    group.frames.push({ at: Number(digits), file })
    groups.set(key, group)
  }
  return [...groups.values()].flatMap(({ frames, ...group }) => {
    const least = STILL_ENDINGS.has(group.behind.slice(group.behind.lastIndexOf('.') + 1).toLowerCase())
      ? LEAST_STILLS
      : LEAST_FRAMES
    return divided(frames.sort((a, b) => a.at - b.at)).flatMap((run) =>
      run.length < least
        ? []
        : [
            {
              ...group,
              ...numbersOf(run),
              frames: run.map(({ file }) => file),
              places: run.map(({ at }) => at - (run[0]?.at ?? 0)),
              short: shortFrames(run.map(({ file }) => file.sizeBytes)),
            },
          ],
    )
  })
}

function divided<F>(frames: readonly { at: number; file: F }[]): { at: number; file: F }[][] {
  const runs: { at: number; file: F }[][] = []
  for (const [at, frame] of frames.entries()) {
    const before = frames[at - 1]
    const run = runs.at(-1)
    const hole = before ? frame.at - before.at - 1 : 0
    if (run && hole < Math.max(LEAST_DIVIDE, run.length)) run.push(frame)
    else runs.push([frame])
  }
  return runs
}

function numbersOf(run: readonly { readonly at: number }[]): Pick<FrameRun, 'first' | 'last' | 'missing'> {
  const missing = run.flatMap(({ at }, place) => {
    const next = run[place + 1]?.at ?? at + 1
    return next > at + 1 ? [{ from: at + 1, to: next - 1 }] : []
  })
  return { first: run[0]?.at ?? 0, last: run.at(-1)?.at ?? 0, missing }
}

/**
 * Share of frames of one size from which on that size is what a frame takes: it is not compressed, and a smaller one is
 * cut.
 */
const USUAL_SHARE = 0.9

/** Whether nearly all frames take the same bytes, so that sizes tell which are cut. */
export function isOneSize(sizes: readonly number[]): boolean {
  const [, count] = usualSize(sizes)
  return count >= USUAL_SHARE * sizes.length
}

function usualSize(sizes: readonly number[]): [size: number, count: number] {
  const counts = new Map<number, number>()
  for (const size of sizes) counts.set(size, (counts.get(size) ?? 0) + 1)
  return [...counts].reduce((most, one) => (one[1] > most[1] ? one : most), [0, 0] as [number, number])
}

/** Frames without a byte, and, where nearly all are of one size, those that are smaller. */
function shortFrames(sizes: readonly number[]): number {
  const [usual] = usualSize(sizes)
  const tells = isOneSize(sizes)
  return sizes.filter((size) => size === 0 || (tells && size < usual)).length
}

/** How many frames ranges hold. */
export const countOf = (ranges: FrameRun['missing']): number =>
  ranges.reduce((sum, { from, to }) => sum + to - from + 1, 0)

/** Ranges in words: `17, 31–33`; the first few and how many more. */
export function rangeWords(ranges: FrameRun['missing'], most = 6): string {
  const shown = ranges.slice(0, most).map(({ from, to }) => (from === to ? String(from) : `${from}–${to}`))
  const more = ranges.length - shown.length
  return more > 0 ? `${shown.join(', ')} and ${more} more places` : shown.join(', ')
}
