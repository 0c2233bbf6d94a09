import type { Destination } from '../exports/destination'
import { isInvented, largestWindow, losslessZoom, scaleDown } from '../exports/reframe'
import type { FrameSize } from '../units/frameSize'

/** A part of the frame in whole pixels. */
export interface Box extends FrameSize {
  readonly x: number
  readonly y: number
}

/** How a deliverable can be cut from a recording. */
export interface FramingAnswer {
  readonly to: Destination
  /** The largest window of its aspect, in the middle, inside the frame and on even pixels. */
  readonly window: Box
  /** Delivered pixels for each recorded one; above 1 pixels are invented. */
  readonly scale: number
  readonly invented: boolean
  /** How much wider everything must be framed, so that what was to fill the frame lies in the window; 1 is as usual. */
  readonly wider: number
  readonly sentence: string
}

const even = (value: number) => Math.floor(value / 2) * 2

/** The middle window of a deliverable's aspect: of 3840×2160 for 1080×1920 it is 1214×2160 at 1312. */
export function middleWindow(frame: FrameSize, delivery: FrameSize): Box {
  const largest = largestWindow(frame, delivery)
  const [widthPx, heightPx] = [even(largest.widthPx), even(largest.heightPx)]
  return { widthPx, heightPx, x: even((frame.widthPx - widthPx) / 2), y: even((frame.heightPx - heightPx) / 2) }
}

/** What of a recording frame goes to one destination. */
export function framingAnswer(frame: FrameSize, to: Destination): FramingAnswer {
  const zoom = losslessZoom(frame, to)
  const scale = 1 / zoom
  const largest = largestWindow(frame, to)
  const wider = Math.max(frame.widthPx / largest.widthPx, frame.heightPx / largest.heightPx)
  const invented = isInvented(scale)
  const step = wider < 1.005 ? 'Frame as usual' : `Frame ${wider.toFixed(2)} times wider than for the whole frame`
  return {
    to,
    window: middleWindow(frame, to),
    scale,
    invented,
    wider,
    sentence: invented
      ? `Pixels are invented: ${scaleDown(scale)}. Record a larger frame, or turn the camera.`
      : `${step}; ` +
        `${zoom < 1.005 ? 'no room to enlarge' : `it can be enlarged to ${scaleDown(zoom)} without inventing pixels`}.`,
  }
}

/** The part of the frame that all of them show: the subject stays in it. `undefined` when they share nothing. */
export function sharedWindow(answers: readonly FramingAnswer[]): Box | undefined {
  const [first] = answers
  if (!first) return undefined
  const box = answers.reduce((inner, { window }) => {
    const [x, y] = [Math.max(inner.x, window.x), Math.max(inner.y, window.y)]
    return {
      x,
      y,
      widthPx: Math.min(inner.x + inner.widthPx, window.x + window.widthPx) - x,
      heightPx: Math.min(inner.y + inner.heightPx, window.y + window.heightPx) - y,
    }
  }, first.window)
  return box.widthPx > 0 && box.heightPx > 0 ? box : undefined
}

/**
 * The middle third of the frame's width: one take for wide and tall keeps its subject there. Common practice, no
 * source.
 */
export function middleThird({ widthPx, heightPx }: FrameSize): Box {
  const x = Math.round(widthPx / 3)
  return { x, y: 0, widthPx: widthPx - 2 * x, heightPx }
}

/** In one sentence: what can be cut, and from how far away. */
export function framingSentence(answers: readonly FramingAnswer[]): string {
  if (answers.length === 0) return 'Choose what will be delivered.'
  const bad = answers.filter((one) => one.invented)
  const widest = Math.max(...answers.map((one) => one.wider))
  if (bad.length === answers.length) return 'None of them can be cut without inventing pixels.'
  if (bad.length > 0)
    return (
      `${bad.map((one) => one.to.name).join(' and ')} would be blown up; the rest can be cut without ` +
      'inventing pixels.'
    )
  return widest < 1.005
    ? 'All of them fill their frame without inventing pixels.'
    : `All of them can be cut without inventing pixels: frame ${widest.toFixed(2)} times wider, ` +
        'subject in the middle third.'
}
