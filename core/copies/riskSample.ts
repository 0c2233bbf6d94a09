import { chanceOf } from '../units/digest'

/** A file of a copy that may be drawn for reading again. */
export interface SampledFile {
  readonly id: number
  readonly sizeBytes: number
  readonly provedAt: number
  /** Read back through memory only. */
  readonly memory: boolean
}

export interface Bounds {
  readonly files: number
  readonly bytes: number
}

/** Reading again before a yes: enough to meet a drive that went bad, little enough to wait for. */
export const SAMPLE_BOUNDS: Bounds = { files: 48, bytes: 4e9 }

const DAY_MS = 86_400_000

/** Larger files have more room for damage, older proofs had more time for it, and memory proves least. */
const riskOf = (file: SampledFile, now: number): number =>
  (1 + Math.log2(1 + file.sizeBytes / 1e6)) * (1 + Math.max(0, now - file.provedAt) / DAY_MS) * (file.memory ? 4 : 1)

/**
 * A sample weighted by risk, drawn without putting back; a seed makes it repeatable. At least one file, then files
 * while they fit into the bounds. (Efraimidis and Spirakis, 2006: the highest of u^(1/weight).)
 */
export function riskSample(files: readonly SampledFile[], seed: string, now: number, bounds = SAMPLE_BOUNDS): number[] {
  const keyed = files.map((file) => ({
    file,
    key: Math.log(Math.max(Number.MIN_VALUE, chanceOf(seed, String(file.id)))) / riskOf(file, now),
  }))
  keyed.sort((a, b) => b.key - a.key)
  const drawn: number[] = []
  let bytes = 0
  for (const { file } of keyed) {
    if (drawn.length >= bounds.files) break
    if (drawn.length > 0 && bytes + file.sizeBytes > bounds.bytes) continue
    drawn.push(file.id)
    bytes += file.sizeBytes
  }
  return drawn
}
