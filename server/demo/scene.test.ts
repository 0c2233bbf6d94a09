import { describe, expect, it } from 'vitest'
import { below, seam } from './garboard'
import { Canvas, estuary, workshop } from './scene'

const WHITE = [255, 255, 255] as const

/** The colour at a place given in shares of width and height. */
function at(canvas: Canvas, x: number, y: number): number[] {
  const start = (Math.floor(y * canvas.heightPx) * canvas.widthPx + Math.floor(x * canvas.widthPx)) * 3
  return [...canvas.pixels.subarray(start, start + 3)]
}

describe('the painter of the demo', () => {
  it('writes a picture that any program reads', () => {
    // Source: Netpbm, format of PPM (P6): magic, width, height, maximum, then three bytes a pixel.
    const canvas = new Canvas(16, 9)
    const ppm = canvas.ppm()
    expect(ppm.subarray(0, 12).toString('latin1')).toBe('P6\n16 9\n255\n')
    expect(ppm.length).toBe(12 + 16 * 9 * 3)
  })

  it('fills inside a shape and nowhere else', () => {
    const canvas = new Canvas(100, 100)
    canvas.polygon(
      [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.75, 0.75],
        [0.25, 0.75],
      ],
      WHITE,
    )
    expect(at(canvas, 0.5, 0.5)).toEqual([255, 255, 255])
    expect(at(canvas, 0.1, 0.5)).toEqual([0, 0, 0])
    const painted = canvas.pixels.filter((byte) => byte === 255).length / 3
    expect(painted).toBeGreaterThan(2400)
    expect(painted).toBeLessThan(2600)
    canvas.ellipse(0.1, 0.1, 0.05, 0.05, WHITE)
    expect(at(canvas, 0.1, 0.1)).toEqual([255, 255, 255])
  })

  it('shows a workshop that fills with ribs, and an estuary that turns to evening', () => {
    const scenes = [3, 8].map((ribs) => {
      const canvas = new Canvas(320, 180)
      workshop(canvas, ribs)
      return canvas
    })
    expect(Buffer.compare(scenes[0]?.pixels ?? Buffer.alloc(0), scenes[1]?.pixels ?? Buffer.alloc(0))).not.toBe(0)
    const [empty, full] = [0.1, 0.9].map((filled) => {
      const canvas = new Canvas(320, 180)
      seam(canvas, filled)
      return at(canvas, 0.05, 0.467)
    })
    expect(full).toEqual(empty)
    const lamps = [0, 1].map((lamp) => {
      const canvas = new Canvas(320, 180)
      below(canvas, lamp)
      return at(canvas, 0.57, 0.62)
    })
    expect(lamps[0]).not.toEqual(lamps[1])
    const [morning, evening] = [0, 1].map((share) => {
      const canvas = new Canvas(320, 180)
      estuary(canvas, share)
      return at(canvas, 0.1, 0.01)
    })
    expect((evening?.[0] ?? 0) - (morning?.[0] ?? 0)).toBeGreaterThan(20)
  })
})
