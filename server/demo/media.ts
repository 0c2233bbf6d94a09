import { cp, mkdir, rm, symlink, truncate, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { demoCards, LENSES, ODD_LENS, RIG_TAKES, type DemoCard } from './cards'
import {
  addCompanions,
  ffmpeg,
  makeClips,
  makeSound,
  sidecar,
  SMALL,
  time,
  timesOf,
  UHD,
  type ClipPlan,
  type TimeOf,
} from './film'
import { Canvas, estuary, workshop } from './scene'

/** A run of numbered frames, of which some are missing. */
async function makeFrames(folder: string, count: number, missing: readonly number[]): Promise<void> {
  await mkdir(folder, { recursive: true })
  const canvas = new Canvas(340, 192)
  estuary(canvas, 0.1)
  await ffmpeg(
    [
      ...['-f', 'image2pipe', '-c:v', 'ppm', '-i', 'pipe:0', '-frames:v', String(count)],
      ...['-vf', `loop=loop=-1:size=1:start=0,setpts=N/(25*TB),crop=320:180:x='(iw-ow)*t/2':y='(ih-oh)/2'`],
      ...['-c:v', 'tiff', '-compression_algo', 'raw', join(folder, 'heron_%06d.tif')],
    ],
    canvas.ppm(),
  )
  for (const number of missing) await rm(join(folder, `heron_${String(number).padStart(6, '0')}.tif`))
}

/** The first card of the demo, the one that lies in the reader tonight. */
export async function makeFirstCard(root: string, day: Date): Promise<DemoCard[]> {
  const [card] = demoCards(root)
  if (!card) return []
  const dcim = join(card.folder, 'DCIM/100CURLW')
  for (const folder of [dcim, join(card.folder, 'MISC')]) await mkdir(folder, { recursive: true })
  await makeClips(workshopClips(timesOf(day), dcim))
  for (const [name, hours, minutes] of WORKSHOP_TAKES)
    await writeFile(join(dcim, `${name}.XML`), sidecar('Curlew', name, timesOf(day)(hours, minutes)))
  await writeFile(join(card.folder, 'MISC/VERSION.TXT'), 'Curlew, card format 2\n')
  return [card]
}

/** The other cards of the bench, for practice; about 50 MB. The first one is there. */
export async function makeOtherCards(root: string, day: Date): Promise<DemoCard[]> {
  const at = timesOf(day)
  const [first, ...cards] = demoCards(root)
  const [plover = '', field = '', odd = '', second = '', heron = '', teal = '', slot = ''] = cards.map(
    (card) => card.folder,
  )
  const [action, phone] = [join(plover, 'DCIM/100PLOVR'), join(teal, 'DCIM/Camera')]
  const poles = LENSES.map((lens) => join(root, `pole-${lens}`, 'DCIM/100POLES'))
  const others = ['CLIP', 'SUB', 'THUMB'].map((name) => join(second, name))
  for (const folder of [action, join(field, 'TAKES'), odd, phone, ...others, ...poles])
    await mkdir(folder, { recursive: true })
  await makeClips([
    ...actionClips(at, action),
    {
      ...SMALL,
      ...time(at(12, 5), 2),
      path: join(odd, 'TAKE0001.MP4'),
      paint: (canvas: Canvas) => estuary(canvas, 0.5),
    },
    ...secondClips(at, second),
    ...rigClips(at, poles),
    ...phoneClips(at, phone),
  ])
  for (const [number, minute] of SECOND_TAKES) await addCompanions(second, `C00${number}`, at(13, minute))
  await makeFrames(join(heron, 'POLE/H0007'), 48, [17, 31])
  await cp(first?.folder ?? '', slot, { recursive: true, preserveTimestamps: true })
  await cutRecording(action)
  for (const [take, seconds] of [[1, 20], [2, 12]] as const) await makeSound(join(field, `TAKES/FLD1000${take}.WAV`), seconds) // prettier-ignore
  await writeFile(join(field, 'SETTINGS.TXT'), 'gain 32\nlow cut 80\n')
  await addOddNames(odd)
  return cards
}

const WORKSHOP_TAKES = [
  ['CURL0041', 9, 12],
  ['CURL0042', 9, 31],
  ['CURL0044', 11, 2],
] as const

const workshopClips = (at: TimeOf, folder: string): ClipPlan[] => [
  {
    ...{ ...UHD, ...time(at(9, 12), 3), path: join(folder, 'CURL0041.MP4') },
    paint: (canvas) => workshop(canvas, 3),
  },
  {
    ...{ ...UHD, ...time(at(9, 31), 2, '10:05'), path: join(folder, 'CURL0042.MP4') },
    paint: (canvas) => workshop(canvas, 8),
  },
  {
    ...{ ...UHD, ...time(at(11, 2), 2, '44:12'), path: join(folder, 'CURL0044.MP4') },
    paint: (canvas) => estuary(canvas, 0.2),
  },
]

const actionClips = (at: TimeOf, folder: string): ClipPlan[] => [
  {
    ...{ widthPx: 2704, heightPx: 1520, rate: 100, bitRate: '60M' },
    ...{ ...time(at(9, 30), 1), path: join(folder, 'PLOV0107.MP4') },
    paint: (canvas) => workshop(canvas, 6),
  },
  {
    ...{ ...SMALL, ...time(at(9, 40), 2), path: join(folder, 'PLOV0108.MP4') },
    paint: (canvas) => estuary(canvas, 0.8),
  },
]

/** The card whose proxies and thumbnails lie in folders side by side. */
const secondClips = (at: TimeOf, card: string): ClipPlan[] =>
  SECOND_TAKES.flatMap(([number, minute, seconds, ribs]): ClipPlan[] => {
    const taken = { ...SMALL, ...time(at(13, minute), seconds), paint: (canvas: Canvas) => workshop(canvas, ribs) }
    const clip = { ...taken, path: join(card, 'CLIP', `C00${number}.MP4`) }
    // High-speed takes have no proxy: the folder beside has a hole there.
    if (number === 52) return [clip]
    const proxy = { widthPx: 320, heightPx: 180, bitRate: '600k' }
    return [clip, { ...taken, ...proxy, path: join(card, 'SUB', `C00${number}S03.MP4`) }]
  })

const SECOND_TAKES = [
  [51, 5, 3, 9],
  [52, 20, 2, 10],
  [53, 44, 4, 11],
] as const

/** The takes of a rig; one lens missed one of them. */
const rigClips = (at: TimeOf, folders: readonly string[]): ClipPlan[] =>
  LENSES.flatMap((lens, place) =>
    RIG_TAKES.filter((_, take) => lens !== ODD_LENS || take !== 1).map(([hour, minute, seconds], number): ClipPlan => ({
      ...{ ...SMALL, ...time(at(hour, minute), seconds) },
      path: join(folders[place] ?? '', `POLE000${number + 1}.MP4`),
      paint: (canvas) => estuary(canvas, 0.15 * (lens + number)),
    })),
  )

/** Held up beside the other cameras, and started with them. */
const phoneClips = (at: TimeOf, folder: string): ClipPlan[] =>
  (
    [
      [13, 12, 0.1],
      [13, 31, 0.3],
      [13, 40, 0.4],
      [15, 2, 0.6],
    ] as const
  ).map(([hour, minute, evening]): ClipPlan => {
    const recordedAt = at(hour, minute)
    const name = recordedAt.toISOString().replace(/[-:]/g, '').replace('T', '_').slice(0, 15)
    return {
      ...{ ...SMALL, seconds: 2, recordedAt, timecode: '00:00:00:00', path: join(folder, `${name}.MP4`) },
      paint: (canvas) => estuary(canvas, evening),
    }
  })

/** A recorder that lost power: the picture is there, the index is not; and a file in which nothing is. */
async function cutRecording(folder: string): Promise<void> {
  const [clip, late] = [join(folder, 'PLOV0108.MP4'), join(folder, 'late.tmp')]
  await ffmpeg(['-i', clip, '-c', 'copy', '-f', 'mp4', late])
  await rm(clip)
  await ffmpeg(['-i', late, '-c', 'copy', '-movflags', '-faststart', clip])
  await rm(late)
  await truncate(clip, 60_000)
  await writeFile(join(folder, 'PLOV0109.MP4'), '')
}

async function addOddNames(card: string): Promise<void> {
  await writeFile(Buffer.from(`${card}/caf\xe9 notes.txt`, 'latin1'), 'a name in an old encoding\n')
  await writeFile(join(card, 'two\nlines.txt'), 'a name with a line end\n')
  await writeFile(join(card, 'empty.wav.txt'), '')
  await symlink('/nowhere/else', join(card, 'shortcut'))
}
