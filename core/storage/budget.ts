import { formatBytes } from '../units/quantity'

/**
 * What a file is to its owner: originals cannot be made again, generated files always can, outputs are finished work.
 */
export type ByteClass = 'originals' | 'generated' | 'outputs'

export const BYTE_CLASSES: readonly ByteClass[] = ['originals', 'generated', 'outputs']

/** Common practice, no source: 10–20 % of an edit drive stays free. Archive drives may be filled further. */
export const HEADROOM_SHARE: Record<'edit' | 'other', number> = { edit: 0.15, other: 0.05 }

export interface VolumeFill {
  readonly capacityBytes: number
  readonly usedBytes: number
  readonly headroomShare: number
}

export interface VolumeBudget {
  readonly freeBytes: number
  /** Kept free by rule. */
  readonly headroomBytes: number
  /** What may still be planned; negative when the rule is broken already. */
  readonly plannableBytes: number
  readonly state: 'roomy' | 'tight' | 'over'
  readonly sentence: string
}

/** `volumeBudget({ capacityBytes: 1e12, usedBytes: 0.8e12, headroomShare: 0.15 })` may still plan 50 GB. */
export function volumeBudget({ capacityBytes, usedBytes, headroomShare }: VolumeFill): VolumeBudget {
  const freeBytes = Math.max(0, capacityBytes - usedBytes)
  const headroomBytes = Math.round(capacityBytes * headroomShare)
  const plannableBytes = freeBytes - headroomBytes
  const state = plannableBytes < 0 ? 'over' : plannableBytes < headroomBytes ? 'tight' : 'roomy'
  const sentence = {
    over: `${formatBytes(-plannableBytes)} over its limit: clean or move before the next shoot.`,
    tight: `${formatBytes(plannableBytes)} before the headroom is touched.`,
    roomy: `${formatBytes(plannableBytes)} can still be planned.`,
  }[state]
  return { freeBytes, headroomBytes, plannableBytes, state, sentence }
}

/** A volume as far as the answer of the station needs it. */
export interface BudgetedVolume {
  readonly name: string
  readonly kind: string
  readonly connected: boolean
  readonly budget: VolumeBudget
}

/**
 * How full everything is, in one sentence. *Too full*: the headroom is broken into. *Nearly full*: less can be planned
 * than the headroom holds, so that the next load of that size breaks into it. Each is said with the figure it follows
 * from.
 */
export function storageSentence(volumes: readonly BudgetedVolume[]): string {
  const names = (some: readonly BudgetedVolume[]) => some.map((volume) => volume.name).join(' and ')
  const over = volumes.filter((volume) => volume.budget.state === 'over')
  if (over.length > 0) {
    const bytes = over.reduce((sum, volume) => sum - volume.budget.plannableBytes, 0)
    return (
      `${names(over)} ${over.length === 1 ? 'is' : 'are'} too full: ${formatBytes(bytes)} of the ` +
      `headroom ${over.length === 1 ? 'is' : 'are'} used.`
    )
  }
  const tight = volumes.filter((volume) => volume.connected && volume.budget.state === 'tight')
  if (tight.length > 0) {
    const bytes = Math.min(...tight.map((volume) => volume.budget.plannableBytes))
    return (
      `${names(tight)} ${tight.length === 1 ? 'is' : 'are'} nearly full: ${formatBytes(bytes)} before ` +
      'the headroom is touched.'
    )
  }
  const edit = volumes.find((volume) => volume.kind === 'edit' && volume.connected)
  return edit
    ? `${edit.name} can still take ${formatBytes(edit.budget.plannableBytes)}.`
    : 'Every connected volume has room.'
}

export interface ClassBytes {
  readonly byteClass: ByteClass
  readonly sizeBytes: number
}

/** Sums bytes by class, each class present once, in the order of BYTE_CLASSES. */
export const sumByClass = (rows: readonly ClassBytes[]): ClassBytes[] =>
  BYTE_CLASSES.map((byteClass) => ({
    byteClass,
    sizeBytes: rows.filter((row) => row.byteClass === byteClass).reduce((sum, row) => sum + row.sizeBytes, 0),
  }))
