import { execFileSync, spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ClipView, LoadView, ReaderView } from '../../../contract/cards'
import type { LoadCopies } from '../../../contract/copies'
import type { Page } from '../../../contract/page'
import { USUAL_TEMPLATE } from '../../../core/cards/review/sorted'
import { postgresBin } from '../../../scripts/lib/bootstrap.mjs'
import { hostName } from '../../../server/home'
import {
  clipFile,
  newWorld,
  ownClip,
  startStation,
  until,
  type Answer,
  type Station,
  type World,
} from '../../clear/station'

/** The name that the computer has in kept databases. */
export const BOOKS_HOST = 'saltmarsh'

const ffmpeg = (...args: readonly string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])
const film = (size: string, seconds: number, to: string) =>
  ffmpeg('-f', 'lavfi', '-i', `testsrc2=s=${size}:r=25:d=${seconds}`, '-c:v', 'libx264', '-pix_fmt', 'yuv420p', to)

function folder(...parts: readonly string[]): string {
  const path = join(...parts)
  mkdirSync(path, { recursive: true })
  return path
}

/**
 * A database as somebody may have it after a few days, written by the programs of today: a take in two files, camera
 * proxies, a rig, a backup card, several loads, reviews, a sorted view, a proxy, a film and a bag. Returns it as SQL.
 */
export async function makeBooks(): Promise<string> {
  const station = await startStation()
  try {
    await fill(station)
    const dump = spawnSync(
      join(postgresBin() ?? '', 'pg_dump'),
      ['--no-owner', '--no-privileges', '--inserts', '--rows-per-insert=50', '--schema=public', station.databaseUrl],
      { encoding: 'utf8', maxBuffer: 64 * 1024 ** 2 },
    )
    if (dump.status !== 0) throw new Error(dump.stderr)
    return dump.stdout
      .replace(/^(CREATE SCHEMA public;|--.*|)\n/gm, '')
      .replaceAll(hostName(), BOOKS_HOST)
      .replaceAll(station.root, '/media/books')
  } finally {
    await station.stop()
  }
}

async function fill(station: Station): Promise<void> {
  const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0044.MP4'])
  for (const part of ['GX010034.MP4', 'GX020034.MP4'])
    cpSync(clipFile(), join(folder(world.card, 'DCIM/101CURLW'), part))
  film('640x360', 2, join(folder(world.card, 'CLIP'), 'C0041.MP4'))
  film('320x180', 2, join(folder(world.card, 'SUB'), 'C0041S03.MP4'))
  writeFileSync(join(world.card, 'CLIP/C0041M01.XML'), '<clip lens="35"/>')
  writeFileSync(join(world.card, Buffer.from('odd\nname').toString()), 'kept')
  const second = join(world.root, 'second')
  cpSync(world.card, second, { recursive: true, preserveTimestamps: true })
  for (const path of ['DCIM/100CURLW/CURL0041.MP4', 'CLIP/C0041.MP4']) {
    const { mtime } = statSync(join(world.card, path))
    utimesSync(join(second, path), mtime, mtime)
  }
  station.device(second, second)
  await world.look()
  await world.copy()
  await world.play()
  const load = await world.load()
  for (const finding of load.findings.filter((one) => one.weight === 'ask'))
    await sent(station.post(`/loads/${load.id}/answers`, { key: finding.key, answer: 'It was deleted in the camera.' }))
  const made = await sent(station.post('/readers', { name: 'second slot', path: second, sure: true }))
  await until(
    () => station.get<ReaderView[]>('/readers'),
    (rows) => rows.some((row) => row.id === made.body.id && row.loadId !== null),
  )
  const [copied] = (await station.get<Page<LoadCopies>>(`/productions/${world.productionId}/copies`)).rows
  await station.task(`/loads/${load.id}/twins/${copied?.twins[0]?.id ?? ''}/read`)
  await station.task(`/loads/${load.id}/checks`, { volumeIds: [world.volumeIds[1]], how: 'whole' })
  await decide(station, world.productionId, world.volumeIds)
  await giveOne(station, world.productionId)
  await rig(station, world.productionId)
  await secondLoad(station, world, load.id)
}

