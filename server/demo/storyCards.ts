import { mkdir, utimes, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { DemoCard } from './cards'
import { addCompanions, makeClip, makeSound, SMALL, time, timesOf, UHD, type ClipPlan } from './film'
import { below, seam } from './garboard'
import { estuary, workshop, type Canvas } from './scene'

/** A card of the production that is being edited, with what makes it, clip by clip. */
export interface StoryCard extends DemoCard {
  readonly clips: readonly { readonly name: string; readonly make: () => Promise<void> }[]
}

const HD = { widthPx: 1920, heightPx: 1080, rate: 25, bitRate: '20M' }

/** The cards of a day in the workshop: main camera, action camera, recorder. `day` begins at midnight, UTC. */
export function storyCards(root: string, day: Date): StoryCard[] {
  const at = timesOf(day)
  const folders = [join(root, 'curlew-c'), join(root, 'plover-c'), join(root, 'field-2')] as const
  return [
    {
      ...{ name: 'Curlew C', folder: folders[0] },
      story: 'The main camera’s card of the garboard: four clips with their camera proxies.',
      clips: MAIN.map(([name, hours, minutes, seconds, paint], place) => ({
        name,
        make: () => filmMain(folders[0], name, { ...(place === 0 ? UHD : HD), ...time(at(hours, minutes), seconds) }, paint), // prettier-ignore
      })),
    },
    {
      ...{ name: 'Plover C', folder: folders[1] },
      story: 'The action camera’s card of the garboard: three clips at 50 frames.',
      clips: ACTION.map(([name, hours, minutes, seconds, paint]) => ({
        name,
        make: () => filmAt(join(folders[1], 'DCIM/100PLOVR'), name, { ...HD, rate: 50, ...time(at(hours, minutes), seconds) }, paint), // prettier-ignore
      })),
    },
    {
      ...{ name: 'Field 2', folder: folders[2] },
      story: 'The second recorder’s takes of the garboard, which nobody has copied yet.',
      clips: SOUND.map(([name, hours, minutes, seconds]) => ({
        name,
        make: () => recordAt(join(folders[2], 'TAKES'), name, seconds, at(hours, minutes)),
      })),
    },
  ]
}

const MAIN = [
  ['C0061', 9, 20, 3, (canvas: Canvas) => seam(canvas, 0.3)],
  ['C0062', 9, 41, 4, (canvas: Canvas) => seam(canvas, 0.62)],
  ['C0063', 10, 15, 3, (canvas: Canvas) => workshop(canvas, 12)],
  ['C0064', 11, 2, 2, (canvas: Canvas) => estuary(canvas, 0.3)],
] as const

const ACTION = [
  ['PLOV0121', 9, 22, 3, (canvas: Canvas) => below(canvas, 0.4)],
  ['PLOV0122', 9, 50, 2, (canvas: Canvas) => below(canvas, 1)],
  ['PLOV0123', 10, 31, 1, (canvas: Canvas) => estuary(canvas, 0.9)],
] as const

const SOUND = [
  ['FLD20001', 9, 20, 12],
  ['FLD20002', 10, 14, 8],
] as const

type Picture = Omit<ClipPlan, 'path' | 'paint'>

/** A clip as a card keeps it: its file is as old as its recording. */
async function filmAt(folder: string, name: string, picture: Picture, paint: ClipPlan['paint']): Promise<void> {
  await mkdir(folder, { recursive: true })
  const path = join(folder, `${name}.MP4`)
  await makeClip({ ...picture, path, paint })
  await utimes(path, picture.recordedAt, picture.recordedAt)
}

/** The main camera writes a proxy, settings and a small picture in folders side by side. */
async function filmMain(card: string, name: string, picture: Picture, paint: ClipPlan['paint']): Promise<void> {
  for (const folder of ['CLIP', 'SUB', 'THUMB']) await mkdir(join(card, folder), { recursive: true })
  await filmAt(join(card, 'CLIP'), name, picture, paint)
  await filmAt(join(card, 'SUB'), `${name}S03`, { ...picture, ...SMALL, rate: picture.rate, bitRate: '1500k' }, paint)
  await addCompanions(card, name, picture.recordedAt)
}

async function recordAt(folder: string, name: string, seconds: number, recordedAt: Date): Promise<void> {
  await mkdir(folder, { recursive: true })
  const path = join(folder, `${name}.WAV`)
  await makeSound(path, seconds, recordedAt)
  await writeFile(join(folder, `${name}.TXT`), 'gain 32\nlow cut 80\n')
  for (const file of [path, join(folder, `${name}.TXT`)]) await utimes(file, recordedAt, recordedAt)
}
