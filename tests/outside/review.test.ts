import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { STRIP_FRAMES } from '../../core/cards/review/review'
import { probeFile } from '../../server/engine/probe/probe'
import { stripPicture } from '../../server/engine/picture/strip'
import { isLong } from '../long'
import { soundPeaks } from '../../server/engine/picture/wave'

const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-review-'))
const ffmpeg = (...args: readonly string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

/** The mean grey of each picture of a strip, as ffmpeg's own filters see it. */
function greys(strip: Buffer): number[] {
  const path = join(folder, 'strip.jpg')
  writeFileSync(path, strip)
  const pixels = execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', path, '-vf', `scale=${STRIP_FRAMES}:1:flags=area,format=gray`],
    ...['-f', 'rawvideo', 'pipe:1'],
  ])
  return [...pixels]
}

describe('a filmstrip', () => {
  it.each([
    ['short, of every frame', 4, 250] as const,
    ...(isLong ? [['long, of key frames alone', 60, 25] as const] : []),
  ])('%s: its pictures follow one another from the first to the last', async (_, seconds, keys) => {
    const path = join(folder, `ramp-${seconds}.mp4`)
    // Grey that rises evenly from black to white.
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=black:s=320x180:r=25:d=${seconds},geq=lum=16+219*T/${seconds}:cb=128:cr=128`],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-g', String(keys), '-pix_fmt', 'yuv420p', path],
    )
    const { video } = await probeFile(Buffer.from(path))
    if (!video) throw new Error('There is no picture.')
    const strip = await stripPicture(Buffer.from(path), video, { frames: STRIP_FRAMES, heightPx: 90 })
    const rising = greys(strip)
    expect(rising).toHaveLength(STRIP_FRAMES)
    for (const [at, grey] of rising.entries()) {
      const wanted = (255 * (at + 0.5)) / STRIP_FRAMES
      expect(Math.abs(grey - wanted), `picture ${at}`).toBeLessThan(255 / 20)
      expect(grey).toBeGreaterThanOrEqual(rising[at - 1] ?? 0)
    }
  })
})

describe('a waveform', () => {
  it('shows the loudest sample of every piece, and silence as nothing', async () => {
    const path = join(folder, 'steps.wav')
    // A quarter of a second each: silent, half, silent, full scale in one of two channels.
    ffmpeg(
      ...['-f', 'lavfi', '-i'],
      `aevalsrc='if(between(t,0.25,0.5),0.5*sin(2*PI*1000*t),0)|if(between(t,0.75,1),sin(2*PI*1000*t),0)':s=48000:d=1`,
      ...['-c:a', 'pcm_s24le', path],
    )
    const { audio } = await probeFile(Buffer.from(path))
    if (!audio) throw new Error('There is no sound.')
    const peaks = await soundPeaks(Buffer.from(path), audio, 4)
    expect(peaks).toHaveLength(4)
    const [first, half, third, full] = peaks
    expect(first).toBeLessThan(0.001)
    expect(half).toBeCloseTo(0.5, 2)
    expect(third).toBeLessThan(0.01)
    expect(full).toBeCloseTo(1, 2)
  })
})
