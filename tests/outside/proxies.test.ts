import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readIsoIndex } from '../../core/media/isoIndex'
import { remarksOf } from '../../core/media/remarks'
import { compareTimes } from '../../core/proxies/check'
import { sampleParts } from '../../core/proxies/estimate'
import { mostProxyBytes, proxyBytes, proxyChanges } from '../../core/proxies/recipe'
import { withBytes } from '../../server/engine/medium/byteSource'
import { compareSounds } from '../../server/engine/code/compareSounds'
import { makeProxy } from '../../server/engine/code/makeProxy'
import { probeFile } from '../../server/engine/probe/probe'
import { TaskControl } from '../../server/jobs/control'
import { compareProxy } from '../../server/jobs/proxies/steps/compared'
import { isLong } from '../long'
import { more } from '../more'
import { withCleanAperture } from './clap'
import { mediaPath } from './mediaFiles'
import { args } from '../args'

/** A click of noise every half second, and nothing between. */
const CLICKS = "aevalsrc='if(lt(mod(t,0.5),0.02),random(0)-0.5,0)':s=48000:d=4"

const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-proxies-'))

async function proxyOf(input: Buffer, name: string) {
  const output = join(folder, `${name}.mp4`)
  const original = await probeFile(input)
  const { video } = original
  if (!video) throw new Error('no picture')
  await makeProxy({ input, output, control: new TaskControl(), onFrames: () => undefined }, original)
  const made = Buffer.from(output)
  const { probe: proxy, checks, state } = await compareProxy({ probe: original, video, path: input }, made)
  return { original, proxy, made, checks, state }
}

/**
 * One of each kind that has gone wrong somewhere; the others of the table differ from these in nothing that a proxy
 * changes.
 */
const ALL_KINDS = [
  ...['rate-ntsc.mp4', 'rate-5994.mov', 'rate-film.mkv', 'variable.mp4', 'variable.mkv', 'hevc10.mov'],
  ...['mezzanine4444.mov', 'rgb.avi', 'top-first.mp4', 'fields.mpg', 'wide-samples.mkv', 'full-range.mp4'],
  ...['bt601-525.mov', 'hlg.mov', 'turned-90.mp4', 'trimmed.mp4', 'late.ts', 'sound-longer.mp4'],
  ...['fragments.mp4', 'two-pictures.mp4', 'four-sounds.mov', 'surround.mkv'],
]
const KINDS = isLong ? ALL_KINDS : ALL_KINDS.filter((_, at) => at % 3 === 1)

