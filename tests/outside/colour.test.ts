import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { deliveryPlan } from '../../core/exports/plan'
import { probeFile } from '../../server/engine/probe/probe'
import { mediaPath } from './mediaFiles'
import { isLong } from '../long'
import { at, ffmpeg, folder, render, WIDE } from './rendering'
import { args } from '../args'

/** Chromaticities of red, green, blue and white. Sources: ITU-R BT.709, BT.601 (525 and 625 lines), BT.2020. */
const PRIMARIES: Record<string, readonly (readonly [number, number])[]> = {
  bt709: [
    [0.64, 0.33],
    [0.3, 0.6],
    [0.15, 0.06],
    [0.3127, 0.329],
  ],
  smpte170m: [
    [0.63, 0.34],
    [0.31, 0.595],
    [0.155, 0.07],
    [0.3127, 0.329],
  ],
  bt470bg: [
    [0.64, 0.33],
    [0.29, 0.6],
    [0.15, 0.06],
    [0.3127, 0.329],
  ],
  bt2020: [
    [0.708, 0.292],
    [0.17, 0.797],
    [0.131, 0.046],
    [0.3127, 0.329],
  ],
}
/** Weights of red and blue in luma. Sources: ITU-R BT.709, BT.601, BT.2020. */
const WEIGHTS: Record<string, readonly [number, number]> = {
  bt709: [0.2126, 0.0722],
  smpte170m: [0.299, 0.114],
  bt470bg: [0.299, 0.114],
  bt2020nc: [0.2627, 0.0593],
}

type Triple = readonly [number, number, number]
type Matrix = readonly [Triple, Triple, Triple]

const times = (m: Matrix, v: Triple): Triple => {
  const row = (r: Triple) => r[0] * v[0] + r[1] * v[1] + r[2] * v[2]
  return [row(m[0]), row(m[1]), row(m[2])]
}

function inverse([[a, b, c], [d, e, f], [g, h, i]]: Matrix): Matrix {
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
  const over = (x: number) => x / det
  return [
    [over(e * i - f * h), over(c * h - b * i), over(b * f - c * e)],
    [over(f * g - d * i), over(a * i - c * g), over(c * d - a * f)],
    [over(d * h - e * g), over(b * g - a * h), over(a * e - b * d)],
  ]
}

/** From linear RGB to CIE XYZ. Source: SMPTE RP 177, 3.3. */
function toXyz(name: string): Matrix {
  const points = PRIMARIES[name] ?? []
  const xyz = points.map(([x, y]): Triple => [x / y, 1, (1 - x - y) / y])
  const [r, g, b, w] = xyz as [Triple, Triple, Triple, Triple]
  const columns: Matrix = [
    [r[0], g[0], b[0]],
    [r[1], g[1], b[1]],
    [r[2], g[2], b[2]],
  ]
  const s = times(inverse(columns), w)
  return columns.map((row) => [row[0] * s[0], row[1] * s[1], row[2] * s[2]]) as unknown as Matrix
}

const luma = (matrix: string, [r, g, b]: Triple): Triple => {
  const [kr, kb] = WEIGHTS[matrix] ?? [0, 0]
  const y = kr * r + (1 - kr - kb) * g + kb * b
  return [y, (b - y) / (2 * (1 - kb)), (r - y) / (2 * (1 - kr))]
}

const limited = ([y, cb, cr]: Triple, scale = 1): Triple => [
  (16 + 219 * y) * scale,
  (128 + 224 * cb) * scale,
  (128 + 224 * cr) * scale,
]
const full = ([y, cb, cr]: Triple): Triple => [255 * y, 128 + 255 * cb, 128 + 255 * cr]

/** Source: ITU-R BT.1886: displays show BT.601, BT.709 and BT.2020 signals with an exponent of 2.4. */
const GAMMA = 2.4

/** What a patch of these primaries is in BT.709, limited range. */
function reference(primaries: string, rgb: Triple): Triple {
  const linear = rgb.map((value) => value ** GAMMA) as unknown as Triple
  const out = times(inverse(toXyz('bt709')), times(toXyz(primaries), linear))
  const shown = out.map((value) => Math.sign(value) * Math.abs(value) ** (1 / GAMMA)) as unknown as Triple
  return limited(luma('bt709', shown))
}

/** The eight bars between a high and a low signal. */
const barsOf = (low: number, high: number): Triple[] =>
  Array.from({ length: 8 }, (_, at): Triple => [at & 1 ? low : high, at & 2 ? low : high, at & 4 ? low : high])
