import { execFileSync } from 'node:child_process'
import { mkdirSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { PlaySample } from '../../contract/copies'
import { newWorld, type Station } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

const ffmpeg = (...args: readonly string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

/** The mean of the first picture of a film, 0 to 255, as Debian's ffmpeg decodes it. */
function brightness(file: string, ...from: readonly string[]): number {
  const raw = ffmpeg(...from, '-i', file, '-frames:v', '1', '-f', 'rawvideo', '-pix_fmt', 'gray', 'pipe:1')
  return raw.reduce((sum, value) => sum + value, 0) / raw.length
}

describe('a clip that no browser plays', () => {
  it('is shown as a preview of just the piece that is asked for, and the answer says that it was one', async () => {
    const world = await newWorld(station, [])
    const folder = join(world.card, 'DCIM/100CURLW')
    mkdirSync(folder, { recursive: true })
    const clip = join(folder, 'CURL0001.MOV')
    // Grey that becomes lighter, second by second: a picture says where it was taken.
    const grey = "geq=lum='20+T*18':cb=128:cr=128"
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      `color=s=320x180:r=25:d=12,${grey}`,
      '-c:v',
      'mpeg2video',
      '-g',
      '12',
      '-q:v',
      '2',
      clip,
    )
    utimesSync(clip, new Date('2026-11-14T10:00:00Z'), new Date('2026-11-14T10:00:00Z'))
    await world.look()
    await world.copy()
    const { loadId } = await world.copies()
    const [volumeId] = world.volumeIds
    const { clips } = await station.get<PlaySample>(`/loads/${loadId}/play-sample/${volumeId}?seed=one`)
    expect(clips).toMatchObject([
      { asPreview: true, pieces: [{ fromSeconds: 9 }, { fromSeconds: 0 }, { fromSeconds: 4.5, seconds: 3 }] },
    ])
    const clipId = clips[0]?.clipId
    for (const fromSeconds of [0, 4.5, 9]) {
      const response = await fetch(
        `${station.base}/loads/${loadId}/play/${volumeId}/${clipId}?fromSeconds=${fromSeconds}&seconds=3`,
      )
      const film = join(world.root, 'piece.mp4')
      writeFileSync(film, Buffer.from(await response.arrayBuffer()))
      const seconds = execFileSync('ffprobe', [
        '-v',
        'error',
        '-show_entries',
        'format=duration',
        '-of',
        'csv=p=0',
        film,
      ])
      expect(Math.abs(Number(seconds.toString()) - 3)).toBeLessThan(0.1)
      // A second is 18 steps of grey, of which full range makes 21: a tenth of one is less than three.
      expect(Math.abs(brightness(film) - brightness(clip, '-ss', String(fromSeconds)))).toBeLessThan(3)
    }
    await station.post(`/loads/${loadId}/spot-plays`, { volumeId, clipId, seconds: 3 })
    const { clear } = await world.copies()
    expect(clear.reasons.map((reason) => reason.sentence)).toContainEqual(
      expect.stringMatching(/^A clip was played from Slipway \d+, as a preview that was made from it\.$/),
    )
  })
})
