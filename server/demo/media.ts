import { spawn } from 'node:child_process'
import { cp, mkdir, rm, symlink, truncate, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { demoCards, LENSES, ODD_LENS, RIG_TAKES, type DemoCard } from './cards'
import { Canvas, estuary, workshop } from './scene'

function ffmpeg(args: readonly string[], picture?: Buffer): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', ['-hide_banner', '-loglevel', 'error', '-y', ...args], {
      stdio: ['pipe', 'ignore', 'pipe'],
    })
    let messages = ''
    child.stderr.on('data', (chunk: Buffer) => (messages += chunk.toString()))
    child.on('error', reject)
    child.on('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`A demo clip could not be made: ${messages.trim()}`)),
    )
    child.stdin.on('error', () => undefined)
    child.stdin.end(picture)
  })
}

interface ClipPlan {
  readonly path: string
  readonly widthPx: number
  readonly heightPx: number
  readonly rate: number
  readonly seconds: number
  readonly recordedAt: Date
  readonly timecode: string
  readonly bitRate: string
  readonly paint: (canvas: Canvas) => void
}

/** A short clip: a slow pan over a painted scene, a burnt-in counter, and a click every second. */
async function makeClip({
  path,
  widthPx,
  heightPx,
  rate,
  seconds,
  recordedAt,
  timecode,
  bitRate,
  paint,
}: ClipPlan): Promise<void> {
  const canvas = new Canvas(Math.round((widthPx * 1.04) / 2) * 2, Math.round((heightPx * 1.04) / 2) * 2)
  paint(canvas)
  const size = Math.round(heightPx / 24)
  const pan = `crop=${widthPx}:${heightPx}:x='(iw-ow)*t/${seconds}':y='(ih-oh)*(1-t/${seconds})'`
  const counter =
    `drawtext=text='%{pts\\:hms}  ` +
    `%{frame_num}':fontsize=${size}:fontcolor=white:box=1:boxcolor=black@0.55:boxborderw=${Math.round(size / 3)}:x=${size}:y=h-${size * 2.4}`
  await ffmpeg(
    [
      '-f',
      'image2pipe',
      '-c:v',
      'ppm',
      '-framerate',
      String(rate),
      '-i',
      'pipe:0',
      '-f',
      'lavfi',
      '-i',
      `aevalsrc='if(lt(mod(t,1),0.004),0.7*sin(2*PI*1200*t),0.003*(random(0)-0.5))':c=stereo:s=48000:d=${seconds}`,
      '-t',
      String(seconds),
      '-vf',
      `loop=loop=-1:size=1:start=0,setpts=N/(${rate}*TB),${pan},noise=c0s=10:c0f=t,${counter},format=yuv420p`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-b:v',
      bitRate,
      '-maxrate',
      bitRate,
      '-bufsize',
      bitRate,
      '-g',
      String(rate),
      '-colorspace',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_primaries',
      'bt709',
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      '-timecode',
      timecode,
      '-metadata',
      `creation_time=${recordedAt.toISOString()}`,
      '-movflags',
      '+faststart',
      path,
    ],
    canvas.ppm(),
  )
}

