import { execFileSync } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { LoadView } from '../../contract/cards'
import type { Page } from '../../contract/page'
import type { ReviewClip } from '../../contract/review'
import type { RigsView } from '../../contract/rigs'
import type { ReviewSum } from '../../core/cards/review/review'
import { isLong } from '../long'
import { startStation, type Station } from './station'
import { args } from '../args'

let station: Station
let productionId: string
beforeAll(async () => {
  station = await startStation()
  productionId = String((await station.post('/productions', { title: 'The pole at low water' })).body.id)
})
afterAll(() => station.stop())

const readers = new Map<number, string>()
const cardOf = (lens: number) => join(station.root, `lens ${lens}`)

/** A take of so many seconds on the card of a lens, from Debian’s ffmpeg; no two lenses see the same. */
function film(lens: number, number: number, seconds: number): void {
  const folder = join(cardOf(lens), 'DCIM/100POLES')
  mkdirSync(folder, { recursive: true })
  const source = `testsrc2=s=160x90:r=25:d=${seconds + lens * 0.04},hue=h=${lens * 40}`
  execFileSync('ffmpeg', [
    ...[...args('-v error -y -f lavfi -i'), source, ...args('-c:v libx264 -preset ultrafast -pix_fmt yuv420p')],
    join(folder, `POLE000${number}.MP4`),
  ])
}

async function look(lens: number): Promise<void> {
  if (!readers.has(lens))
    readers.set(
      lens,
      String((await station.post('/readers', { name: `lens ${lens}`, path: cardOf(lens), sure: true })).body.id),
    )
  const task = await station.task(`/readers/${readers.get(lens) ?? ''}/scan`, { productionId, label: `Lens ${lens}` })
  expect(task.state).toBe('done')
}

const rigs = () => station.get<RigsView>(`/productions/${productionId}/rigs`)
const loads = async () => (await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)).rows
const odd = async () =>
  (await loads()).flatMap((load) =>
    load.findings.filter((one) => one.kind === 'rig').map((one) => [load.label, one.sentence]),
  )
const review = async () => (await station.get<Page<ReviewClip>>(`/productions/${productionId}/review`)).rows
const TAKES = [2, 5, 9] as const
const LENSES = isLong ? [1, 2, 3, 4, 5, 6] : [1, 2, 3, 4]

describe(`a rig of ${LENSES.length} cards`, () => {
  it('is proposed when its cards filmed the same takes, and tied by a person', async () => {
    for (const lens of LENSES) for (const [at, seconds] of TAKES.entries()) film(lens, at + 1, seconds)
    for (const lens of LENSES) await look(lens)
    const { proposed } = await rigs()
    expect(proposed.map((card) => card.label)).toEqual(LENSES.map((lens) => `Lens ${lens}`))
    const loadIds = proposed.map((card) => card.loadId)
    expect((await station.post(`/productions/${productionId}/rigs`, { name: 'Pole', loadIds })).status).toBe(204)
    expect(await rigs()).toMatchObject({
      rigs: [
        {
          name: 'Pole',
          sentence: expect.stringMatching(
            new RegExp(`^“Pole”: ${LENSES.length} cards, 3 takes on each, of equal length within 0[.][12]\\d? s[.]$`),
          ),
        },
      ],
      proposed: [],
      loose: [],
    })
    expect(await odd()).toEqual([])
  })

  it('is one row for all lenses in review, and what is said of it is said of all', async () => {
    const rows = await review()
    expect(rows.map((row) => [row.name, row.loadLabel, row.lenses])).toEqual(
      [1, 2, 3].map((take) => [`POLE000${take}.MP4`, 'Lens 1', LENSES.length]),
    )
    const said = { verdict: 'keep', ranges: [{ from: 0, to: rows[0]?.length ?? 0 }], note: 'low water', shotId: null }
    expect((await station.send('PUT', `/clips/${rows[0]?.id ?? ''}/review`, said)).status).toBe(204)
    const sum = await station.get<ReviewSum>(`/productions/${productionId}/review/sum`)
    expect(sum).toMatchObject({ clips: 3, keep: 1 })
    // The selects hold every lens: whoever joins them needs all of them.
    const selects = await station.get<{ load: string; note: string }[]>(`/productions/${productionId}/selects`)
    expect(selects.map((one) => [one.load, one.note]).sort()).toEqual(
      LENSES.map((lens) => [`Lens ${lens}`, 'low water']),
    )
  })

  it('names the odd lens when a card turns out to be another one', async () => {
    execFileSync('rm', [join(cardOf(4), 'DCIM/100POLES/POLE0002.MP4')])
    film(2, 3, 4)
    for (const lens of [2, 4]) await look(lens)
    const [rig] = (await rigs()).rigs
    expect(rig?.cards.filter((card) => card.isOdd).map((card) => card.label)).toEqual(['Lens 2', 'Lens 4'])
    expect(await odd()).toEqual([
      ['Lens 4', expect.stringContaining('nothing beside POLE0002.MP4')],
      ['Lens 2', expect.stringContaining('s shorter than on the others')],
    ])
  })

  it('refuses what is no rig, and is untied without a trace', async () => {
    const tie = (body: object) => station.post(`/productions/${productionId}/rigs`, body)
    const [rig] = (await rigs()).rigs
    const loadIds = rig?.cards.map((card) => card.loadId) ?? []
    expect((await tie({ name: 'Pole', loadIds })).status).toBe(422)
    expect((await tie({ name: 'Second', loadIds })).status).toBe(409)
    expect((await tie({ name: 'Second', loadIds: loadIds.slice(0, 1) })).status).toBe(422)
    expect((await tie({ name: 'Second', loadIds: [loadIds[0], loadIds[0]] })).status).toBe(422)
    expect((await rigs()).rigs.map((one) => one.name)).toEqual(['Pole'])
    const untied = await fetch(`${station.base}/rigs/${rig?.id ?? ''}`, {
      method: 'DELETE',
      headers: { 'Content-Type': 'application/json' },
      body: '{}',
    })
    expect(untied.status).toBe(204)
    expect([await odd(), (await review()).length]).toEqual([[], LENSES.length * TAKES.length - 1])
    // They still are alike, the odd ones with them; a person may say that they are none.
    const { proposed } = await rigs()
    expect(proposed.map((card) => card.label)).toEqual(LENSES.map((lens) => `Lens ${lens}`))
    await station.post(`/productions/${productionId}/no-rig`, { loadIds: proposed.map((card) => card.loadId) })
    expect((await rigs()).proposed).toEqual([])
  })
})