describe('proxies', () => {
  it(`equal their originals in every check, of ${KINDS.length} kinds`, async () => {
    const failed: string[] = []
    for (const name of KINDS)
      for (const { pass, ...check } of (await proxyOf(mediaPath(name), name)).checks)
        if (!pass) failed.push(`${name} ${check.name}: ${check.found} instead of ${check.wanted}`)
    expect(failed).toEqual([])
  })

  it('of files whose end is missing are equal to what is there', async () => {
    const still = ['-c:v', 'mjpeg', '-q:v', '3', '-pix_fmt', 'yuvj420p']
    for (const [name, coding] of [
      ['rate-5994.mov', ['-c', 'copy']],
      ['mezzanine4444.mov', ['-c', 'copy']],
      ['rate-film.mkv', ['-c', 'copy']],
      // Of a part of such a frame its decoder makes a picture.
      ['rate-ntsc.mp4', still],
    ] as const) {
      const whole = join(folder, `whole-${name}`)
      const input = ['-v', 'error', '-y', '-i', mediaPath(name).toString()]
      execFileSync('ffmpeg', [...input, ...coding, '-movflags', '+faststart', whole])
      for (const share of isLong ? [0.45, 0.7] : [0.7]) {
        const cut = join(folder, `cut-${share}-${name}`)
        const bytes = readFileSync(whole)
        writeFileSync(cut, bytes.subarray(0, bytes.length * share))
        const { original, checks, state } = await proxyOf(Buffer.from(cut), `cut-${share}-${name}`)
        expect(
          checks.filter((check) => !check.pass),
          cut,
        ).toEqual([])
        expect(state).toBe('equal')
        // Source: what Debian's ffprobe decodes, without the part of a sample that stands last.
        const counted = execFileSync('ffprobe', [
          ...['-v', 'quiet', '-fflags', '+discardcorrupt', '-count_frames', '-select_streams', 'v:0'],
          ...['-show_entries', 'stream=nb_read_frames', '-of', 'csv=p=0', cut],
        ])
        expect(original.video?.frames, cut).toBe(Number(counted.toString().split(',')[0]))
        const index = name.endsWith('mkv')
          ? undefined
          : await withBytes(Buffer.from(cut), original.sizeBytes, readIsoIndex)
        if (!index) continue
        const packets = execFileSync('ffprobe', [
          ...['-v', 'quiet', '-fflags', '+discardcorrupt', '-select_streams', 'v:0'],
          ...['-show_entries', 'packet=size', '-of', 'csv=p=0', cut],
        ])
        const sizes = packets
          .toString()
          .split('\n')
          .map((line) => Number.parseInt(line, 10) || 0)
        expect(index.tracks.find((track) => track.handler === 'vide')?.sizeBytes, cut).toBe(
          sizes.reduce((sum, size) => sum + size, 0),
        )
      }
    }
  })

  it('have no sound where a sound track was begun and nothing of it is there', async () => {
    const whole = join(folder, 'fragments-to-cut.mp4')
    const input = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=4', '-f', 'lavfi', '-i', 'sine=d=4:r=48000']
    const coding = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-g', '50', '-c:a', 'aac']
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...input, ...coding, '-movflags', 'frag_keyframe+empty_moov', whole])
    const bytes = readFileSync(whole)
    const cut = join(folder, 'fragments-cut.mp4')
    // In the middle of the pictures of the first fragment, behind which its sound lies.
    writeFileSync(cut, bytes.subarray(0, bytes.indexOf('mdat') + 20_000))
    const { original, checks } = await proxyOf(Buffer.from(cut), 'fragments-cut')
    expect(original.sounds).toEqual([])
    expect(original.others).toMatchObject([{ kind: 'empty sound' }])
    expect(remarksOf(original).map((remark) => remark.short)).toContain('empty sound')
    expect(checks.filter((check) => !check.pass)).toEqual([])
    expect((await probeFile(Buffer.from(whole))).sounds).toHaveLength(1)
  })

  it('have whole frames where the original is woven, and as many', async () => {
    const { original, proxy, made } = await proxyOf(mediaPath('fields.mxf'), 'woven')
    expect(original.video?.fieldOrder).toBe('top first')
    expect(proxy.video).toMatchObject({ fieldOrder: 'progressive', frames: original.video?.frames })
    expect(made.length).toBeGreaterThan(0)
  })

  it.each([25, 1])(
    'keep their sound to the sample, whatever the grid of the picture (%i frames a second)',
    async (rate) => {
      const path = join(folder, `clicks-${rate}.mov`)
      const picture = ['-f', 'lavfi', '-i', `testsrc2=s=320x180:r=${rate}:d=6`]
      // A click of 20 ms each half second.
      const sound = ['-f', 'lavfi', '-i', "aevalsrc='if(lt(mod(t,0.5),0.02),0.8*sin(2000*2*PI*t),0)':s=48000:d=6"]
      const options = [...args('-c:v libx264 -preset ultrafast -pix_fmt yuv420p -c:a pcm_s16le -y'), path]
      execFileSync('ffmpeg', ['-v', 'error', ...picture, ...sound, ...options])
      const { made } = await proxyOf(Buffer.from(path), `clicks-${rate}`)
      // Source: packets as ffprobe lists them; each of 1024 samples (ISO/IEC 14496-3, 4.5.1.1) follows the one before.
      const listed = execFileSync('ffprobe', [
        ...[...args('-v error -select_streams a:0 -show_entries packet=pts_time -of csv=p=0'), String(made)],
      ]).toString()
      const packets = [...listed.matchAll(/^-?\d+[.]\d+/gm)].map(([time]) => Number(time))
      expect(packets.length).toBeGreaterThan(280)
      const steps = packets.slice(1).map((at, index) => at - (packets[index] ?? 0))
      expect(Math.max(...steps.map((step) => Math.abs(step - 1024 / 48_000)))).toBeLessThan(0.0001)
      // Decoded on its own clock, gaps filled and overlaps cut, as a player would: the clicks are where they were.
      const onItsClock = ['-af', 'aresample=async=1:min_hard_comp=0.001:first_pts=0', '-f', 's16le', '-ac', '1', '-']
      const decoded = execFileSync('ffmpeg', ['-v', 'error', '-i', String(made), '-vn', ...onItsClock], {
        maxBuffer: 1e8,
      })
      const heard = new Int16Array(decoded.buffer, decoded.byteOffset, decoded.length >> 1)
      const clicks: number[] = []
      for (let at = 0; at < heard.length; at += 1)
        if (Math.abs(heard[at] ?? 0) > 6000 && at / 48_000 - (clicks.at(-1) ?? -1) > 0.1) clicks.push(at / 48_000)
      expect(clicks).toHaveLength(12)
      expect(Math.max(...clicks.map((at, index) => Math.abs(at - index * 0.5)))).toBeLessThan(0.002)
    },
  )

  it.each(['24', '24000/1001', '120'])(
    'begin with their picture where it began beside the sound, also of films whose times are rounded (%s frames a second)',
    async (rate) => {
      // AAC of 48 kHz begins 21 ms before the picture in this container, which counts in thousandths of a second.
      const path = join(folder, `film-${rate.replace('/', '-')}.mkv`)
      const picture = ['-f', 'lavfi', '-i', `testsrc2=s=320x180:r=${rate}:d=3`]
      const sound = ['-f', 'lavfi', '-i', CLICKS]
      const coding = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-t', '3', '-y']
      execFileSync('ffmpeg', ['-v', 'error', ...picture, ...sound, ...coding, path])
      const { original, proxy, checks, state } = await proxyOf(Buffer.from(path), `film-${rate.replace('/', '-')}`)
      expect(checks.filter((check) => !check.pass)).toEqual([])
      expect(state).toBe('equal')
      const begins = ({ video, audio }: typeof original) => (video?.startSeconds ?? 0) - (audio?.startSeconds ?? 0)
      expect(Math.abs(begins(proxy) - begins(original))).toBeLessThan(0.002)
    },
  )

  it('keep a clean aperture, and every byte of picture and sound stays where their index says', async () => {
    const film = join(folder, 'whole.mov')
    const picture = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=1', '-f', 'lavfi', '-i', 'sine=d=1']
    const coding = ['-map', '1', '-map', '0', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-y', film]
    execFileSync('ffmpeg', ['-v', 'error', ...picture, ...coding])
    const path = join(folder, 'clean.mov')
    writeFileSync(path, withCleanAperture(readFileSync(film), 300, 176))
    const [clean, whole] = [await proxyOf(Buffer.from(path), 'clean'), await proxyOf(Buffer.from(film), 'whole')]
    expect(clean.proxy.video?.cleanAperture).toEqual({ x: 5, y: 1, widthPx: 150, heightPx: 88 })
    expect(clean.checks.find((check) => check.name === 'Clean aperture')).toMatchObject({ pass: true })
    expect(clean.state).toBe('equal')
    expect(whole.checks.map((check) => check.name)).not.toContain('Clean aperture')
    // Source: ffmpeg, which hashes every frame that it decodes; an index that is off by a byte would give others.
    const heard = (made: Buffer) =>
      execFileSync('ffmpeg', ['-v', 'error', '-i', String(made), '-map', '0', '-f', 'framemd5', '-'], {
        encoding: 'utf8',
      })
    expect(heard(clean.made)).toBe(heard(whole.made))
    // Without it the check says so.
    if (!clean.original.video) throw new Error('no picture')
    const order = { probe: clean.original, video: clean.original.video, path: Buffer.from(path) }
    const { checks } = await compareProxy(order, whole.made)
    expect(checks.filter((check) => !check.pass).map((check) => check.name)).toEqual(['Clean aperture'])
  })

  it('say what becomes of layouts, of samples beyond what the coder takes, and of what is transparent', async () => {
    const odd = async (name: string, layout: string, hertz: number, ...coding: string[]) => {
      const path = join(folder, name)
      const inputs = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=1', '-f', 'lavfi', '-i']
      const channels = Array.from(
        { length: layout.startsWith('5.1') ? 6 : 7 },
        (_, at) => `0.1*sin(${300 + at * 200}*2*PI*t)`,
      )
      const sound = `aevalsrc=${channels.join('|')}:c=${layout}:s=${hertz}:d=1`
      execFileSync('ffmpeg', ['-v', 'error', ...inputs, sound, ...coding, '-c:a', 'pcm_s24le', '-y', path])
      return proxyOf(Buffer.from(path), name)
    }
    const six = await odd('six.mov', '5.1(side)', 192_000, '-c:v', 'qtrle', '-pix_fmt', 'argb')
    expect(six.checks.filter((check) => !check.pass)).toEqual([])
    expect(six.proxy.audio).toMatchObject({ layout: '5.1', sampleRateHz: 48_000 })
    expect(proxyChanges(six.original)).toEqual([
      'RGB is coded as BT.709 in limited range.',
      'What is transparent in the original is not in the proxy: it has no alpha channel.',
      'The sound has 48 kHz instead of 192 kHz.',
      'The low-frequency channel of the sound keeps what lies below 120 Hz.',
    ])
    const seven = await odd('seven.mov', '6.1', 48_000, '-c:v', 'libx264', '-pix_fmt', 'yuv420p')
    expect(seven.checks.filter((check) => !check.pass)).toEqual([])
    expect(proxyChanges(seven.original)).toEqual([
      'The sound keeps its 7 channels in their order, without the name of their layout (6.1).',
    ])
  })

  it('differ where their sound lies wrong, whatever their packets and lengths say', async () => {
    const path = join(folder, 'spoken.mov')
    const picture = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=4']
    const coding = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-t', '4', '-y']
    execFileSync('ffmpeg', [
      '-v',
      'error',
      ...picture,
      '-f',
      'lavfi',
      '-i',
      CLICKS,
      ...coding,
      '-c:a',
      'pcm_s16le',
      path,
    ])
    const probe = await probeFile(Buffer.from(path))
    const broken = async (name: string, ...options: string[]) => {
      const made = join(folder, `${name}.mp4`)
      const half = [...args('-vf scale=160:90 -c:v libx264 -preset superfast -c:a aac -b:a 64k -y')]
      execFileSync('ffmpeg', ['-v', 'error', '-i', path, ...half, ...options, made])
      if (!probe.video) throw new Error('no picture')
      const { checks } = await compareProxy({ probe, video: probe.video, path: Buffer.from(path) }, Buffer.from(made))
      return checks.filter((check) => !check.pass).map((check) => check.name)
    }
    expect(await broken('right')).toEqual([])
    // Packets of sound put onto the grid of the picture: what the first recipe here did.
    expect(await broken('stutters', '-enc_time_base', '1:25')).toEqual(['Sound, second by second'])
    expect(await broken('late', '-af', 'adelay=10:all=1,atrim=end=4')).toEqual(['Sound, second by second'])
    expect(await broken('soft', '-af', 'volume=0.5')).toEqual(['Sound, second by second'])
    expect(await broken('hummed', '-filter_complex', 'sine=f=50:d=4,volume=-20dB[h];[0:a][h]amix=normalize=0')).toEqual(
      ['Sound, second by second'],
    )
  })

  it('are listened to as far as both go, however much longer one is', async () => {
    const lasting = async (name: string, seconds: number) => {
      const path = join(folder, name)
      const sound = ['-f', 'lavfi', '-i', CLICKS.replace('d=4', `d=${seconds}`)]
      execFileSync('ffmpeg', ['-v', 'error', ...sound, '-c:a', 'pcm_s16le', '-y', path])
      const { audio } = await probeFile(Buffer.from(path))
      if (!audio) throw new Error('no sound')
      return { path: Buffer.from(path), track: audio, pictureStartSeconds: 0 }
    }
    const [short, long] = [await lasting('short.wav', 2), await lasting('long.wav', 90)]
    for (const [original, made] of [
      [short, long],
      [long, short],
    ] as const)
      expect(await compareSounds(original, made, 1)).toMatchObject({ seconds: 2, unlike: 0, steps: 0 })
  })

  it('are compared time by time: a rate that is right on average is not enough', () => {
    // Frames at 0, 33 and 100 ms against 0, 50 and 100 ms: the same count, length and average.
    expect(compareTimes([5, 5.033, 5.1], [0, 0.05, 0.1])).toMatchObject({ frames: 3 })
    expect(compareTimes([5, 5.033, 5.1], [0, 0.05, 0.1]).worstSeconds).toBeCloseTo(0.017, 6)
  })
})

