import { fileNameOf, withoutEnding } from '../../units/filePath'
import { parseDcfName } from './dcf'

/** A hole in a camera's counter: the names on either side of it, and how many numbers it lacks. */
export interface CounterGap {
  readonly after: string
  readonly before: string
  readonly missing: number
}

/** Where a naming habit keeps its counter: behind which text, and the chapter of a take that was split into files. */
interface Reading {
  readonly prefix: string
  readonly counter: number
  readonly width: number
  readonly chapter: number | undefined
}

/** One counter of a folder, from its smallest number to its largest. */
interface Run {
  /** Name of a file by its number. */
  readonly names: ReadonlyMap<number, string>
  readonly width: number
  readonly clips: number
}

/**
 * Missing numbers of every counter in a card's folders, found by how the folder itself names its files: a common
 * beginning, a run of digits, and perhaps digits that split one take into chapters. `others` are files that may share
 * the counter (stills, sidecars) and close holes; a counter without any clip is left alone.
 * `41, 42, 44` lacks one; `9998, 9999, 0001` none; `GX010034, GX020034, GX010035` are two takes, the first in two
 * chapters.
 */
export function counterGaps(clips: readonly string[], others: readonly string[] = []): CounterGap[] {
  const isClip = new Set(clips.map(withoutEnding))
  const goOn = new Set(headedChapters(clips).flatMap(([, ...more]) => more))
  return familiesOf([...clips.filter((path) => !goOn.has(path)), ...others]).flatMap((stems) =>
    sharedRuns(groupsOf(stems).flatMap((group) => splitRuns(bestWay(group), isClip)))
      .filter((run) => run.clips > 0)
      .flatMap(gapsOf),
  )
}

/**
 * Takes that the camera split into files, as its names say: paths in the order of their chapters, at least two each.
 */
export function chaptersOf(paths: readonly string[]): string[][] {
  const pathOf = new Map(paths.map((path) => [withoutEnding(path), path]))
  return familiesOf(paths).flatMap((stems) =>
    groupsOf(stems).flatMap((group) => {
      const takes = new Map<string, { path: string; chapter: number }[]>()
      for (const { stem, reading } of bestWay(group)) {
        if (reading.chapter === undefined) continue
        const key = `${stem.slice(0, stem.lastIndexOf('/') + 1)}${reading.prefix}/${reading.counter}`
        const parts = takes.get(key) ?? []
        parts.push({ path: pathOf.get(stem) ?? stem, chapter: reading.chapter })
        takes.set(key, parts)
      }
      return [...takes.values()]
        .filter((parts) => parts.length > 1)
        .map((parts) => parts.sort((a, b) => a.chapter - b.chapter).map(({ path }) => path))
    }),
  )
}

/**
 * Takes whose first file is named otherwise than those that go on from it, as names alone say: without their number
 * (`M0050`, `M0050_001`), or with other letters before the file number that they share (`XOPR0040`, `XP010040`; the
 * design rule gives one number to what belongs together). Paths in their order.
 */
export function headedChapters(paths: readonly string[]): string[][] {
  const pathOf = new Map(paths.map((path) => [withoutEnding(path), path]))
  const chapters = new Map<string, { path: string; chapter: number }[]>()
  const add = (head: string, path: string, chapter: number) =>
    chapters.set(head, [...(chapters.get(head) ?? []), { path, chapter }])
  const heads = headsByNumber([...pathOf.keys()])
  for (const [stem, path] of pathOf) {
    const behind = /^(.*[^/])[-_ ](\d{1,3})$/.exec(stem)
    const shared = CHAPTER_OF_NUMBER.exec(stem)
    const head = shared ? heads.get(`${shared[1]}${shared[3]}`) : undefined
    if (behind?.[1] !== undefined && pathOf.has(behind[1])) add(behind[1], path, Number(behind[2]))
    else if (head !== undefined) add(head, path, Number(shared?.[2]))
  }
  return [...chapters].flatMap(([head, parts]) => {
    const ordered = parts.sort((a, b) => a.chapter - b.chapter)
    const first = ordered[0]?.chapter ?? 0
    const holds = (first === 1 || first === 2) && ordered.every(({ chapter }, at) => chapter === first + at)
    const path = pathOf.get(head)
    return holds && path !== undefined ? [[path, ...ordered.map((part) => part.path)]] : []
  })
}

/** Four characters of which the last two number a chapter, then the file number: folder, chapter, number. */
const CHAPTER_OF_NUMBER = /^(.*?)[A-Z_]{2}(\d\d)(\d{4})$/i
const PLAIN_NUMBER = /^(.*?)[A-Z_]{4}(\d{4})$/i

