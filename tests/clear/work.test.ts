import { execFileSync } from 'node:child_process'
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { LoadView } from '../../contract/cards'
import type { CopyPlanView } from '../../contract/copies'
import type { Page } from '../../contract/page'
import type { TaskView } from '../../contract/tasks'
import { more } from '../more'
import { clearWorld, newWorld, startStation, until, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'
import { args } from '../args'

let station: Station
stationOfFile((one) => (station = one))

async function killWorker(): Promise<void> {
  const gone = new Promise((resolve) => station.worker().once('exit', resolve))
  station.worker().kill('SIGKILL')
  await gone
}

const underWay = (id: string) =>
  until(
    () => station.get<TaskView>(`/tasks/${id}`),
    (task) => (task.progress?.done ?? 0) > 0 || task.endedAt !== null,
  )

/** Programs that still run on a file of this folder, by the system’s own list of open files. */
const runningOn = (folder: string) =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return execFileSync('tr', ['\\0', ' '], { input: execFileSync('cat', [`/proc/${pid}/cmdline`]) })
          .toString()
          .includes(`${folder}/.yendra/parts`)
      } catch {
        return false
      }
    })

/** Enough clips that a look takes a while. */
const MANY = Array.from({ length: 40 }, (_, at) => `CURL04${String(at).padStart(2, '0')}.MP4`)

const said = async (world: World) => {
  const { clear } = await world.copies()
  return { clear: clear.clear, words: clear.reasons.map((reason) => reason.sentence).join() }
}

describe('work that ends its worker', () => {
  more('is set aside after two attempts, with the reason, and can be tried again', async () => {
    const world = await newWorld(station, ['CURL0301.MP4', 'CURL0302.MP4'])
    for (const name of ['CURL0301.MP4', 'CURL0302.MP4'])
      truncateSync(join(world.card, 'DCIM/100CURLW', name), 400_000_000)
    await world.look()
    const { body } = await station.post(`/loads/${(await world.load()).id}/copies`, { volumeIds: world.volumeIds })
    const id = String(body.taskId)
    for (let turn = 0; turn < 2; turn += 1) {
      expect((await underWay(id)).state).toBe('running')
      await killWorker()
      await station.startWorker()
    }
    const aside = await station.ended(id)
    expect(aside).toMatchObject({ state: 'set-aside', sentence: expect.stringContaining('ended its worker 2 times') })
    // A part that was whole already stays: its bytes may be the last ones.
    const parts = join(world.slipway, '.yendra/parts')
    const left = existsSync(parts) ? readdirSync(parts, { recursive: true, withFileTypes: true }) : []
    const halves = left.filter((one) => one.isFile() && statSync(join(one.parentPath, one.name)).size !== 400_000_000)
    expect(halves.map(({ name }) => name)).toEqual([])
    expect((await station.post(`/tasks/${id}/again`)).status).toBe(204)
    expect((await station.ended(id)).sentence).toContain('All 2 files proved')
  })

  more('takes its programs along, and what comes after writes into parts of its own', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const long = join(world.card, 'DCIM/100CURLW/CURL0042.MP4')
    const picture = ['-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=25:d=24']
    execFileSync('ffmpeg', [
      '-v',
      'error',
      ...picture,
      ...args('-c:v libx264 -preset ultrafast -pix_fmt yuv420p -movflags +faststart'),
      long,
    ])
    await world.look()
    await world.copy()
    const clip = (await world.clips()).find((one) => one.name === 'CURL0042.MP4')
    const { body } = await station.post('/proxies', { clipIds: [clip?.id], volumeId: world.volumeIds[0] })
    const [id = ''] = body.taskIds as string[]
    await underWay(id)
    expect(runningOn(world.slipway)).toHaveLength(1)
    await killWorker()
    expect(
      await until(
        () => Promise.resolve(runningOn(world.slipway)),
        (found) => found.length === 0,
      ),
    ).toEqual([])
    await station.startWorker()
    expect((await station.ended(id)).sentence).toContain('equal to the original in every check')
    const proxy = join(world.slipway, world.title, 'Proxies/Curlew A/DCIM/100CURLW/CURL0042.mp4')
    // Source: ffprobe of Debian's ffmpeg, counting decoded frames.
    const frames = execFileSync(
      'ffprobe',
      [...args('-v error -select_streams v -count_frames -show_entries stream=nb_read_frames -of csv=p=0'), proxy],
      { encoding: 'utf8' },
    )
    expect(Number(frames)).toBe(600)
  })

  it('in the middle of a look leaves no yes behind: the look has to be made again', async () => {
    const world = await newWorld(station, MANY)
    const { body } = await station.post(`/readers/${world.readerId}/scan`, {
      productionId: world.productionId,
      label: 'Curlew A',
    })
    await underWay(String(body.taskId))
    // It goes on when the worker is back: nothing is wrong with it yet.
    expect(await said(world)).toMatchObject({ clear: false, words: expect.stringContaining('is being scanned') })
    expect((await world.load()).sentence).toMatch(/^\d+ clips? so far: it is being scanned[.]$/)
    await killWorker()
    expect(await said(world)).toMatchObject({ clear: false, words: expect.stringContaining('is being scanned') })
    await station.startWorker()
    await station.ended(String(body.taskId))
    expect((await world.load()).clips).toBe(40)
  })
})