/** Saturated as far as no patch leaves the other gamut. */
const barsFor = (primaries: string) => (primaries === 'bt2020' ? barsOf(0.5, 0.65) : barsOf(0.25, 0.75))
const PATCH = 40

describe('colour', () => {
  it('comes out as the Recommendations say, each patch within 2 code values', async () => {
    for (const [name, matrix, primaries, range, tags] of [
      ['hd', 'bt709', 'bt709', 'tv', true],
      ['hd-full', 'bt709', 'bt709', 'pc', true],
      ['sd-525', 'smpte170m', 'smpte170m', 'tv', true],
      ['sd-625', 'bt470bg', 'bt470bg', 'tv', true],
      ['uhd', 'bt2020nc', 'bt2020', 'tv', true],
      ['sd-525 untagged', 'smpte170m', 'smpte170m', 'tv', false],
    ] as const) {
      if (!isLong && !['uhd', 'sd-525 untagged'].includes(name)) continue
      const path = bars(name, matrix, primaries, range, tags)
      const made = await render(path, { ...WIDE, widthPx: 320, heightPx: 176, bitsPerPixelFrame: 2 })
      expect(made.plan.colours.assumed, name).toBe(
        tags ? undefined : 'The colours are not stated; treated as BT.601 of 525 lines.',
      )
      expect(
        made.failed.filter((one) => /Colour|Range/.test(one)),
        name,
      ).toEqual([])
      for (const [turn, rgb] of barsFor(primaries).entries()) {
        const found = patch(made.name, turn)
        const wanted = reference(primaries, rgb)
        for (const part of [0, 1, 2])
          expect(
            Math.abs((found[part] ?? 0) - (wanted[part] ?? 0)),
            `${name}, patch ${turn}: ${found.join()} for ${wanted.map((v) => v.toFixed(1)).join()}`,
          ).toBeLessThanOrEqual(2)
      }
    }
  })

  it('is refused where it would have to be tone-mapped', async () => {
    for (const name of ['pq.mp4', 'hlg.mov']) {
      const master = await probeFile(mediaPath(name))
      const plan = deliveryPlan(master, WIDE, { x: 0, y: 0, widthPx: 320, heightPx: 180 })
      expect(plan?.fault, name).toMatch(/BT\.2100.*tone-mapped/)
    }
  })

  /** Lossless bars, written with or without their tags. */
  function bars(name: string, matrix: string, primaries: string, range: string, tags: boolean): Buffer {
    const deep = matrix === 'bt2020nc' ? 4 : 1
    const plane = (part: number) =>
      `'st(0,floor(X/${PATCH}));${barsFor(primaries)
        .map((rgb, turn) => {
          const yuv = range === 'pc' ? full(luma(matrix, rgb)) : limited(luma(matrix, rgb), deep)
          return `if(eq(ld(0),${turn}),${Math.round(yuv[part] ?? 0)},`
        })
        .join('')}0${')'.repeat(8)}'`
    const format = deep === 4 ? 'yuv444p10le' : range === 'pc' ? 'yuvj444p' : 'yuv444p'
    const draw = `color=gray:s=${PATCH * 8}x176:r=25:d=0.4,format=${format},geq=lum=${plane(0)}:cb=${plane(1)}:cr=${plane(2)}`
    const written = tags
      ? [
          '-colorspace',
          matrix,
          '-color_primaries',
          primaries,
          '-color_trc',
          matrix === 'bt2020nc' ? 'bt2020-10' : matrix === 'bt709' ? 'bt709' : 'smpte170m',
          '-color_range',
          range,
        ]
      : []
    ffmpeg('-f', 'lavfi', '-i', draw, '-c:v', 'ffv1', '-pix_fmt', format, ...written, `${name}.mkv`)
    return at(`${name}.mkv`)
  }

  function patch(name: string, turn: number): Triple {
    const crop = [
      '-vf',
      `crop=20:80:${turn * PATCH + 10}:48,scale=1:1:flags=area`,
      ...args('-frames:v 1 -f rawvideo -pix_fmt yuv444p -'),
    ]
    const [y, cb, cr] = execFileSync('ffmpeg', ['-v', 'error', '-i', name, ...crop], { cwd: folder })
    return [y ?? 0, cb ?? 0, cr ?? 0]
  }
})
