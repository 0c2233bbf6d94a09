import type { CameraBody, ModeFigures } from '../../contract/gear'
import type { Db } from '../db/connection'
import { addCamera, addCard, addMode } from '../db/queries/gear'
import { addOffload } from '../db/queries/measured'
import { production } from '../db/queries/productions'
import { addShots, putDay, putPlan } from '../db/queries/shoot'
import { STORY } from './storyNames'
import { frameRate } from '../../core/units/frameRate'

const camera = (name: string, more: Partial<CameraBody> = {}): CameraBody => ({
  name,
  kind: 'camera',
  media: 'cards',
  internalBytes: 0,
  slots: 1,
  spans: true,
  batteryMinutes: 0,
  ...more,
})

const film = (
  widthPx: number,
  heightPx: number,
  rate: number,
  codec: string,
  megabits: number,
  more: { bitDepth?: number; chroma?: '4:2:0' | '4:2:2'; proxy?: number } = {},
): ModeFigures => ({
  picture: {
    ...{ widthPx, heightPx, rate: frameRate(rate), codec },
    bitDepth: more.bitDepth ?? 8,
    chroma: more.chroma ?? '4:2:0',
    coding: { kind: 'coded', bitsPerSecond: megabits * 1e6 },
  },
  audioBitsPerSecond: 256_000,
  proxyBitsPerSecond: (more.proxy ?? 0) * 1e6,
  proxyFrame: more.proxy ? { widthPx: 1280, heightPx: 720 } : undefined,
  measuredBitsPerSecond: undefined,
})

const RAW: ModeFigures = {
  picture: {
    ...{ widthPx: 3840, heightPx: 2160, rate: frameRate(25), codec: 'raw frames' },
    ...{ bitDepth: 12, chroma: 'one sample a pixel' },
    coding: { kind: 'raw', bitsPerSample: 12, headerBytes: 0 },
  },
  audioBitsPerSecond: 0,
  proxyBitsPerSecond: 0,
  measuredBitsPerSecond: undefined,
}

const SOUND: ModeFigures = {
  picture: undefined,
  audioBitsPerSecond: 2 * 48_000 * 24,
  proxyBitsPerSecond: 0,
  measuredBitsPerSecond: undefined,
}

const CAMERAS: readonly (readonly [CameraBody, readonly (readonly [string, ModeFigures])[]])[] = [
  [
    camera('Curlew', { slots: 2, batteryMinutes: 95 }),
    [
      ['UHD 25p', film(3840, 2160, 25, 'H.264', 100)],
      ['UHD 50p, 10 bit', film(3840, 2160, 50, 'H.265', 200, { bitDepth: 10, chroma: '4:2:2', proxy: 6 })],
      ['HD 25p', film(1920, 1080, 25, 'H.264', 50)],
    ],
  ],
  [camera('Plover', { batteryMinutes: 70 }), [['2.7K 100p', film(2704, 1520, 100, 'H.264', 60)]]],
  [camera('Heron', { spans: false, batteryMinutes: 45 }), [['Raw UHD 25p', RAW]]],
  [
    camera('Teal', { kind: 'phone', media: 'internal', internalBytes: 128e9 }),
    [['HD 30p', film(1920, 1080, 30, 'H.265', 17)]],
  ],
  [camera('Field 1', { kind: 'recorder', batteryMinutes: 480 }), [['Stereo, 24 bit', SOUND]]],
  [camera('Field 2', { kind: 'recorder', batteryMinutes: 480 }), [['Stereo, 24 bit', SOUND]]],
]

/** Name, GB, MB/s. */
const CARDS: readonly (readonly [string, number, number])[] = [
  ['Curlew A', 128, 60],
  ['Curlew B', 128, 60],
  ['Plover A', 64, 30],
  ['Plover B', 64, 30],
  ['Heron 1', 512, 450],
  ['Heron 2', 512, 450],
  ['Reed 1', 256, 90],
  ['Reed 2', 256, 90],
  ['Sedge 1', 64, 30],
  ['Sedge 2', 64, 30],
  ['Field A', 32, 10],
  ['Field B', 32, 10],
  ['Field C', 32, 10],
  ['Field D', 32, 10],
]

/** Cards that only the story has. */
const STORY_CARDS: typeof CARDS = [
  ['Curlew C', 128, 60],
  ['Plover C', 64, 30],
]