describe('small things that lost or confused work', () => {
  it('a scan that was stopped has not finished, also while another card is scanned in that reader', async () => {
    const world = await newWorld(station, MANY)
    const begun = async (label: string) => {
      const { body } = await station.post(`/readers/${world.readerId}/scan`, {
        productionId: world.productionId,
        label,
      })
      await underWay(String(body.taskId))
      return async () => {
        await station.post(`/tasks/${String(body.taskId)}/stop`)
        await station.ended(String(body.taskId))
      }
    }
    const loadOf = async (label: string) =>
      (await station.get<Page<LoadView>>(`/productions/${world.productionId}/loads`)).rows.find(
        (one) => one.label === label,
      )
    const stop = await begun('Curlew A')
    await stop()
    expect(await said(world)).toMatchObject({ clear: false, words: expect.stringContaining('did not finish') })
    expect((await loadOf('Curlew A'))?.sentence).toContain('the scan has not finished')
    renameSync(world.card, `${world.card} in the drawer`)
    mkdirSync(join(world.card, 'DCIM/100CURLW'), { recursive: true })
    for (const name of MANY) world.film(name.replace('CURL04', 'CURL07'))
    const stopOther = await begun('Curlew B')
    await until(
      () => loadOf('Curlew B'),
      (load) => load?.sentence.includes('it is being scanned') === true,
    )
    expect((await loadOf('Curlew A'))?.sentence).toContain('the scan has not finished')
    await stopOther()
  })

  it('an answer to what nobody asked is refused, and settles nothing that comes later', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0043.MP4'])
    await world.look()
    const { id, findings } = await world.load()
    const [gap] = findings
    const answered = (key: string) => station.post(`/loads/${id}/answers`, { key, answer: 'Another mode' })
    expect((await answered(`${gap?.key}0`)).status).toBe(404)
    expect((await world.load()).findings[0]?.answer).toBeUndefined()
    expect((await answered(gap?.key ?? '')).status).toBe(204)
    expect((await world.load()).findings[0]?.answer).toBe('Another mode')
  })

  it('a clip that does not say how it is scanned is measured after the look, and the card says so', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const woven = ['-f', 'lavfi', '-i', 'mandelbrot=s=720x576:r=50,interlace=scan=tff', '-t', '1']
    const file = join(world.card, 'DCIM/100CURLW/CURL0042.AVI')
    execFileSync('ffmpeg', ['-v', 'error', ...woven, '-c:v', 'mjpeg', '-q:v', '3', file])
    await world.look()
    const load = await until(
      () => world.load(),
      ({ findings }) => findings.some((finding) => finding.kind === 'interlaced'),
    )
    expect(load.findings.find((finding) => finding.kind === 'interlaced')).toMatchObject({
      weight: 'note',
      paths: ['DCIM/100CURLW/CURL0042.AVI'],
    })
    const clip = (await world.clips()).find((one) => one.name === 'CURL0042.AVI')
    expect(clip?.remarks).toContain('interlaced')
  })

  it('a format that was made against the answer is written down, loudly', async () => {
    const world = await newWorld(station)
    await world.look()
    await world.copy()
    const { loadId } = await world.copies()
    expect((await station.post(`/loads/${loadId}/formatted`)).status).toBe(409)
    expect((await station.post(`/loads/${loadId}/formatted`, { anyway: true, reason: 'tried' })).status).toBe(204)
    expect((await world.copies()).formattedAgainst).toContain('no clip has been played')
  })

  it('a sample is read before a yes when the proofs are older than the rule allows', async () => {
    const world = await clearWorld(station)
    const psql = (text: string) => execFileSync('psql', [station.databaseUrl, '-Atqc', text], { encoding: 'utf8' })
    psql(
      `update copy_file set proved_at = proved_at - interval '30 hours' where load_id = '${(await world.copies()).loadId}'`,
    )
    const { clear, loadId } = await world.copies()
    expect(clear.sentence).toContain('were proved 30 hours ago: read a sample of them first')
    expect([...clear.sampleFirst].sort()).toEqual([...world.volumeIds].sort())
    const read = await station.task(`/loads/${loadId}/checks`, { volumeIds: clear.sampleFirst, how: 'sample' })
    expect(read).toMatchObject({ state: 'done', troubles: [], sentence: expect.stringContaining('a sample of') })
    expect((await world.copies()).clear.clear).toBe(true)
  })

  more('the pages live on when the media programs are missing', async () => {
    const poor = await startStation({ PATH: '/nowhere' })
    const world = await newWorld(poor)
    const looked = await world.look()
    expect(looked.state, looked.sentence ?? '').toBe('done')
    expect((await world.load()).findings.map((finding) => finding.kind)).toContain('unreadable')
    expect((await poor.get<Page<unknown>>('/productions')).rows.length).toBe(1)
    expect(statSync(world.card).isDirectory()).toBe(true)
    await poor.stop()
  })
})

