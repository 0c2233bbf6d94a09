import { mkdir, writeFile } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { companionsOf } from '../../../../core/cards/files/clips'
import { frameRuns } from '../../../../core/cards/files/frameRuns'
import { printablePath } from '../../../../core/copies/pathText'
import { FACTS_VERSION, type MediaFacts, type VideoTrack } from '../../../../core/media/facts'
import { isMediaName } from '../../../../core/media/mediaName'
import * as cards from '../../../db/queries/cards'
import { plannedRawRate } from '../../../db/queries/takes'
import { tellChanged } from '../../../db/queries/tasks'
import { proxyOf, setProxyState } from '../../../db/queries/proxies'
import { inLanes } from '../../../engine/medium/lanes'
import type { Medium } from '../../../engine/medium/medium'
import { nameOf, type TreeEntry } from '../../../engine/medium/medium'
import { proxyChecks } from '../../../facts/proxies'
import { picturesFolder } from '../../../home'
import { fullPath } from '../../../media/mediumOf'
import type { Listing } from '../../../media/listing'
import type { Work } from '../../work'
import { scanClip, pictureOf, type SeenClip } from './scanClip'
import { scanRun, type WalkedRun } from './scanRun'
import { isUnmeasured } from '../measure'

/** A file of the card by its printable path, with its entry. */
export interface CardFile {
  readonly path: string
  readonly sizeBytes: number
  readonly modifiedMs: number
  readonly entry: TreeEntry
}

/** A card's files by what they are: media, runs of frames, and what lies beside them. */
export interface SortedFiles {
  readonly media: readonly CardFile[]
  readonly runs: readonly WalkedRun[]
  readonly beside: ReadonlyMap<string, readonly CardFile[]>
  /** How many files are neither media nor frames. */
  readonly others: number
}

/** `byContent` are paths of files that are media though their names do not say so. */
export function sortedFiles(listing: Listing, byContent: ReadonlySet<string>): SortedFiles {
  const files = listing.walked.flatMap((entry): CardFile[] =>
    entry.kind === 'file'
      ? [{ path: printablePath(entry.path), sizeBytes: entry.sizeBytes, modifiedMs: entry.modifiedMs, entry }]
      : [],
  )
  const runs = frameRuns(files)
  const frames = new Set(runs.flatMap((run) => run.frames))
  // Those with the name of a clip first: what lies beside goes with them.
  const media = [...files.filter(({ path }) => isMediaName(path)), ...files.filter(({ path }) => byContent.has(path))]
  const known = new Set(media)
  const others = files.filter((file) => !frames.has(file) && !known.has(file))
  const beside = companionsOf([...media, ...runs.flatMap((run) => run.frames[0] ?? [])], others)
  return { media, runs, beside, others: others.length }
}

/** Programs that read clips side by side: as many as there are processors, while a card can only be read so fast. */
const LANES = [...Array(Math.min(4, availableParallelism())).keys()]

interface Scanned {
  readonly load: { readonly id: string; readonly productionId: string }
  readonly medium: Medium
  readonly rows: ReadonlyMap<string, cards.EntryRow>
  readonly files: SortedFiles
}

/**
 * Reads every clip that is not known well already: first what all of them are, so that the table is there soon, then a
 * picture of each. Returns how many are in trouble, and how many are still to be measured.
 */
export async function scanAll(
  work: Work,
  { load, medium, rows, files: { media, runs, beside } }: Scanned,
): Promise<{ troubled: number; unmeasured: number }> {
  const { db, control, progress } = work
  const before = new Map((await cards.clipsBefore(db, load.id)).map((clip) => [clip.entryId, clip]))
  const total = media.length + runs.length
  const seen = { troubled: 0, unmeasured: 0 }
  const unpictured: { id: string; path: Buffer; video: VideoTrack }[] = []
  let done = 0
  const scanOne = async (file: CardFile, sizeBytes: number, look: () => Promise<SeenClip>) => {
    await control.gate()
    progress.set({ done, total, unit: 'files' })
    done += 1
    const row = rows.get(file.path)
    if (!row) return
    const earlier = before.get(row.id)
    if (earlier && earlier.sizeBytes === sizeBytes && isKnownWell(earlier)) {
      if (earlier.unmeasured) seen.unmeasured += 1
      return
    }
    const clip = await look()
    if (clip.trouble !== undefined || clip.cut !== undefined) seen.troubled += 1
    if (isUnmeasured(clip.probe)) seen.unmeasured += 1
    const { picture, ...read } = clip
    const { id } = await cards.putClip(db, {
      ...{ loadId: load.id, productionId: load.productionId, entryId: row.id, pathText: row.pathText },
      ...{ name: printablePath(nameOf(file.entry.path)), sizeBytes, ...read },
      pictureMade: picture !== undefined || earlier?.pictureMade === true,
    })
    if (picture) await keepPicture(id, picture)
    else if (clip.probe?.video && !clip.probe.sequence)
      unpictured.push({ id, path: fullPath(medium, file.entry.path), video: clip.probe.video })
    // A clip that is met for the first time has no proxy yet.
    if (clip.probe && earlier) await judgeProxy(db, id, clip.probe)
  }
  await inLanes(media, LANES, async (file) => {
    const sidecars = (beside.get(file.path) ?? []).map(({ entry }) => entry)
    await scanOne(file, file.sizeBytes, () => scanClip(medium, file.entry, sidecars, control))
  })
  const planned = runs.length > 0 ? await plannedRawRate(db, load.productionId) : undefined
  for (const run of runs) {
    const sizeBytes = run.frames.reduce((sum, frame) => sum + frame.sizeBytes, 0)
    const [first] = run.frames
    if (first) await scanOne(first, sizeBytes, () => scanRun(medium, run, planned, control))
  }
  await tellChanged(db, 'cards')
  const pictured = { done: total - unpictured.length, total }
  await inLanes(unpictured, LANES, async ({ id, path, video }) => {
    await control.gate()
    progress.set({ ...pictured, unit: 'files' })
    pictured.done += 1
    const picture = await pictureOf(path, video, control)
    if (!picture) return
    await keepPicture(id, picture)
    await cards.setPictureMade(db, id)
  })
  progress.set({ done: total, total, unit: 'files' })
  return seen
}

/** A proxy that was equal may differ from what a reader knows that sees more, or the other way round. */
async function judgeProxy(db: Work['db'], clipId: string, original: MediaFacts): Promise<void> {
  const kept = await proxyOf(db, clipId)
  if (kept) await setProxyState(db, clipId, proxyChecks(original, { ...kept, madeProbe: kept.probe }).state)
}

type ClipBefore = Awaited<ReturnType<typeof cards.clipsBefore>>[number]

/**
 * Whether a clip lies there as it was, with nothing wrong, and was read by this reader: it is not opened again. A file
 * that was rewritten is another entry.
 */
const isKnownWell = ({ version, trouble, cut, hasPicture, pictureMade }: ClipBefore): boolean =>
  version === FACTS_VERSION && trouble === null && cut === null && (pictureMade || !hasPicture)

async function keepPicture(clipId: string, picture: Buffer): Promise<void> {
  await mkdir(picturesFolder(), { recursive: true })
  await writeFile(join(picturesFolder(), `${clipId}.jpg`), picture)
}
