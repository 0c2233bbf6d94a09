import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { ClipDetail } from '../../contract/cards'
import type { Page } from '../../contract/page'
import type { ReviewClip } from '../../contract/review'
import type { Select } from '../../core/cards/review/selects'
import { openDatabase } from '../../server/db/connection'
import { sortableClips } from '../../server/db/queries/sorted'
import { more } from '../more'
import { clipFile, newWorld, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

const ffmpeg = (...args: readonly string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])
const ffprobeSeconds = (path: string) =>
  Number(execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', path]))
const picture = (size: string, seconds: number) => ['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=25:d=${seconds}`]

/** Folders on a card, made; the path of a file in one. */
function onCard(world: World, path: string): string {
  const full = join(world.card, path)
  mkdirSync(join(full, '..'), { recursive: true })
  return full
}

interface Tag {
  readonly tag: number
  readonly type: 'byte' | 'text' | 'short' | 'long' | 'rational'
  readonly values: readonly number[] | string
}
const TYPES = { byte: [1, 1], text: [2, 1], short: [3, 2], long: [4, 4], rational: [10, 8] } as const

/**
 * One TIFF directory at an offset, little-endian, with what does not fit into its entries behind it. Source: TIFF
 * Revision 6.0, section 2.
 */
function directory(tags: readonly Tag[], at: number, next: number): Buffer {
  const head = Buffer.alloc(2 + tags.length * 12 + 4)
  const tail: Buffer[] = []
  let behind = at + head.length
  head.writeUInt16LE(tags.length, 0)
  for (const [place, { tag, type, values }] of tags.entries()) {
    const [number, width] = TYPES[type]
    const numbers = typeof values === 'string' ? [...Buffer.from(`${values}\0`)] : values
    const bytes = Buffer.alloc(Math.max(4, numbers.length * width))
    for (const [index, value] of numbers.entries()) {
      if (width === 1) bytes.writeUInt8(value, index)
      else if (width === 2) bytes.writeUInt16LE(value, index * 2)
      else bytes.writeUInt32LE(value, index * width)
      if (type === 'rational') bytes.writeUInt32LE(1000, index * 8 + 4)
    }
    const entry = 2 + place * 12
    head.writeUInt16LE(tag, entry)
    head.writeUInt16LE(number, entry + 2)
    head.writeUInt32LE(numbers.length, entry + 4)
    if (bytes.length <= 4) bytes.copy(head, entry + 8)
    else {
      head.writeUInt32LE(behind, entry + 8)
      tail.push(bytes)
      behind += bytes.length
    }
  }
  head.writeUInt32LE(next, head.length - 4)
  return Buffer.concat([head, ...tail])
}

/** A frame of sensor data, 64×36 in 16-bit words, with a JPEG of it inside. From memory: DNG tags 50706 and 51044. */
function rawFrame(jpeg: Buffer, rate: number): Buffer {
  const [rawAt, firstAt] = [8 + jpeg.length, 8 + jpeg.length + 64 * 36 * 2]
  const image = (width: number, height: number, bits: number, compression: number, photometric: number): Tag[] => [
    { tag: 256, type: 'long', values: [width] },
    { tag: 257, type: 'long', values: [height] },
    { tag: 258, type: 'short', values: [bits] },
    { tag: 259, type: 'short', values: [compression] },
    { tag: 262, type: 'short', values: [photometric] },
  ]
  const first = (raw: number) =>
    directory(
      [
        ...image(160, 90, 8, 7, 6),
        { tag: 273, type: 'long', values: [8] },
        { tag: 279, type: 'long', values: [jpeg.length] },
        { tag: 306, type: 'text', values: '2026:11:14 09:12:00' },
        { tag: 330, type: 'long', values: [raw] },
        { tag: 50706, type: 'byte', values: [1, 4, 0, 0] },
        { tag: 51044, type: 'rational', values: [rate] },
      ],
      firstAt,
      0,
    )
  const secondAt = firstAt + first(0).length
  const second = directory(
    [
      ...image(64, 36, 16, 1, 32803),
      { tag: 273, type: 'long', values: [rawAt] },
      { tag: 279, type: 'long', values: [64 * 36 * 2] },
    ],
    secondAt,
    0,
  )
  const head = Buffer.from([0x49, 0x49, 0x2a, 0, 0, 0, 0, 0])
  head.writeUInt32LE(firstAt, 4)
  return Buffer.concat([head, jpeg, Buffer.alloc(64 * 36 * 2), first(secondAt), second])
}

const named = async (world: World) => new Map((await world.clips()).map((clip) => [clip.name, clip]))
const detail = (id: string) => station.get<ClipDetail>(`/clips/${id}`)

describe('a clip is what the editor sees', () => {
  more('gathers proxies, thumbnails and sidecars of folders side by side, and parts again when one goes', async () => {
    const world = await newWorld(station, [])
    const made = ['-movflags', '+faststart', '-metadata', 'creation_time=2026-11-14T09:12:00Z', '-pix_fmt', 'yuv420p']
    ffmpeg(...picture('640x360', 2), '-c:v', 'libx264', ...made, onCard(world, 'CLIP/C0041.MP4'))
    ffmpeg(...picture('320x180', 2), '-c:v', 'libx264', ...made, onCard(world, 'SUB/C0041S03.MP4'))
    ffmpeg(...picture('320x180', 1), '-c:v', 'libx264', ...made, onCard(world, 'SUB/C0042S03.MP4'))
    writeFileSync(onCard(world, 'CLIP/C0041M01.XML'), '<clip camera="Curlew" lens="35"/>')
    writeFileSync(onCard(world, 'THUMB/C0041T01.JPG'), 'a small picture')
    await world.look()
    const clips = await named(world)
    expect([...clips.keys()]).toEqual(['C0041.MP4', 'C0042S03.MP4'])
    const original = clips.get('C0041.MP4')
    expect(original?.beside).toBe('camera proxy, thumbnail and sidecar')
    expect((await world.load()).clips).toBe(2)
    // What a sidecar in the sibling’s manner says is read too.
    expect((await detail(original?.id ?? '')).facts?.sidecar).toContainEqual({ name: 'lens', value: '35' })
    // A proxy that is cut though its index still tells its whole length holds the card back.
    const proxy = join(world.card, 'SUB/C0041S03.MP4')
    const bytes = readFileSync(proxy)
    writeFileSync(proxy, bytes.subarray(0, bytes.length - 1000))
    await world.look()
    expect((await world.load()).findings.map(({ kind, paths }) => [kind, paths])).toContainEqual([
      'cut',
      ['SUB/C0041S03.MP4'],
    ])
    writeFileSync(proxy, bytes)
    await world.look()
    expect((await world.load()).whereabouts).toEqual({
      state: 'nowhere',
      sentence: 'No volume has any of its 2 clips.',
    })
    expect((await world.copy()).sentence).toContain('All 5 files proved')
    expect((await world.load()).whereabouts.sentence).toMatch(/^All of this is verified on .+ and .+ already\.$/)

    rmSync(join(world.card, 'CLIP/C0041.MP4'))
    await world.look()
    const left = await named(world)
    // The original is gone from the card with a copy, and shown; its proxy stands for itself now.
    expect([...left.keys()].sort()).toEqual(['C0041.MP4', 'C0041S03.MP4', 'C0042S03.MP4'])
    expect(left.get('C0041.MP4')?.onCard).toBe(false)
  })

  it('takes a folder of numbered frames for one clip, and stops at the frames that are missing', async () => {
    const world = await newWorld(station, [])
    ffmpeg(...picture('160x90', 2), onCard(world, 'POLE/take_%06d.tif'))
    for (const number of [17, 31]) rmSync(join(world.card, `POLE/take_0000${number}.tif`))
    await world.look()
    const load = await world.load()
    const [clip, ...more] = await world.clips()
    expect(more).toEqual([])
    expect(clip).toMatchObject({ name: 'take_000001.tif', beside: '48 frames', isRun: true, frames: 50, seconds: 2 })
    expect(clip).toMatchObject({ widthPx: 160, heightPx: 90, pictureMade: true, trouble: null })
    expect(load.findings.map(({ kind, weight }) => [kind, weight])).toEqual([['frames-missing', 'stop']])
    expect(load.findings[0]?.sentence).toContain('17, 31 of 1–50')
    expect((await detail(clip?.id ?? '')).facts?.bounds.join()).toMatch(/25 a second are assumed/)
    expect((await world.copy()).sentence).toContain('All 48 files proved')
    // It is no film that could be played or counted as one file.
    const { loadId } = await world.copies()
    const play = await fetch(`${station.base}/loads/${loadId}/play/${world.volumeIds[0]}/${clip?.id}`)
    expect(play.status).toBeGreaterThanOrEqual(400)
    expect((await station.post(`/clips/${clip?.id}/count`)).status).toBe(409)
  })

  it('reads raw frames with the rate they state and the picture the camera kept in them', async () => {
    const world = await newWorld(station, [])
    ffmpeg(...picture('160x90', 0.04), '-frames:v', '1', join(world.root, 'small.jpg'))
    const jpeg = execFileSync('cat', [join(world.root, 'small.jpg')])
    for (let at = 1; at <= 12; at += 1)
      writeFileSync(onCard(world, `POLE/A/heron_${String(at).padStart(4, '0')}.dng`), rawFrame(jpeg, 24_000))
    for (let at = 1; at <= 5; at += 1)
      writeFileSync(onCard(world, `POLE/B/heron_${at}.dng`), rawFrame(Buffer.from('no picture'), 24_000))
    await world.look()
    const [one, other] = await world.clips()
    expect(one).toMatchObject({ beside: '12 frames', widthPx: 160, rate: '24/1', seconds: 0.5, pictureMade: true })
    expect(one?.recordedAt).toBe('2026-11-14T09:12:00.000Z')
    // Nothing here can develop these: raw, and not unreadable.
    expect(other).toMatchObject({ beside: '5 frames', trouble: null, cut: null })
    expect((await world.load()).findings.filter(({ weight }) => weight === 'stop')).toEqual([])
  })

  more('names frames that are no pictures once, whatever their names say', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    for (let at = 1; at <= 5; at += 1) writeFileSync(onCard(world, `POLE/heron_${at}.dng`), `no frame ${at}`)
    expect((await world.look()).sentence).toContain('2 clips and 0 other files')
    const clips = await named(world)
    expect(clips.get('heron_1.dng')).toMatchObject({ trouble: 'what is in it is no picture and no sound' })
    expect((await world.load()).findings.map(({ kind, files }) => [kind, files])).toEqual([['unreadable', 1]])
    // Nothing of it can be shown, and that is said; what is decided about it is written down all the same.
    const id = clips.get('heron_1.dng')?.id ?? ''
    for (const part of ['watch', 'film', 'wave', 'strip', 'frame']) {
      const answer = await station.get<{ status: number; detail: string }>(`/clips/${id}/${part}`)
      expect(answer, part).toMatchObject({
        status: 409,
        detail: expect.stringContaining('heron_1.dng could not be read'),
      })
    }
    const decided = { verdict: 'reject', ranges: [], note: 'no frames in it', shotId: null }
    expect((await station.send('PUT', `/clips/${id}/review`, decided)).status).toBe(204)
    expect(
      (await station.send('PUT', `/clips/${id}/review`, { ...decided, ranges: [{ from: 0, to: 5 }] })).status,
    ).toBe(422)
    const reviewed = await station.get<Page<ReviewClip>>(`/productions/${world.productionId}/review`)
    expect(reviewed.rows.find((row) => row.id === id)?.review).toMatchObject({ verdict: 'reject', ranges: [] })
    expect((await world.look()).state).toBe('done')
  })

  more('knows films by their content where the name says nothing, and names what it cannot look at', async () => {
    const world = await newWorld(station, [])
    const made = ['-movflags', '+faststart', '-metadata', 'creation_time=2026-11-14T09:12:00Z', '-pix_fmt', 'yuv420p']
    ffmpeg(...picture('640x360', 2), '-c:v', 'libx264', ...made, onCard(world, 'DCIM/100CURLW/GX010041.MP4'))
    ffmpeg(
      ...[...picture('320x180', 2), '-c:v', 'libx264', ...made, '-f', 'mp4'],
      onCard(world, 'DCIM/100CURLW/GX010041.LRV'),
    )
    writeFileSync(onCard(world, 'DCIM/100CURLW/GX010041.XML'), '<clip camera="Curlew" lens="35"/>')
    ffmpeg(...picture('320x180', 1), '-f', 'mpegts', onCard(world, 'DCIM/100CURLW/HERON.360'))
    await world.look()
    const clips = await named(world)
    expect([...clips.keys()].sort()).toEqual(['GX010041.MP4', 'HERON.360'])
    const original = clips.get('GX010041.MP4')
    expect(original?.beside).toBe('camera proxy and sidecar')
    expect((await detail(original?.id ?? '')).facts?.sidecar).toContainEqual({ name: 'lens', value: '35' })
    expect((await world.load()).findings.map(({ kind }) => kind)).not.toContain('unknown-kind')

    for (const name of [
      'DCIM/100CURLW/GX010041.MP4',
      'DCIM/100CURLW/GX010041.LRV',
      'DCIM/100CURLW/HERON.360',
      'DCIM/100CURLW/GX010041.XML',
    ])
      rmSync(join(world.card, name))
    for (const name of ['A001.XYZ', 'A002.XYZ']) writeFileSync(onCard(world, `RAW/${name}`), randomBytes(2_000_000))
    await world.look()
    // All of it is new, so that it is another load; the one question about it is about what is there.
    expect((await world.load()).findings).toMatchObject([
      {
        kind: 'unknown-kind',
        weight: 'ask',
        files: 2,
        sentence:
          'No clip, but 2 files of a kind that cannot be opened here (.xyz, 4.00 MB). Is that what the camera should have written? They are copied and proved like all others; look at them in your own program.',
      },
    ])
    // Beside a clip it is no question any more.
    cpSync(clipFile(), onCard(world, 'DCIM/100CURLW/CURL0041.MP4'))
    await world.look()
    expect((await world.load()).findings).toMatchObject([{ kind: 'unknown-kind', weight: 'note', files: 2 }])
    expect((await world.copy()).sentence).toContain('All 3 files proved')
  })

  it('shows a take that the camera split as one, and one recorder’s channels as one', async () => {
    const world = await newWorld(station, [])
    for (const name of ['GX010034.MP4', 'GX020034.MP4', 'GX010036.MP4', 'GX010037.MP4'])
      cpSync(clipFile(), onCard(world, `DCIM/100CURLW/${name}`))
    for (const channel of [1, 2])
      ffmpeg('-f', 'lavfi', '-i', 'sine=d=1', '-c:a', 'pcm_s24le', onCard(world, `SOUND/FLD1_Tr${channel}.WAV`))
    ffmpeg('-f', 'lavfi', '-i', 'sine=d=1', '-ac', '2', '-c:a', 'pcm_s24le', onCard(world, 'SOUND/FLD1_LR.WAV'))
    await world.look()
    const clips = await named(world)
    expect([...clips.keys()]).toEqual(['GX010034.MP4', 'GX010036.MP4', 'GX010037.MP4', 'FLD1_Tr1.WAV'])
    const [take, whole] = [clips.get('GX010034.MP4'), clips.get('GX010036.MP4')]
    expect(take?.parts).toBe(2)
    expect(take?.seconds).toBeCloseTo(2 * (whole?.seconds ?? 0), 6)
    expect(take?.sizeBytes).toBe(2 * (whole?.sizeBytes ?? 0))
    expect(clips.get('FLD1_Tr1.WAV')?.beside).toBe('2 files of sound')
    // Review shows a take once, with the files that go on from one another.
    const review = `/productions/${world.productionId}/review`
    const { rows } = await station.get<Page<ReviewClip>>(`${review}?sort=name`)
    expect(rows.map(({ name, files }) => [name, files.map((file) => file.name)])).toEqual([
      ['GX010034.MP4', ['GX010034.MP4', 'GX020034.MP4']],
      ['GX010036.MP4', ['GX010036.MP4']],
      ['GX010037.MP4', ['GX010037.MP4']],
      ['FLD1_Tr1.WAV', ['FLD1_Tr1.WAV']],
    ])
    // It is kept or left as a whole, and counts once.
    const takeOf = async (name: string) =>
      (await station.get<Page<ReviewClip>>(review)).rows.find((one) => one.name === name)
    const say = async (id: string | undefined, said: object) => {
      const body = { verdict: null, ranges: [], note: '', shotId: null, ...said }
      expect((await station.send('PUT', `/clips/${id}/review`, body)).status).toBe(204)
    }
    const [first, second] = rows[0]?.files ?? []
    await say(first?.clipId, { verdict: 'keep' })
    await say(rows[1]?.id, { verdict: 'reject' })
    const seconds = 2 * (whole?.seconds ?? 0)
    expect(await station.get(`${review}/sum`)).toMatchObject({ clips: 4, keep: 1, reject: 1, seconds })
    // Ranges are on the clock of the take; each of its files leaves with its own.
    const length = first?.length ?? 0
    const over = [{ from: length - 10, to: length + 5 }]
    await say(first?.clipId, { verdict: 'keep', ranges: over, note: 'over the seam' })
    expect((await takeOf('GX010034.MP4'))?.review).toMatchObject({
      verdict: 'keep',
      ranges: over,
      note: 'over the seam',
    })
    expect(await station.get(`${review}/sum`)).toMatchObject({ keep: 1, seconds: (15 * seconds) / (2 * length) })
    const selects = () => station.get<Select[]>(`/productions/${world.productionId}/selects`)
    expect((await selects()).map(({ name, ranges, note }) => [name, ranges, note])).toEqual([
      ['GX010034.MP4', [{ from: length - 10, to: length }], 'over the seam'],
      ['GX020034.MP4', [{ from: 0, to: 5 }], 'over the seam'],
    ])
    await say(first?.clipId, { verdict: 'keep', ranges: [{ from: 0, to: 5 }] })
    expect((await selects()).map(({ name }) => name)).toEqual(['GX010034.MP4'])
    expect(await station.get(`${review}/sum`)).toMatchObject({ sizeBytes: take?.sizeBytes })
    const tooFar = { verdict: 'keep', ranges: [{ from: 0, to: 2 * length + 1 }], note: '', shotId: null }
    expect((await station.send('PUT', `/clips/${first?.clipId}/review`, tooFar)).status).toBe(422)
    // An address of one of its further files means the take.
    await say(second?.clipId, { verdict: 'reject' })
    expect((await takeOf('GX010034.MP4'))?.review).toMatchObject({ verdict: 'reject', ranges: [] })
    expect(await station.get(`${review}/sum`)).toMatchObject({ keep: 0, reject: 2 })
    // Two verdicts from before: the kindest of them holds for the view.
    await world.copy()
    const db = await openDatabase(station.databaseUrl)
    const setPart = (name: string, verdict: 'keep' | 'reject') =>
      db
        .updateTable('review')
        .set({ verdict })
        .where('mediaFileId', 'in', (at) => at.selectFrom('mediaFile').select('id').where('name', '=', name))
        .execute()
    const sorted = async () => {
      const clips = await sortableClips(db, world.productionId, 'keep')
      return clips.map(({ verdict }) => verdict)
    }
    expect(await sorted()).toEqual([])
    await setPart('GX020034.MP4', 'keep')
    expect(await sorted()).toEqual(['keep'])
    await setPart('GX010034.MP4', 'keep')
    await setPart('GX020034.MP4', 'reject')
    expect(await sorted()).toEqual(['keep'])
    expect((await takeOf('GX010034.MP4'))?.review.verdict).toBe('keep')
    expect((await station.get<Page<ReviewClip>>(`${review}?show=keep`)).rows.map(({ name }) => name)).toEqual([
      'GX010034.MP4',
    ])
    await db.destroy()
    const load = await world.load()
    expect(load.clips).toBe(4)
    expect(load.findings.filter(({ kind }) => kind === 'gap').map(({ paths }) => paths)).toEqual([
      ['GX010034', 'GX010036'],
    ])
  })
})

describe('a film whose rate varies', () => {
  it('is cut by its own clock: as long as it lasts, with ranges that stay where they were set', async () => {
    const world = await newWorld(station, [])
    // A hole of 3 s: 100 frames of 25 a second that last 7 s.
    const name = 'DCIM/100CURLW/CURL0041.MP4'
    const gap = ['-vf', "select='not(between(t,2,4.99))'", '-fps_mode', 'passthrough', '-c:v', 'libx264']
    ffmpeg(...picture('320x180', 7), ...gap, '-pix_fmt', 'yuv420p', onCard(world, name))
    await world.look()
    const reviews = `/productions/${world.productionId}/review`
    const clip = async () => (await station.get<Page<ReviewClip>>(reviews)).rows[0]
    const found = await clip()
    expect(found).toMatchObject({ ticks: '1000/1', step: 40 })
    // Source: its length as ffprobe of Debian's ffmpeg says.
    const length = ffprobeSeconds(join(world.card, name))
    expect(Math.abs((found?.length ?? 0) / 1000 - length)).toBeLessThan(0.001)
    expect(length).toBeGreaterThan(6.9)
    const ranges = [{ from: 5500, to: 6500 }]
    const said = { verdict: 'keep', ranges, note: '', shotId: null }
    expect((await station.send('PUT', `/clips/${found?.id}/review`, said)).status).toBe(204)
    expect((await clip())?.review.ranges).toEqual(ranges)
    expect(await station.get(`/productions/${world.productionId}/review/sum`)).toMatchObject({ keep: 1, seconds: 1 })
    const [select] = await station.get<Select[]>(`/productions/${world.productionId}/selects`)
    expect(select).toMatchObject({ rate: { num: 1000, den: 1 }, ranges })
    const beyond = { ...said, ranges: [{ from: 0, to: 7200 }] }
    expect((await station.send('PUT', `/clips/${found?.id}/review`, beyond)).body).toMatchObject({ status: 422 })
  })
})

describe('the same content twice on one card', () => {
  it('is asked about, with the two names, and not where only the sizes are equal', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'])
    cpSync(onCard(world, 'DCIM/100CURLW/CURL0041.MP4'), onCard(world, 'DCIM/100CURLW/CURL0043.MP4'))
    await world.look()
    const found = async () => (await world.load()).findings.filter(({ kind }) => kind === 'twice')
    expect(await found()).toMatchObject([
      { weight: 'ask', files: 1, sentence: expect.stringContaining('CURL0043.MP4 that of CURL0041.MP4') },
    ])
    // Looked at again it is the same question, and gone with the file.
    rmSync(onCard(world, 'DCIM/100CURLW/CURL0043.MP4'))
    await world.look()
    expect(await found()).toEqual([])
  })
})