describe('an order of a copy that names the plan that was seen', () => {
  const drives = (world: Awaited<ReturnType<typeof newWorld>>) =>
    [world.slipway, world.tide].map((drive) => readdirSync(drive, { recursive: true, encoding: 'utf8' }).sort())

  it('is refused with what is otherwise before anything is written, and taken with the plan of now', async () => {
    const world = await newWorld(station, ['CURL0701.MP4', 'CURL0702.MP4'])
    await world.look()
    await world.copy()
    world.film('CURL0703.MP4')
    await world.look()
    const { id } = await world.load()
    const plan = () => station.get<CopyPlanView>(`/loads/${id}/plan?volumeIds=${world.volumeIds.join()}`)
    const order = (decisions: string | null) =>
      station.post(`/loads/${id}/copies`, { volumeIds: world.volumeIds, decisions })
    const before = await plan()
    expect(before.volumes.map(({ keep, copy }) => [keep.files, copy.files])).toEqual([
      [2, 1],
      [2, 1],
    ])
    // One more clip on the card, one gone from a drive, and one in the way, all known before the order.
    world.film('CURL0704.MP4')
    await world.look()
    rmSync(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0701.MP4'))
    writeFileSync(join(world.mirror(world.tide), 'DCIM/100CURLW/CURL0702.MP4'), 'other')
    await until(plan, (now) => now.volumes[0]?.keep.files === 1 && now.volumes[1]?.conflict.files === 1)
    const written = drives(world)
    const tasks = async () => (await station.get<TaskView[]>('/tasks')).length
    const count = await tasks()
    const refused = await order(before.decisions)
    expect(refused.status).toBe(409)
    expect(refused.body.detail).toMatch(/so nothing was written\. The card has 1 more file\./)
    expect(refused.body.detail).toContain('1 file fewer there as proved')
    expect(refused.body.detail).toContain('1 more file in the way')
    expect(drives(world)).toEqual(written)
    expect(await tasks()).toBe(count)
    expect((await order('[{"volumeId":1}]')).status).toBe(422)
    const now = await order((await plan()).decisions)
    expect(now.status).toBe(202)
    expect((await station.ended(String(now.body.taskId))).state).toBe('done')
  })

  it('stops before it writes when it meets what nobody knew, and an order of the night leaves that to a person', async () => {
    const world = await newWorld(station, ['CURL0711.MP4', 'CURL0712.MP4'])
    await world.look()
    const { id } = await world.load()
    const plan = () => station.get<CopyPlanView>(`/loads/${id}/plan?volumeIds=${world.volumeIds.join()}`)
    const { decisions } = await plan()
    // Something lies there that no look has listed: the order finds it before its first byte.
    const way = join(world.mirror(world.tide), 'DCIM/100CURLW')
    mkdirSync(way, { recursive: true })
    writeFileSync(join(way, 'CURL0711.MP4'), 'other')
    const ordered = await station.post(`/loads/${id}/copies`, { volumeIds: world.volumeIds, decisions })
    const end = await station.ended(String(ordered.body.taskId))
    expect([ordered.status, end.state]).toEqual([202, 'failed'])
    expect(end.sentence).toContain('nothing more was written')
    expect(existsSync(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0712.MP4'))).toBe(false)
    const unseen = await world.copy()
    expect(unseen.state).toBe('done')
    expect(readFileSync(join(way, 'CURL0711.MP4'), 'utf8')).toBe('other')
    expect(existsSync(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0712.MP4'))).toBe(true)
    // Set aside in the order, it is moved and the file takes its place: seen or not.
    const aside = await station.post(`/loads/${id}/copies`, {
      ...{ volumeIds: world.volumeIds, setAside: true },
      decisions: (await plan()).decisions,
    })
    expect((await station.ended(String(aside.body.taskId))).sentence).toContain('All 2 files proved')
  })
})
