import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import type { MediaFacts } from '../../core/media/facts'
import { readIsoIndex } from '../../core/media/isoIndex'
import { pixelLayout } from '../../core/media/pixelFormat'
import { frameRate } from '../../core/units/frameRate'
import { parseTimecode, timecodeCount } from '../../core/units/timecode'
import { measureFields } from '../../server/engine/probe/measureFields'
import { framePicture } from '../../server/engine/picture/picture'
import { probeFile } from '../../server/engine/probe/probe'
import { isLong } from '../long'
import { withCleanAperture } from './clap'
import { MEDIA_FILES, mediaPath } from './mediaFiles'
import { args } from '../args'

/** One property of a file as text; `undefined` where a witness is silent. */
type Properties = Record<string, string | undefined>

const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-media-'))
const facts = new Map<string, MediaFacts>()

beforeAll(async () => {
  for (const { name } of MEDIA_FILES) facts.set(name, await probeFile(mediaPath(name)))
})

const known = (name: string): MediaFacts => {
  const found = facts.get(name)
  if (!found) throw new Error(`${name} was not made`)
  return found
}

const decimals = (value: number | string | undefined, places: number) =>
  value === undefined || value === '' ? undefined : Number(value).toFixed(places)

function ours({ video, audio, ...file }: MediaFacts): Properties {
  const turned = Math.abs(video?.rotationDegrees ?? 0) % 180 === 90
  return {
    tracks: `${file.videos.length} picture, ${file.sounds.length} sound`,
    length: decimals(file.seconds, 0),
    size: video && (turned ? `${video.heightPx}×${video.widthPx}` : `${video.widthPx}×${video.heightPx}`),
    aspect: video && decimals(Number(video.sampleAspect.split(':')[0]) / Number(video.sampleAspect.split(':')[1]), 3),
    rotation: video && String((video.rotationDegrees + 360) % 360),
    rate: video && decimals(video.cadence.kind === 'constant' ? video.rate.num / video.rate.den : undefined, 2),
    cadence: video?.cadence.kind,
    frames: video && String(video.frames),
    picture: video && decimals(video.seconds, 2),
    scan: video?.fieldOrder,
    bits: video?.bitDepth?.toString(),
    chroma: video?.chroma,
    range: video?.range,
    primaries: video?.primaries,
    transfer: video?.transfer,
    matrix: video?.matrix,
    channels: audio?.channels.toString(),
    hertz: audio?.sampleRateHz.toString(),
    sampleBits: audio?.bits?.toString(),
    sound: audio && decimals(audio.seconds, 1),
    timecode: file.timecode,
  }
}

interface Stream {
  readonly [key: string]: unknown
  readonly disposition: { attached_pic: number; default: number }
  readonly side_data_list?: { rotation?: number }[]
  readonly tags?: Record<string, string>
}

const text = (value: unknown) =>
  typeof value === 'number' || (typeof value === 'string' && !['unknown', 'N/A', '0:1'].includes(value))
    ? String(value)
    : undefined

const rateOf = (value: unknown) => {
  const [num, den] = (text(value) ?? '').split('/').map(Number)
  return (num ?? 0) / (den || 1)
}

const SCANS: Record<string, string> = {
  progressive: 'progressive',
  tt: 'top first',
  bt: 'top first',
  bb: 'bottom first',
  tb: 'bottom first',
}

