import { formatBytes } from '../../units/quantity'

/** A file system that was mounted just now and is not registered: all that is read of it before somebody says so. */
export interface Appeared {
  readonly name: string
  readonly capacityBytes: number
  readonly freeBytes: number
  /** Names in its top folder, and no deeper. */
  readonly topNames: readonly string[]
  /** The marker that it carries, and whose that is where these records know it. */
  readonly marker: { readonly volume: { readonly name: string; readonly connected: boolean } | undefined } | undefined
}

export interface Offer {
  /** A camera's card, as its top folder looks; else anything that may be a card or a drive. */
  readonly kind: 'card' | 'card or drive' | 'marked' | 'twin'
  readonly sentence: string
}

/**
 * Names that cameras and recorders give to folders at the top of a card. Source: DCIM is JEITA CP-3461 / CIPA DC-009;
 * the others are common practice, no source.
 */
const CARD_FOLDERS = new Set(['DCIM', 'PRIVATE', 'CLIP', 'CLIPS', 'CONTENTS', 'SUB', 'THUMB', 'TAKES'])

const PARTS = [
  [0.0625, 'nearly empty'],
  [0.18, 'an eighth full'],
  [0.29, 'a quarter full'],
  [0.42, 'a third full'],
  [0.58, 'half full'],
  [0.71, 'two thirds full'],
  [0.86, 'three quarters full'],
  [0.97, 'nearly full'],
] as const

/** How full something is, as people say it: 21 of 64 GB is `a third full`. Bytes. */
export function fullness(capacityBytes: number, freeBytes: number): string {
  const used = capacityBytes > 0 ? Math.min(1, Math.max(0, 1 - freeBytes / capacityBytes)) : 0
  return PARTS.find(([most]) => used <= most)?.[1] ?? 'full'
}

/** What a file system that has just appeared may be, and what is asked about it. */
export function offerOf({ name, capacityBytes, freeBytes, topNames, marker }: Appeared): Offer {
  const size = `${formatBytes(capacityBytes)}, ${fullness(capacityBytes, freeBytes)}`
  if (marker?.volume?.connected)
    return {
      kind: 'twin',
      sentence:
        `“${name}” (${size}) carries the marker of ${marker.volume.name}, which is connected already: it ` +
        'is a copy of that drive, and counts for nothing.',
    }
  if (marker?.volume)
    return { kind: 'marked', sentence: `“${name}” appeared, ${size}. It is ${marker.volume.name}, which was put away.` }
  if (marker)
    return {
      kind: 'marked',
      sentence: `“${name}” appeared, ${size}. It has been a volume of Yendra elsewhere; these records do not know it.`,
    }
  const isCard = topNames.some((one) => CARD_FOLDERS.has(one.toUpperCase()))
  return isCard
    ? { kind: 'card', sentence: `A card appeared: “${name}”, ${size}. Scan it?` }
    : { kind: 'card or drive', sentence: `“${name}” appeared, ${size}. Is it a card to scan?` }
}
