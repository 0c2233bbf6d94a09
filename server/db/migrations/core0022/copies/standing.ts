/** What is true now of one file of a copy: its latest proof, and what the volume listed since. */
export type Standing = 'verified' | 'memory' | 'missing' | 'changed' | 'differs' | 'conflict'

/** The latest proof of one file on one volume; sizes and times are those that the volume listed then. */
export interface LatestProof {
  readonly outcome: 'equal' | 'differs' | 'conflict'
  /** Whether it was surely read from the medium. */
  readonly pastCache: boolean
}

/** What the volume listed since the proof was made; `changed` also after it was otherwise once and looks as proved again. */
export type Listed = 'as-proved' | 'absent' | 'changed'

/** A proof stands until the volume lists the file otherwise; what is not listed any more is not verified. */
export function standingOf(proof: LatestProof, listed: Listed): Standing {
  if (proof.outcome !== 'equal') return proof.outcome
  if (listed !== 'as-proved') return listed === 'absent' ? 'missing' : 'changed'
  return proof.pastCache ? 'verified' : 'memory'
}

export interface ListedFile {
  readonly sizeBytes: number
  readonly modifiedMs: number
}

export const HOUR_MS = 3_600_000

/** Whether two times are apart by whole hours and no more than a day and two, as after a change of zone or summer time. */
export const isClockShift = (shiftMs: number): boolean =>
  shiftMs !== 0 && shiftMs % HOUR_MS === 0 && Math.abs(shiftMs) <= 26 * HOUR_MS

/**
 * How a file is listed now against how it was proved, and how it was listed before; `shiftMs` is a change of the volume's
 * clock that was recognised. What was away or otherwise once may be anything now: only a new proof brings it back.
 */
export function listedAs(proved: ListedFile, before: Listed, now: ListedFile | undefined, shiftMs: number): Listed {
  if (!now) return 'absent'
  const sameTime = Math.trunc(now.modifiedMs) === Math.trunc(proved.modifiedMs + shiftMs)
  return before === 'as-proved' && now.sizeBytes === proved.sizeBytes && sameTime ? 'as-proved' : 'changed'
}

/**
 * The shift of a clock that would explain a listing: all files keep their sizes, and all times differ by the same
 * whole number of hours. 0 when there is none. Whether it is one, samples of content must say.
 */
export function commonShift(pairs: readonly (readonly [before: ListedFile, now: ListedFile])[]): number {
  const [first] = pairs
  if (!first) return 0
  const shiftOf = ([before, now]: (typeof pairs)[number]) => Math.trunc(now.modifiedMs) - Math.trunc(before.modifiedMs)
  const shift = shiftOf(first)
  return isClockShift(shift) &&
    pairs.every((pair) => pair[0].sizeBytes === pair[1].sizeBytes && shiftOf(pair) === shift)
    ? shift
    : 0
}

/** A played mark belongs to the file as it lay there: it ends when the file was missing or written anew. */
export const playedStill = (file: {
  readonly playedAt: number
  readonly placedAt: number
  readonly absentAt: number | undefined
  readonly standing: Standing
}): boolean =>
  file.placedAt <= file.playedAt &&
  (file.absentAt === undefined || file.absentAt < file.playedAt) &&
  (file.standing === 'verified' || file.standing === 'memory')
