import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createFile, Log, MP4BoxBuffer, type ISOFile, type Sample } from 'mp4box'
import { describe, expect, it } from 'vitest'
import { readIsoIndex, type IsoIndex } from '../../core/media/isoIndex'
import { sourceOf } from '../../core/media/testBytes'
import { MEDIA_FILES, mediaPath } from './mediaFiles'

// It has nothing to say of boxes that it does not know.
Log.warn = () => undefined

/** What mp4box, a reader of ISO/IEC 14496-12 that shares nothing with ours, finds in the same bytes. */
function witness(bytes: Buffer): ISOFile {
  const file = createFile()
  file.appendBuffer(MP4BoxBuffer.fromArrayBuffer(new Uint8Array(bytes).buffer, 0), true)
  file.flush()
  return file
}

/** Distance of the samples that need no other one, and of the last of them to the end. */
function keyDistance(samples: readonly Sample[]): number {
  const keys = samples.flatMap((sample, at) => (sample.is_sync ? [at] : []))
  const ends = [...keys.slice(1), samples.length]
  return Math.max(1, keys[0] ?? 0, ...keys.map((at, turn) => (ends[turn] ?? at) - at))
}

const theirs = (file: ISOFile) =>
  file.moov.traks.map((trak) => {
    const samples = file.getTrackSamplesInfo(trak.tkhd.track_id)
    return {
      id: trak.tkhd.track_id,
      handler: trak.mdia.hdlr.handler,
      ticksPerSecond: trak.mdia.mdhd.timescale,
      times: samples.map((sample) => sample.cts).sort((a, b) => a - b),
      sizeBytes: samples.reduce((sum, sample) => sum + sample.size, 0),
      keyDistance: keyDistance(samples),
    }
  })

const ours = ({ tracks }: IsoIndex) =>
  tracks.map(({ id, handler, ticksPerSecond, times, sizeBytes, keyDistance }) => ({
    ...{ id, handler, ticksPerSecond, times: [...times], sizeBytes, keyDistance },
  }))

const files = MEDIA_FILES.map((file) => file.name).filter((name) => /\.(mp4|mov|m4a|m4v|3gp)$/.test(name))

describe('the index of an ISO file, as mp4box reads it', () => {
  it('is the same in every file that there is: tracks, ticks, times, bytes, distance of key frames', async () => {
    let compared = 0
    for (const name of files) {
      const bytes = readFileSync(mediaPath(name))
      const index = await readIsoIndex(sourceOf(bytes))
      const file = witness(bytes)
      // In fragments there are no samples in the index, and ours leaves them to the packets.
      if (!index || file.moov.mvex || index.tracks.length === 0) continue
      expect(ours(index), name).toEqual(theirs(file))
      expect(index.brand, name).toBe(file.ftyp?.major_brand.trim())
      expect(index.indexFirst, name).toBe((file.moov.start ?? 0) < (file.mdats[0]?.start ?? Infinity))
      compared += 1
    }
    expect(compared).toBeGreaterThan(files.length * 0.8)
  })

  it('is the same where key frames lie apart and times are given as later or earlier than decoded', async () => {
    const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-index-'))
    for (const [at, flags] of ['0', '+negative_cts_offsets', '+faststart'].entries()) {
      const path = join(folder, `${at}.mp4`)
      execFileSync('ffmpeg', [
        ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=2', '-c:v', 'libx264', '-preset', 'medium'],
        ...['-force_key_frames', 'expr:gte(t,n_forced*n_forced*0.16)', '-bf', '3', '-movflags', flags, path],
      ])
      const bytes = readFileSync(path)
      const index = await readIsoIndex(sourceOf(bytes))
      expect(index && ours(index), flags).toEqual(theirs(witness(bytes)))
      // Frames 0, 4, 16 and 36 of 50: the longest way is the third.
      expect(index?.tracks[0]?.keyDistance, flags).toBe(20)
      expect(index?.indexFirst, flags).toBe(flags === '+faststart')
    }
  })
})
