import { spawn } from 'node:child_process'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Canvas } from './scene'

/** Runs ffmpeg; rejects with what it said. */
export function ffmpeg(args: readonly string[], picture?: Buffer): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', ['-hide_banner', '-loglevel', 'error', '-y', ...args], {
      stdio: ['pipe', 'ignore', 'pipe'],
    })
    // Whoever ends this program ends what it has started.
    const end = () => child.kill('SIGKILL')
    process.once('exit', end)
    child.once('close', () => process.off('exit', end))
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

/** A clip as it is to be made: pixels, frames a second, seconds. */
export interface ClipPlan {
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
export async function makeClip({
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
      // The picture is brought to what is encoded once, before it is repeated.
      `format=yuv420p,loop=loop=-1:size=1:start=0,setpts=N/(${rate}*TB),${pan},noise=c0s=10:c0f=t,${counter}`,
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

/** What a camera writes beside a clip. */
export const sidecar = (camera: string, clip: string, recordedAt: Date) =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<clip camera="${camera}" name="${clip}" ` +
  `recorded="${recordedAt.toISOString()}" lens="35" whiteBalance="5200"/>\n`

/** A time of the day of the shoot. */
export type TimeOf = (hours: number, minutes: number) => Date

export const UHD = { widthPx: 3840, heightPx: 2160, rate: 25, bitRate: '100M' }
export const SMALL = { widthPx: 640, heightPx: 360, rate: 25, bitRate: '4M' }

/** A clip of so many seconds whose timecode is the time of day, with frames behind the seconds. */
export const time = (recordedAt: Date, seconds: number, rest = '00:00') => ({
  ...{ seconds, recordedAt },
  timecode: `${recordedAt.toISOString().slice(11, 16)}:${rest}`,
})

/** Times of the day that begins then, in UTC. */
export const timesOf =
  (day: Date): TimeOf =>
  (hours, minutes) =>
    new Date(day.getTime() + (hours * 60 + minutes) * 60_000)

/** Makes clips two at a time: the painted picture's filters use one core each. */
export async function makeClips(clips: readonly ClipPlan[], made: () => void = () => undefined): Promise<void> {
  const waiting = [...clips]
  const line = async () => {
    for (let clip = waiting.shift(); clip; clip = waiting.shift()) {
      await makeClip(clip)
      made()
    }
  }
  await Promise.all([line(), line()])
}

/** A take of a sound recorder: noise, and a click each second; with its time where the recorder writes one. */
export async function makeSound(path: string, seconds: number, recordedAt?: Date): Promise<void> {
  const clicks = `if(lt(mod(t,1),0.004),0.6*sin(2*PI*1200*t),0.002*(random(0)-0.5))`
  await ffmpeg([
    ...['-f', 'lavfi', '-i', `aevalsrc='${clicks}':c=stereo:s=48000:d=${seconds}`, '-c:a', 'pcm_s24le'],
    ...(recordedAt ? broadcast(recordedAt) : []),
    path,
  ])
}

/** The broadcast extension with day and time. Source: EBU Tech 3285. */
function broadcast(recordedAt: Date): string[] {
  const [day = '', time = ''] = recordedAt.toISOString().split('T')
  const tag = (name: string, value: string) => ['-metadata', `${name}=${value}`]
  return ['-write_bext', '1', ...tag('origination_date', day), ...tag('origination_time', time.slice(0, 8))]
}

/** Settings and a small picture of a clip, in the folders that the camera keeps for them. */
export async function addCompanions(card: string, name: string, recordedAt: Date): Promise<void> {
  await writeFile(join(card, 'CLIP', `${name}M01.XML`), sidecar('Curlew', name, recordedAt))
  await ffmpeg([
    ...['-i', join(card, 'CLIP', `${name}.MP4`), '-frames:v', '1', '-vf', 'scale=160:-2'],
    join(card, 'THUMB', `${name}T01.JPG`),
  ])
}
