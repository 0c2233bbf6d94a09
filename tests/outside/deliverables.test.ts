import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { beforeAll, describe, expect, it } from 'vitest'
import { sampleParts } from '../../core/proxies/estimate'
import { frameRate } from '../../core/units/frameRate'
import { probeFile } from '../../server/engine/probe/probe'
import { detailBits } from '../../server/engine/code/renderDeliverable'
import { TaskControl } from '../../server/jobs/control'
import { more } from '../more'
import { mediaPath } from './mediaFiles'
import { isLong } from '../long'
import { at, checked, ffmpeg, folder, render, SQUARE, WIDE } from './rendering'
import { args } from '../args'

/** One decoded frame as grey bytes. */
function greyFrame(name: string, widthPx: number, heightPx: number): Buffer {
  const grey = ['-frames:v', '1', '-f', 'rawvideo', '-pix_fmt', 'gray', '-']
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', name, ...grey], { cwd: folder })
  expect(bytes.length).toBe(widthPx * heightPx)
  return bytes
}

/** Width and height of what is bright, to a fraction of a pixel: by area over the middle row and column. */
function extentOf(grey: Buffer, widthPx: number, heightPx: number) {
  const share = (values: number[]) =>
    values.reduce((sum, value) => sum + Math.min(1, Math.max(0, (value - 16) / 219)), 0)
  const row = Array.from({ length: widthPx }, (_, x) => grey[Math.floor(heightPx / 2) * widthPx + x] ?? 0)
  const column = Array.from({ length: heightPx }, (_, y) => grey[y * widthPx + Math.floor(widthPx / 2)] ?? 0)
  return { across: share(row), down: share(column) }
}

describe('geometry', () => {
  it('keeps a circle a circle, whatever the samples, the rotation, the aperture or odd sides', async () => {
    // A white disc on black, drawn on square pixels of the shown size, then stored with the samples of the format.
    const disc = (shown: string, stored: string, ...more: string[]) => {
      const draw = `color=black:s=${shown}:r=25:d=0.4,format=gray,geq=lum='if(lt(hypot(X-W/2+0.5,Y-H/2+0.5),H*0.25),235,16)'`
      ffmpeg('-f', 'lavfi', '-i', `${draw},${stored}`, ...more)
    }
    const x264 = ['-c:v', 'libx264', '-qp', '4', '-pix_fmt', 'yuv420p']
    disc('768x576', 'scale=720:576,setsar=16/15', ...x264, 'tape.mp4')
    disc('1024x576', 'scale=720:576,setsar=64/45', ...x264, 'wide-tape.mp4')
    disc('960x480', 'scale=480:480,setsar=2', ...x264, 'squeezed.mov')
    disc('853x481', 'setsar=1', '-c:v', 'ffv1', '-pix_fmt', 'yuv444p', 'odd.mkv')
    ffmpeg('-i', 'squeezed.mov', '-c', 'copy', '-metadata:s:v', 'rotate=90', 'turned.mov')
    const names = isLong
      ? ['tape.mp4', 'wide-tape.mp4', 'squeezed.mov', 'turned.mov', 'odd.mkv']
      : ['tape.mp4', 'turned.mov']
    for (const name of names) {
      for (const destination of name === 'tape.mp4' ? [SQUARE, WIDE] : [SQUARE]) {
        const made = await render(at(name), destination)
        const { across, down } = extentOf(
          greyFrame(made.name, destination.widthPx, destination.heightPx),
          destination.widthPx,
          destination.heightPx,
        )
        expect(across, `${name} ${destination.name}`).toBeGreaterThan(50)
        expect(Math.abs(across / down - 1), `${name} ${destination.name}: ${across} × ${down}`).toBeLessThan(0.01)
        expect(made.file.video).toMatchObject({ sampleAspect: '1:1', rotationDegrees: 0 })
      }
    }
  })

  it('says by how much pixels are drawn larger than they are', async () => {
    const made = await render(mediaPath('rate-25.mp4'), SQUARE, {}, 2)
    expect(made.failed).toEqual(['Own pixels: drawn 2.67 times as large'])
  })
})

