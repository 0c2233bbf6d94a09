import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Select } from '../../core/cards/review/selects'
import type { LoadView } from '../../contract/cards'
import type { Page } from '../../contract/page'
import type { ReviewClip, ReviewView } from '../../contract/review'
import { openDatabase } from '../../server/db/connection'
import { putSeams } from '../../server/db/queries/clocks'
import { renewSpans } from '../../server/derived/clocks'
import { more } from '../more'
import { clipFile, newWorld, startStation, type Station, type World } from './station'

let station: Station
let world: World
beforeAll(async () => {
  station = await startStation()
  world = await newWorld(station, [])
})
afterAll(() => station.stop())

const DAY = '2026-11-14'

/** Clips that say in their header when they began (creation time of ISO/IEC 14496-12, 8.2.2), as ffmpeg writes it. */
function film(prefix: string, starts: readonly string[], first = 1): void {
  const folder = join(world.card, 'DCIM/100CURLW')
  // Clips that go on after others stay with them.
  if (first === 1) rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  for (const [at, start] of starts.entries())
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-i', clipFile(), '-c', 'copy', '-metadata', `creation_time=${DAY}T${start}Z`],
      join(folder, `${prefix}000${at + first}.MP4`),
    ])
}

const look = (label: string) =>
  station.task(`/readers/${world.readerId}/scan`, { productionId: world.productionId, label })
const load = async (label: string) => {
  const { rows } = await station.get<Page<LoadView>>(`/productions/${world.productionId}/loads`)
  const found = rows.find((one) => one.label === label)
  if (!found) throw new Error(`no load ${label}`)
  return found
}
const clock = async (label: string) => (await load(label)).findings.find(({ kind }) => kind.startsWith('clock-'))
const recorded = async () =>
  (await station.get<Page<ReviewClip>>(`/productions/${world.productionId}/review?sort=recorded&limit=50`)).rows.map(
    ({ name }) => name,
  )

describe('a camera whose clock is off by a constant', () => {
  it('is told by the takes that it shares with the others, with the evidence', async () => {
    film('CURL', ['09:12:00', '09:31:00', '09:40:00', '11:02:00'])
    await look('Curlew A')
    film('TEAL', ['13:12:20', '13:31:05', '15:02:10', '16:30:00'])
    await look('Teal')
    expect(await clock('Curlew A')).toBeUndefined()
    expect(await clock('Teal')).toMatchObject({
      weight: 'ask',
      shiftMs: -14_400_000,
      sentence: expect.stringContaining('4 h ahead of that of Curlew A: moved 4 h earlier, 3 of 4 clips begin within'),
    })
    expect(await recorded()).toEqual(
      [1, 2, 3, 4].map((n) => `CURL000${n}.MP4`).concat([1, 2, 3, 4].map((n) => `TEAL000${n}.MP4`)),
    )
  })

  it('has its times shown moved when somebody says so, also those of clips that are scanned later', async () => {
    const { id } = await load('Teal')
    const file = join(world.card, 'DCIM/100CURLW/TEAL0001.MP4')
    const before = createHash('sha256').update(readFileSync(file)).digest('hex')
    expect((await station.send('PUT', `/loads/${id}/clock`, { shiftMs: -14_400_000 })).status).toBe(204)
    expect((await world.clips()).map((clip) => clip.recordedAt?.slice(11, 19))).toEqual([
      '09:12:20',
      '09:31:05',
      '11:02:10',
      '12:30:00',
    ])
    expect((await recorded()).slice(0, 4)).toEqual(['CURL0001.MP4', 'TEAL0001.MP4', 'CURL0002.MP4', 'TEAL0002.MP4'])
    expect(await clock('Teal')).toMatchObject({ kind: 'clock-moved', weight: 'note', shiftMs: 0 })
    expect(createHash('sha256').update(readFileSync(file)).digest('hex')).toBe(before)
    // mediainfo of Debian reads the same header.
    const told = execFileSync('mediainfo', ['--Output=General;%Encoded_Date%', file], { encoding: 'utf8' })
    expect(told).toContain('13:12:20')
    film('TEAL', ['17:00:00'], 5)
    await look('Teal')
    expect((await world.clips()).at(-1)?.recordedAt?.slice(11, 19)).toBe('13:00:00')
  })

  it('goes back to what the files say, and is refused what is no shift', async () => {
    const { id } = await load('Teal')
    expect((await station.send('PUT', `/loads/${id}/clock`, { shiftMs: 0.5 })).status).toBe(422)
    expect((await station.send('PUT', `/loads/${id}/clock`, { shiftMs: 1e300 })).status).toBe(422)
    expect((await station.send('PUT', `/loads/${world.productionId}/clock`, { shiftMs: 0 })).status).toBe(404)
    expect((await station.send('PUT', `/loads/${id}/clock`, { shiftMs: 0 })).status).toBe(204)
    expect((await world.clips())[0]?.recordedAt?.slice(11, 19)).toBe('13:12:20')
    expect(await clock('Teal')).toMatchObject({ kind: 'clock-off' })
  })
})

