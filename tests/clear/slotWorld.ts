import { closeSync, copyFileSync, mkdirSync, openSync, statSync, utimesSync, writeFileSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { expect } from 'vitest'
import { filledImage, loopDrive, Slot } from './mounts'
import { newWorld, ownClip, type Station, type World } from './station'

export const CLIPS = ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4', 'CURL0044.MP4'] as const
export const FILMED_AT = new Date('2026-11-14T10:00:00Z')
export const reasonsOf = async (world: World) => {
  const { clear } = await world.copies()
  return [clear.sentence, ...clear.reasons.map((reason) => reason.sentence)].join('\n')
}

export async function expectNotClear(world: World, words: RegExp): Promise<void> {
  const { clear } = await world.copies()
  expect(clear.clear, clear.sentence).toBe(false)
  expect([clear.sentence, ...clear.reasons.map((reason) => reason.sentence)].join('\n')).toMatch(words)
  expect((await world.formatted()).status).toBe(409)
}

let drives = 0
/** Two ext4 drives of their own. */
export const twoDrives = (station: Station): [string, string] => {
  drives += 2
  return [loopDrive(station.root, `drive ${drives - 1}`), loopDrive(station.root, `drive ${drives}`)]
}

/** Clips long enough to have a middle that no sample of their ends reaches. */
export function film(root: string, middle: string, middleBytes = 3_000_000): void {
  const folder = join(root, 'DCIM/100CURLW')
  mkdirSync(folder, { recursive: true })
  for (const name of CLIPS) {
    // A box of free space (ISO/IEC 14496-12, 8.1.2) as a middle that no program reads.
    const box = Buffer.alloc(middleBytes, `${middle} ${name}`)
    box.writeUInt32BE(box.length)
    box.write('free', 4, 'latin1')
    const clip = ownClip(`${middle} ${name}`)
    writeFileSync(join(folder, name), Buffer.concat([clip, box]))
    utimesSync(join(folder, name), FILMED_AT, FILMED_AT)
  }
}

/**
 * The same card once more, sector by sector, and other bytes in the middle of every clip: same names, sizes, times,
 * ends and ids.
 */
function otherCard(root: string, image: string): string {
  const other = `${image} other`
  copyFileSync(image, other)
  const slot = new Slot(join(root, 'other filling'), other)
  for (const name of CLIPS) {
    const path = join(root, 'other filling/DCIM/100CURLW', name)
    const { size } = statSync(path)
    const file = openSync(path, 'r+')
    // All but the ends, so that a draw hardly misses it.
    writeSync(file, Buffer.alloc(2_920_000, 0x5a), 0, undefined, size - 73_728 - 2_920_000)
    closeSync(file)
    utimesSync(path, FILMED_AT, FILMED_AT)
  }
  slot.end()
  return other
}

export interface SlotWorld extends World {
  readonly slot: Slot
  /** The card itself, and another one that looks alike. */
  readonly image: string
  readonly other: string
}

let slots = 0
/** A card in a slot, looked at and copied to two drives of their own. */
export async function slotWorld(station: Station): Promise<SlotWorld> {
  slots += 1
  const image = filledImage(station.root, `card ${slots}`, (at) => film(at, `ribs ${slots}`))
  const other = otherCard(station.root, image)
  const at = join(station.root, `slot ${slots}`)
  const slot = new Slot(at, image)
  const world = await newWorld(station, [], twoDrives(station), at)
  return { ...world, slot, image, other }
}

/** Looked at, copied and played: clear to format. */
export async function cleared<W extends World>(world: W): Promise<W> {
  await world.look()
  await world.copy()
  await world.play()
  const { clear } = await world.copies()
  expect(clear.clear, clear.sentence).toBe(true)
  return world
}
