/** A few seconds of a clip, from where on it is presented. */
export interface SamplePart {
  readonly atSeconds: number
  readonly seconds: number
}

/** Which seconds of a clip stand for it: all of a short one, else `parts` of so many seconds spread over it. */
export function sampleParts(seconds: number, parts = 2, partSeconds = 2): SamplePart[] {
  if (seconds <= partSeconds * parts) return [{ atSeconds: 0, seconds }]
  return Array.from({ length: parts }, (_, at) => ({
    atSeconds: ((at + 0.5) / parts) * seconds - partSeconds / 2,
    seconds: partSeconds,
  }))
}

/** A clip that could stand for others like it. */
export interface Candidate {
  readonly id: string
  /** Clips with the same are expected to look alike: load, frame and rate. */
  readonly kind: string
  readonly seconds: number
}

/**
 * Clips whose seconds are coded before a batch: of every kind the one in the middle by length, the kinds with most
 * seconds first.
 */
export function clipsToSample(clips: readonly Candidate[], most: number): Candidate[] {
  const kinds = new Map<string, Candidate[]>()
  for (const clip of clips) kinds.set(clip.kind, [...(kinds.get(clip.kind) ?? []), clip])
  const total = (of: readonly Candidate[]) => of.reduce((sum, clip) => sum + clip.seconds, 0)
  const byLength = [...kinds.values()]
    .sort((a, b) => total(b) - total(a))
    .map((of) => [...of].sort((a, b) => a.seconds - b.seconds))
  const chosen: Candidate[] = []
  // A second clip of a kind comes only when each kind has one.
  for (let turn = 1; chosen.length < Math.min(most, clips.length); turn += 1) {
    for (const of of byLength) {
      const clip = of[Math.floor((of.length * turn) / (turn + 1)) % of.length]
      const free = clip && !chosen.includes(clip) ? clip : of.find((one) => !chosen.includes(one))
      if (free && chosen.length < most) chosen.push(free)
    }
  }
  return chosen
}

/**
 * What a batch will have, once some of its clips were measured: each measured clip as predicted, the others in
 * proportion to their ceilings.
 */
export interface MeasuredShare {
  /** How many clips were measured. */
  readonly clips: number
  /** Predicted bytes as a share of the most bytes, 0–1. */
  readonly share: number
}

/** `undefined` when nothing was measured. */
export function measuredShare(measured: readonly { bytes: number; mostBytes: number }[]): MeasuredShare | undefined {
  const most = measured.reduce((sum, one) => sum + one.mostBytes, 0)
  if (most === 0) return undefined
  return { clips: measured.length, share: measured.reduce((sum, one) => sum + one.bytes, 0) / most }
}
