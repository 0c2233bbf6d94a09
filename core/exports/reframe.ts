import type { FrameSize } from '../units/frameSize'

/** A window on the source in whole even pixels, as it is cut. */
export interface CropWindow {
  readonly x: number
  readonly y: number
  readonly widthPx: number
  readonly heightPx: number
}

export interface Reframe {
  readonly window: CropWindow
  /** Delivered pixels for each source pixel; above 1 pixels are invented. */
  readonly scale: number
  readonly invented: boolean
  /** Share of the source frame's area that is used, 0–1. */
  readonly usedShare: number
}

/**
 * The largest window of the delivery's aspect inside the source, before rounding: a tall 9:16 window of 3840×2160 is
 * 1215×2160, of 1920×1080 it is 607.5×1080.
 */
export function largestWindow(source: FrameSize, delivery: FrameSize): FrameSize {
  const aspect = delivery.widthPx / delivery.heightPx
  return source.widthPx / source.heightPx > aspect
    ? { widthPx: source.heightPx * aspect, heightPx: source.heightPx }
    : { widthPx: source.widthPx, heightPx: source.widthPx / aspect }
}

/** How far the aspect of a cut window may be off: 1 in 1000 is one pixel across a delivered frame of 1080. */
const ASPECT_TOLERANCE = 1 / 1000

/** Even sides nearest below the wanted height whose aspect is true enough. */
function evenSides(wanted: FrameSize, aspect: number, limit: FrameSize): FrameSize {
  const top = Math.floor(wanted.heightPx / 2) * 2
  const candidates = Array.from({ length: 24 }, (_, at) => top - at * 2)
    .filter((heightPx) => heightPx >= 2)
    .map((heightPx) => ({ heightPx, widthPx: Math.max(2, Math.round((heightPx * aspect) / 2) * 2) }))
    .filter((size) => size.widthPx <= limit.widthPx)
  const error = (size: FrameSize) => Math.abs(size.widthPx / size.heightPx / aspect - 1)
  const best =
    candidates.find((size) => error(size) <= ASPECT_TOLERANCE) ?? candidates.sort((a, b) => error(a) - error(b))[0]
  return best ?? { widthPx: 2, heightPx: 2 }
}

const clampEven = (value: number, most: number) => Math.round(Math.min(Math.max(0, value), Math.max(0, most)) / 2) * 2

/**
 * A window of the delivery's aspect around a centre, `zoom` times tighter than the largest one, on even pixels and
 * inside the source. `centre` is in source pixels.
 */
export function reframe(
  source: FrameSize,
  delivery: FrameSize,
  zoom: number,
  centre: { x: number; y: number },
): Reframe {
  const largest = largestWindow(source, delivery)
  const tight = Math.max(1, zoom)
  const sides = evenSides(
    { widthPx: largest.widthPx / tight, heightPx: largest.heightPx / tight },
    delivery.widthPx / delivery.heightPx,
    source,
  )
  const window = {
    ...sides,
    x: clampEven(centre.x - sides.widthPx / 2, source.widthPx - sides.widthPx),
    y: clampEven(centre.y - sides.heightPx / 2, source.heightPx - sides.heightPx),
  }
  const scale = Math.max(delivery.widthPx / sides.widthPx, delivery.heightPx / sides.heightPx)
  return {
    window,
    scale,
    invented: scale > 1 + ASPECT_TOLERANCE,
    usedShare: (sides.widthPx * sides.heightPx) / (source.widthPx * source.heightPx),
  }
}

/** The tightest zoom that invents no pixel: source ÷ delivery in the limiting side; UHD into 1080p is 2 (200 %). Below 1, even the largest window must grow. */
export const losslessZoom = (source: FrameSize, delivery: FrameSize): number =>
  largestWindow(source, delivery).heightPx / delivery.heightPx

/** Why a window cannot be cut from a source, or `undefined` when it can. */
export function windowFault(window: CropWindow, source: FrameSize): string | undefined {
  const { x, y, widthPx, heightPx } = window
  if ([x, y, widthPx, heightPx].some((value) => !Number.isInteger(value) || value % 2 !== 0))
    return 'The crop window must lie on even pixels.'
  if (x < 0 || y < 0 || widthPx < 2 || heightPx < 2) return 'The crop window is empty or starts outside the picture.'
  if (x + widthPx > source.widthPx || y + heightPx > source.heightPx)
    return `The crop window reaches beyond the picture of ${source.widthPx}×${source.heightPx}.`
  return undefined
}
