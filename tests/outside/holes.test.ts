import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { probeFile } from '../../server/engine/probe/probe'

const folder = mkdtempSync(join(tmpdir(), 'yendra-holes-'))
afterAll(() => rmSync(folder, { recursive: true }))

describe('a recording with holes', () => {
  it.each(['mp4', 'mkv', 'mov'])('names holes of a recording with place and length, in %s', async (ending) => {
    const path = join(folder, `holes.${ending}`)
    const frames = "select='not(between(t,2,4.99))*not(between(t,7,7.39))'"
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=9', '-vf', frames, '-vsync', 'vfr'],
      ...['-c:v', 'libx264', '-bf', '2', path],
    ])
    // Source: ffprobe of Debian, which decodes every frame and tells its time.
    const told = ['-v', 'error', '-select_streams', 'v', '-show_entries', 'frame=best_effort_timestamp_time']
    const times = execFileSync('ffprobe', [...told, '-of', 'csv=p=0', path], { encoding: 'utf8' })
      .trim()
      .split('\n')
      .map(parseFloat)
    const wanted = times.flatMap((time, at) => {
      const before = times[at - 1] ?? time
      return time - before > 0.2 ? [[before + 0.04 - (times[0] ?? 0), time - before - 0.04]] : []
    })
    expect(wanted).toHaveLength(2)
    const { video } = await probeFile(Buffer.from(path))
    const holes = video?.cadence.holes ?? []
    expect(holes).toHaveLength(2)
    for (const [at, hole] of holes.entries()) {
      expect(hole.atSeconds).toBeCloseTo(wanted[at]?.[0] ?? 0, 2)
      expect(hole.seconds).toBeCloseTo(wanted[at]?.[1] ?? 0, 2)
    }
  })
})