/** What ffprobe says when it counts every packet. */
function firstWitness(path: Buffer): Properties {
  const { streams, format } = JSON.parse(
    execFileSync('ffprobe', [
      ...args('-v error -count_packets -show_streams -show_format -of json'),
      path.toString(),
    ]).toString(),
  ) as { streams: Stream[]; format: { duration?: string } }
  const pictures = streams.filter((one) => one.codec_type === 'video' && one.disposition.attached_pic === 0)
  const sounds = streams.filter((one) => one.codec_type === 'audio')
  const video = pictures.find((one) => one.disposition.default === 1) ?? pictures[0]
  const audio = sounds[0]
  const rates = [rateOf(video?.r_frame_rate), rateOf(video?.avg_frame_rate)] as const
  const layout = pixelLayout(String(video?.pix_fmt))
  const range = text(video?.color_range)
  const [across, down] = (text(video?.sample_aspect_ratio) ?? '1:1').split(':').map(Number)
  const rotation = video?.side_data_list?.find((side) => side.rotation !== undefined)?.rotation ?? 0
  return {
    tracks: `${pictures.length} picture, ${sounds.length} sound`,
    length: decimals(format.duration, 0),
    size: video && `${video.width as number}×${video.height as number}`,
    aspect: video && decimals((across ?? 1) / (down ?? 1), 3),
    rotation: video && String((rotation + 360) % 360),
    rate: video && decimals(rates[0] === rates[1] ? rates[0] : undefined, 2),
    cadence: video && (Math.abs(rates[0] - rates[1]) / rates[0] < 1e-3 ? 'constant' : 'variable'),
    frames: text(video?.nb_read_packets),
    picture: decimals(text(video?.duration), 2),
    scan: SCANS[String(video?.field_order)],
    bits: text(video?.bits_per_raw_sample),
    chroma: layout.chroma,
    range: range === 'tv' ? 'limited' : range === 'pc' ? 'full' : undefined,
    primaries: text(video?.color_primaries),
    transfer: text(video?.color_transfer),
    matrix: text(video?.color_space),
    channels: text(audio?.channels),
    hertz: text(audio?.sample_rate),
    sampleBits: Number(audio?.bits_per_sample ?? 0) > 0 ? text(audio?.bits_per_sample) : undefined,
    sound: decimals(text(audio?.duration), 1),
    timecode: streams.map((one) => one.tags?.timecode).find(Boolean),
  }
}

const PRIMARIES: Record<string, string> = {
  'BT.709': 'bt709',
  'BT.601 PAL': 'bt470bg',
  'BT.601 NTSC': 'smpte170m',
  'BT.2020': 'bt2020',
}
const TRANSFERS: Record<string, string> = {
  'BT.709': 'bt709',
  'BT.601': 'smpte170m',
  'BT.470 System B/G': 'bt470bg',
  PQ: 'smpte2084',
  HLG: 'arib-std-b67',
}
const MATRICES: Record<string, string> = {
  'BT.709': 'bt709',
  'BT.601': 'smpte170m',
  'BT.470 System B/G': 'bt470bg',
  'BT.2020 non-constant': 'bt2020nc',
}

/** What mediainfo says, a reader that shares no code with the other. */
function secondWitness(path: Buffer): Properties {
  const { media } = JSON.parse(execFileSync('mediainfo', ['--Output=JSON', path.toString()]).toString()) as {
    media: { track: Record<string, string | undefined>[] }
  }
  const of = (type: string) => media.track.filter((track) => track['@type'] === type)
  const [general] = of('General')
  const pictures = of('Video')
  const video = pictures.find((track) => track.Default === 'Yes') ?? pictures[0]
  const [audio] = of('Audio')
  const order = { TFF: 'top first', BFF: 'bottom first' }[video?.ScanOrder ?? '']
  return {
    tracks: `${general?.VideoCount ?? 0} picture, ${general?.AudioCount ?? 0} sound`,
    length: decimals(general?.Duration, 0),
    size: video && `${video.Width}×${video.Height}`,
    aspect: video?.PixelAspectRatio,
    rotation: video?.Rotation === undefined ? undefined : String((360 - Number(video.Rotation)) % 360),
    rate: video?.FrameRate_Mode === 'VFR' ? undefined : decimals(video?.FrameRate, 2),
    cadence: { CFR: 'constant', VFR: 'variable' }[video?.FrameRate_Mode ?? ''],
    frames: video?.FrameCount,
    picture: decimals(video?.Duration, 2),
    scan: video?.ScanType === 'Progressive' ? 'progressive' : order,
    bits: video?.BitDepth,
    chroma: video?.ChromaSubsampling,
    range: video?.colour_range?.toLowerCase(),
    primaries: PRIMARIES[video?.colour_primaries ?? ''],
    transfer: TRANSFERS[video?.transfer_characteristics ?? ''],
    matrix: MATRICES[video?.matrix_coefficients ?? ''],
    channels: audio?.Channels,
    hertz: audio?.SamplingRate,
    sampleBits: audio?.Format === 'PCM' ? audio.BitDepth : undefined,
    sound: decimals(audio?.Duration, 1),
    timecode: of('Other')[0]?.TimeCode_FirstFrame,
  }
}

