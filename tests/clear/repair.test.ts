import { execFileSync, spawn } from 'node:child_process'
import {
  closeSync,
  mkdtempSync,
  openSync,
  readFileSync,
  readSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'
import { Client } from 'pg'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import type { RepairView } from '../../contract/repair'
import type { TaskView } from '../../contract/tasks'
import { isLong } from '../long'
import { more } from '../more'
import { canMount, loopDrive, putIn, takeOut, unmountAll } from './mounts'
import { flipBit, newWorld, startStation, thirdDrive, until, type Station, type World } from './station'

let station: Station
beforeAll(async () => {
  station = await startStation()
})
afterEach(unmountAll)
afterAll(() => station.stop())

/**
 * Flips a bit of a file below its file system, in the image that a loop drive lies on: nobody writes to the file. Where
 * its first block lies is told by debugfs(8) of e2fsprogs.
 */
function rot(drive: string, path: string): void {
  execFileSync('sync', ['-f', drive])
  const image = `${drive}.img`
  const inode = statSync(join(drive, path)).ino
  const told = execFileSync('debugfs', ['-R', `bmap <${inode}> 0`, image], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  const { groups } = /^(?<block>\d+)/.exec(told) ?? {}
  const { groups: size } =
    /Block size:\s+(?<bytes>\d+)/.exec(
      execFileSync('dumpe2fs', ['-h', image], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }),
    ) ?? {}
  const at = Number(groups?.block) * Number(size?.bytes) + 100
  const file = openSync(image, 'r+')
  const byte = Buffer.alloc(1)
  readSync(file, byte, 0, 1, at)
  writeSync(file, Buffer.from([(byte[0] ?? 0) ^ 1]), 0, 1, at)
  closeSync(file)
}

const inMirror = (world: World, name: string) => join(world.title, 'Cards/Curlew A/DCIM/100CURLW', name)
const plan = async (world: World) => station.get<RepairView>(`/repair?loadId=${(await world.load()).id}`)
const mend = async (world: World, decisions?: string) =>
  station.post('/repair', { loadId: (await world.load()).id, decisions: decisions ?? (await plan(world)).decisions })
/** What may have been replaced is read by itself at the same time: whoever comes second waits. */
const check = async (world: World, at: 0 | 1) => {
  const path = `/loads/${(await world.load()).id}/checks`
  const body = { volumeIds: [world.volumeIds[at]], how: 'whole' }
  const { body: ordered } = await until(
    () => station.post(path, body),
    (answer) => answer.status === 202,
  )
  return station.ended(String(ordered.taskId))
}
const mended = async (answer: Awaited<ReturnType<typeof mend>>): Promise<TaskView> => {
  expect(answer).toMatchObject({ status: 202 })
  return station.ended(String(answer.body.taskId))
}
const copied = async (onLoops = false) => {
  const folder = mkdtempSync(join(station.root, 'drives '))
  const drives = onLoops ? ([loopDrive(folder, 'slipway'), loopDrive(folder, 'tide')] as const) : undefined
  const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'], drives && [...drives])
  await world.look()
  await world.copy()
  return world
}
/** What a checksum list beside a copy says of it, by the tool that it was written for. */
const listHolds = (drive: string, title: string) => {
  const list = join(drive, title, 'Cards/Curlew A.xxh64')
  return execFileSync('xxhsum', ['-c', '-q', list], { cwd: join(drive, title, 'Cards'), encoding: 'utf8' })
}
const card = (world: World, name: string) => readFileSync(join(world.card, 'DCIM/100CURLW', name))

describe('a copy that is not as it was proved', () => {
  it.runIf(canMount)('is told to have rotted, and mended from the other drive after one yes', async () => {
    const world = await copied(true)
    const path = inMirror(world, 'CURL0042.MP4')
    rot(world.slipway, path)
    const read = await check(world, 0)
    expect(read.troubles.join()).toMatch(
      /CURL0042\.MP4 on Slipway \d+ has rotted: its content is another, though nobody wrote/,
    )
    const { copies } = await world.copies()
    expect(copies[0]?.troubles[0]?.sentence).toContain('has rotted')
    const planned = await plan(world)
    expect(planned.sentence).toMatch(/^1 file on Slipway \d+ can be mended from Tide \d+/)
    // Nothing is done without the yes that names the plan.
    expect(await mend(world, 'other')).toMatchObject({ status: 409 })
    const bad = readFileSync(join(world.slipway, path))
    const done = await mended(await mend(world))
    expect(done).toMatchObject({ state: 'done', troubles: [] })
    expect(readFileSync(join(world.slipway, path))).toEqual(card(world, 'CURL0042.MP4'))
    expect((await world.copies()).copies.map((copy) => [copy.mark, copy.filesVerified])).toEqual([
      ...[
        [2, 3],
        [2, 3],
      ],
    ])
    listHolds(world.slipway, world.title)
    const aside = join(world.slipway, /“(Set aside\/[^”]+)”/.exec(done.sentence ?? '')?.[1] ?? '', path)
    expect(readFileSync(aside)).toEqual(bad)
    expect(await plan(world)).toMatchObject({ steps: [], lost: [], waiting: [] })
  })

  it('says how it is otherwise: rewritten with its old time, edited, replaced, gone, and what never was on the card', async () => {
    const world = await copied()
    const at = (name: string) => join(world.slipway, inMirror(world, name))
    flipBit(at('CURL0041.MP4'))
    const bytes = readFileSync(at('CURL0042.MP4'))
    bytes[9] = 1
    writeFileSync(at('CURL0042.MP4'), bytes)
    writeFileSync(at('CURL0043.MP4'), 'short')
    writeFileSync(at('NOTES.TXT'), 'of my own')
    const { troubles } = await check(world, 0)
    expect(troubles.find((one) => one.includes('CURL0041'))).toContain('was rewritten with its old time')
    expect(troubles.find((one) => one.includes('CURL0042'))).toContain('was edited')
    expect(troubles.find((one) => one.includes('CURL0043'))).toContain('was replaced')
    expect(troubles.find((one) => one.includes('NOTES.TXT'))).toContain('never was on the card')
    rmSync(at('CURL0041.MP4'))
    await station.get(`/productions/${world.productionId}/copies`)
    const done = await mended(await mend(world))
    expect(done.sentence).toContain('3 files of “Curlew A”')
    for (const name of ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
      expect(readFileSync(at(name))).toEqual(card(world, name))
    expect(readFileSync(at('NOTES.TXT'), 'utf8')).toBe('of my own')
  })

  it('is mended where its folder is gone, once nothing stands in the way', async () => {
    const world = await copied()
    const folder = join(world.slipway, world.title, 'Cards/Curlew A')
    rmSync(folder, { recursive: true })
    writeFileSync(folder, 'of my own')
    await check(world, 0)
    expect((await plan(world)).sentence).toMatch(/^3 files on Slipway \d+ can be mended from Tide \d+/)
    const refused = await mended(await mend(world))
    expect(refused.sentence).toMatch(/^Nothing of “Curlew A” on Slipway \d+ was mended\.$/)
    expect(refused.troubles.join()).toMatch(/A file stands at “[^”]+\/Cards\/Curlew A”, where a folder is needed/)
    expect(readFileSync(folder, 'utf8')).toBe('of my own')
    rmSync(folder)
    expect((await mended(await mend(world))).troubles).toEqual([])
    expect((await world.copies()).copies.map((copy) => [copy.mark, copy.filesVerified])).toEqual([
      ...[
        [2, 3],
        [2, 3],
      ],
    ])
    listHolds(world.slipway, world.title)
  })

  it('is left as it is where it was only touched, and mended from the card where both copies are bad', async () => {
    const world = await copied()
    const at = (drive: string, name: string) => join(drive, inMirror(world, name))
    const later = new Date()
    utimesSync(at(world.slipway, 'CURL0041.MP4'), later, later)
    const before = statSync(at(world.slipway, 'CURL0041.MP4')).ino
    for (const drive of [world.slipway, world.tide]) flipBit(at(drive, 'CURL0042.MP4'))
    await check(world, 0)
    await check(world, 1)
    utimesSync(at(world.slipway, 'CURL0041.MP4'), later, new Date(later.getTime() + 5000))
    await station.get(`/productions/${world.productionId}/copies`)
    expect((await plan(world)).steps.map((step) => step.from)).toEqual(expect.arrayContaining(['card']))
    // What is seen only now makes it another plan than the one that was shown.
    const answer = await until(
      () => mend(world),
      (one) => one.status === 202,
    )
    expect(await mended(answer)).toMatchObject({ state: 'done', troubles: [] })
    expect(statSync(at(world.slipway, 'CURL0041.MP4')).ino).toBe(before)
    for (const drive of [world.slipway, world.tide])
      expect(readFileSync(at(drive, 'CURL0042.MP4'))).toEqual(card(world, 'CURL0042.MP4'))
    expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([2, 2])
  })

  it('is said to be lost first where no copy is good and the card is formatted', async () => {
    const world = await copied()
    await station.post(`/loads/${(await world.load()).id}/formatted`, { anyway: true, reason: 'out of cards' })
    rmSync(join(world.card, 'DCIM'), { recursive: true })
    for (const drive of [world.slipway, world.tide]) flipBit(join(drive, inMirror(world, 'CURL0042.MP4')))
    await check(world, 0)
    await check(world, 1)
    const planned = await plan(world)
    expect(planned.sentence).toMatch(/^2 files have no good copy left anywhere/)
    expect(planned.steps).toEqual([])
    expect(await mend(world)).toMatchObject({ status: 409 })
  })

  it('is mended once where two windows say yes at once, and a bad source makes nothing', async () => {
    const world = await copied()
    flipBit(join(world.slipway, inMirror(world, 'CURL0042.MP4')))
    await check(world, 0)
    const { decisions } = await plan(world)
    // It goes bad after the plan was made, and nobody has read it since.
    const third = await thirdDrive(world)
    const answers = await Promise.all([mend(world, decisions), mend(world, decisions)])
    expect(answers.map((one) => one.status).sort()).toEqual([202, 409])
    await station.ended(String(answers.find((one) => one.status === 202)?.body.taskId))
    expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([2, 2])
    expect(third.path).toBeTruthy()
    // Now the good one rots too, unseen: reading it for the repair finds that, and nothing takes the name.
    flipBit(join(world.slipway, inMirror(world, 'CURL0041.MP4')))
    await check(world, 0)
    const asked = await plan(world)
    flipBit(join(world.tide, inMirror(world, 'CURL0041.MP4')), 2000)
    const bad = readFileSync(join(world.slipway, inMirror(world, 'CURL0041.MP4')))
    const answer = await mend(world, asked.decisions)
    if (answer.status === 202) await station.ended(String(answer.body.taskId))
    expect(readFileSync(join(world.slipway, inMirror(world, 'CURL0041.MP4')))).toEqual(bad)
  })
})

const aged = async (world: World, days: number) => {
  const client = new Client({ connectionString: station.databaseUrl })
  await client.connect()
  await client.query(`update copy_file set proved_at = proved_at - make_interval(days => $1) where load_id = $2`, [
    days,
    (await world.load()).id,
  ])
  await client.end()
}
const hours = { on: true, fromMinute: 0, toMinute: 0, mostBytes: 1e9, atStart: false }

describe('reading by night', () => {
  it.runIf(canMount)('reads what is due by itself, finds what rotted, and says where it stands', async () => {
    const world = await copied(true)
    rot(world.tide, inMirror(world, 'CURL0043.MP4'))
    await aged(world, 170)
    expect((await station.send('PUT', '/proof-by-night', { ...hours, mostBytes: 5 })).status).toBe(422)
    expect((await station.send('PUT', '/proof-by-night', hours)).status).toBe(204)
    const tasks = await until(
      async () => (await station.get<TaskView[]>('/tasks')).filter((task) => task.title.startsWith('By night')),
      (all) => all.filter((task) => task.state === 'done').length >= 2,
      180_000,
    )
    expect(tasks.flatMap((task) => task.troubles).join()).toMatch(/CURL0043\.MP4 on Tide \d+ has rotted/)
    await station.send('PUT', '/proof-by-night', { ...hours, on: false })
    const { sentence } = await station.get<{ sentence: string }>('/proof-by-night')
    expect(sentence).toContain('All was read within 180 days.')
    expect((await plan(world)).steps).toMatchObject([{ entryIds: [expect.any(Number)] }])
  })

  more('proves nothing falsely and forgets nothing where the worker is killed again and again', async () => {
    const names = Array.from({ length: 12 }, (_, at) => `CURL${100 + at}.MP4`)
    const world = await newWorld(station, names)
    await world.look()
    await world.copy()
    const at = (name: string) => join(world.slipway, inMirror(world, name))
    // Written anew under a name of before, with its size and time: only reading tells.
    for (const name of names.slice(0, 4)) flipBit(at(name))
    await aged(world, 170)
    await station.send('PUT', '/proof-by-night', hours)
    for (let turn = 0; turn < 6; turn += 1) {
      await new Promise((resolve) => setTimeout(resolve, 150 + Math.random() * 900))
      station.worker().kill('SIGKILL')
      await station.startWorker()
    }
    const standing = async () => {
      const [copy] = (await world.copies()).copies
      return { wrong: copy?.filesMismatched, good: copy?.filesVerified }
    }
    expect(await until(standing, ({ wrong = 0, good = 0 }) => wrong + good === names.length, 120_000)).toEqual({
      ...{ wrong: 4, good: 8 },
    })
    await station.send('PUT', '/proof-by-night', { ...hours, on: false })
    expect((await plan(world)).steps[0]?.entryIds).toHaveLength(4)
  })
})

describe('reading by night beside other programs', () => {
  // The worker counts the hours by the clock of this computer, as this test does.
  it.runIf(isLong && canMount)(
    'reads nothing while another one writes to the drive, and ends when its hours are over',
    async () => {
      const world = await copied(true)
      await aged(world, 170)
      const script = 'while :; do dd if=/dev/zero of="$1/busy" bs=1M count=20 oflag=direct status=none; done'
      const busy = [world.slipway, world.tide].map((drive) => spawn('sh', ['-c', script, 'sh', drive]))
      const now = new Date()
      const minute = now.getHours() * 60 + now.getMinutes()
      const soon = (minute + 2) % 1440
      await station.send('PUT', '/proof-by-night', { ...hours, fromMinute: minute, toMinute: soon })
      const [first] = await until(
        async () => {
          const all = await station.get<TaskView[]>('/tasks')
          return all.filter((task) => task.title.startsWith('By night') && task.productionId === world.productionId)
        },
        ([task]) => task?.state === 'done',
        200_000,
      )
      for (const child of busy) child.kill('SIGKILL')
      expect(first?.sentence).toMatch(/: nothing was read yet: the hours were over\.$/)
      await station.send('PUT', '/proof-by-night', hours)
      const proofs = async () =>
        (await world.copies()).copies.map((copy) => Date.parse(copy.firstVerifiedAt ?? '') > now.getTime())
      expect(await until(proofs, (fresh) => fresh.every(Boolean), 180_000)).toEqual([true, true])
      await station.send('PUT', '/proof-by-night', { ...hours, on: false })
    },
  )
})

describe('a repair that is disturbed', () => {
  const broken = async () => {
    const world = await copied(true)
    for (const name of ['CURL0041.MP4', 'CURL0043.MP4']) flipBit(join(world.slipway, inMirror(world, name)))
    await check(world, 0)
    return { world, bad: readFileSync(join(world.slipway, inMirror(world, 'CURL0043.MP4'))) }
  }
  const goes = async (world: World, disturb: () => unknown) => {
    const answer = await until(
      () => mend(world),
      (one) => one.status === 202,
    )
    await new Promise((resolve) => setTimeout(resolve, Math.random() * 400))
    await disturb()
    return station.ended(String(answer.body.taskId))
  }
  const isMended = async (world: World) => {
    for (const name of ['CURL0041.MP4', 'CURL0043.MP4'])
      expect(readFileSync(join(world.slipway, inMirror(world, name)))).toEqual(card(world, name))
    expect((await world.copies()).copies.map((copy) => copy.filesVerified)).toEqual([3, 3])
  }

  it.runIf(canMount)('ends well when the worker is killed, and loses no bad file', async () => {
    for (let turn = 0; turn < (isLong ? 4 : 1); turn += 1) {
      const { world, bad } = await broken()
      const end = await goes(world, async () => {
        station.worker().kill('SIGKILL')
        await station.startWorker()
      })
      expect(end.state).toBe('done')
      await isMended(world)
      expect(execFileSync('find', [join(world.slipway, 'Set aside'), '-type', 'f'], { encoding: 'utf8' })).toContain(
        'CURL0043.MP4',
      )
      const found = execFileSync(
        'grep',
        [
          '-rlF',
          bad
            .subarray(bad.length - 60)
            .toString('latin1')
            .trim(),
          '.',
        ],
        {
          cwd: join(world.slipway, 'Set aside'),
          encoding: 'utf8',
        },
      )
      expect(found.trim()).not.toBe('')
    }
  })

  it.runIf(canMount)(
    'says so when its drive is pulled out, and goes on when it is back and somebody says yes',
    async () => {
      const { world } = await broken()
      const end = await goes(world, () => takeOut(world.slipway))
      if (end.state === 'done' && end.troubles.length === 0) return
      putIn(join(world.slipway, '..'), 'slipway', world.slipway)
      await until(
        async () =>
          (await plan(world)).steps.length + (await world.copies()).copies.filter((copy) => copy.mark >= 2).length,
        (ready) => ready > 0,
      )
      const again = await until(
        () => mend(world),
        (one) => one.status === 202 || one.body.detail === 'Every copy is as it was proved: nothing is to be repaired.',
      )
      if (again.status === 202) await station.ended(String(again.body.taskId))
      await isMended(world)
    },
  )
})
