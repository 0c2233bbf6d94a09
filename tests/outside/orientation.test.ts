import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { orientationOf } from '../../core/media/orientation'
import { remarksOf } from '../../core/media/remarks'
import { makeProxy } from '../../server/engine/code/makeProxy'
import { measureFields } from '../../server/engine/probe/measureFields'
import { probeFile } from '../../server/engine/probe/probe'
import { TaskControl } from '../../server/jobs/control'
import { compareProxy } from '../../server/jobs/proxies/steps/compared'
import { isLong } from '../long'
import { at, ffmpeg, folder, render, SQUARE } from './rendering'

type Matrix = readonly [number, number, number, number]

/** All ways to turn and mirror. */
const MATRICES: readonly Matrix[] = [
  ...([[1, 0, 0, 1], [0, 1, -1, 0], [-1, 0, 0, -1], [0, -1, 1, 0]] as const), // prettier-ignore
  ...([[-1, 0, 0, 1], [1, 0, 0, -1], [0, 1, 1, 0], [0, -1, -1, 0]] as const), // prettier-ignore
]

/** Greys of the quarters of the stored picture: left above, right above, left below, right below. */
const QUARTERS = [40, 140, 90, 200]
const SIGNS = [[-1, -1], [1, -1], [-1, 1], [1, 1]] as const // prettier-ignore

/**
 * Where each quarter comes to lie, by the definition in ISO/IEC 14496-12, 6.2.2: (p, q) is shown at (ap + cq, bp + dq).
 */
function shownQuarters([a, b, c, d]: Matrix): number[] {
  const shown: number[] = []
  for (const [quarter, [p, q]] of SIGNS.entries()) {
    const [x, y] = [a * p + c * q, b * p + d * q]
    shown[SIGNS.findIndex(([signX, signY]) => signX === x && signY === y)] = QUARTERS[quarter] ?? 0
  }
  return shown
}

/** Writes the matrix into the track header: 16.16 numbers, 40 bytes behind the name of the box of version 0. */
function withMatrix(film: Buffer, [a, b, c, d]: Matrix): Buffer {
  const turned = Buffer.from(film)
  const begin = turned.indexOf('tkhd', undefined, 'latin1') + 4 + 40
  for (const [place, value] of [a, b, 0, c, d, 0, 0, 0].entries())
    turned.writeInt32BE(value * 65_536, begin + place * 4)
  return turned
}

/** Greys in the middle of each quarter of the first frame, as Debian's ffmpeg sets it upright. */
function decodedQuarters(name: string): number[] {
  const four = 'scale=4:4:flags=area,format=gray'
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', name, '-frames:v', '1', '-vf', four, '-f', 'rawvideo', '-'],
    {
      cwd: folder,
    },
  )
  return [0, 3, 12, 15].map((place) => bytes[place] ?? 0)
}

/** To the nearest of the four greys: coders are off by a few. */
const nearest = (greys: readonly number[]) =>
  greys.map((grey) => QUARTERS.reduce((best, one) => (Math.abs(one - grey) < Math.abs(best - grey) ? one : best)))

describe('a picture that is turned or mirrored', () => {
  ffmpeg(
    ...['-f', 'lavfi', '-i', "color=black:s=320x180:r=25:d=0.2,format=gray,geq=lum='if(lt(X,W/2),40,140)+if(lt(Y,H/2),0,50+if(lt(X,W/2),0,10))'"], // prettier-ignore
    ...['-c:v', 'libx264', '-qp', '4', '-pix_fmt', 'yuv420p', 'quarters.mp4'],
  )
  const stored = readFileSync(at('quarters.mp4').toString())

  it.each(isLong ? MATRICES : MATRICES.filter(([a, b, c, d]) => a * d < b * c).slice(0, 2))(
    'is read, kept in a proxy and set upright in a deliverable: %i %i %i %i',
    async (...matrix) => {
      const name = `matrix${matrix.join('')}.mp4`
      writeFileSync(at(name).toString(), withMatrix(stored, matrix))
      const wanted = shownQuarters(matrix)
      expect(nearest(decodedQuarters(name))).toEqual(wanted)
      const original = await probeFile(at(name))
      const { video } = original
      if (!video) throw new Error('no picture')
      expect(video).toMatchObject(orientationOf(matrix))
      expect(remarksOf(original).some(({ short }) => short === 'mirrored')).toBe(
        matrix[0] * matrix[3] < matrix[1] * matrix[2],
      )

      const output = at(`proxy-${name}`)
      await makeProxy({ input: at(name), output: output.toString(), control: new TaskControl(), onFrames: () => undefined }, original) // prettier-ignore
      const { probe, checks } = await compareProxy({ probe: original, video, path: at(name) }, output)
      expect(checks.filter(({ pass }) => !pass)).toEqual([])
      expect(probe.video).toMatchObject(orientationOf(matrix))
      expect(nearest(decodedQuarters(`proxy-${name}`))).toEqual(wanted)

      const made = await render(at(name), SQUARE)
      expect(made.file.video).toMatchObject(orientationOf([1, 0, 0, 1]))
      expect(nearest(decodedQuarters(made.name))).toEqual(wanted)
    },
  )
})

describe('the order of fields', () => {
  // The order that the file states, in each way that containers have, against decoded pictures of something that moves.
  it.each(
    (['tff', 'bff'] as const).flatMap((scan) => {
      const [twoFields, interleaved] = scan === 'tff' ? ['tt', 'tb'] : ['bb', 'bt']
      const woven = `-flags +ilme+ildct -top ${scan === 'tff' ? 1 : 0} -q:v 3`
      return [
        [scan, 'mov', `-c:v mjpeg -q:v 3 -field_order ${interleaved}`],
        [scan, 'mkv', `-c:v mjpeg -q:v 3 -field_order ${interleaved}`],
        [scan, 'mxf', `-c:v mpeg2video ${woven}`],
        ...(isLong ? ([[scan, 'mov', `-c:v mjpeg -q:v 3 -field_order ${twoFields}`]] as const) : []),
        ...(isLong
          ? ([
              [scan, 'mpg', `-c:v mpeg2video ${woven}`],
              [scan, 'mp4', `-c:v libx264 -flags +ilme+ildct -x264-params ${scan}=1`],
            ] as const)
          : []),
      ] as const
    }),
  )('is as the pictures show it: %s in %s, %s', async (scan, container, coding) => {
    const name = `${scan}-${coding.replaceAll(/\W/g, '')}.${container}`
    ffmpeg(
      ...['-f', 'lavfi', '-i', `mandelbrot=s=352x288:r=50,format=yuv420p,interlace=scan=${scan}`, '-t', '0.2'],
      ...[...coding.split(' '), name],
    )
    const { video } = await probeFile(at(name))
    if (!video) throw new Error('no picture')
    expect((await measureFields(at(name), video)).order).toBe(scan === 'tff' ? 'top first' : 'bottom first')
    expect(video.fieldOrder).toBe(scan === 'tff' ? 'top first' : 'bottom first')
  })
})