describe('rate and fields', () => {
  it('put variable masters on the nearest grid, with as many frames doubled and dropped as was said', async () => {
    const said: string[] = []
    for (const name of ['variable.mp4', ...(isLong ? ['variable.mkv', 'drifting.mp4'] : [])]) {
      const made = await render(mediaPath(name), WIDE)
      expect(made.failed, name).toEqual([])
      const { grid, rate } = made.plan
      const stored = made.plan.video.frames + (grid?.doubled ?? 0) - (grid?.dropped ?? 0)
      expect(Math.abs((made.file.video?.frames ?? 0) - stored), name).toBeLessThanOrEqual(1)
      expect(made.file.video).toMatchObject({ rate, cadence: { kind: 'constant' } })
      said.push(...made.plan.says)
    }
    expect(said[0]).toMatch(/variable rate: 20\.\d on average\. It will be put on 30: 39 frames doubled, 0 dropped/)
  })

  it('turn fields into whole frames, one for each frame or one for each field', async () => {
    const { plan, file, failed } = await render(mediaPath('fields.mxf'), WIDE)
    expect(failed).toEqual([])
    expect(file.video).toMatchObject({ rate: frameRate(25), frames: plan.video.frames })
    const twice = await render(mediaPath('fields.mxf'), WIDE, { fields: 'field' })
    expect(twice.failed).toEqual([])
    expect(twice.file.video).toMatchObject({ rate: frameRate(50), frames: plan.video.frames * 2 })
  })
})

describe('length and sound', () => {
  it('are those of the picture: what is over is cut, what is missing is silence', async () => {
    for (const [name, seconds] of [
      ['sound-longer.mp4', 2],
      ['sound-shorter.mov', 3],
      ['late.mkv', 2],
      ['trimmed.mp4', 2.4],
    ] as const) {
      const { file, failed } = await render(mediaPath(name), WIDE)
      expect(failed, name).toEqual([])
      expect(file.seconds, name).toBeCloseTo(seconds, 1)
    }
  })

  it('are those of what is there, where the end of the master is missing', async () => {
    const still = ['-c:v', 'mjpeg', '-q:v', '3', '-pix_fmt', 'yuvj420p', '-movflags', '+faststart']
    ffmpeg(...args('-f lavfi -i testsrc2=s=480x480:r=25:d=4 -f lavfi -i sine=d=4:r=48000'), ...still, 'to-cut.mov')
    const bytes = readFileSync(at('to-cut.mov'))
    writeFileSync(at('cut.mov'), bytes.subarray(0, bytes.length * 0.6))
    const made = await render(at('cut.mov'), SQUARE)
    expect(made.failed).toEqual([])
    expect(made.plan.frames).toBeGreaterThan(50)
    expect(made.plan.frames).toBeLessThan(70)
  })

  it('go out from the chosen track, and come down to two channels by BS.775', async () => {
    // A tone of its own in each channel of 5.1, so that each weight can be measured alone.
    const tones = [300, 500, 700, 900, 1100, 1300].map((hertz) => `0.1*sin(${hertz}*2*PI*t)`).join('|')
    ffmpeg(
      ...[...args('-f lavfi -i testsrc=s=320x180:r=25:d=2 -f lavfi -i'), `aevalsrc=${tones}:c=5.1(side):s=48000:d=2`],
      ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s24le', 'six.mov'],
    )
    const six = await render(at('six.mov'), WIDE)
    expect(six.plan.sound).toMatchObject({ mix: 'down-mix' })
    const level = (name: string, channel: number, hertz: number) => toneLevel(name, channel, hertz) / 0.1
    // Source: ITU-R BS.775, table 2: 1.0, 0.7071, 0.7071; the low-frequency channel is left out.
    for (const [channel, hertz, weight] of [
      [0, 300, 1],
      [1, 300, 0],
      [1, 500, 1],
      [0, 700, 0.7071],
      [1, 700, 0.7071],
      [0, 900, 0],
      [0, 1100, 0.7071],
      [1, 1100, 0],
      [1, 1300, 0.7071],
    ] as const)
      expect(Math.abs(level(six.name, channel, hertz) - weight), `${hertz} Hz in channel ${channel}`).toBeLessThan(0.05)
    const mono = await render(mediaPath('rate-25.mp4'), WIDE)
    expect(mono.plan.sound?.mix).toBe('both')
    expect(mono.file.audio).toMatchObject({ channels: 2 })
    const four = await probeFile(mediaPath('four-sounds.mov'))
    const second = await render(mediaPath('four-sounds.mov'), WIDE, { soundTrack: four.sounds[1]?.index ?? null })
    expect(second.plan.sound?.track.language).toBe('eng')
    expect(second.plan.leftOut).toBe('3 sound tracks')
    expect(second.checks.find((check) => check.name === 'Tracks')).toMatchObject({ pass: true, remark: 'note' })
  })

  it('are lowered where full channels would clip when they are mixed, and say by how much', async () => {
    // Six channels of the same tone at 0.9: each side is 0.9 · (1 + 0.7071 + 0.7071) = 2.173, 6.74 dB above full scale.
    const tones = Array.from({ length: 6 }, () => '0.9*sin(400*2*PI*t)').join('|')
    const sound = ['-f', 'lavfi', '-i', `aevalsrc=${tones}:c=5.1:s=48000:d=2`]
    const coding = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s24le']
    ffmpeg('-f', 'lavfi', '-i', 'testsrc=s=320x180:r=25:d=2', ...sound, ...coding, 'loud.mov')
    const loud = await render(at('loud.mov'), WIDE)
    expect(loud.failed).toEqual([])
    expect(loud.loweredDb).toBeCloseTo(7.74, 1)
    expect(loud.checks.find((check) => check.name === 'Sound')?.found).toMatch(/, 7[.]7 dB lower so that/)
    // −1 dB is 0.891 of full scale; a coder may add a little.
    expect(toneLevel(loud.name, 0, 400)).toBeCloseTo(0.891, 1)
  })

  /** Amplitude of one tone in one channel, by correlation over a whole second in the middle. */
  function toneLevel(name: string, channel: number, hertz: number): number {
    const raw = execFileSync(
      'ffmpeg',
      ['-v', 'error', '-ss', '0.5', '-t', '1', '-i', name, '-vn', '-f', 'f32le', '-ac', '2', '-ar', '48000', '-'],
      { cwd: folder },
    )
    let [re, im] = [0, 0]
    const frames = Math.min(48_000, raw.length / 8)
    for (let turn = 0; turn < frames; turn += 1) {
      const value = raw.readFloatLE(turn * 8 + channel * 4)
      re += value * Math.cos((2 * Math.PI * hertz * turn) / 48_000)
      im += value * Math.sin((2 * Math.PI * hertz * turn) / 48_000)
    }
    return (2 * Math.hypot(re, im)) / frames
  }
})

