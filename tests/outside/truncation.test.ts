import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { isContainerHead } from '../../core/media/containerHead'
import { nothingIn } from '../../core/media/nothingIn'
import { findCut } from '../../core/media/truncation'
import { sourceOf } from '../../core/media/testBytes'
import { FolderMedium } from '../../server/engine/medium/folder'
import { probeFile } from '../../server/engine/probe/probe'
import { scanClip } from '../../server/jobs/cards/steps/scanClip'
import { TaskControl } from '../../server/jobs/control'
import { args } from '../args'

const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-cut-'))

/** A second of picture and sound in a container, made by Debian's ffmpeg. */
function made(name: string, ...args: string[]): Buffer {
  const path = join(folder, name)
  const inputs = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=1', '-f', 'lavfi', '-i', 'sine=d=1:r=48000']
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...inputs, ...args, path])
  return readFileSync(path)
}

const X264 = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p']
const FILES: readonly [string, ...string[]][] = [
  ['index first.mp4', ...X264, '-c:a', 'aac', '-movflags', '+faststart'],
  ['index last.mov', ...X264, '-c:a', 'pcm_s16le'],
  ['sound.wav', '-vn'],
  ['large sound.wav', '-vn', '-rf64', 'always'],
  ['film.avi', '-c:v', 'mjpeg', '-c:a', 'pcm_s16le'],
  ['film.mkv', ...X264, '-c:a', 'aac'],
  ['film.mxf', '-c:v', 'mpeg2video', '-c:a', 'pcm_s16le', '-b:v', '5M'],
  ['film.ts', ...X264, '-c:a', 'aac', '-f', 'mpegts'],
  ['film.m2ts', ...X264, '-c:a', 'aac', '-f', 'mpegts', '-mpegts_m2ts_mode', '1'],
]

const MORE: typeof FILES = [
  ['film.mpg', '-c:v', 'mpeg2video', '-c:a', 'mp2', '-f', 'vob'],
  ['film.3gp', ...X264, '-c:a', 'aac', '-f', '3gp'],
  ['film.flv', '-c:v', 'flv1', '-c:a', 'mp3', '-ar', '44100'],
  ['sound.aiff', '-vn'],
  ['sound.caf', '-vn'],
  ['sound.flac', '-vn'],
  ['sound.ogg', '-vn', '-c:a', 'flac', '-f', 'ogg'],
]

describe('the beginning of a file', () => {
  // Source: files made in each container by Debian's ffmpeg, whatever their names say.
  for (const [name, ...args] of [...FILES, ...MORE])
    it(`tells ${name} from what is no film and no sound`, () => {
      expect(isContainerHead(made(`head ${name}`, ...args).subarray(0, 4096))).toBe(true)
    })

  it('tells stills, texts and noise, and files too short for any, from films', () => {
    const still = join(folder, 'still.png')
    execFileSync('ffmpeg', [...args('-v error -y -f lavfi -i testsrc2=s=320x180:d=1 -frames:v 1'), still])
    expect(isContainerHead(readFileSync(still))).toBe(false)
    // The first box of a still in the boxes of films. Source: ISO/IEC 23008-12, 10.2.2.
    const boxed = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic\0\0\0\0mif1heic'), Buffer.alloc(64)])
    expect(isContainerHead(boxed)).toBe(false)
    for (const text of ['', 'RIFF', 'RIFF1234WEBPVP8 and more of it', 'plain text of more than sixteen characters'])
      expect(isContainerHead(Buffer.from(text))).toBe(false)
    expect(isContainerHead(Buffer.alloc(4096, 0x46))).toBe(false)
  })
})

