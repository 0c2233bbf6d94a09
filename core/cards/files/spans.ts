import { habitOf } from './habit'

/** The first or the last clip of a load, with when it began or ended by its camera’s clock, in milliseconds. */
export interface EdgeClip {
  readonly id: string
  readonly name: string
  readonly startMs: number
  readonly endMs: number
  /** Frame size, rate and codec: another mode is another take. */
  readonly mode: string
}

export interface LoadEdges {
  readonly id: string
  readonly label: string
  readonly first: EdgeClip
  readonly last: EdgeClip
}

/** A take that goes on from one card to the next. */
export interface GoesOn {
  readonly name: string
  readonly from: string
  readonly fromLabel: string
}

/** A load that begins with the rest of a take, by the media files at the seam. */
export interface Seam {
  readonly loadId: string
  readonly goesOn: GoesOn
  readonly clipId: string
  readonly afterId: string
}

/** Cameras write the second in which a clip began; a change of slots takes no time. Common practice, no source. */
const SEAM_MS = 2000

/**
 * Which loads begin with a clip that goes on where the last clip of another load ended: called alike, in one mode, and
 * begun within two seconds of its end, as they were filmed. Two loads that fit equally well say nothing.
 */
export function takesThatGoOn(loads: readonly LoadEdges[]): Seam[] {
  const inTime = [...loads].sort((a, b) => a.first.startMs - b.first.startMs)
  const seams = inTime.flatMap((load): Seam[] => {
    const before = loads.filter(
      (other) =>
        other.id !== load.id &&
        other.last.mode === load.first.mode &&
        habitOf(other.last.name) === habitOf(load.first.name) &&
        other.last.startMs < load.first.startMs &&
        Math.abs(load.first.startMs - other.last.endMs) <= SEAM_MS,
    )
    const [only, ...more] = before
    if (!only || more.length > 0) return []
    const goesOn = { name: load.first.name, from: only.last.name, fromLabel: only.label }
    return [{ loadId: load.id, goesOn, clipId: load.first.id, afterId: only.last.id }]
  })
  return seams.filter(({ afterId }) => seams.filter((seam) => seam.afterId === afterId).length === 1)
}

/** What is said of it. */
export const goesOnSentence = ({ name, from, fromLabel }: GoesOn): string =>
  `${name} goes on where ${from} of “${fromLabel}” ended: one take on two cards. Keep both cards until both are copied.`
