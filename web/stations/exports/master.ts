import type { ClipView } from '../../../contract/cards'

/** A clip as far as a deliverable is made of it: pixels, seconds, exact rate. */
export interface Master {
  readonly clip: ClipView
  readonly widthPx: number
  readonly heightPx: number
  readonly rate: string
  readonly seconds: number
}

/** `undefined` for a clip without a picture. */
export function masterOf(clip: ClipView): Master | undefined {
  const { widthPx, heightPx, rate, seconds } = clip
  if (widthPx === null || heightPx === null || rate === null || seconds === null) return undefined
  return { clip, widthPx, heightPx, rate, seconds }
}
