import type { FrameSize } from '../units/frameSize'
import { middleThird, type Box, type FramingAnswer } from './framing'

/** Lines of one deliverable on the recording frame. */
export interface Guide {
  readonly name: string
  /** `#rrggbb`. */
  readonly colour: string
  readonly box: Box
  /** Told apart without colour, too: on and off in pixels; none is a whole line. */
  readonly dash: readonly [number, number] | undefined
  /** All four sides, or only the two upright ones. */
  readonly sides: 'frame' | 'upright'
}

const COLOURS = ['#e4572e', '#2f6fb0', '#2e8b57', '#b8860b', '#8a4fa3', '#3b8ea5', '#a23b54', '#6b7a1e']

/** Width of a line: a 540th of the frame's height, 4 pixels of UHD. */
export const lineWidth = ({ heightPx, widthPx }: FrameSize): number =>
  Math.max(2, Math.round(Math.min(heightPx, widthPx) / 540))

/** The lines for some deliverables, and those of the middle third. */
export function guidesOf(frame: FrameSize, answers: readonly FramingAnswer[]): Guide[] {
  const unit = lineWidth(frame) * 6
  return [
    ...answers.map(({ to, window }, at): Guide => ({
      name: to.name,
      colour: COLOURS[at % COLOURS.length] ?? '#e4572e',
      box: window,
      dash: at === 0 ? undefined : [unit * (at + 1), unit],
      sides: 'frame',
    })),
    { name: 'Middle third', colour: '#ffffff', box: middleThird(frame), dash: [unit / 2, unit], sides: 'upright' },
  ]
}

/** Every stroke of the guides as a filled box in whole pixels: what is painted and what is drawn are the same. */
export function strokesOf(frame: FrameSize, { box, dash, sides }: Guide): Box[] {
  const wide = lineWidth(frame)
  const { x, y, widthPx, heightPx } = box
  const upright = [x, x + widthPx - wide].flatMap((left) =>
    pieces(heightPx, dash).map(([from, length]) => ({ x: left, y: y + from, widthPx: wide, heightPx: length })),
  )
  if (sides === 'upright') return upright
  const level = [y, y + heightPx - wide].flatMap((top) =>
    pieces(widthPx, dash).map(([from, length]) => ({ x: x + from, y: top, widthPx: length, heightPx: wide })),
  )
  return [...upright, ...level]
}

/** A line from end to end, in pieces when it is dashed. */
function pieces(length: number, dash: Guide['dash']): readonly (readonly [number, number])[] {
  if (!dash) return [[0, length]]
  const [on, off] = dash
  const step = on + off
  return Array.from({ length: Math.ceil(length / step) }, (_, at) => [at * step, Math.min(on, length - at * step)])
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

/**
 * The guides as an SVG of the frame's own size (Scalable Vector Graphics 1.1), transparent but for the lines and names.
 */
export function guidesSvg(frame: FrameSize, guides: readonly Guide[]): string {
  const { widthPx, heightPx } = frame
  const wide = lineWidth(frame)
  const groups = guides.map((guide, at) => {
    const strokes = strokesOf(frame, guide).map(
      (one) => `<rect x="${one.x}" y="${one.y}" width="${one.widthPx}" height="${one.heightPx}"/>`,
    )
    const name =
      `<text x="${guide.box.x + wide * 4}" y="${guide.box.y + wide * 12 * (at + 1)}" ` +
      `font-size="${wide * 9}" font-family="sans-serif">${escaped(guide.name)}</text>`
    return `<g fill="${guide.colour}" data-name="${escaped(guide.name)}">${strokes.join('')}${name}</g>`
  })
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" viewBox="0 0 ` +
    `${widthPx} ${heightPx}" shape-rendering="crispEdges">\n${groups.join('\n')}\n</svg>\n`
  )
}

/**
 * The guides as pixels, four bytes each (red, green, blue, opacity), row by row; all of it transparent but the lines.
 */
export function paintGuides(frame: FrameSize, guides: readonly Guide[]): Uint8Array {
  const pixels = new Uint8Array(frame.widthPx * frame.heightPx * 4)
  for (const guide of guides) {
    const [red, green, blue] = [1, 3, 5].map((at) => Number.parseInt(guide.colour.slice(at, at + 2), 16))
    for (const stroke of strokesOf(frame, guide))
      for (let y = stroke.y; y < stroke.y + stroke.heightPx; y += 1)
        for (let x = stroke.x; x < stroke.x + stroke.widthPx; x += 1)
          pixels.set([red ?? 0, green ?? 0, blue ?? 0, 255], (y * frame.widthPx + x) * 4)
  }
  return pixels
}