describe('the end of a file', () => {
  // Source: files made whole by Debian's ffmpeg in each container, and cut here.
  for (const [name, ...args] of FILES) {
    it(`is known to be there or missing in ${name}, be it a byte`, async () => {
      const whole = made(name, ...args)
      expect(await findCut(sourceOf(whole))).toBeUndefined()
      expect(await findCut(sourceOf(whole.subarray(0, -1)))).toBeDefined()
      expect(await findCut(sourceOf(whole.subarray(0, Math.floor(whole.length * 0.6))))).toBeDefined()
    })
  }

  it('is missing by the number of bytes that are missing', async () => {
    const whole = made('count.mp4', ...X264, '-an', '-movflags', '+faststart')
    expect(await findCut(sourceOf(whole.subarray(0, -1234)))).toMatchObject({ missingBytes: 1234 })
    expect((await findCut(sourceOf(whole.subarray(0, -1))))?.sentence).toBe('its end is missing: at least 1 byte')
  })

  it('is missing when all media after the index is, cut just between two boxes', async () => {
    const whole = made('box.mp4', ...X264, '-an', '-movflags', '+faststart')
    const media = whole.indexOf('mdat') - 4
    expect(await findCut(sourceOf(whole.subarray(0, media)))).toBeDefined()
  })

  it('is not asked of what makes no promise', async () => {
    for (const text of ['', 'short', 'plain text that is no film at all, and longer than a header'])
      expect(await findCut(sourceOf(Buffer.from(text)))).toBeUndefined()
    // A recording that was never closed: sizes of 0, as recorders leave them.
    const sound = made('open.wav', '-vn')
    sound.writeUInt32LE(0, 4)
    expect((await findCut(sourceOf(sound)))?.sentence).toContain('never finished')
  })
})

describe('a sound file of more than 4 GiB', () => {
  // Source: RIFF (1991): a size has 32 bits; EBU Tech 3306 exists because recorders let them wrap.
  it('whose sizes wrapped is named, with how much other programs do not see', async () => {
    const [head] = [made('wrapped.wav', '-vn')]
    const path = join(folder, 'wrapped.wav')
    const sizeBytes = 2 ** 32 + 5_000_000
    head.writeUInt32LE((sizeBytes - 8) % 2 ** 32, 4)
    head.writeUInt32LE((sizeBytes - 44) % 2 ** 32, head.indexOf('data') + 4)
    // Sound goes on where the sizes say that it ends; a hole would be walked through by ffprobe for minutes.
    writeFileSync(path, Buffer.concat([head, Buffer.alloc(5_100_000 - head.length, 0xff)]))
    truncateSync(path, sizeBytes)
    const short = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', path])
    expect(Number(short)).toBeLessThan(60)
    const sparse = {
      sizeBytes,
      read: (at: number, length: number) =>
        Promise.resolve(Buffer.concat([head.subarray(at, at + length), Buffer.alloc(length)]).subarray(0, length)),
    }
    expect((await findCut(sparse))?.sentence).toBe(
      'its sizes end after 5.00 MB, and 4.29 GB more follow that programs do not see, as in a recording of more than 4 GiB',
    )
    // What other programs write behind a sound, such as notes, is nothing that is missing.
    expect(await findCut(sourceOf(Buffer.concat([made('notes.wav', '-vn'), Buffer.alloc(60_000)])))).toBeUndefined()
  })

  it('of zeros alone is told from a film at once, and one that begins with a little of them is not', async () => {
    const medium = new FolderMedium(folder)
    const look = async (name: string) => {
      const entry = await medium.entry(Buffer.from(name))
      if (!entry) throw new Error(name)
      return scanClip(medium, { ...entry, path: Buffer.from(name) }, [], new TaskControl())
    }
    const zeros = join(folder, 'zeros.wav')
    writeFileSync(zeros, '')
    truncateSync(zeros, 4_500_000_000)
    expect((await look('zeros.wav')).trouble).toBe(
      'only zeros stand where it should begin: its content was never written',
    )
    made('right.wav', '-vn')
    expect((await look('right.wav')).trouble).toBeUndefined()
  })
})

describe('a recording that ended before its first frame', () => {
  it('is told from one that goes on, and no rate is made up for it', async () => {
    const fragments = ['-movflags', '+empty_moov+frag_keyframe+default_base_moof', '-g', '5']
    const film = made('fragments.mp4', ...X264, '-c:a', 'aac', ...fragments)
    const at = (name: string, bytes: Buffer) => {
      const path = join(folder, name)
      writeFileSync(path, bytes)
      return probeFile(Buffer.from(path))
    }
    // Source: ISO/IEC 14496-12, 8.8: fragments follow the head as boxes of their own.
    const head = film.subarray(0, film.indexOf('moof') - 4)
    expect(nothingIn(await at('head.mp4', head))).toBe(
      'it holds no frame: the recording ended before the first one was written',
    )
    const second = film.indexOf('moof', film.indexOf('moof') + 4) - 4
    expect(nothingIn(await at('one fragment.mp4', film.subarray(0, second)))).toBeUndefined()
    expect(nothingIn(await at('whole.mp4', film))).toBeUndefined()
    expect(nothingIn(await at('sound.wav', made('one second.wav', '-vn')))).toBeUndefined()
  })
})