interface Disagreement {
  readonly file: string
  readonly property: string
  readonly witness: 'ffprobe' | 'mediainfo'
  /** Who is right, and why. */
  readonly why: string
}

const ASSUMED =
  'The file does not say; mediainfo assumes a default, the reader leaves it open and measures it after the look.'

/** Each is checked to be there still, so that the list stays true. */
const DISAGREEMENTS: readonly Disagreement[] = [
  ...['vc3.mov', 'stills.avi', 'part2.avi', 'rgb.avi', 'tape.avi'].map((name) => ({
    file: name,
    property: 'scan',
    witness: 'mediainfo' as const,
    why: ASSUMED,
  })),
  {
    file: 'tape.dv',
    property: 'scan',
    witness: 'mediainfo',
    why: 'mediainfo takes DV for interlaced, bottom field first, as the format usually is; these frames are whole. Measured after the look.',
  },
  {
    file: 'variable.mkv',
    property: 'cadence',
    witness: 'ffprobe',
    why: 'ffprobe gives the default duration of the track as both rates; every fifth frame is missing, so the reader and mediainfo are right.',
  },
  { file: 'variable.mkv', property: 'rate', witness: 'ffprobe', why: 'As above: a variable rate is no rate.' },
  {
    file: 'trimmed.mp4',
    property: 'frames',
    witness: 'ffprobe',
    why: 'ffprobe counts packets; 15 of 75 lie before the edit list begins. Both others count what is presented.',
  },
  {
    file: 'late.ts',
    property: 'cadence',
    witness: 'mediainfo',
    why: 'mediainfo says variable of any transport stream of this muxer; the time stamps are 3600 ticks of 90 kHz apart throughout.',
  },
  {
    file: 'late.ts',
    property: 'picture',
    witness: 'mediainfo',
    why: 'mediainfo counts from the first to the last time stamp and leaves the half of the last frame out; 50 frames at 25 are 2 s.',
  },
  {
    file: 'late.ts',
    property: 'sound',
    witness: 'ffprobe',
    why: 'ffprobe takes the length from the first to the last time stamp; 95 frames of 1024 samples are 2.03 s, as the reader and mediainfo say.',
  },
  {
    file: 'two-pictures.mp4',
    property: 'size',
    witness: 'mediainfo',
    why: 'mediainfo lists the small track first; both are enabled and the file marks the large one as default.',
  },
  {
    file: 'late.mkv',
    property: 'length',
    witness: 'ffprobe',
    why: 'The header says where the film ends on its own clock, 12.0 s; it begins at 10 s and lasts 2.0 s.',
  },
  { file: 'late.mkv', property: 'length', witness: 'mediainfo', why: 'As above.' },
]