/** An order that went through. */
async function sent(answer: Promise<Answer>): Promise<Answer> {
  const { status, body } = await answer
  if (status >= 400) throw new Error(JSON.stringify(body))
  return { status, body }
}

const clipsOf = async (station: Station, id: string) =>
  (await station.get<Page<ClipView>>(`/productions/${id}/clips?limit=200`)).rows

/** Verdicts, ranges and names, the sorted view, a proxy, a film and a bag. */
async function decide(station: Station, id: string, [slipway, tide]: readonly [string, string]): Promise<void> {
  await sent(station.post(`/productions/${id}/shots`, { shots: [{ name: 'Bow plank' }] }))
  const clips = await clipsOf(station, id)
  for (const [at, clip] of clips.entries())
    await sent(
      station.send('PUT', `/clips/${clip.id}/review`, {
        verdict: (['keep', 'maybe', 'reject'] as const)[at % 3],
        ranges: at % 3 === 0 ? [{ from: 5, to: 20 }] : [],
        note: `take ${at}`,
        shotId: null,
      }),
    )
  const view = { template: USUAL_TEMPLATE, aRoll: [], which: 'keep', links: 'hard', editBegun: false }
  await sent(station.send('PUT', `/productions/${id}/sorted`, { ...view, volumeId: slipway }))
  await station.task(`/productions/${id}/sorted`)
  const clip = clips.find((one) => one.name === 'CURL0041.MP4')
  const proxies = await sent(station.post('/proxies', { clipIds: [clip?.id], volumeId: slipway }))
  for (const taskId of (proxies.body.taskIds ?? []) as string[]) await station.ended(taskId)
  await station.task('/exports', {
    ...{
      clipId: clip?.id,
      destinationId: 'wide-watch',
      volumeId: slipway,
      window: { x: 0, y: 0, widthPx: 320, heightPx: 180 },
    },
  })
  const [film] = (await station.get<Page<{ id: string }>>(`/productions/${id}/deliverables`)).rows
  if (film) await station.task('/bags', { deliverableId: film.id, volumeId: tide, why: 'for these books' })
}

async function giveOne(station: Station, id: string): Promise<void> {
  const other = String((await sent(station.post('/productions', { title: 'Launch day' }))).body.id)
  const clip = (await clipsOf(station, id)).find((one) => one.name === 'CURL0044.MP4')
  await sent(station.post(`/productions/${other}/given`, { clipIds: [clip?.id] }))
}

async function rig(station: Station, productionId: string): Promise<void> {
  const loadIds: string[] = []
  for (const lens of [1, 2, 3]) {
    const card = folder(station.root, `lens ${lens}`)
    for (const [at, seconds] of [2, 4].entries())
      film('160x90', seconds + lens * 0.04, join(folder(card, 'DCIM/100POLES'), `POLE000${at + 1}.MP4`))
    const { body } = await sent(station.post('/readers', { name: `lens ${lens}`, path: card, sure: true }))
    await station.task(`/readers/${String(body.id)}/scan`, { productionId, label: `Pole ${lens}` })
  }
  const { rows } = await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)
  loadIds.push(...rows.filter((one) => one.label.startsWith('Pole')).map((one) => one.id))
  await sent(station.post(`/productions/${productionId}/rigs`, { name: 'Pole', loadIds: loadIds.reverse() }))
}

/** The card was formatted and filled again; one drive lost a file of the new load. */
async function secondLoad(station: Station, world: World, firstId: string): Promise<void> {
  await sent(station.post(`/loads/${firstId}/formatted`, { anyway: true, reason: 'tried' }))
  for (const name of ['DCIM', 'CLIP', 'SUB']) rmSync(join(world.card, name), { recursive: true })
  rmSync(join(world.card, 'odd\nname'))
  for (const name of ['CURL0051.MP4', 'CURL0052.MP4'])
    writeFileSync(join(folder(world.card, 'DCIM/100CURLW'), name), ownClip(`second load ${name}`))
  await world.look()
  await world.copy()
  rmSync(join(world.tide, world.title, 'Cards/Curlew A (2)/DCIM/100CURLW/CURL0052.MP4'))
  await world.copies()
}
