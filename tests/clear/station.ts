import { execFileSync, fork, spawnSync, type ChildProcess } from 'node:child_process'
import {
  chmodSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  realpathSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ClipsAsked, ClipView, LoadView } from '../../contract/cards'
import type { LoadCopies } from '../../contract/copies'
import type { Page } from '../../contract/page'
import type { TaskView } from '../../contract/tasks'
import { MEMORY_ENV, MEMORY_FLAGS } from '../../scripts/lib/memory.mjs'
import { freePort } from '../../scripts/lib/postgres.mjs'
import { startCluster } from '../prepared'

/**
 * The built programs on a database of their own, driven over HTTP with real folders: nothing is known of their insides.
 */
export interface Station {
  readonly root: string
  readonly databaseUrl: string
  /** Where the API lies, without a slash at its end. */
  readonly base: string
  get<T>(path: string): Promise<T>
  send(method: 'POST' | 'PUT', path: string, body?: object, headers?: Record<string, string>): Promise<Answer>
  post(path: string, body?: object, headers?: Record<string, string>): Promise<Answer>
  /** Orders a task and waits for its end. */
  task(path: string, body?: object): Promise<TaskView>
  ended(taskId: string): Promise<TaskView>
  /** Gives a folder the identity of a device of its own, as the test interface of the server allows. */
  device(folder: string, identity: string): void
  worker(): ChildProcess
  startWorker(): Promise<void>
  httpPid(): number
  stop(): Promise<void>
}

