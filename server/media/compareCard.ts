import { randomUUID } from 'node:crypto'
import { comparedPlace, COMPARED_BYTES, type Compared } from '../../core/cards/load/stay'
import { chanceOf } from '../../core/units/digest'
import type { Db } from '../db/connection'
import { addComparison, comparableClips, differencesFrom, type ComparableClip } from '../db/queries/stays'
import { volumes } from '../db/queries/volumes'
import { alignedBlocks, itemAt } from '../engine/medium/blocks'
import { joinPath, type Medium } from '../engine/medium/medium'
import { sampleHash } from '../engine/copy/sample'
import { volumeMedium } from './mediumOf'

/** Which card is compared with which load. */
export interface ComparedCard {
  readonly medium: Medium
  readonly stayId: string
  readonly loadId: string
  /** Of what it lists. */
  readonly print: string
}

interface Holder {
  readonly name: string
  readonly medium: Medium
}

/**
 * Compares a card with what is known of a load at one newly drawn place in every clip, and at the places where a card
 * was found to differ before: with a proved copy that is connected, else with the ends that were read at the first
 * scan. Writes down what came of it.
 */
export async function compareCard(db: Db, host: string, card: ComparedCard): Promise<Compared> {
  const seed = randomUUID()
  const drawn = await comparableClips(db, host, card.loadId, 'drawn')
  const before = await differencesFrom(db, card.loadId)
  const again = await comparableClips(
    db,
    host,
    card.loadId,
    before.flatMap(({ paths }) => paths),
  )
  const holders = await connectedHolders(db, host, [...drawn, ...again])
  const placeIn = ({ sizeBytes, pathText }: ComparableClip, seed: string) =>
    comparedPlace(sizeBytes, chanceOf(seed, pathText))
  const blocks = alignedBlocks(2, COMPARED_BYTES)
  const [names, differing] = [new Set<string>(), [] as string[]]
  const count = { compared: 0, withCopies: 0, unreadable: 0 }
  // Where nothing on a card is a clip, all its files stand for them.
  const clips = drawn.filter((file) => file.isClip)
  const counted = clips.length > 0 ? clips : drawn
  const counts = new Set(counted.map((file) => file.entryId))
  for (const file of drawn) {
    // Nothing is read that could be compared with nothing: at a first scan that is every file of the card.
    if (file.ends === null && !(file.holders ?? []).some(({ volumeId }) => holders.has(volumeId))) continue
    const isCounted = Number(counts.has(file.entryId))
    const position = placeIn(file, seed)
    const there = await pieceAt(card.medium, file.path, position, itemAt(blocks, 0))
    if (there === undefined) {
      count.unreadable += isCounted
      continue
    }
    const found = await equalInCopy(file, position, there, itemAt(blocks, 1), holders)
    const equal = found?.equal ?? (await hasKnownEnds(card.medium, file))
    if (equal === undefined) continue
    count.compared += isCounted
    if (found) {
      count.withCopies += isCounted
      names.add(found.name)
    }
    if (!equal) differing.push(file.pathText)
  }
  // Another card that differs in few places would be drawn for the right one sooner or later.
  const unlike = new Set(differing)
  const byPath = new Map(again.map((file) => [file.pathText, file]))
  for (const { seed: then, stayId, paths } of before) {
    for (const pathText of paths) {
      const file = byPath.get(pathText)
      if (!file || unlike.has(pathText)) continue
      const position = placeIn(file, then)
      const there = await pieceAt(card.medium, file.path, position, itemAt(blocks, 0))
      // What was taken off a card does not make it another one.
      const equal = there
        ? (await equalInCopy(file, position, there, itemAt(blocks, 1), holders))?.equal
        : stayId !== card.stayId
      if (equal === false) unlike.add(pathText)
    }
  }
  const compared = { how: 'places', clips: counted.length, ...count, differing: unlike.size } as const
  const volumeNames = [...names].sort()
  const { stayId, loadId, print } = card
  await addComparison(db, { ...compared, volumeNames, stayId, loadId, print, paths: differing.slice(0, 20), seed })
  return { ...compared, volumeNames }
}

/**
 * A card may be taken for the one that was copied: everything that could be compared was equal, and something could.
 */
export const isBorneOut = ({ compared, differing }: Compared): boolean => compared > 0 && differing === 0

/** Every clip that was compared was compared with a proved copy. */
export const isWithCopies = ({ compared, withCopies }: Compared): boolean => compared > 0 && withCopies === compared

async function connectedHolders(
  db: Db,
  host: string,
  files: readonly ComparableClip[],
): Promise<ReadonlyMap<string, Holder>> {
  const wanted = new Set(files.flatMap((file) => (file.holders ?? []).map((holder) => holder.volumeId)))
  const found = new Map<string, Holder>()
  for (const row of await volumes(db, host)) {
    if (!wanted.has(row.id)) continue
    const medium = await volumeMedium(db, row).catch(() => undefined)
    if (medium) found.set(row.id, { name: row.name, medium })
  }
  return found
}

async function pieceAt(
  medium: Medium,
  path: Buffer,
  position: number,
  block: Uint8Array,
): Promise<Uint8Array | undefined> {
  const file = await medium.open(path).catch(() => undefined)
  if (!file) return undefined
  try {
    return block.subarray(0, await file.read(block, position))
  } catch {
    return undefined
  } finally {
    await file.close().catch(() => undefined)
  }
}

/** Compares with the copies that can be read there: one that is equal is enough, since another may be rotten. */
async function equalInCopy(
  file: ComparableClip,
  position: number,
  there: Uint8Array,
  block: Uint8Array,
  holders: ReadonlyMap<string, Holder>,
): Promise<{ readonly equal: boolean; readonly name: string } | undefined> {
  let unlike: { readonly equal: false; readonly name: string } | undefined
  for (const { volumeId, folder } of file.holders ?? []) {
    const holder = holders.get(volumeId)
    const path = joinPath(Buffer.from(folder), file.path)
    const copied = holder && (await pieceAt(holder.medium, path, position, block))
    if (!holder || !copied) continue
    if (Buffer.compare(there, copied) === 0) return { equal: true, name: holder.name }
    unlike ??= { equal: false, name: holder.name }
  }
  return unlike
}

/** `undefined` where no ends are known. */
async function hasKnownEnds(medium: Medium, { path, sizeBytes, ends }: ComparableClip): Promise<boolean | undefined> {
  if (ends === null) return undefined
  const now = await sampleHash(medium, path, sizeBytes).catch(() => undefined)
  return now === undefined ? undefined : now === ends
}