describe('a take that goes on on the next card', () => {
  more('is said of the card on which it goes on', async () => {
    // Two seconds from 18:00:00: the next card begins as it ends.
    film('CURL', ['17:50:00', '18:00:00'])
    await look('Curlew B')
    film('CURL', ['18:00:02', '18:10:00'])
    await look('Curlew C')
    const said = async (label: string) => (await load(label)).findings.find(({ kind }) => kind === 'goes-on')?.sentence
    expect(await said('Curlew C')).toContain('CURL0001.MP4 goes on where CURL0002.MP4 of “Curlew B” ended')
    expect(await said('Curlew B')).toBeUndefined()
    // Both are one take, of which one thing is said; each card counts its own files.
    const review = `/productions/${world.productionId}/review`
    const onTwo = async () =>
      (await station.get<Page<ReviewClip>>(`${review}?limit=50`)).rows.filter(({ loadLabel }) =>
        /Curlew [BC]/.test(loadLabel),
      )
    const told = async () => (await onTwo()).map(({ loadLabel, name, files }) => [loadLabel, name, files.length])
    const joined = [
      ['Curlew B', 'CURL0001.MP4', 1],
      ['Curlew B and Curlew C', 'CURL0002.MP4', 2],
      ['Curlew C', 'CURL0002.MP4', 1],
    ]
    expect(await told()).toEqual(joined)
    expect([(await load('Curlew B')).clips, (await load('Curlew C')).clips]).toEqual([2, 2])
    const before = await station.get<ReviewView>(`${review}/sum`)
    const take = (await onTwo())[1]
    const kept = { verdict: 'keep', ranges: [{ from: 40, to: 60 }], note: '', shotId: null }
    expect((await station.send('PUT', `/clips/${take?.id}/review`, kept)).status).toBe(204)
    expect(await station.get(`${review}/sum`)).toMatchObject({ clips: before.clips, keep: 1, seconds: 0.8 })
    const selects = await station.get<Select[]>(`/productions/${world.productionId}/selects`)
    expect(selects.map(({ load: label, ranges }) => [label, ranges])).toEqual([
      ['Curlew B', [{ from: 40, to: 50 }]],
      ['Curlew C', [{ from: 0, to: 10 }]],
    ])
    // Looked at again it is the same take.
    await look('Curlew C')
    expect(await told()).toEqual(joined)
    expect((await onTwo())[1]?.review).toMatchObject({ verdict: 'keep', ranges: [{ from: 40, to: 60 }] })
    // Once they are no longer one, each card has its own, with what was said of its part; and one again as before.
    const db = await openDatabase(station.databaseUrl)
    await putSeams(db, world.productionId, [])
    expect((await onTwo()).map(({ name, files, review: own }) => [name, files.length, own.ranges])).toEqual([
      ['CURL0001.MP4', 1, []],
      ['CURL0002.MP4', 1, [{ from: 40, to: 50 }]],
      ['CURL0001.MP4', 1, [{ from: 0, to: 10 }]],
      ['CURL0002.MP4', 1, []],
    ])
    expect(await station.get(`${review}/sum`)).toMatchObject({ clips: before.clips + 1, keep: 2, seconds: 0.8 })
    await renewSpans(db, world.productionId)
    await db.destroy()
    expect(await told()).toEqual(joined)
    expect(await station.get(`${review}/sum`)).toMatchObject({ clips: before.clips, keep: 1, seconds: 0.8 })
  })
})