export interface Answer {
  readonly status: number
  readonly body: Record<string, unknown>
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/**
 * Asks until the answer is as wanted, for at most ten minutes, since a busy machine may be slow. Throws with the last
 * answer.
 */
export async function until<T>(
  ask: () => Promise<T>,
  wanted: (answer: T) => boolean,
  mostMs = Number(process.env.YENDRA_UNTIL_MS ?? 600_000),
): Promise<T> {
  const end = Date.now() + mostMs
  // What takes long is asked for less often: asking takes the time of those who work on it.
  for (let pauseMs = 50; ; pauseMs = Math.min(400, pauseMs * 1.3)) {
    const answer = await ask()
    if (wanted(answer)) return answer
    if (Date.now() > end) throw new Error(`waited in vain; at last: ${JSON.stringify(answer)?.slice(-2500)}`)
    await wait(pauseMs)
  }
}

function program(name: string, env: NodeJS.ProcessEnv): Promise<ChildProcess> {
  return new Promise((resolve, reject) => {
    const child = fork(`dist/server/${name}.js`, [], {
      env,
      execArgv: [...MEMORY_FLAGS],
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    child.once('message', () => resolve(child))
    child.once('exit', (code) => reject(new Error(`${name} ended with ${code}`)))
  })
}

export async function startStation(more: NodeJS.ProcessEnv = {}): Promise<Station> {
  const root = realpathSync(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-yes-')))
  chmodSync(root, 0o755)
  mkdirSync(join(root, 'home'))
  const cluster = await startCluster(root)
  const databaseUrl = cluster.newest('yendra_yes')
  const devices: Record<string, string> = {}
  const deviceFile = join(root, 'devices.json')
  writeFileSync(deviceFile, '{}')
  const port = await freePort()
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    ...MEMORY_ENV,
    DATABASE_URL: databaseUrl,
    YENDRA_HOME: join(root, 'home'),
    YENDRA_WEB: 'dist/web',
    YENDRA_TEST_DEVICES: deviceFile,
    // Drives of tests are disk images: they count as drives of their own, and each answer says so.
    YENDRA_LOOPS: 'apart',
    PORT: String(port),
    ...more,
  }
  let worker = await program('worker', env)
  const http = await program('http', env)
  const base = `http://127.0.0.1:${port}/api`
  // A kept connection may be closed by the server while a test keeps this process busy.
  const alone = { Connection: 'close' }
  const get = async <T>(path: string) => (await (await fetch(base + path, { headers: alone })).json()) as T
  const send = async (method: string, path: string, body: object = {}, headers: Record<string, string> = {}) => {
    const response = await fetch(base + path, {
      method,
      headers: { 'Content-Type': 'application/json', ...alone, ...headers },
      body: JSON.stringify(body),
    })
    const text = await response.text()
    return { status: response.status, body: text ? (JSON.parse(text) as Record<string, unknown>) : {} }
  }
  const ended = (taskId: string) =>
    until(
      () => get<TaskView>(`/tasks/${taskId}`),
      (task) => ['done', 'failed', 'stopped', 'set-aside'].includes(task.state),
    )
  return {
    root,
    databaseUrl,
    base,
    get,
    send,
    post: (path, body, headers) => send('POST', path, body, headers),
    ended,
    task: async (path, body) => {
      const answer = await send('POST', path, body)
      if (answer.status !== 202) throw new Error(`${path}: ${JSON.stringify(answer)}`)
      return ended(String(answer.body.taskId))
    },
    device(folder, identity) {
      devices[folder] = identity
      writeFileSync(deviceFile, JSON.stringify(devices))
    },
    worker: () => worker,
    async startWorker() {
      worker = await program('worker', env)
    },
    httpPid: () => http.pid ?? 0,
    async stop() {
      for (const child of [worker, http]) child.kill('SIGKILL')
      await cluster.stop()
      execFileSync('rm', ['-rf', root])
    },
  }
}

let madeClip: string | undefined

/** A second of picture and sound, made once by Debian's ffmpeg. */
export function clipFile(): string {
  if (!madeClip) {
    madeClip = join(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-clip-')), 'clip.mp4')
    const picture = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=2', '-f', 'lavfi', '-i', 'sine=d=2']
    execFileSync('ffmpeg', [
      ...['-v', 'error', ...picture, '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac'],
      ...['-movflags', '+faststart', madeClip],
    ])
  }
  return madeClip
}

/**
 * The clip with a box of free space at its end (ISO/IEC 14496-12, 8.1.2), so that no two clips have the same content.
 */
export function ownClip(words: string): Buffer {
  const text = Buffer.from(words.padEnd(64))
  const head = Buffer.alloc(8)
  head.writeUInt32BE(8 + text.length)
  head.write('free', 4, 'latin1')
  return Buffer.concat([readFileSync(clipFile()), head, text])
}

/** A card in a reader and two drives, registered; each on a device of its own. */
export interface World {
  readonly station: Station
  /** A folder of its own, in which card and drives lie. */
  readonly root: string
  readonly card: string
  readonly slipway: string
  readonly tide: string
  readonly title: string
  readonly productionId: string
  readonly readerId: string
  readonly volumeIds: readonly [slipway: string, tide: string]
  film(name: string, at?: Date): string
  look(): Promise<TaskView>
  load(): Promise<LoadView>
  clips(show?: ClipsAsked['show']): Promise<readonly ClipView[]>
  copies(): Promise<LoadCopies>
  copy(more?: object): Promise<TaskView>
  play(at?: 0 | 1): Promise<Answer>
  formatted(): Promise<Answer>
  mirror(drive: string): string
}

let worlds = 0

/**
 * A station looks at every reader and drive that it knows: what a test made goes with it, and the next are not slower
 * for it.
 */
async function goesWithItsTest(root: string, mounted: readonly string[]): Promise<void> {
  if (!process.env.VITEST) return
  const { onTestFinished, TestRunner } = await import('vitest')
  // What is made before all tests of a file stays with the station.
  if (TestRunner.getCurrentTest())
    onTestFinished(() => {
      for (const at of mounted) spawnSync('umount', ['-l', at])
      // Also what has names that are too long for the calls of Node.js.
      spawnSync('rm', ['-rf', root])
    })
}

export async function newWorld(
  station: Station,
  clips: readonly string[] = ['CURL0041.MP4', 'CURL0042.MP4'],
  drives?: readonly [string, string],
  cardAt?: string,
): Promise<World> {
  worlds += 1
  const title = `Production ${worlds}`
  const root = join(station.root, `world ${worlds}`)
  const card = cardAt ?? join(root, 'card')
  const [slipway, tide] = drives ?? [join(root, 'slipway'), join(root, 'tide')]
  await goesWithItsTest(root, [...(cardAt ? [cardAt] : []), ...(drives ?? [])])
  for (const folder of [join(card, 'DCIM/100CURLW'), slipway, tide]) mkdirSync(folder, { recursive: true })
  // Folders of one file system play devices of their own; what is mounted speaks for itself.
  for (const folder of [...(cardAt ? [] : [card]), ...(drives ? [] : [slipway, tide])]) station.device(folder, folder)
  const filmedAt = Date.parse('2026-11-14T10:00:00Z') + worlds * 60_000
  const film = (name: string, at = new Date(filmedAt)) => {
    const path = join(card, 'DCIM/100CURLW', name)
    writeFileSync(path, ownClip(`${title} ${name}`))
    utimesSync(path, at, at)
    return path
  }
  clips.forEach((name) => film(name))
  const made = async (path: string, body: object) => String((await station.post(path, body)).body.id)
  const productionId = await made('/productions', { title })
  const readerId = await made('/readers', { name: `reader ${worlds}`, path: card, sure: true })
  const volume = (name: string, path: string) =>
    made('/volumes', { name: `${name} ${worlds}`, kind: 'archive', site: 'house', path, sure: true })
  const volumeIds = [await volume('Slipway', slipway), await volume('Tide', tide)] as const
  const load = async () => {
    const [found] = (await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)).rows
    if (!found) throw new Error('no load')
    return found
  }
  const copies = async () => {
    const [found] = (await station.get<Page<LoadCopies>>(`/productions/${productionId}/copies`)).rows
    if (!found) throw new Error('no load')
    return found
  }
  /** Clips of the newest load. */
  const clipsNow = async (show: ClipsAsked['show'] = 'all') =>
    (
      await station.get<Page<ClipView>>(
        `/productions/${productionId}/clips?show=${show}&loadId=${(await load()).id}&limit=200`,
      )
    ).rows
  return {
    station,
    root,
    card,
    slipway,
    tide,
    title,
    productionId,
    readerId,
    volumeIds,
    film,
    load,
    clips: clipsNow,
    copies,
    look: () => station.task(`/readers/${readerId}/scan`, { productionId, label: 'Curlew A' }),
    copy: async (more) => station.task(`/loads/${(await load()).id}/copies`, { volumeIds, ...more }),
    play: async (at = 0) => {
      const { loadId } = await copies()
      const clipId = (await clipsNow('playable'))[0]?.id ?? null
      return station.post(`/loads/${loadId}/spot-plays`, { volumeId: volumeIds[at], clipId, seconds: 1 })
    },
    formatted: async () => station.post(`/loads/${(await load()).id}/formatted`),
    mirror: (drive) => join(drive, title, 'Cards/Curlew A'),
  }
}

/** A world in which the card was looked at, copied twice, proved and played: clear to format. */
export async function clearWorld(station: Station, clips?: readonly string[]): Promise<World> {
  const world = await newWorld(station, clips)
  await world.look()
  await world.copy()
  await world.play()
  const { clear } = await world.copies()
  if (!clear.clear) throw new Error(`not clear to begin with: ${clear.sentence}`)
  return world
}

/** A third drive, registered; on a device of its own. */
export async function thirdDrive(world: World): Promise<{ id: string; path: string }> {
  const path = join(world.root, 'neap')
  mkdirSync(path)
  world.station.device(path, path)
  const made = await world.station.post('/volumes', {
    ...{ name: `Neap of ${world.title}`, kind: 'archive', site: 'aunt’s flat', path, sure: true },
  })
  return { id: String(made.body.id), path }
}

/** Writes a file anew with the same size and the same time, and another bit. */
export function flipBit(path: string, at = 1000): void {
  const { atime, mtime } = statSync(path)
  const bytes = readFileSync(path)
  bytes[at] = (bytes[at] ?? 0) ^ 1
  writeFileSync(path, bytes)
  utimesSync(path, atime, mtime)
}
