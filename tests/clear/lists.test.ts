import { execFileSync, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import type { FindingView, ListCheckView, WrittenListView } from '../../contract/lists'
import type { Page } from '../../contract/page'
import { canMount, loopDrive, unmountAll } from './mounts'
import { flipBit, newWorld, startStation, until, type Station } from './station'

let station: Station
beforeAll(async () => {
  station = await startStation()
})
afterEach(unmountAll)
afterAll(() => station.stop())

const written = async () => (await station.get<Page<WrittenListView>>('/lists')).rows[0]
const checked = async () => {
  const { rows } = await station.get<Page<ListCheckView>>('/lists/checks')
  const findings = await station.get<Page<FindingView>>(`/lists/checks/${rows[0]?.id}/findings`)
  return { check: rows[0], findings: findings.rows.map(({ kind, path }) => `${kind} ${path}`) }
}
/** What another program says of a list in the folder from which its names go. */
const read = (program: string, list: string) =>
  spawnSync(program, ['--strict', '--quiet', '-c', list], { cwd: dirname(list), encoding: 'utf8' })

describe('a list of a copy', () => {
  it('vouches for what is as it was proved, and fails for what rotted or is gone', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
    await world.look()
    await world.copy()
    const order = { folder: world.mirror(world.slipway), algorithm: 'sha256', where: 'beside' }
    expect((await station.task('/lists', order)).troubles).toEqual([])
    const first = (await written())?.path ?? ''
    expect(read('sha256sum', first).status).toBe(0)
    flipBit(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0042.MP4'))
    rmSync(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0043.MP4'))
    const { troubles } = await station.task('/lists', order)
    expect(
      troubles.map((one) => one.replace(/^.*(CURL.*?) is (missing|not as it was proved).*$/, '$1 $2')).sort(),
    ).toEqual(['CURL0042.MP4 not as it was proved', 'CURL0043.MP4 missing'])
    const second = (await written())?.path ?? ''
    // Nothing that has the name is written over.
    expect(second).not.toBe(first)
    const { status, stdout } = read('sha256sum', second)
    expect([status, stdout.match(/FAILED/g)?.length]).toEqual([1, 2])
  })

  it('is not written on a card, nor twice at once, nor where there is no file', async () => {
    const world = await newWorld(station)
    await world.look()
    const before = readdirSync(world.card, { recursive: true })
    const order = (folder: string, where: string) => station.post('/lists', { folder, where, algorithm: 'md5' })
    expect(await order(join(world.card, 'DCIM'), 'beside')).toMatchObject({ status: 422 })
    expect(await order('/proc/self', 'download')).toMatchObject({ status: 422 })
    const both = await Promise.all([order(world.card, 'download'), order(world.card, 'download')])
    expect(both.map(({ status }) => status).sort()).toEqual([202, 409])
    await station.ended(String(both.find(({ status }) => status === 202)?.body.taskId))
    expect(readdirSync(world.card, { recursive: true })).toEqual(before)
    mkdirSync(join(world.slipway, 'Empty'))
    const empty = await station.task('/lists', {
      folder: join(world.slipway, 'Empty'),
      algorithm: 'md5',
      where: 'beside',
    })
    expect(empty).toMatchObject({ state: 'failed', sentence: expect.stringContaining('There is no file in') as string })
  })
})

describe('a folder that is compared', () => {
  it('is a bag with its manifests, or a folder with the list beside it, whatever changed since', async () => {
    const world = await newWorld(station)
    const bag = join(world.slipway, 'Bag')
    mkdirSync(join(bag, 'data'), { recursive: true })
    writeFileSync(join(bag, 'data/a.txt'), 'a')
    writeFileSync(join(bag, 'bagit.txt'), 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')
    writeFileSync(join(bag, 'manifest-md5.txt'), execFileSync('md5sum', ['data/a.txt'], { cwd: bag }))
    expect((await station.task('/lists/checks', { folder: bag, list: '' })).sentence).toContain('is equal: 1 line.')
    writeFileSync(join(bag, 'data/a.txt'), 'b')
    const { troubles } = await station.task('/lists/checks', { folder: bag, list: '' })
    expect(troubles).toHaveLength(1)
    expect(await checked()).toMatchObject({ check: { isBag: true, equal: 0 }, findings: ['different data/a.txt'] })
    renameSync(join(bag, 'bagit.txt'), join(bag, 'was.txt'))
    expect(await station.task('/lists/checks', { folder: bag, list: '' })).toMatchObject({ state: 'failed' })
    writeFileSync(join(world.slipway, 'Bag.md5'), execFileSync('md5sum', ['Bag/data/a.txt'], { cwd: world.slipway }))
    await station.task('/lists/checks', { folder: bag, list: join(world.slipway, 'Bag.md5') })
    expect((await checked()).findings.sort()).toEqual(['extra manifest-md5.txt', 'extra was.txt'])
  })

  it.runIf(canMount)('is read from the beginning after a kill, and refused while its drive is away', async () => {
    const folder = mkdtempSync(join(station.root, 'drives '))
    const drive = loopDrive(folder, 'neap')
    mkdirSync(join(drive, 'Old'))
    for (const name of ['a', 'b', 'c']) writeFileSync(join(drive, 'Old', name), Buffer.alloc(9_000_000, name))
    const list = join(folder, 'old.sha512')
    writeFileSync(list, execFileSync('sh', ['-c', 'sha512sum *'], { cwd: join(drive, 'Old') }))
    const order = { folder: join(drive, 'Old'), list }
    const ordered = await station.post('/lists/checks', order)
    station.worker().kill('SIGKILL')
    await station.startWorker()
    const ended = await station.ended(String(ordered.body.taskId))
    expect(ended.sentence).toContain('is equal: 3 lines.')
    execFileSync('umount', ['-l', drive])
    await until(
      () => station.post('/lists/checks', order),
      (answer) => answer.status === 422,
    )
    expect(readFileSync(list, 'utf8')).toContain('  a\n')
  })
})
