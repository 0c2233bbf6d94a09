import { readFileSync, writeFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { measureRate } from '../../core/media/cadence'
import { remarksOf } from '../../core/media/remarks'
import { frameRate } from '../../core/units/frameRate'
import { makeProxy } from '../../server/engine/code/makeProxy'
import { probeFile } from '../../server/engine/probe/probe'
import { TaskControl } from '../../server/jobs/control'
import { compareProxy } from '../../server/jobs/proxies/steps/compared'
import { at, ffmpeg } from './rendering'

/** Top field first, and a field repeated, of four frames in turn: 3, 2, 3 and 2 fields. */
const TURNS = [
  [1, 1],
  [0, 0],
  [0, 1],
  [1, 0],
] as const

/**
 * Sets the flags of pull-down in a bare stream whose frames are all whole and stand in the order in which they are
 * shown. Source: ISO/IEC 13818-2, 6.2.2.1 (sequence header), 6.2.2.3 (its extension), 6.2.3.1 (picture coding
 * extension).
 */
function withPulldown(plain: Buffer): { stream: Buffer; frames: number } {
  const stream = Buffer.from(plain)
  let frames = 0
  const set = (place: number, clear: number, bits: number) =>
    stream.writeUInt8((stream.readUInt8(place) & ~clear) | bits, place)
  for (let code = stream.indexOf('000001', 0, 'hex'); code >= 0; code = stream.indexOf('000001', code + 3, 'hex')) {
    const kind = stream[code + 3]
    // 30000/1001 frames a second are said, of two fields each.
    if (kind === 0xb3) set(code + 7, 0x0f, 4)
    if (kind !== 0xb5) continue
    const extension = (stream[code + 4] ?? 0) >> 4
    if (extension === 1) set(code + 5, 0x08, 0)
    if (extension !== 8) continue
    const [top, repeated] = TURNS[frames % 4] ?? [0, 0]
    set(code + 7, 0x82, top * 0x80 + repeated * 0x02)
    set(code + 8, 0x80, 0x80)
    frames += 1
  }
  return { stream, frames }
}

describe('film with pull-down', () => {
  const film = 'testsrc2=s=320x240:r=24000/1001:d=4'
  ffmpeg('-f', 'lavfi', '-i', film, '-c:v', 'mpeg2video', '-bf', '0', '-q:v', '5', '-f', 'mpeg2video', 'plain.m2v')
  const { stream, frames } = withPulldown(readFileSync(at('plain.m2v').toString()))
  writeFileSync(at('soft.m2v').toString(), stream)
  // Its packets have lengths and no times.
  ffmpeg('-i', 'soft.m2v', '-c', 'copy', '-f', 'vob', 'soft.mpg')
  ffmpeg('-i', 'soft.m2v', '-c', 'copy', 'soft.mov')
  ffmpeg('-fflags', '+genpts', '-i', 'soft.m2v', '-bsf:v', 'setts=pts=DTS', '-c', 'copy', 'soft.mkv')

  it.each(['soft.mpg', 'soft.mov', 'soft.mkv'])('is named, with its own frames, in %s', async (name) => {
    expect(frames).toBe(96)
    const original = await probeFile(at(name))
    const { video } = original
    if (!video) throw new Error('no picture')
    expect(video).toMatchObject({
      rate: { num: 24_000, den: 1001 },
      frames,
      cadence: { kind: 'constant', pulldown: true },
    })
    expect(video.seconds).toBeCloseTo((96 * 1001) / 24_000, 1)
    expect(remarksOf(original).map(({ short }) => short)).toContain('pull-down')
  })

  it.each(['soft.mpg', 'soft.mov', 'soft.mkv'])(
    'comes to a proxy of a constant rate, frame by frame, from %s',
    async (name) => {
      const original = await probeFile(at(name))
      const { video } = original
      if (!video) throw new Error('no picture')
      const output = at(`proxy-${name}.mp4`)
      await makeProxy({ input: at(name), output: output.toString(), control: new TaskControl(), onFrames: () => undefined }, original) // prettier-ignore
      const { probe, checks } = await compareProxy({ probe: original, video, path: at(name) }, output)
      expect(checks.filter(({ pass }) => !pass)).toEqual([])
      expect(probe.video).toMatchObject({ rate: { num: 24_000, den: 1001 }, frames, cadence: { kind: 'constant' } })
    },
  )

  it('is no pull-down where frames come as they like, or the steps are others', () => {
    const measured = (fields: readonly number[]) => {
      let now = 0
      return measureRate([[0, ...fields.map((one) => (now += one * 1001))]], 60_000, []).cadence
    }
    const turns = Array.from({ length: 40 }, (_, step) => 2 + (step % 2))
    expect(measured(turns).pulldown).toBe(true)
    // On a clock of thousandths, 24 and 24000/1001 are told apart by their length.
    const thousandths = Array.from({ length: 200 }, (_, frame) => Math.round(((frame * 5 + (frame % 2)) / 120) * 1000))
    expect(measureRate([thousandths], 1000, []).rate).toEqual(frameRate(24))
    expect(measured(turns.map((step, place) => (place === 20 ? 4 : step))).kind).toBe('variable')
    expect(measured(turns.map((step) => (step === 2 ? 1 : step))).pulldown).toBeUndefined()
    expect(measured(Array.from({ length: 40 }, (_, step) => (step % 4 === 0 ? 3 : 2))).kind).toBe('variable')
    expect(measured([2, 3, 2]).pulldown).toBeUndefined()
  })
})
