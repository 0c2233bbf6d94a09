import { encode } from 'fast-png'
import { paintGuides, type Guide } from '../../core/shoot/guides'
import type { FrameSize } from '../../core/units/frameSize'

export interface GuidesAsked {
  readonly frame: FrameSize
  readonly guides: readonly Guide[]
}

/** Paints guides as a transparent PNG; a frame of 8K has 35 million pixels, which is too much for the page itself. */
addEventListener('message', ({ data }: MessageEvent<GuidesAsked>) => {
  const { frame, guides } = data
  const png = encode({ width: frame.widthPx, height: frame.heightPx, data: paintGuides(frame, guides), channels: 4 })
  postMessage(png)
})