/**
 * Six kinds of picture: drawn shapes, a zoom, a growing pattern, noise, a slow wash of colour, and one that stands
 * still.
 */
const PICTURES: Record<string, string> = {
  shapes: 'testsrc2=s=384x216:r=25:d=10',
  zoom: 'mandelbrot=s=384x216:r=25,trim=duration=10',
  pattern: 'life=s=384x216:r=25:ratio=0.1:mold=10:life_color=#C8C832:death_color=#2E2E2E,trim=duration=10',
  noise: 'color=c=gray:s=384x216:r=25:d=10,noise=alls=20:allf=t+u',
  wash: 'gradients=s=384x216:r=25:d=10:speed=0.02',
  still: 'smptehdbars=s=384x216:r=25:d=10',
}

describe('the size of a proxy', () => {
  more(
    'is predicted within 10 % from a few seconds, on every kind of picture, and is never above its most',
    async () => {
      for (const [name, source] of Object.entries(PICTURES).slice(0, isLong ? 6 : 2)) {
        const path = join(folder, `${name}.mov`)
        const sound = ['-f', 'lavfi', '-i', 'anoisesrc=d=10:c=pink:r=48000:a=0.3', '-c:a', 'pcm_s16le']
        const options = ['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '12', '-pix_fmt', 'yuv420p', '-y', path]
        execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', source, ...sound, ...options])
        const input = Buffer.from(path)
        const { original, proxy } = await proxyOf(input, name)
        let [bits, seconds] = [0, 0]
        for (const part of sampleParts(original.video?.seconds ?? 0)) {
          const output = join(folder, `${name}-part.mp4`)
          await makeProxy({ input, output, control: new TaskControl(), onFrames: () => undefined }, original, part)
          const { video } = await probeFile(Buffer.from(output))
          bits += (video?.bitsPerSecond ?? 0) * (video?.seconds ?? 0)
          seconds += video?.seconds ?? 0
        }
        const predicted = Math.min(
          mostProxyBytes(original),
          proxyBytes(original, (bits / seconds) * (original.video?.seconds ?? 0)),
        )
        expect(Math.abs(predicted / proxy.sizeBytes - 1), name).toBeLessThan(0.1)
        expect(proxy.sizeBytes, name).toBeLessThanOrEqual(mostProxyBytes(original))
      }
    },
  )
})