describe('a check', () => {
  let good: Awaited<ReturnType<typeof render>>
  beforeAll(async () => {
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'testsrc=s=640x360:r=25:d=4', '-f', 'lavfi', '-i', 'sine=r=48000:d=4'],
      ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', 'master.mp4'],
    )
    good = await render(at('master.mp4'), WIDE)
  })

  const TAGS = '-colorspace bt709 -color_trc bt709 -color_primaries bt709 -color_range tv'
  const CODING = `-c:v libx264 -profile:v high -level:v 1.3 -crf 20 -maxrate 700k -bufsize 700k -pix_fmt yuv420p ${TAGS}`
  /** Filled up to just so many kb/s. */
  const CONSTANT = (kilobits: number) =>
    `${CODING.replace(/-crf.*700k/, `-b:v ${kilobits}k -minrate ${kilobits}k -maxrate ${kilobits}k -bufsize ${kilobits}k -x264-params nal-hrd=cbr:filler=1`)}`
  const SOUND = '-c:a aac -ac 2 -ar 48000 -b:a 96k'
  const words = (text: string) => text.split(' ').filter(Boolean)
  const END = '-movflags +faststart -write_tmcd 0'

  /** A real file for each check, made from a good render, that fails this one alone. */
  const FILES: readonly (readonly [string, string])[] = [
    ['Frame size', `-vf scale=320:176,setsar=1 ${CODING} -c:a copy ${END}`],
    ['Sample aspect', `-vf setsar=16/15 ${CODING} -c:a copy ${END}`],
    ['Rotation flag', `-c copy -metadata:s:v rotate=180 ${END}`],
    ['Bars', `-vf scale=320:160,pad=320:180:0:10:black,setsar=1 ${CODING} -c:a copy ${END}`],
    ['Scan', `${CODING} -flags +ilme+ildct -x264-params tff=1 -c:a copy ${END}`],
    [
      'Frame rate',
      `-vf setpts=if(eq(N\\,50)\\,PTS+0.02/TB\\,PTS) -fps_mode passthrough -enc_time_base 1:12800 ${CODING} -c:a copy ${END}`,
    ],
    ['Frames', `-frames:v 97 ${CODING} -c:a copy ${END}`],
    ['Length', `-af apad=whole_dur=4.5 ${SOUND} -c:v copy ${END}`],
    ['Codec', `${CODING.replace('high', 'main')} -c:a copy ${END}`],
    ['Level', `${CODING.replace('1.3', '1.1')} -c:a copy ${END}`],
    ['Colour tags', `${CODING.replaceAll('bt709', 'smpte170m')} -c:a copy ${END}`],
    ['Range', `${CODING.replace('-color_range tv', '-color_range pc')} -c:a copy ${END}`],
    ['Sound', `-c:v copy -c:a aac -ac 1 -ar 48000 -b:a 96k ${END}`],
    ['Sample rate', `-c:v copy -c:a aac -ac 2 -ar 44100 -b:a 96k ${END}`],
    ['Tracks', `-map 0 -map 0:a -c copy ${END}`],
    ['Index first', '-c copy -write_tmcd 0'],
    ['Bit rate', `${CONSTANT(830)} -c:a aac -ac 2 -ar 48000 -b:a 64k ${END}`],
    [
      'Size',
      `-filter_complex anoisesrc=d=4:r=48000[a] -map 0:v -map [a] ${CONSTANT(770)} -c:a aac -ac 2 -b:a 320k ${END}`,
    ],
  ]

  it('passes where nothing is wrong', () => expect(good.failed).toEqual([]))

  for (const [name, options] of FILES)
    it(`${name} fails alone on a file that is wrong in just that`, async () => {
      const file = `${name.replaceAll(' ', '-').toLowerCase()}.mp4`
      ffmpeg('-i', good.name, ...words(options), file)
      const { failed } = await checked(file, good.plan)
      expect(failed.map((one) => one.split(':')[0])).toEqual([name])
    })

  it('Decoding fails on a file that was cut, or written over, though its index says that all is well', async () => {
    const whole = readFileSync(at(good.name))
    writeFileSync(at('cut.mp4'), whole.subarray(0, Math.floor(whole.length * 0.6)))
    const over = Buffer.from(whole)
    // In the middle of the pictures and sounds: the index stands first.
    over.fill(0xa5, Math.floor(whole.length * 0.55), Math.floor(whole.length * 0.55) + 3000)
    writeFileSync(at('over.mp4'), over)
    const names = async (file: string) => (await checked(file, good.plan)).failed.map((one) => one.split(':')[0])
    expect(await names('cut.mp4')).toEqual(expect.arrayContaining(['Decoding', 'Frames', 'Length']))
    expect(await names('over.mp4')).toContain('Decoding')
  })

  it('Picture fails on a file that is black all through', async () => {
    ffmpeg('-i', good.name, ...words(`-vf drawbox=c=black:t=fill ${CODING} -c:a copy ${END}`), 'black.mp4')
    const { failed } = await checked('black.mp4', good.plan)
    expect(failed).toEqual(['Picture: black all through'])
  })

  it('Pixel format fails with the profile that it needs', async () => {
    const wide = CODING.replace('yuv420p', 'yuv422p').replace('high', 'high422')
    ffmpeg('-i', good.name, ...words(`${wide} -c:a copy ${END}`), 'chroma.mp4')
    // No coding of 4:2:2 is High, and a grey High stream is decoded as 4:2:0: the two belong together.
    const { failed } = await checked('chroma.mp4', good.plan)
    expect(failed.map((one) => one.split(':')[0])).toEqual(['Codec', 'Pixel format'])
  })

  more('Length limit fails alone on a film that is longer than its destination takes', async () => {
    const source = ['-f', 'lavfi', '-i', 'testsrc=s=320x180:r=25:d=21']
    ffmpeg(...source, ...['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', 'long.mp4'])
    const long = await render(at('long.mp4'), WIDE)
    expect(long.failed.map((one) => one.split(':')[0])).toEqual(['Length limit'])
  })

  more('Detail doubts a bit rate far below what the picture asks for, and fails nothing', async () => {
    ffmpeg(
      ...args(
        '-f lavfi -i color=gray:s=320x180:r=25:d=2,noise=alls=60:allf=t -c:v libx264 -crf 10 -pix_fmt yuv420p busy.mp4',
      ),
    )
    for (const [name, doubted] of [
      ['busy.mp4', true],
      ['master.mp4', false],
    ] as const) {
      const made = await render(at(name), { ...WIDE, bitsPerPixelFrame: 0.13 })
      const detailBitsPerSecond = await detailBits(
        { input: at(name), control: new TaskControl() },
        made.plan,
        sampleParts(made.plan.seconds),
      )
      const { checks, failed } = await checked(made.name, made.plan, { detailBitsPerSecond })
      expect(failed, name).toEqual([])
      expect(checks.find((check) => check.name === 'Detail')?.remark, name).toBe(doubted ? 'doubt' : undefined)
    }
  })
})