/** The one name with four letters before a file number, by folder and number; none where several share it. */
function headsByNumber(stems: readonly string[]): Map<string, string> {
  const found = new Map<string, string | undefined>()
  for (const stem of stems) {
    const plain = PLAIN_NUMBER.exec(stem)
    if (!plain || (plain[1] !== '' && !plain[1]?.endsWith('/'))) continue
    const key = `${plain[1]}${plain[2]}`
    found.set(key, found.has(key) ? undefined : stem)
  }
  return new Map([...found].flatMap(([key, stem]) => (stem === undefined ? [] : [[key, stem]])))
}

/** Names that belong to one counter's folders, each once. */
function familiesOf(paths: readonly string[]): string[][] {
  const families = new Map<string, Set<string>>()
  for (const path of paths) {
    const family = familyOf(path)
    const stems = families.get(family)
    if (stems) stems.add(withoutEnding(path))
    else families.set(family, new Set([withoutEnding(path)]))
  }
  return [...families.values()].map((stems) => [...stems])
}

/** Folders of one counter: the numbered ones of a camera's tree together, any other alone. */
function familyOf(path: string): string {
  const folders = path.split('/').slice(0, -1)
  return /^[1-9]\d\d[A-Z0-9_]{5}$/i.test(folders.at(-1) ?? '')
    ? [...folders.slice(0, -1), '*'].join('/')
    : folders.join('/')
}

/** Names that begin alike up to their first digit. */
function groupsOf(stems: readonly string[]): string[][] {
  const groups = new Map<string, string[]>()
  for (const stem of stems) {
    const lead = /^\D*/.exec(fileNameOf(stem))?.[0] ?? ''
    const group = groups.get(lead)
    if (group) group.push(stem)
    else groups.set(lead, [stem])
  }
  return [...groups.values()]
}

interface Read {
  readonly stem: string
  readonly reading: Reading
}

/**
 * Reads a group of names in the way that steps by one most often, leaves the fewest numbers out, needs the fewest
 * counters and gives the fewest numbers twice; none when nothing in them counts.
 */
function bestWay(group: readonly string[]): readonly Read[] {
  let best: { read: readonly Read[]; merits: readonly number[] } | undefined
  for (const way of WAYS) {
    const read = group.flatMap((stem): Read[] => {
      const reading = way(fileNameOf(stem))
      return reading ? [{ stem, reading }] : []
    })
    if (!chaptersHold(read.map(({ reading }) => reading))) continue
    const runs = splitRuns(read, new Set())
    const steps = runs.flatMap(stepsOf)
    const unit = steps.filter((step) => step.missing === 0).length
    if (!(unit > 0 && unit * 2 >= steps.length) && !isStandard(group)) continue
    const missing = steps.reduce((sum, step) => sum + step.missing, 0)
    const merits = [unit, -missing, -runs.length, -twiceGiven(read)]
    if (!best || isBetter(merits, best.merits)) best = { read, merits }
  }
  return best?.read ?? []
}

const isBetter = (one: readonly number[], other: readonly number[]): boolean => {
  const at = one.findIndex((merit, place) => merit !== other[place])
  return at >= 0 && (one[at] ?? 0) > (other[at] ?? 0)
}

/** How many names share their number, and their chapter, with another. */
const twiceGiven = (read: readonly Read[]): number =>
  read.length - new Set(read.map(({ reading }) => `${reading.prefix}/${reading.counter}/${reading.chapter ?? ''}`)).size

/** Names after the design rule count by definition; a date alone has its shape and is none. */
const isStandard = (stems: readonly string[]): boolean =>
  stems.every((stem) => {
    const name = parseDcfName(`${stem}.X`)
    return name !== undefined && (name.folder !== undefined || /\D/.test(fileNameOf(stem)))
  })

type Way = (name: string) => Reading | undefined

/**
 * The `at`th run of digits counts; its first `chapterDigits`, or a short run after it, number the chapters of a take.
 */
const wayOf =
  (at: number, chapterDigits: number, chapterAfter = false): Way =>
  (name) => {
    const runs = [...name.matchAll(/\d+/g)]
    const run = runs[at]
    const digits = run?.[0] ?? ''
    if (!run || digits.length <= chapterDigits || digits.length > 12) return undefined
    const after = chapterAfter ? /^[-_ ](\d{1,3})$/.exec(name.slice(run.index + digits.length))?.[1] : undefined
    if (chapterAfter && after === undefined) return undefined
    return {
      prefix: name.slice(0, run.index),
      counter: Number(digits.slice(chapterDigits)),
      width: digits.length - chapterDigits,
      chapter:
        chapterDigits > 0 ? Number(digits.slice(0, chapterDigits)) : after === undefined ? undefined : Number(after),
    }
  }