const sidecar = (camera: string, clip: string, recordedAt: Date) =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<clip camera="${camera}" name="${clip}" ` +
  `recorded="${recordedAt.toISOString()}" lens="35" whiteBalance="5200"/>\n`

/** A run of numbered frames, of which some are missing. */
async function makeFrames(folder: string, count: number, missing: readonly number[]): Promise<void> {
  await mkdir(folder, { recursive: true })
  const canvas = new Canvas(340, 192)
  estuary(canvas, 0.1)
  await ffmpeg(
    [
      ...['-f', 'image2pipe', '-c:v', 'ppm', '-i', 'pipe:0', '-frames:v', String(count)],
      ...['-vf', `loop=loop=-1:size=1:start=0,setpts=N/(25*TB),crop=320:180:x='(iw-ow)*t/2':y='(ih-oh)/2'`],
      ...['-c:v', 'tiff', '-compression_algo', 'raw', join(folder, 'heron_%06d.tif')],
    ],
    canvas.ppm(),
  )
  for (const number of missing) await rm(join(folder, `heron_${String(number).padStart(6, '0')}.tif`))
}

/** Makes the cards of the demo below a folder; about 100 MB, in well under a minute. */
export async function makeCards(root: string, day: Date): Promise<DemoCard[]> {
  const at: TimeOf = (hours, minutes) => new Date(day.getTime() + (hours * 60 + minutes) * 60_000)
  const cards = demoCards(root)
  const [curlew = '', plover = '', field = '', odd = '', second = '', heron = '', teal = '', slot = ''] = cards.map(
    (card) => card.folder,
  )
  const [dcim, action, phone] = [
    join(curlew, 'DCIM/100CURLW'),
    join(plover, 'DCIM/100PLOVR'),
    join(teal, 'DCIM/Camera'),
  ]
  const poles = LENSES.map((lens) => join(root, `pole-${lens}`, 'DCIM/100POLES'))
  const others = ['CLIP', 'SUB', 'THUMB'].map((name) => join(second, name))
  for (const folder of [dcim, join(curlew, 'MISC'), action, join(field, 'TAKES'), odd, phone, ...others, ...poles])
    await mkdir(folder, { recursive: true })
  const clips = [
    ...workshopClips(at, dcim),
    ...actionClips(at, action),
    {
      ...SMALL,
      ...time(at(12, 5), 2),
      path: join(odd, 'TAKE0001.MP4'),
      paint: (canvas: Canvas) => estuary(canvas, 0.5),
    },
    ...secondClips(at, second),
    ...rigClips(at, poles),
    ...phoneClips(at, phone),
  ]
  // Two at a time: the painted picture's filters use one core each.
  const waiting = [...clips]
  const line = async () => {
    for (let clip = waiting.shift(); clip; clip = waiting.shift()) await makeClip(clip)
  }
  await Promise.all([line(), line()])
  await addSidecars(at, dcim, second)
  await makeFrames(join(heron, 'POLE/H0007'), 48, [17, 31])
  await writeFile(join(curlew, 'MISC/VERSION.TXT'), 'Curlew, card format 2\n')
  await cp(curlew, slot, { recursive: true, preserveTimestamps: true })
  await cutRecording(action)
  await recordSound(field)
  await addOddNames(odd)
  return cards
}

type TimeOf = (hours: number, minutes: number) => Date

const UHD = { widthPx: 3840, heightPx: 2160, rate: 25, bitRate: '100M' }
const SMALL = { widthPx: 640, heightPx: 360, rate: 25, bitRate: '4M' }

/** A clip of so many seconds whose timecode is the time of day, with frames behind the seconds. */
const time = (recordedAt: Date, seconds: number, rest = '00:00') => ({
  ...{ seconds, recordedAt },
  timecode: `${recordedAt.toISOString().slice(11, 16)}:${rest}`,
})

const workshopClips = (at: TimeOf, folder: string): ClipPlan[] => [
  {
    ...{ ...UHD, ...time(at(9, 12), 3), path: join(folder, 'CURL0041.MP4') },
    paint: (canvas) => workshop(canvas, 3),
  },
  {
    ...{ ...UHD, ...time(at(9, 31), 2, '10:05'), path: join(folder, 'CURL0042.MP4') },
    paint: (canvas) => workshop(canvas, 8),
  },
  {
    ...{ ...UHD, ...time(at(11, 2), 2, '44:12'), path: join(folder, 'CURL0044.MP4') },
    paint: (canvas) => estuary(canvas, 0.2),
  },
]

const actionClips = (at: TimeOf, folder: string): ClipPlan[] => [
  {
    ...{ widthPx: 2704, heightPx: 1520, rate: 100, bitRate: '60M' },
    ...{ ...time(at(9, 30), 1), path: join(folder, 'PLOV0107.MP4') },
    paint: (canvas) => workshop(canvas, 6),
  },
  {
    ...{ ...SMALL, ...time(at(9, 40), 2), path: join(folder, 'PLOV0108.MP4') },
    paint: (canvas) => estuary(canvas, 0.8),
  },
]

/** The card whose proxies and thumbnails lie in folders side by side. */
const secondClips = (at: TimeOf, card: string): ClipPlan[] =>
  SECOND_TAKES.flatMap(([number, minute, seconds, ribs]): ClipPlan[] => {
    const taken = { ...SMALL, ...time(at(13, minute), seconds), paint: (canvas: Canvas) => workshop(canvas, ribs) }
    const clip = { ...taken, path: join(card, 'CLIP', `C00${number}.MP4`) }
    // High-speed takes have no proxy: the folder beside has a hole there.
    if (number === 52) return [clip]
    const proxy = { widthPx: 320, heightPx: 180, bitRate: '600k' }
    return [clip, { ...taken, ...proxy, path: join(card, 'SUB', `C00${number}S03.MP4`) }]
  })

const SECOND_TAKES = [
  [51, 5, 3, 9],
  [52, 20, 2, 10],
  [53, 44, 4, 11],
] as const

/** The takes of a rig; one lens missed one of them. */
const rigClips = (at: TimeOf, folders: readonly string[]): ClipPlan[] =>
  LENSES.flatMap((lens, place) =>
    RIG_TAKES.filter((_, take) => lens !== ODD_LENS || take !== 1).map(([hour, minute, seconds], number): ClipPlan => ({
      ...{ ...SMALL, ...time(at(hour, minute), seconds) },
      path: join(folders[place] ?? '', `POLE000${number + 1}.MP4`),
      paint: (canvas) => estuary(canvas, 0.15 * (lens + number)),
    })),
  )

/** Held up beside the other cameras, and started with them. */
const phoneClips = (at: TimeOf, folder: string): ClipPlan[] =>
  (
    [
      [13, 12, 0.1],
      [13, 31, 0.3],
      [13, 40, 0.4],
      [15, 2, 0.6],
    ] as const
  ).map(([hour, minute, evening]): ClipPlan => {
    const recordedAt = at(hour, minute)
    const name = recordedAt.toISOString().replace(/[-:]/g, '').replace('T', '_').slice(0, 15)
    return {
      ...{ ...SMALL, seconds: 2, recordedAt, timecode: '00:00:00:00', path: join(folder, `${name}.MP4`) },
      paint: (canvas) => estuary(canvas, evening),
    }
  })

async function addSidecars(at: TimeOf, dcim: string, second: string): Promise<void> {
  for (const [name, recordedAt] of [
    ['CURL0041', at(9, 12)],
    ['CURL0042', at(9, 31)],
    ['CURL0044', at(11, 2)],
  ] as const)
    await writeFile(join(dcim, `${name}.XML`), sidecar('Curlew', name, recordedAt))
  for (const [number] of SECOND_TAKES) {
    const name = `C00${number}`
    await writeFile(join(second, 'CLIP', `${name}M01.XML`), sidecar('Curlew', name, at(13, 5)))
    await ffmpeg([
      ...['-i', join(second, 'CLIP', `${name}.MP4`), '-frames:v', '1', '-vf', 'scale=160:-2'],
      join(second, 'THUMB', `${name}T01.JPG`),
    ])
  }
}

/** A recorder that lost power: the picture is there, the index is not; and a file in which nothing is. */
async function cutRecording(folder: string): Promise<void> {
  const [clip, late] = [join(folder, 'PLOV0108.MP4'), join(folder, 'late.tmp')]
  await ffmpeg(['-i', clip, '-c', 'copy', '-f', 'mp4', late])
  await rm(clip)
  await ffmpeg(['-i', late, '-c', 'copy', '-movflags', '-faststart', clip])
  await rm(late)
  await truncate(clip, 60_000)
  await writeFile(join(folder, 'PLOV0109.MP4'), '')
}

/** Takes of a sound recorder, a click each second. */
async function recordSound(card: string): Promise<void> {
  for (const [take, seconds] of [
    [1, 20],
    [2, 12],
  ] as const) {
    const clicks = `if(lt(mod(t,1),0.004),0.6*sin(2*PI*1200*t),0.002*(random(0)-0.5))`
    await ffmpeg([
      ...['-f', 'lavfi', '-i', `aevalsrc='${clicks}':c=stereo:s=48000:d=${seconds}`, '-c:a', 'pcm_s24le'],
      join(card, `TAKES/FLD1000${take}.WAV`),
    ])
  }
  await writeFile(join(card, 'SETTINGS.TXT'), 'gain 32\nlow cut 80\n')
}

async function addOddNames(card: string): Promise<void> {
  await writeFile(Buffer.from(`${card}/caf\xe9 notes.txt`, 'latin1'), 'a name in an old encoding\n')
  await writeFile(join(card, 'two\nlines.txt'), 'a name with a line end\n')
  await writeFile(join(card, 'empty.wav.txt'), '')
  await symlink('/nowhere/else', join(card, 'shortcut'))
}
