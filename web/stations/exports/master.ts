import type { MediaFacts } from '../../../core/media/facts'
import { shownFrame } from '../../../core/exports/reframe'
import type { FrameSize } from '../../../core/units/frameSize'
import type { ClipDetail } from '../../../contract/cards'

/** A clip as far as a deliverable is made of it; its sides are those of the picture as it is shown. */
export interface Master extends FrameSize {
  readonly clip: ClipDetail
  readonly facts: MediaFacts
  /** Of the picture. */
  readonly seconds: number
}

/** `undefined` for a clip without a picture. */
export function masterOf(clip: ClipDetail): Master | undefined {
  const { facts } = clip
  return facts?.video ? { clip, facts, ...shownFrame(facts.video), seconds: facts.video.seconds } : undefined
}
