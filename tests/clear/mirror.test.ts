import {
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { more } from '../more'
import { clearWorld, flipBit, newWorld, until, type Station } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

describe('a copy counts only as long as it lies there as it was proved', () => {
  it('a file of a mirror that was deleted or cut short takes the yes back before anything is pressed', async () => {
    const world = await clearWorld(station)
    const clip = join(world.mirror(world.tide), 'DCIM/100CURLW/CURL0042.MP4')
    const { mtime, size } = statSync(clip)
    truncateSync(clip, size - 10)
    utimesSync(clip, mtime, mtime)
    const cut = await world.copies()
    expect(cut.clear.clear).toBe(false)
    expect(cut.clear.reasons.map((reason) => reason.sentence).join()).toMatch(/Tide .*1 file/)
    rmSync(join(world.mirror(world.tide), 'DCIM'), { recursive: true })
    expect((await world.copies()).clear.clear).toBe(false)
  })

  more('making the folders again proves nothing', async () => {
    const world = await clearWorld(
      station,
      Array.from({ length: 8 }, (_, at) => `CURL000${at + 1}.MP4`),
    )
    for (const drive of [world.slipway, world.tide]) rmSync(join(drive, world.title), { recursive: true })
    const { loadId } = await world.copies()
    const { body } = await station.post(`/loads/${loadId}/copies`, { volumeIds: world.volumeIds })
    await station.post(`/tasks/${String(body.taskId)}/stop`)
    await station.ended(String(body.taskId))
    const { copies, clear } = await world.copies()
    for (const [at, drive] of [world.slipway, world.tide].entries()) {
      const there = (readdirSync(drive, { recursive: true }) as string[]).filter(
        (name) => name.includes('Cards') && name.endsWith('.MP4'),
      )
      expect(copies[at]?.filesVerified).toBeLessThanOrEqual(there.length)
    }
    expect(clear.clear).toBe(false)
  })

  more('a file that went away and lies there again is read before it counts', async () => {
    const world = await clearWorld(station)
    const clip = join(world.mirror(world.tide), 'DCIM/100CURLW/CURL0042.MP4')
    renameSync(clip, join(world.tide, 'away.MP4'))
    expect((await world.copies()).clear.clear).toBe(false)
    renameSync(join(world.tide, 'away.MP4'), clip)
    flipBit(clip)
    const back = await world.copies()
    expect(back.clear.clear).toBe(false)
    expect(back.copies[1]?.troubles.map((trouble) => trouble.sentence).join()).toContain('changed or away since')
    const checked = await station.task(`/loads/${back.loadId}/checks`, { volumeIds: world.volumeIds, how: 'whole' })
    expect(checked.troubles.join()).toContain('CURL0042.MP4')
    flipBit(clip)
    await world.copy()
    expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([3, 2])
  })

  it('both drives unplugged is never a yes, however fresh the proofs', async () => {
    const world = await clearWorld(station)
    renameSync(world.slipway, `${world.slipway} away`)
    const one = await world.copies()
    expect(one.clear.clear, one.clear.sentence).toBe(true)
    expect(one.clear.reasons.map((reason) => reason.sentence).join()).toMatch(/Slipway \d+.*not seen now/)
    renameSync(world.tide, `${world.tide} away`)
    const none = await world.copies()
    expect(none.clear.clear).toBe(false)
    expect(none.clear.reasons.map((reason) => reason.sentence).join()).toMatch(/no copy can be seen now/i)
    expect((await world.formatted()).status).toBe(409)
  })

  more('a played mirror that was deleted and copied anew has not been played', async () => {
    const world = await clearWorld(station)
    expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([3, 2])
    rmSync(world.mirror(world.slipway), { recursive: true })
    await world.copy()
    const { copies, clear } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([2, 2])
    expect(clear.clear).toBe(false)
    expect(clear.sentence).toContain('played')
  })

  more('a copy that was moved to the other drive, with a link in its place, is not on this one', async () => {
    const world = await clearWorld(station)
    renameSync(join(world.slipway, world.title), join(world.tide, 'moved'))
    symlinkSync(join(world.tide, 'moved'), join(world.slipway, world.title))
    const { clear, copies } = await world.copies()
    expect(copies[0]).toMatchObject({ mark: 0, mirrorLost: true })
    expect(clear.clear).toBe(false)
  })

  more('a copy that was moved by hand does not hide the other one', async () => {
    const world = await clearWorld(station)
    renameSync(world.mirror(world.slipway), join(world.slipway, 'moved'))
    const clip = (await world.clips())[0]
    const proxy = await station.post('/proxies', { clipIds: [clip?.id], volumeId: world.volumeIds[1] })
    expect(proxy.status, JSON.stringify(proxy.body)).toBe(202)
    const [taskId] = proxy.body.taskIds as string[]
    expect((await station.ended(taskId ?? '')).sentence).toContain('equal to the original in every check')
  })

  more('a card and drives that share one device are one copy, and each is told so', async () => {
    const world = await newWorld(station)
    station.device(world.tide, world.slipway)
    await world.look()
    await world.copy()
    await world.play()
    const { clear } = await world.copies()
    expect(clear.clear).toBe(false)
    expect(clear.reasons.map((reason) => reason.sentence).join()).toMatch(/same (drive|device)/)
    station.device(world.tide, world.card)
    expect((await world.copies()).clear.clear).toBe(false)
  })

  more('a lost file is counted even among five thousand that were copied', async () => {
    const names = Array.from({ length: 5001 }, (_, at) => `F${String(at).padStart(4, '0')}.XML`)
    const world = await newWorld(station)
    for (const name of names) writeFileSync(join(world.card, name), name)
    await world.look()
    await world.copy({ volumeIds: [world.volumeIds[0]] })
    for (const name of names) rmSync(join(world.card, name))
    world.film('ZLOST0001.MP4')
    await world.look()
    rmSync(join(world.card, 'DCIM/100CURLW/ZLOST0001.MP4'))
    await world.look()
    const { findings } = await world.load()
    expect(findings.filter((finding) => finding.kind === 'lost').map((finding) => finding.weight)).toEqual(['stop'])
    expect(findings.find((finding) => finding.kind === 'gone')?.sentence).toContain('5001 files')
  })
})

describe('two people’s fingers, or one that presses twice', () => {
  it('two orders to copy at the same moment are one copy', async () => {
    const world = await newWorld(station)
    await world.look()
    const { id } = await world.load()
    const orders = await Promise.all(
      [0, 1, 2].map(() => station.post(`/loads/${id}/copies`, { volumeIds: world.volumeIds })),
    )
    expect(orders.filter((order) => order.status === 202)).toHaveLength(1)
    expect(orders.filter((order) => order.status === 409)).toHaveLength(2)
    for (const order of orders)
      if (order.status === 202) expect((await station.ended(String(order.body.taskId))).troubles).toEqual([])
  })

  it('the same title three times at once is one production', async () => {
    const answers = await Promise.all([0, 1, 2].map(() => station.post('/productions', { title: 'Mast day' })))
    expect(answers.map((answer) => answer.status).sort()).toEqual([201, 422, 422])
  })

  it('an order sent twice with the same key is one task', async () => {
    const world = await newWorld(station)
    await world.look()
    const { id } = await world.load()
    const key = { 'Idempotency-Key': 'pressed-once' }
    const [first, second] = [
      await station.post(`/loads/${id}/copies`, { volumeIds: world.volumeIds }, key),
      await station.post(`/loads/${id}/copies`, { volumeIds: world.volumeIds }, key),
    ]
    expect(second.status).toBe(202)
    expect(second.body.taskId).toBe(first.body.taskId)
    await station.ended(String(first.body.taskId))
  })

  more('stop is not lost while the worker is started again', async () => {
    const names = Array.from({ length: 4 }, (_, at) => `CURL020${at}.MP4`)
    const world = await newWorld(station, names)
    for (const name of names) truncateSync(join(world.card, 'DCIM/100CURLW', name), 200_000_000)
    await world.look()
    const { body } = await station.post(`/loads/${(await world.load()).id}/copies`, { volumeIds: world.volumeIds })
    const id = String(body.taskId)
    await until(
      () => station.get<{ progress: { done: number } | null }>(`/tasks/${id}`),
      (task) => (task.progress?.done ?? 0) > 0,
    )
    const gone = new Promise((resolve) => station.worker().once('exit', resolve))
    station.worker().kill('SIGKILL')
    await gone
    expect((await station.post(`/tasks/${id}/stop`)).status).toBe(204)
    await station.startWorker()
    expect((await station.ended(id)).state).toBe('stopped')
  })
})