/** Production, camera, mode, seconds of a take, takes, cards. */
const PLANS: readonly (readonly [string, string, string, number, number, readonly string[]])[] = [
  ['Steam-bending ribs', 'Curlew', 'UHD 25p', 720, 7, ['Curlew A', 'Reed 2']],
  // One card is too slow and two are too few: what the first shoot of the demo is about.
  ['Launch day', 'Curlew', 'UHD 25p', 1500, 6, ['Curlew B']],
  ['Launch day', 'Plover', '2.7K 100p', 600, 8, ['Plover A', 'Plover B']],
  ['Launch day', 'Heron', 'Raw UHD 25p', 45, 5, ['Heron 1', 'Reed 1']],
  ['Launch day', 'Field 1', 'Stereo, 24 bit', 5400, 2, ['Field A', 'Field B']],
  ['Launch day', 'Field 2', 'Stereo, 24 bit', 5400, 2, ['Field C', 'Field D']],
  ['Sail loft', 'Curlew', 'UHD 25p', 1800, 6, []],
  [STORY.title, 'Curlew', 'HD 25p', 300, 4, ['Curlew C']],
  [STORY.title, 'Plover', '2.7K 100p', 120, 3, ['Plover C']],
]

/** Name, camera, for where, note, time of the day when it was filmed. */
const STORY_SHOTS = [
  ['Garboard, first seam', 'Curlew', ['wide-watch'], 'Hands and iron, close.', '09:20'],
  ['Garboard, cotton in', 'Curlew', ['wide-watch', 'tall-short'], '', '09:41'],
  ['Mallet from below', 'Plover', ['tall-short'], 'From under the hull.', '09:22'],
  ['Whole hull from the door', 'Curlew', ['wide-watch'], 'When the light comes round.', undefined],
] as const

const STORY_CALLS = [
  { at: '09:00', what: 'First seam', minutes: 60 },
  { at: '10:00', what: 'Second seam', minutes: 60 },
  { at: '11:00', what: 'Wide, from the door', minutes: 20 },
]

const SHOTS = [
  ['Tide gauge, water coming in', 'Heron', ['wide-watch'], 'Before six, tripod on the hard.'],
  ['Hull leaves the shed', 'Curlew', ['wide-watch', 'tall-short'], 'Wide, subject in the middle third.'],
  ['Rollers under the keel', 'Plover', ['tall-short'], 'Slow, from the ground.'],
  ['Down the slip, pass 1 of 3', 'Curlew', ['wide-watch', 'square-feed'], ''],
  ['Down the slip, pass 2 of 3', 'Curlew', ['wide-watch', 'square-feed'], 'From the water.'],
  ['Down the slip, pass 3 of 3', 'Curlew', ['wide-watch', 'square-feed'], 'Close on the stem.'],
  ['Planks taking up', 'Plover', ['tall-short'], 'Bilge, with the lamp.'],
  ['First sail up', 'Curlew', ['wide-watch', 'tall-short', 'portrait-feed'], 'Ask the club for the launch.'],
  ['Fire on the hard', 'Heron', ['wide-watch'], 'Late; keep clear of the spirits.'],
] as const

const CALLS = [
  { at: '05:40', what: 'Low water, first light', minutes: 50 },
  { at: '07:30', what: 'Hull out of the shed', minutes: 75 },
  { at: '10:15', what: 'High water, down the slip', minutes: 90 },
  { at: '14:00', what: 'First sail', minutes: 120 },
  { at: '23:30', what: 'Fire on the hard', minutes: 45 },
]

/** What was filmed for a finished production, from the records: label, minutes and GB of Curlew’s UHD 25p. */
const RECORDED = [
  ['Curlew A', 118, 96.1],
  ['Curlew B', 104, 85.2],
  ['Curlew A (2)', 122, 99.4],
  ['Curlew C', 31, 16.4],
] as const

/** Cards that were emptied: label, GB, seconds, GB after export. */
const EMPTIED = [
  ['Curlew A', 96.1, 1890, undefined],
  ['Curlew B', 85.2, 1702, undefined],
  ['Curlew A (2)', 99.4, 1921, undefined],
  ['Heron 1', 511, undefined, 1004],
  ['Heron 2', 437, undefined, 849],
] as const

