import { Canvas } from './scene'

/** The bottom of a hull from close by: planks, an open seam filled so far (0–1) with cotton, an iron and a mallet. */
export function seam(canvas: Canvas, filled: number): void {
  canvas.gradient(0, 1, [104, 70, 44], [128, 88, 56])
  for (let plank = 0; plank < 5; plank += 1) {
    const y = 0.06 + plank * 0.22
    canvas.polygon(strip(0, 1, y, 0.17, 0.02), plank % 2 === 0 ? [158, 108, 66] : [142, 96, 58])
    for (let nail = 0; nail < 9; nail += 1)
      canvas.ellipse(0.06 + nail * 0.11, y + 0.02 + nail * 0.0022, 0.005, 0.009, [92, 104, 96])
  }
  canvas.polygon(strip(0, 1, 0.455, 0.028, 0.02), [40, 28, 20])
  canvas.polygon(strip(0, filled, 0.459, 0.02, 0.02 * filled), [226, 216, 190])
  const [x, y] = [filled, 0.455 + 0.02 * filled]
  canvas.polygon([[x - 0.012, y - 0.3], [x + 0.012, y - 0.3], [x + 0.03, y + 0.02], [x - 0.03, y + 0.02]], [120, 126, 130]) // prettier-ignore
  canvas.polygon([[x - 0.09, y - 0.46], [x + 0.09, y - 0.46], [x + 0.09, y - 0.31], [x - 0.09, y - 0.31]], [96, 58, 30]) // prettier-ignore
  canvas.polygon([[x + 0.09, y - 0.4], [x + 0.36, y - 0.5], [x + 0.37, y - 0.47], [x + 0.09, y - 0.36]], [186, 140, 86]) // prettier-ignore
}

/** From below: the keel overhead, light between the trestles, and a lamp that burns more or less (0–1). */
export function below(canvas: Canvas, lamp: number): void {
  canvas.gradient(0, 1, [46, 40, 36], [98, 84, 66])
  canvas.polygon([[0, 0], [1, 0], [0.72, 0.42], [0.28, 0.42]], [134, 86, 50]) // prettier-ignore
  for (let plank = 1; plank < 6; plank += 1)
    canvas.polygon([[plank / 6, 0], [plank / 6 + 0.006, 0], [0.28 + plank * 0.0733 + 0.003, 0.42], [0.28 + plank * 0.0733, 0.42]], [82, 50, 28]) // prettier-ignore
  for (const x of [0.12, 0.78])
    canvas.polygon([[x, 0.3], [x + 0.1, 0.3], [x + 0.14, 1], [x - 0.04, 1]], [72, 54, 38]) // prettier-ignore
  canvas.ellipse(0.5, 0.62, 0.05 + lamp * 0.03, 0.09 + lamp * 0.05, [250, 222 - lamp * 20, 150 - lamp * 50])
  canvas.ellipse(0.5, 0.62, 0.025, 0.045, [255, 248, 226])
}

type Corner = readonly [number, number]

/** A band from one edge to another that falls by so much over the whole width. */
const strip = (from: number, to: number, y: number, high: number, fall: number): Corner[] => [
  [from, y],
  [to, y + fall],
  [to, y + fall + high],
  [from, y + high],
]
