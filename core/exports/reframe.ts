import type { CleanAperture, VideoTrack } from '../media/facts'
import type { FrameSize } from '../units/frameSize'

/** A window on the master as it is shown (clean aperture, square samples, upright), in whole even pixels. */
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

/** The even number nearest to `value`, from 0 to `most`, which may be odd. */
const clampEven = (value: number, most: number) =>
  Math.max(0, Math.min(Math.round(value / 2) * 2, Math.floor(most / 2) * 2))

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
    invented: isInvented(scale),
    usedShare: (sides.widthPx * sides.heightPx) / (source.widthPx * source.heightPx),
  }
}

/**
 * The tightest zoom that invents no pixel: source ÷ delivery in the limiting side; UHD into 1080p is 2 (200 %). Below
 * 1, even the largest window must grow.
 */
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

/** The size of a master as it is shown: what windows are placed on. */
export const shownFrame = (video: VideoTrack): FrameSize => ({
  widthPx: video.displayWidthPx,
  heightPx: video.displayHeightPx,
})

/** What is cut of a picture that was set upright, in samples: first the clean aperture, then the window within it. */
export interface StoredCut {
  readonly aperture: CleanAperture | undefined
  readonly window: CropWindow
}

/**
 * The clean aperture on the upright picture: mirrored where it is stored, then turned; rotation is counted against the
 * clock.
 */
export function uprightAperture(video: VideoTrack): CleanAperture | undefined {
  const stored = video.cleanAperture
  if (!stored) return undefined
  const { y, widthPx, heightPx } = stored
  const [storedWidth, storedHeight] = isTurned(video)
    ? [video.heightPx, video.widthPx]
    : [video.widthPx, video.heightPx]
  const x = video.mirrored ? storedWidth - stored.x - widthPx : stored.x
  const [right, below] = [storedWidth - x - widthPx, storedHeight - y - heightPx]
  const turn = ((Math.round(video.rotationDegrees / 90) % 4) + 4) % 4
  if (turn === 1) return { x: y, y: right, widthPx: heightPx, heightPx: widthPx }
  if (turn === 2) return { x: right, y: below, widthPx, heightPx }
  if (turn === 3) return { x: below, y: x, widthPx: heightPx, heightPx: widthPx }
  return { ...stored, x }
}

const isTurned = ({ rotationDegrees }: VideoTrack) => Math.abs(rotationDegrees) % 180 === 90

/** An even number of samples near `value`, from 2 to `most`. */
const evenWithin = (value: number, most: number) =>
  Math.max(2, Math.min(Math.round(value / 2) * 2, Math.floor(most / 2) * 2))

/**
 * A window on the shown picture in samples: of 720×576 with samples of 16:15, shown as 768×576, the window of 432×576
 * at 168 is cut as 406×576 at 158.
 */
export function cutOf(video: VideoTrack, window: CropWindow): StoredCut {
  const shown = shownFrame(video)
  const aperture = uprightAperture(video)
  const upright: FrameSize = aperture ?? video
  const [across, down] = [upright.widthPx / shown.widthPx, upright.heightPx / shown.heightPx]
  const widthPx = evenWithin(window.widthPx * across, upright.widthPx)
  const heightPx = evenWithin(window.heightPx * down, upright.heightPx)
  return {
    aperture,
    window: {
      widthPx,
      heightPx,
      x: clampEven(window.x * across, upright.widthPx - widthPx),
      y: clampEven(window.y * down, upright.heightPx - heightPx),
    },
  }
}

/** Delivered pixels for each real one, in the direction where there are fewer: above 1 pixels are invented. */
export function scaleOf(video: VideoTrack, window: CropWindow, delivery: FrameSize): number {
  const { window: cut } = cutOf(video, window)
  return Math.max(delivery.widthPx / cut.widthPx, delivery.heightPx / cut.heightPx)
}

/** A scale as a percentage that never promises more than there is: 1.1259 is `112.5 %`. */
export const scaleDown = (scale: number): string => `${(Math.floor(scale * 1000 + 1e-6) / 10).toFixed(1)} %`

/** Whether a scale invents pixels; one pixel across a delivered frame is no invention. */
export const isInvented = (scale: number): boolean => scale > 1 + ASPECT_TOLERANCE
