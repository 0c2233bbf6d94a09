import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { ProductionView } from '../../contract/productions'
import type { SortedView } from '../../contract/sorted'
import { more } from '../more'
import { isLong } from '../long'
import { canMount, canShare, loopDrive, sharingDrive } from './mounts'
import { newWorld, until, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

const CLIPS = ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4']

/** A world whose clips are copied and kept, with the view on its first drive. */
async function keptWorld(drives?: readonly [string, string], links: 'reflink' | 'hard' | 'copy' = 'copy') {
  const world = await newWorld(station, CLIPS, drives)
  await world.look()
  await world.copy()
  for (const { id } of await world.clips()) await keep(id)
  const set = async (more: object) => {
    const { settings, volumeId } = await view(world)
    const answer = await station.send('PUT', path(world), { ...settings, volumeId, ...more })
    expect(answer).toMatchObject({ status: 204 })
  }
  await set({ volumeId: world.volumeIds[0], links })
  return { world, set }
}

const keep = (id: string, verdict: string | null = 'keep') =>
  station.send('PUT', `/clips/${id}/review`, { verdict, ranges: [], note: '', shotId: null })
const path = (world: World) => `/productions/${world.productionId}/sorted`
const view = (world: World) => station.get<SortedView>(path(world))
const sort = (world: World) => station.task(path(world))
const undo = (world: World) => station.task(`${path(world)}/undo`)
const inView = (world: World, folder = 'Video/B-roll') => join(world.slipway, world.title, folder)
const listed = (world: World, folder?: string) => {
  const at = inView(world, folder)
  return existsSync(at) ? readdirSync(at).sort() : []
}
/** Two files with one content, by Debian’s cmp. */
const same = (a: string, b: string) => execFileSync('cmp', [a, b])
const name = (world: World, names: readonly { id: string; name: string | null }[]) =>
  station.send('PUT', `/productions/${world.productionId}/names`, { names })

describe('a sorted view of copies', () => {
  it('is shown first, then made with the folders of the template, and every file is what was proved', async () => {
    const { world } = await keptWorld()
    const before = await view(world)
    expect(before.plan).toMatchObject({ changes: 3, sentence: expect.stringContaining('3 files to add') })
    expect(before.plan.doubledBytes).toBeGreaterThan(0)
    expect(existsSync(inView(world))).toBe(false)
    expect(await sort(world)).toMatchObject({
      state: 'done',
      sentence: expect.stringContaining('3 files added'),
      troubles: [],
    })
    expect(listed(world)).toEqual(CLIPS)
    for (const file of CLIPS) same(join(inView(world), file), join(world.mirror(world.slipway), 'DCIM/100CURLW', file))
    expect(readdirSync(join(world.slipway, world.title)).sort()).toEqual([
      'Assets',
      'Audio',
      'Cards',
      'Library',
      'Output',
      'Video',
    ])
    expect((await view(world)).plan).toMatchObject({ changes: 0, kept: 3 })
    // The mirror is as it was, and still clear.
    await world.play()
    expect((await world.copies()).clear.clear).toBe(true)
  })

  more('is offered as the next step with the names, as far as there is something to place', async () => {
    const world = await newWorld(station, CLIPS)
    const next = async () => (await station.get<ProductionView>(`/productions/${world.productionId}`)).next.sentence
    await world.look()
    await world.copy()
    await world.play()
    const clips = await world.clips()
    const { body } = await station.post('/proxies', { productionId: world.productionId, volumeId: world.volumeIds[1] })
    for (const id of body.taskIds as string[]) await station.ended(id)
    expect(await next()).toContain('Review the clips')
    for (const { id } of clips) await keep(id, 'maybe')
    expect(await next()).toContain('Frame a master')
    for (const { id } of clips.slice(0, 2)) await keep(id)
    expect(await next()).toBe('Name 2 kept clips for the edit.')
    await name(world, [{ id: clips[0]?.id ?? '', name: 'Launch' }])
    expect(await next()).toBe('Name 1 more kept clip for the edit.')
    await name(world, [{ id: clips[1]?.id ?? '', name: 'Ribs' }])
    /** The next step, and whether the page of the view has something to add. */
    const both = async () => {
      const { plan } = await view(world)
      return { next: await next(), adds: plan.steps.filter(({ kind }) => kind === 'add').length }
    }
    expect(await both()).toEqual({ next: 'Put 2 clips into the sorted view for the edit.', adds: 2 })
    // What its page cannot do is not offered: no folder takes films, or its drives are away.
    const { settings } = await view(world)
    const set = (more: object) =>
      station.send('PUT', path(world), { ...settings, volumeId: world.volumeIds[0], links: 'copy', ...more })
    await set({ template: [{ path: 'Sound', takes: 'sound' }] })
    expect(await both()).toMatchObject({ next: expect.stringContaining('Frame a master'), adds: 0 })
    await set({ which: 'not-rejected' })
    expect(await both()).toEqual({ next: 'Put 3 clips into the sorted view for the edit.', adds: 3 })
    await set({ which: 'keep' })
    await sort(world)
    expect(await both()).toMatchObject({ next: expect.stringContaining('Frame a master'), adds: 0 })
    await keep(clips[2]?.id ?? '')
    expect(await next()).toContain('Name 1 more kept clip')
    await name(world, [{ id: clips[2]?.id ?? '', name: 'Keel' }])
    expect(await both()).toEqual({ next: 'Put 1 more clip into the sorted view for the edit.', adds: 1 })
    renameSync(world.slipway, `${world.slipway} away`)
    await until(next, (step) => !step.includes('sorted view'))
  })

  more('takes names and hands, moves what is there, and takes the last change back', async () => {
    const { world, set } = await keptWorld()
    await sort(world)
    const clips = await world.clips()
    // Two names changed with each other, and one by hand to A-roll.
    await name(world, [
      { id: clips[0]?.id ?? '', name: 'CURL0042' },
      { id: clips[1]?.id ?? '', name: 'CURL0041' },
    ])
    await station.send('PUT', `${path(world)}/folders`, { clipIds: [clips[2]?.id], folder: 'Video/A-roll' })
    const first = readFileSync(join(inView(world), 'CURL0041.MP4'))
    expect(await sort(world)).toMatchObject({ sentence: expect.stringContaining('moved'), troubles: [] })
    expect(listed(world)).toEqual(['CURL0041.MP4', 'CURL0042.MP4'])
    expect(readFileSync(join(inView(world), 'CURL0042.MP4')).equals(first)).toBe(true)
    expect(listed(world, 'Video/A-roll')).toEqual(['CURL0043.MP4'])
    expect(await undo(world)).toMatchObject({ state: 'done', troubles: [] })
    expect(readFileSync(join(inView(world), 'CURL0041.MP4')).equals(first)).toBe(true)
    expect(listed(world)).toEqual(CLIPS)
    // The next undo takes back that anything was placed at all.
    await undo(world)
    expect(listed(world)).toEqual([])
    expect((await station.post(`${path(world)}/undo`)).status).toBe(409)
    // A rule by who filmed it: the load, since no camera is known.
    await set({ aRoll: [{ by: 'camera', is: (await world.load()).id }] })
    await station.send('PUT', `${path(world)}/folders`, { clipIds: [clips[2]?.id], folder: null })
    await sort(world)
    expect(listed(world, 'Video/A-roll')).toEqual(CLIPS)
  })

  it('writes over nothing of the person’s, and takes nothing away that was changed', async () => {
    const { world } = await keptWorld()
    mkdirSync(inView(world), { recursive: true })
    writeFileSync(join(inView(world), 'CURL0042.MP4'), 'my own')
    const ended = await sort(world)
    expect(ended.troubles).toEqual([expect.stringContaining('another file has its name there')])
    expect(readFileSync(join(inView(world), 'CURL0042.MP4'), 'utf8')).toBe('my own')
    writeFileSync(join(inView(world), 'CURL0041.MP4'), 'graded')
    const clips = await world.clips()
    for (const clip of clips) await keep(clip.id, 'reject')
    expect((await sort(world)).troubles).toEqual([expect.stringContaining('changed since it was placed')])
    expect(listed(world)).toEqual(['CURL0041.MP4', 'CURL0042.MP4'])
    expect(readFileSync(join(inView(world), 'CURL0041.MP4'), 'utf8')).toBe('graded')
  })

  more('only adds once a library lies beside the media', async () => {
    const { world } = await keptWorld()
    const [first, second, third] = await world.clips()
    await keep(third?.id ?? '', null)
    await sort(world)
    writeFileSync(join(world.slipway, world.title, 'Library/ribs.project'), 'edit')
    await keep(second?.id ?? '', 'reject')
    await keep(third?.id ?? '')
    await name(world, [{ id: first?.id ?? '', name: 'Launch' }])
    expect(await sort(world)).toMatchObject({ sentence: expect.stringContaining('1 file added') })
    expect(listed(world)).toEqual(CLIPS)
    const after = await view(world)
    expect(after.settings.editBegun).toBe(true)
    expect(after.plan).toMatchObject({ changes: 0, held: [{ to: 'Video/B-roll/Launch.MP4' }, { to: null }] })
    expect((await station.post(`${path(world)}/undo`)).status).toBe(409)
    expect((await station.send('PUT', path(world), { ...after.settings, volumeId: world.volumeIds[1] })).status).toBe(
      409,
    )
  })

  it('refuses folders that lead elsewhere, and clips and rules that make no sense', async () => {
    const { world } = await keptWorld()
    const { settings, volumeId } = await view(world)
    const put = async (more: object) =>
      (await station.send('PUT', path(world), { ...settings, volumeId, ...more })).status
    for (const folder of ['../x', '/etc', 'Cards/x', 'a//b', '.yendra', 'x/..', 'a\0b', ''])
      expect(await put({ template: [{ path: folder, takes: 'b-roll' }] })).toBe(422)
    expect(await put({ template: [] })).toBe(422)
    expect(
      await put({
        template: [
          { path: 'a', takes: 'none' },
          { path: 'A', takes: 'none' },
        ],
      }),
    ).toBe(422)
    expect(await put({ volumeId: world.productionId })).toBe(422)
    const clipIds = [(await world.clips())[0]?.id]
    expect((await station.send('PUT', `${path(world)}/folders`, { clipIds, folder: 'nowhere' })).status).toBe(422)
  })

  more('is whole after it was cut at any file, with nothing left over', async () => {
    for (const [turn, cutAt] of (isLong ? [1, 2, 3] : [1, 2]).entries()) {
      const { world } = await keptWorld()
      const clips = await world.clips()
      if (turn > 0) await sort(world)
      // Of a view that is there, everything is moved.
      if (turn > 0)
        await name(
          world,
          clips.map(({ id }, at) => ({ id, name: `Take ${at + 1}` })),
        )
      const started = await station.post(path(world))
      const done = () => listed(world).filter((one) => turn === 0 || one.startsWith('Take')).length
      await until(
        () => Promise.resolve(done()),
        (files) => files >= cutAt,
      )
      station.worker().kill('SIGKILL')
      await station.startWorker()
      expect(await station.ended(String(started.body.taskId))).toMatchObject({ state: 'done', troubles: [] })
      expect(listed(world)).toEqual(turn === 0 ? CLIPS : ['Take 1.MP4', 'Take 2.MP4', 'Take 3.MP4'])
      expect((await view(world)).plan).toMatchObject({ changes: 0, kept: 3 })
      const parts = join(world.slipway, '.yendra/parts')
      expect(existsSync(parts) ? readdirSync(parts) : []).toEqual([])
      for (const [at, file] of CLIPS.entries())
        same(join(inView(world), listed(world)[at] ?? ''), join(world.mirror(world.slipway), 'DCIM/100CURLW', file))
    }
  })
})

describe.skipIf(!canMount)('links (needs root to mount)', () => {
  it('are second names of the proved copies where somebody chose them', async () => {
    const { world } = await keptWorld([loopDrive(station.root, 'hard 1'), loopDrive(station.root, 'hard 2')], 'hard')
    expect(await view(world)).toMatchObject({ canLink: 'hard', plan: { doubledBytes: 0 } })
    await sort(world)
    const [copy, placed] = [
      join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0041.MP4'),
      join(inView(world), 'CURL0041.MP4'),
    ]
    expect(statSync(placed).ino).toBe(statSync(copy).ino)
    expect(statSync(placed).nlink).toBe(2)
    // Where bytes cannot be shared, copies are what is done without a choice, and it says so.
    await station.send('PUT', path(world), {
      ...(await view(world)).settings,
      volumeId: world.volumeIds[0],
      links: 'reflink',
    })
    expect((await view(world)).settings.links).toBe('copy')
    await undo(world)
    expect(statSync(copy).nlink).toBe(1)
    expect(existsSync(placed)).toBe(false)
  })

  it.skipIf(!canShare || !isLong)('share bytes until one is changed, on a file system that can (XFS)', async () => {
    const { world } = await keptWorld(
      [sharingDrive(station.root, 'share 1'), loopDrive(station.root, 'share 2')],
      'reflink',
    )
    expect(await view(world)).toMatchObject({ canLink: 'reflink', plan: { doubledBytes: 0 } })
    await sort(world)
    const [copy, placed] = [
      join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0041.MP4'),
      join(inView(world), 'CURL0041.MP4'),
    ]
    same(copy, placed)
    expect(statSync(placed).ino).not.toBe(statSync(copy).ino)
    expect(statSync(placed).mtimeMs).toBe(statSync(copy).mtimeMs)
    // filefrag of e2fsprogs marks extents that two files share.
    expect(execFileSync('filefrag', ['-v', placed], { encoding: 'utf8' })).toContain('shared')
    writeFileSync(placed, 'graded')
    await world.play()
    expect(
      (
        await station.task(`/loads/${(await world.load()).id}/checks`, {
          volumeIds: [world.volumeIds[0]],
          how: 'whole',
        })
      ).troubles,
    ).toEqual([])
    expect((await world.copies()).clear.clear).toBe(true)
  })

  more('are told from a drive that went away in the middle', async () => {
    const { world } = await keptWorld()
    const away = `${world.slipway} away`
    renameSync(world.slipway, away)
    expect(await station.task(path(world)).catch((error: unknown) => String(error))).toMatchObject({ state: 'failed' })
    renameSync(away, world.slipway)
    await sort(world)
    // What somebody took out by hand comes back, since it is kept.
    rmSync(inView(world), { recursive: true, force: true })
    expect(await sort(world)).toMatchObject({ state: 'done' })
    expect(listed(world)).toEqual(CLIPS)
  })
})
