/**
 * What is true now of one file of a copy: its latest proof, and what the volume listed since. `doubted` has its size
 * and time, and may have been replaced all the same: it is read again before it counts.
 */
export type CopyState = 'verified' | 'memory' | 'missing' | 'changed' | 'doubted' | 'differs' | 'conflict'

/** The latest proof of one file on one volume; sizes and times are those that the volume listed then. */
export interface LatestProof {
  readonly outcome: 'equal' | 'differs' | 'conflict'
  /** Whether it was surely read from the medium. */
  readonly pastCache: boolean
}

/**
 * What the volume listed since the proof was made; `changed` also after it was otherwise once and looks as proved
 * again.
 */
export type Listed = 'as-proved' | 'absent' | 'changed' | 'doubted'

/** A proof stands until the volume lists the file otherwise; what is not listed any more is not verified. */
export function copyStateOf(proof: LatestProof, listed: Listed): CopyState {
  if (proof.outcome !== 'equal') return proof.outcome
  if (listed !== 'as-proved') return listed === 'absent' ? 'missing' : listed
  return proof.pastCache ? 'verified' : 'memory'
}

export interface ListedFile {
  readonly sizeBytes: number
  readonly modifiedMs: number
  /** Its number and when anything of it was last changed, where its file system keeps them; `null` elsewhere. */
  readonly inode: string | null
  readonly changedMs: number | null
}

export const HOUR_MS = 3_600_000

/**
 * Whether two times are apart by whole hours and no more than a day and two, as after a change of zone or summer time.
 */
export const isClockShift = (shiftMs: number): boolean =>
  shiftMs !== 0 && shiftMs % HOUR_MS === 0 && Math.abs(shiftMs) <= 26 * HOUR_MS

/**
 * What is known of a shift of the volume's clock: none, one that the ends of a file bear out, or one that nothing bears
 * out.
 */
export interface KnownShift {
  readonly shiftMs: number
  /** The ends of the file are as they were read back; `unknown` where they were not kept. */
  readonly ends: 'equal' | 'differ' | 'unknown'
}

export const NO_SHIFT: KnownShift = { shiftMs: 0, ends: 'unknown' }

/**
 * How a file is listed now against how it was proved, and how it was listed before. What was away or otherwise once may
 * be anything now: only a new proof brings it back. A file of the same size and time with another number, or touched
 * since, is a doubt: equal ones prove nothing.
 */
export function listedAs(
  proved: ListedFile,
  before: Listed,
  now: ListedFile | undefined,
  shift: KnownShift = NO_SHIFT,
): Listed {
  if (!now) return 'absent'
  if (before === 'absent' || before === 'changed' || now.sizeBytes !== proved.sizeBytes) return 'changed'
  const moved = Math.trunc(now.modifiedMs) - Math.trunc(proved.modifiedMs)
  if (moved !== 0 && (moved !== shift.shiftMs || shift.ends === 'differ')) return 'changed'
  if (before === 'doubted' || (moved !== 0 && shift.ends === 'unknown')) return 'doubted'
  return isTouched(proved, now) ? 'doubted' : 'as-proved'
}

/** Older proofs have neither, and count as before. */
const isTouched = (proved: ListedFile, now: ListedFile): boolean =>
  (proved.inode !== null && now.inode !== null && proved.inode !== now.inode) ||
  (proved.changedMs !== null && now.changedMs !== null && proved.changedMs !== now.changedMs)

type ShiftedFile = Pick<ListedFile, 'sizeBytes' | 'modifiedMs'>

/**
 * The shift of a clock that would explain a listing: all files keep their sizes, and all times differ by the same
 * whole number of hours. 0 when there is none. Whether it is one, the file system and the ends of each file must say.
 */
export function commonShift(pairs: Iterable<readonly [before: ShiftedFile, now: ShiftedFile]>): number {
  let shift: number | undefined
  for (const [before, now] of pairs) {
    const own = Math.trunc(now.modifiedMs) - Math.trunc(before.modifiedMs)
    shift ??= own
    if (own !== shift || !isClockShift(own) || before.sizeBytes !== now.sizeBytes) return 0
  }
  return shift ?? 0
}

/** A played mark belongs to the file as it lay there: it ends when the file was missing or rewritten. */
export const playedStill = (file: {
  readonly playedAt: number
  readonly placedAt: number
  readonly absentAt: number | undefined
  readonly standing: CopyState
}): boolean =>
  file.placedAt <= file.playedAt &&
  (file.absentAt === undefined || file.absentAt < file.playedAt) &&
  (file.standing === 'verified' || file.standing === 'memory')

/** What is wrong with a file of a copy, for those states in which something is. */
export const COPY_TROUBLES: Partial<Record<CopyState, string>> = {
  differs: 'differed when it was read back',
  conflict: 'another file has its name on the volume',
  missing: 'was proved once, and is gone from the volume',
  doubted: 'may have been replaced since it was proved: it is being read again',
  changed: 'was proved once, and was changed or away since: only reading it again tells what it is now',
}