describe(`the reader on ${MEDIA_FILES.length} files`, () => {
  it('agrees with both witnesses in every property, but where it is listed who is right', () => {
    const differing: string[] = []
    const asked = MEDIA_FILES.filter((_, at) => isLong || at % 2 === 0).map(({ name }) => name)
    for (const name of asked) {
      const mine = ours(known(name))
      const path = mediaPath(name)
      for (const [witness, said] of Object.entries({ ffprobe: firstWitness(path), mediainfo: secondWitness(path) }))
        for (const [property, value] of Object.entries(said))
          if (value !== undefined && mine[property] !== value)
            differing.push(`${name}: ${property}, ${witness}: ${mine[property]} | ${value}`)
    }
    const listed = DISAGREEMENTS.filter(({ file }) => asked.includes(file)).map(
      ({ file, property, witness }) => `${file}: ${property}, ${witness}`,
    )
    expect(differing.filter((one) => !listed.some((start) => one.startsWith(`${start}:`)))).toEqual([])
    expect(listed.filter((start) => !differing.some((one) => one.startsWith(`${start}:`)))).toEqual([])
  })

  it('knows variable from constant, and what a variable rate is meant to be', () => {
    expect(known('variable.mp4').video).toMatchObject({ rate: frameRate(30), cadence: { kind: 'variable' } })
    expect(known('variable.mp4').video?.cadence.average).toBeCloseTo(20.2, 0)
    // Two of three frames are one period after the one before, the third two.
    expect(known('variable.mp4').video?.cadence.offGrid).toBeCloseTo(1 / 2, 1)
    expect(known('rate-film.mkv').video?.rate).toEqual(frameRate(24000, 1001))
    expect(known('rate-119.mp4').video?.rate).toEqual(frameRate(120000, 1001))
  })

  it('tells what is presented from what is stored', () => {
    expect(known('trimmed.mp4').video).toMatchObject({ frames: 60, storedFrames: 75 })
    expect(known('trimmed.mp4').video?.seconds).toBeCloseTo(2.4, 3)
    expect(known('trimmed.mp4').video?.storedSeconds).toBeCloseTo(3, 3)
    expect(known('late.mkv').startSeconds).toBeCloseTo(10, 1)
    expect(known('late.ts').startSeconds).toBeGreaterThan(100)
    expect(known('sound-longer.mp4').seconds).toBeCloseTo(3, 1)
  })

  it('measures the distance of key frames as the packets show it', () => {
    for (const [name, distance] of [
      ['intra.mov', 1],
      ['one-key.mp4', 150],
      ['b-frames.mp4', 25],
      ['fields.mpg', 12],
      ['mezzanine.mov', 1],
    ] as const)
      expect(known(name).video?.keyDistance, name).toBe(distance)
  })

  it('lists every track, and works with the right one', () => {
    expect(known('two-pictures.mp4').video).toMatchObject({ index: 1, widthPx: 640 })
    expect(known('four-sounds.mov').sounds.map((track) => track.language)).toEqual(['ger', 'eng', undefined, undefined])
    expect(known('cover.m4a')).toMatchObject({ video: undefined, others: [{ kind: 'attached picture' }] })
    expect(known('subtitled.mkv')).toMatchObject({ video: { frames: 25 }, others: [{ kind: 'subtitle' }] })
    expect(known('rate-25.mp4').others).toMatchObject([{ kind: 'timecode' }])
    expect(known('surround.mkv').audio).toMatchObject({ channels: 6, layout: expect.stringContaining('5.1') as string })
  })

  it('reads when and where from, and the broadcast extension', () => {
    expect(known('dated.mp4')).toMatchObject({ recordedAt: '2026-06-04T11:12:13.000Z', recordedFrom: { zone: 'UTC' } })
    // Source: EBU Tech 3285: the time reference counts samples since midnight; 172 800 000 at 48 kHz is 01:00:00.
    expect(known('recorder.wav')).toMatchObject({
      recordedAt: '2026-06-04T09:30:00.000Z',
      broadcast: { timeReference: 172_800_000, description: 'Tide' },
    })
    expect(known('recorder.wav').recordedFrom?.zone).toBeUndefined()
  })

  it('reads brands, index positions and shown sizes', () => {
    expect([known('rate-25.mp4').brand, known('rate-50.mov').brand, known('vp9.webm').brand]).toEqual([
      'isom',
      'qt',
      'webm',
    ])
    expect([known('index-first.mp4').indexFirst, known('rate-25.mp4').indexFirst]).toEqual([true, false])
    // Source: ITU-R BT.601 at 4:3: 720×576 with samples of 16:15 is shown as 768×576.
    expect(known('top-first.mp4').video).toMatchObject({ displayWidthPx: 768, displayHeightPx: 576 })
    expect(known('turned-90.mp4').video).toMatchObject({ widthPx: 180, heightPx: 320, displayWidthPx: 180 })
    expect(known('turned-270.mp4').video).toMatchObject({ displayWidthPx: 480, displayHeightPx: 1280 })
  })

  it('measures how a clip is scanned where the file does not say', async () => {
    const woven = (name: string, scan: string) => {
      // A picture that is still, or drawn to test, tells nothing of fields.
      const source = scan ? `mandelbrot=s=720x576:r=50,interlace=scan=${scan}` : 'testsrc=s=720x576:r=25'
      const options = ['-t', '1', '-c:v', 'mjpeg', '-q:v', '3', name]
      execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', source, ...options], { cwd: folder })
      return name
    }
    for (const [name, order] of [
      ['top-first.mp4', 'top first'],
      ['bottom-first.mp4', 'bottom first'],
      ['fields.mpg', 'top first'],
      [woven('woven-top.avi', 'tff'), 'top first'],
      [woven('woven-bottom.avi', 'bff'), 'bottom first'],
      [woven('whole.avi', ''), 'progressive'],
    ] as const) {
      const path = name.endsWith('.avi') ? Buffer.from(join(folder, name)) : mediaPath(name)
      const { video } = await probeFile(path)
      if (!video) throw new Error('no picture')
      if (name.endsWith('.avi')) expect(video.fieldOrder, name).toBeUndefined()
      expect((await measureFields(path, video)).order, name).toBe(order)
    }
  })

  it('takes a picture of one-key clips, late ones and the right one of two', async () => {
    for (const name of ['one-key.mp4', 'late.mkv', 'late.ts', 'two-pictures.mp4', 'trimmed.mp4']) {
      const { video } = known(name)
      if (!video) throw new Error('no picture')
      const picture = await framePicture(mediaPath(name), video, video.seconds / 3, 480)
      expect(picture.subarray(0, 3).toString('hex'), name).toBe('ffd8ff')
    }
  })

  it('reads the clean aperture of the index', async () => {
    const path = join(folder, 'clean.mp4')
    writeFileSync(path, withCleanAperture(readFileSync(mediaPath('rate-24.mp4')), 300, 176))
    const { video } = await probeFile(Buffer.from(path))
    expect(video?.cleanAperture).toEqual({ x: 10, y: 2, widthPx: 300, heightPx: 176 })
    expect(video).toMatchObject({ widthPx: 320, displayWidthPx: 300, displayHeightPx: 176 })
  })
})

