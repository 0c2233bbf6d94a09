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
  const counter = `drawtext=text='%{pts\\:hms}  %{frame_num}':fontsize=${size}:fontcolor=white:box=1:boxcolor=black@0.55:boxborderw=${Math.round(size / 3)}:x=${size}:y=h-${size * 2.4}`
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
  `<?xml version="1.0" encoding="UTF-8"?>\n<clip camera="${camera}" name="${clip}" recorded="${recordedAt.toISOString()}" lens="35" whiteBalance="5200"/>\n`

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
  const at = (hours: number, minutes: number) => new Date(day.getTime() + (hours * 60 + minutes) * 60_000)
  const cards = demoCards(root)
  const [curlew = '', plover = '', field = '', odd = '', second = '', heron = '', teal = '', slot = ''] = cards.map(
    (card) => card.folder,
  )
  const [dcim, action] = [join(curlew, 'DCIM/100CURLW'), join(plover, 'DCIM/100PLOVR')]
  const beside = [join(second, 'CLIP'), join(second, 'SUB'), join(second, 'THUMB')]
  const [clipFolder = '', proxyFolder = '', thumbFolder = ''] = beside
  const phone = join(teal, 'DCIM/Camera')
  for (const folder of [dcim, join(curlew, 'MISC'), action, join(field, 'TAKES'), odd, ...beside, phone])
    await mkdir(folder, { recursive: true })

  const uhd = { widthPx: 3840, heightPx: 2160, rate: 25, bitRate: '100M' }
  const small = { widthPx: 640, heightPx: 360, rate: 25, bitRate: '4M' }
  const clips: ClipPlan[] = [
    {
      ...uhd,
      path: join(dcim, 'CURL0041.MP4'),
      seconds: 3,
      recordedAt: at(9, 12),
      timecode: '09:12:00:00',
      paint: (canvas) => workshop(canvas, 3),
    },
    {
      ...uhd,
      path: join(dcim, 'CURL0042.MP4'),
      seconds: 2,
      recordedAt: at(9, 31),
      timecode: '09:31:10:05',
      paint: (canvas) => workshop(canvas, 8),
    },
    {
      ...uhd,
      path: join(dcim, 'CURL0044.MP4'),
      seconds: 2,
      recordedAt: at(11, 2),
      timecode: '11:02:44:12',
      paint: (canvas) => estuary(canvas, 0.2),
    },
    {
      widthPx: 2704,
      heightPx: 1520,
      rate: 100,
      bitRate: '60M',
      path: join(action, 'PLOV0107.MP4'),
      seconds: 1,
      recordedAt: at(9, 30),
      timecode: '09:30:00:00',
      paint: (canvas) => workshop(canvas, 6),
    },
    {
      ...small,
      path: join(action, 'PLOV0108.MP4'),
      seconds: 2,
      recordedAt: at(9, 40),
      timecode: '09:40:00:00',
      paint: (canvas) => estuary(canvas, 0.8),
    },
    {
      ...small,
      path: join(odd, 'TAKE0001.MP4'),
      seconds: 2,
      recordedAt: at(12, 5),
      timecode: '12:05:00:00',
      paint: (canvas) => estuary(canvas, 0.5),
    },
  ]
  for (const [number, hour, minute, seconds, ribs] of [
    [51, 13, 5, 3, 9],
    [52, 13, 20, 2, 10],
    [53, 13, 44, 4, 11],
  ] as const) {
    const time = { seconds, recordedAt: at(hour, minute), timecode: `13:${String(minute).padStart(2, '0')}:00:00` }
    const paint = (canvas: Canvas) => workshop(canvas, ribs)
    clips.push({ ...small, ...time, paint, path: join(clipFolder, `C00${number}.MP4`) })
    // High-speed takes have no proxy: the folder beside has a hole there.
    if (number !== 52)
      clips.push({
        ...{ ...small, ...time, paint, widthPx: 320, heightPx: 180, bitRate: '600k' },
        path: join(proxyFolder, `C00${number}S03.MP4`),
      })
  }
  for (const lens of LENSES) {
    const takes = RIG_TAKES.filter((_, at) => lens !== ODD_LENS || at !== 1)
    const folder = join(root, `pole-${lens}`, 'DCIM/100POLES')
    await mkdir(folder, { recursive: true })
    for (const [number, [hour, minute, seconds]] of takes.entries())
      clips.push({
        ...{ ...small, seconds, recordedAt: at(hour, minute), timecode: `${hour}:${minute}:00:00` },
        path: join(folder, `POLE000${number + 1}.MP4`),
        paint: (canvas) => estuary(canvas, 0.15 * (lens + number)),
      })
  }
  // Held up beside the other cameras, and started with them.
  for (const [hour, minute, evening] of [
    [13, 12, 0.1],
    [13, 31, 0.3],
    [13, 40, 0.4],
    [15, 2, 0.6],
  ] as const) {
    const recordedAt = at(hour, minute)
    const name = recordedAt.toISOString().replace(/[-:]/g, '').replace('T', '_').slice(0, 15)
    clips.push({
      ...{ ...small, seconds: 2, recordedAt, timecode: '00:00:00:00', paint: (canvas) => estuary(canvas, evening) },
      path: join(phone, `${name}.MP4`),
    })
  }
  // Two at a time: the painted picture's filters use one core each.
  const waiting = [...clips]
  const line = async () => {
    for (let clip = waiting.shift(); clip; clip = waiting.shift()) await makeClip(clip)
  }
  await Promise.all([line(), line()])
  for (const [name, time] of [
    ['CURL0041', at(9, 12)],
    ['CURL0042', at(9, 31)],
    ['CURL0044', at(11, 2)],
  ] as const)
    await writeFile(join(dcim, `${name}.XML`), sidecar('Curlew', name, time))
  for (const number of [51, 52, 53]) {
    await writeFile(join(clipFolder, `C00${number}M01.XML`), sidecar('Curlew', `C00${number}`, at(13, 5)))
    await ffmpeg([
      ...['-i', join(clipFolder, `C00${number}.MP4`), '-frames:v', '1', '-vf', 'scale=160:-2'],
      join(thumbFolder, `C00${number}T01.JPG`),
    ])
  }
  await makeFrames(join(heron, 'POLE/H0007'), 48, [17, 31])
  await writeFile(join(curlew, 'MISC/VERSION.TXT'), 'Curlew, card format 2\n')
  await cp(curlew, slot, { recursive: true, preserveTimestamps: true })
  // A recorder that lost power: the picture is there, the index is not.
  await ffmpeg(['-i', join(action, 'PLOV0108.MP4'), '-c', 'copy', '-f', 'mp4', join(action, 'late.tmp')])
  await rm(join(action, 'PLOV0108.MP4'))
  await ffmpeg(['-i', join(action, 'late.tmp'), '-c', 'copy', '-movflags', '-faststart', join(action, 'PLOV0108.MP4')])
  await rm(join(action, 'late.tmp'))
  await truncate(join(action, 'PLOV0108.MP4'), 60_000)
  await writeFile(join(action, 'PLOV0109.MP4'), '')
  for (const [take, seconds] of [
    [1, 20],
    [2, 12],
  ] as const) {
    await ffmpeg([
      '-f',
      'lavfi',
      '-i',
      `aevalsrc='if(lt(mod(t,1),0.004),0.6*sin(2*PI*1200*t),0.002*(random(0)-0.5))':c=stereo:s=48000:d=${seconds}`,
      '-c:a',
      'pcm_s24le',
      join(field, `TAKES/FLD1000${take}.WAV`),
    ])
  }
  await writeFile(join(field, 'SETTINGS.TXT'), 'gain 32\nlow cut 80\n')
  await writeFile(Buffer.from(`${odd}/caf\xe9 notes.txt`, 'latin1'), 'a name in an old encoding\n')
  await writeFile(join(odd, 'two\nlines.txt'), 'a name with a line end\n')
  await writeFile(join(odd, 'empty.wav.txt'), '')
  await symlink('/nowhere/else', join(odd, 'shortcut'))
  return cards
}