async function addThings(db: Db, cards: typeof CARDS) {
  const [cameraIds, modeIds, cardIds] = [
    new Map<string, string>(),
    new Map<string, string>(),
    new Map<string, string>(),
  ]
  for (const [body, modes] of CAMERAS) {
    const { id } = await addCamera(db, body)
    cameraIds.set(body.name, id)
    for (const [name, figures] of modes) modeIds.set(`${body.name} ${name}`, (await addMode(db, id, name, figures)).id)
  }
  for (const [name, gigabytes, megabytes] of cards) {
    const card = { name, capacityBytes: gigabytes * 1e9, bytesPerSecond: megabytes * 1e6 }
    cardIds.set(name, (await addCard(db, card)).id)
  }
  const of = (ids: ReadonlyMap<string, string>) => (name: string) => ids.get(name) ?? ''
  return { cameraOf: of(cameraIds), modeOf: of(modeIds), cardOf: of(cardIds) }
}

/**
 * The gear book, plans, a shot list with its day, and figures of a finished production. `day` is that of the next
 * shoot.
 */
export async function addGear(db: Db, productions: ReadonlyMap<string, string>, day: string): Promise<void> {
  const story = productions.get(STORY.title)
  const allCards = story === undefined ? CARDS : [...CARDS, ...STORY_CARDS]
  const { cameraOf, modeOf, cardOf } = await addThings(db, allCards)
  for (const [title, productionId] of productions) {
    const rows = PLANS.filter(([of]) => of === title)
    if (rows.length === 0) continue
    await putPlan(db, productionId, {
      version: 0,
      takes: rows.map(([, name, mode, secondsPerTake, takes]) => ({
        ...{ cameraId: cameraOf(name), modeId: modeOf(`${name} ${mode}`) },
        ...{ secondsPerTake, takes, angles: 1, factor: 1.2 },
      })),
      cameras: rows.map(([, name, , , , cards]) => ({
        cameraId: cameraOf(name),
        bothSlots: false,
        cardBytes: (allCards.find(([card]) => card === cards[0])?.[1] ?? 128) * 1e9,
        cardBytesPerSecond: (allCards.find(([card]) => card === cards[0])?.[2] ?? 60) * 1e6,
        cardIds: cards.map(cardOf),
      })),
    })
  }
  const launch = productions.get('Launch day') ?? ''
  await addShots(
    db,
    launch,
    SHOTS.map(([name, of, deliverables, notes]) => ({
      ...{ name, cameraId: cameraOf(of), deliverables: [...deliverables], notes, filmedAt: null },
    })),
  )
  await putDay(db, launch, {
    shootOn: day,
    timeZone: 'UTC',
    place: 'Saltmarsh Bench, the hard below the shed',
    calls: CALLS,
  })
  await addBooks(db, productions.get('Sail loft') ?? '', cameraOf('Curlew'))
  if (story !== undefined) await addStory(db, story, cameraOf)
}

async function addBooks(db: Db, productionId: string, cameraId: string): Promise<void> {
  await db
    .insertInto('recorded')
    .values(
      RECORDED.map(([label, minutes, gigabytes]) => ({
        ...{ productionId, cameraId, loadId: null, label },
        ...{ widthPx: 3840, heightPx: 2160, rate: '25/1', codec: 'h264', clips: 9 },
        ...{ sizeBytes: Math.round(gigabytes * 1e9), seconds: minutes * 60 },
      })),
    )
    .execute()
  for (const [label, gigabytes, seconds, exported] of EMPTIED)
    await addOffload(db, {
      ...{ productionId, loadId: null, cameraId: null, label },
      ...{
        sizeBytes: Math.round(gigabytes * 1e9),
        seconds: seconds ?? null,
        exportedBytes: exported ? Math.round(exported * 1e9) : null,
      },
    })
}

/** What was planned for the production that is being edited. */
async function addStory(db: Db, productionId: string, cameraOf: (name: string) => string): Promise<void> {
  const row = await production(db, productionId)
  const shootOn = row?.shootOn ?? ''
  await addShots(
    db,
    productionId,
    STORY_SHOTS.map(([name, of, deliverables, notes, at]) => ({
      ...{ name, cameraId: cameraOf(of), deliverables: [...deliverables], notes },
      filmedAt: at === undefined ? null : `${shootOn}T${at}:00.000Z`,
    })),
  )
  const place = 'Saltmarsh Bench, workshop'
  await putDay(db, productionId, { shootOn, timeZone: 'UTC', place, calls: STORY_CALLS })
}