/** After the design rule for camera file systems: four characters, which may be digits, and four digits. */
const STANDARD: Way = (name) => {
  const read = parseDcfName(`${name}.X`)
  return read && { prefix: read.prefix, counter: read.counter, width: 4, chapter: undefined }
}

/** Plain readings first: of two that leave out equally few, the first is taken. */
const WAYS: readonly Way[] = [
  STANDARD,
  ...[0, 1, 2, 3].map((at) => wayOf(at, 0)),
  ...[0, 1, 2].map((at) => wayOf(at, 0, true)),
  ...[0, 1].flatMap((at) => [wayOf(at, 1), wayOf(at, 2)]),
]

/** Chapters of every take begin alike, at 0 or 1, and lack none; some take has more than one. */
function chaptersHold(readings: readonly Reading[]): boolean {
  if (readings.length === 0) return false
  if (readings.every(({ chapter }) => chapter === undefined)) return true
  const takes = new Map<string, number[]>()
  for (const { prefix, counter, chapter } of readings) {
    const take = `${prefix}/${counter}`
    const chapters = takes.get(take)
    if (chapters) chapters.push(chapter ?? 0)
    else takes.set(take, [chapter ?? 0])
  }
  const lists = [...takes.values()].map((chapters) => chapters.sort((a, b) => a - b))
  const first = lists[0]?.[0] ?? 0
  return (
    first <= 1 &&
    lists.some((chapters) => chapters.length > 1) &&
    lists.every((chapters) => chapters.every((chapter, at) => chapter === first + at))
  )
}

function splitRuns(read: readonly Read[], isClip: ReadonlySet<string>): Run[] {
  const runs = new Map<string, { names: Map<number, string>; width: number; clips: number }>()
  for (const { stem, reading } of read) {
    const key = reading.prefix.toUpperCase()
    const run = runs.get(key) ?? { names: new Map<number, string>(), width: reading.width, clips: 0 }
    // A counter whose digits grow with it never begins anew.
    if (run.width !== reading.width) run.width = 0
    if (!run.names.has(reading.counter)) run.names.set(reading.counter, fileNameOf(stem))
    if (isClip.has(stem)) run.clips += 1
    runs.set(key, run)
  }
  return [...runs.values()]
}

interface Step {
  readonly after: number
  readonly before: number
  readonly missing: number
}

/** Steps from number to number. One that begins anew at 1 is taken to start behind its widest hole. */
function stepsOf({ names, width }: Run): Step[] {
  const counters = [...names.keys()].sort((a, b) => a - b)
  const last = width >= 3 ? 10 ** width - 1 : undefined
  const steps = counters.slice(1).map((before, at) => {
    const after = counters[at] ?? before
    return { after, before, missing: before - after - 1 }
  })
  const [first, end] = [counters[0] ?? 0, counters.at(-1) ?? 0]
  if (last === undefined || counters.length < 2) return steps
  const round = { after: end, before: first, missing: last - end + Math.max(0, first - 1) }
  const all = [...steps, round]
  const widest = all.reduce((most, step) => Math.max(most, step.missing), 0)
  const open = all.findIndex((step) => step.missing === widest)
  return all.filter((_, at) => at !== open)
}

const missingOf = (run: Run): number => stepsOf(run).reduce((sum, step) => sum + step.missing, 0)

/**
 * Two beginnings that fill each other's holes and never give a number twice are one counter: pictures and films share
 * it.
 */
function sharedRuns(runs: readonly Run[]): Run[] {
  const merged: Run[] = []
  for (const run of runs) {
    const at = merged.findIndex((one) => sharesCounter(one, run))
    const one = merged[at]
    if (one) merged[at] = joined(one, run)
    else merged.push(run)
  }
  return merged
}

const joined = (one: Run, other: Run): Run => ({
  names: new Map([...one.names, ...other.names]),
  width: one.width,
  clips: one.clips + other.clips,
})

const sharesCounter = (one: Run, other: Run): boolean =>
  one.width === other.width &&
  [...other.names.keys()].every((counter) => !one.names.has(counter)) &&
  missingOf(joined(one, other)) < missingOf(one) + missingOf(other)

const gapsOf = (run: Run): CounterGap[] =>
  stepsOf(run)
    .filter((step) => step.missing > 0)
    .map(({ after, before, missing }) => ({
      after: run.names.get(after) ?? String(after),
      before: run.names.get(before) ?? String(before),
      missing,
    }))
