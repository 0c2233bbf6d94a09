/** How a stored picture comes to be shown: mirrored left to right first, where it is, then turned against the clock. */
export interface Orientation {
  readonly rotationDegrees: number
  readonly mirrored: boolean
}

/**
 * From the four numbers of a display matrix that turn and mirror, in any unit, rows first. Source: ISO/IEC 14496-12,
 * 6.2.2: a point (p, q) is shown at (a·p + c·q, b·p + d·q).
 *
 * `orientationOf([0, 1, -1, 0])` is a quarter turn with the clock: −90.
 */
export function orientationOf([a, b, c, d]: readonly [number, number, number, number]): Orientation {
  const mirrored = a * d - b * c < 0
  const turn = Math.round((-Math.atan2(mirrored ? -b : b, mirrored ? -a : a) * 180) / Math.PI)
  return { rotationDegrees: turn === -180 ? 180 : turn + 0, mirrored }
}

/** In words: `mirrored top to bottom`, `−90° against the clock`. */
export function orientationText({ rotationDegrees, mirrored }: Orientation): string {
  const turned = `${String(rotationDegrees).replace('-', '−')}° against the clock`
  if (!mirrored) return turned
  if (rotationDegrees === 0) return 'mirrored left to right'
  // Upside down and left for right is the one turned over the other edge.
  return Math.abs(rotationDegrees) === 180 ? 'mirrored top to bottom' : `mirrored left to right, then ${turned}`
}

export const isUpright = ({ rotationDegrees, mirrored }: Orientation): boolean => rotationDegrees === 0 && !mirrored
export const isSameOrientation = (one: Orientation, other: Orientation): boolean =>
  // Facts of an older reader say nothing of mirrors.
  one.rotationDegrees === other.rotationDegrees && !one.mirrored === !other.mirrored