describe('an index that lies', () => {
  it('is read within bounds, whatever its bytes say', async () => {
    const whole = readFileSync(mediaPath('trimmed.mp4'))
    const moov = whole.lastIndexOf('moov')
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(whole.length - moov - 1), fc.constantFrom(0, 1, 0x7f, 0x80, 0xff)), { maxLength: 12 }),
        async (changes) => {
          const bytes = Buffer.from(whole)
          for (const [at, value] of changes) bytes[moov + at] = value
          const index = await readIsoIndex({
            sizeBytes: bytes.length,
            read: (position, length) => Promise.resolve(bytes.subarray(position, position + length)),
          })
          for (const track of index?.tracks ?? []) expect(track.times.length).toBeLessThanOrEqual(2_000_000)
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('drop-frame', () => {
  it('counts as the timecode track of ffmpeg does, at several points of a day', () => {
    for (const [address, rate, nominal] of [
      ['00:00:59;28', '30000/1001', 30],
      ['00:01:00;02', '30000/1001', 30],
      ['00:09:59;29', '30000/1001', 30],
      ['00:10:00;00', '30000/1001', 30],
      ['11:59:59;29', '30000/1001', 30],
      ['23:59:59;29', '30000/1001', 30],
      ['13:01:00;04', '60000/1001', 60],
      ['13:07:00:00', '30000/1001', 30],
      ['09:58:12:24', '25', 25],
    ] as const) {
      const path = join(folder, 'address.mov')
      const source = ['-f', 'lavfi', '-i', `testsrc2=s=64x64:r=${rate}:d=0.2`]
      execFileSync('ffmpeg', ['-v', 'error', '-y', ...source, '-c:v', 'mjpeg', '-timecode', address, path])
      // The only sample of a timecode track is the frame number as 32 bits, big-endian.
      const sample = execFileSync('ffmpeg', [
        '-v',
        'error',
        '-i',
        path,
        ...['-map', '0:d', '-c', 'copy', '-f', 'data', '-'],
      ])
      expect(parseTimecode(address, nominal)?.frame, address).toBe(sample.readUInt32BE(0))
    }
    expect(timecodeCount(frameRate(60000, 1001), true)).toEqual({ nominal: 60, dropFrame: true })
  })
})
