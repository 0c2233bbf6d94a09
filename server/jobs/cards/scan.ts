import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { TaskInput } from '../../../contract/taskKinds'
import { clipFindings } from '../../../core/cards/findings'
import { recogniseLoads } from '../../../core/cards/load'
import { printablePath } from '../../../core/copies/pathText'
import { allPass } from '../../../core/media/check'
import { FACTS_VERSION, type MediaFacts } from '../../../core/media/facts'
import { isMediaName } from '../../../core/media/mediaName'
import { sameFolder } from '../../../core/units/fileTitle'
import { counted, formatBytes } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import { loadsLike } from '../../db/queries/loadsLike'
import { proxyOf, setProxyState } from '../../db/queries/proxies'
import { reader as readerRow } from '../../db/queries/readers'
import { countRecorded } from '../../db/queries/measured'
import { putCardListing } from '../../db/queries/seen'
import type { WalkedEntry } from '../../engine/walk'
import { proxyChecks } from '../../facts/proxies'
import { picturesFolder } from '../../home'
import { CannotWork } from '../../media/cannotWork'
import { CARD_ROOT, listCard, samplesEqual, takeSamples, type Listing } from '../../media/listing'
import { readerContent, type ReaderContent } from '../../media/mediumOf'
import type { Job, NextTask, Work, WorkEnd } from '../work'
import { lookAtClip } from './lookAtClip'
import { isUnmeasured } from './measure'

type ScanInput = TaskInput<'scan'>

/** Looks at a card without writing to it: lists it, knows its load again, reads every clip and takes a picture. */
export const scan: Job<'scan'> = { kind: 'scan', run: runScan }

async function runScan(work: Work, input: ScanInput): Promise<WorkEnd> {
  const { db, control, progress } = work
  const reader = await readerRow(db, input.readerId)
  if (!reader) throw new CannotWork('This reader is no longer registered. Add it again.')
  const content = await readerContent(db, reader)
  if (content === 'empty') throw new CannotWork(`There is no card in ${reader.name}. Put it in and look again.`)
  if (content === 'unreachable') throw new CannotWork(`${reader.name} cannot be reached. Connect it and look again.`)
  const place = await content.medium.place()
  const listing = await listCard(content.medium)
  const load = await settleLoad(work, input, content, listing)
  const rows = new Map((await cards.entriesOf(db, load.id)).map((row) => [row.path.toString('latin1'), row]))
  const files = listing.walked.filter((entry) => entry.kind === 'file')
  const beside = stemsOf(files)
  const clips = files.filter((file) => isMediaName(printablePath(file.name)))
  const before = new Map((await cards.clipsBefore(db, load.id)).map((clip) => [clip.entryId, clip]))
  let troubled = 0
  let unmeasured = 0
  for (const [at, file] of clips.entries()) {
    await control.gate()
    progress.set({ done: at, total: clips.length, unit: 'files' })
    const row = rows.get(file.path.toString('latin1'))
    if (!row) continue
    const sidecars = (beside.get(stemOf(file)) ?? []).filter(
      (one) => one !== file && !isMediaName(printablePath(one.name)),
    )
    const sidecarIds = sidecars.flatMap((one) => rows.get(one.path.toString('latin1'))?.id ?? [])
    const earlier = before.get(row.id)
    if (earlier && isKnownWell(earlier)) {
      if (earlier.unmeasured) unmeasured += 1
      await cards.keepClip(db, { ...earlier, sidecarIds })
      continue
    }
    const seen = await lookAtClip(content.medium, file, sidecars, control)
    if (seen.trouble !== undefined || seen.cut !== undefined) troubled += 1
    if (isUnmeasured(seen.probe)) unmeasured += 1
    const { id } = await cards.putClip(db, {
      loadId: load.id,
      productionId: load.productionId,
      entryId: row.id,
      pathText: row.pathText,
      name: printablePath(file.name),
      sizeBytes: file.sizeBytes,
      sidecarIds,
      probe: seen.probe,
      trouble: seen.trouble,
      cut: seen.cut,
      hasPicture: seen.hasPicture,
      pictureMade: seen.picture !== undefined || earlier?.pictureMade === true,
    })
    if (seen.picture) await keepPicture(id, seen.picture)
    if (seen.probe) await judgeProxy(db, id, seen.probe)
  }
  progress.set({ done: clips.length, total: clips.length, unit: 'files' })
  await finishLook(work, load.id, content, listing, rows, place)
  const bytes = listing.files.reduce((sum, file) => sum + file.sizeBytes, 0)
  return {
    sentence: `${counted(clips.length, 'clip')} and ${counted(files.length - clips.length, 'other file')} on ${content.cardName}, ${formatBytes(bytes)}${troubled > 0 ? `; ${counted(troubled, 'clip')} in trouble` : ''}.`,
    troubles: [],
    ...(unmeasured > 0 && { next: measuring(load, input.readerId, content.cardName) }),
  }
}

const measuring = (
  { id, productionId }: { id: string; productionId: string },
  readerId: string,
  cardName: string,
): NextTask => ({
  kind: 'measure',
  title: `Measure how the clips on ${cardName} are scanned`,
  productionId,
  loadId: id,
  input: { loadId: id, readerId },
  idempotencyKey: null,
})

/** A proxy that was equal may differ from what a reader knows that sees more, or the other way round. */
async function judgeProxy(db: Work['db'], clipId: string, original: MediaFacts): Promise<void> {
  const kept = await proxyOf(db, clipId)
  if (kept) await setProxyState(db, clipId, allPass(proxyChecks(original, { ...kept, madeProbe: kept.probe })))
}

type ClipBefore = Awaited<ReturnType<typeof cards.clipsBefore>>[number]

/** Whether a clip lies there as it was, with nothing wrong, and was read by this reader: it is not opened again. A file that was written anew is another entry. */
const isKnownWell = ({ version, trouble, cut, hasPicture, pictureMade }: ClipBefore): boolean =>
  version === FACTS_VERSION && trouble === null && cut === null && (pictureMade || !hasPicture)

/** The load that this card holds: one that is known by its listing and by samples of its content, or a new one. */
async function settleLoad(
  { db }: Work,
  input: ScanInput,
  content: ReaderContent,
  listing: Listing,
): Promise<{ id: string; productionId: string }> {
  const { medium } = content
  const files = listing.files.map((file) => ({ ...file, path: file.pathText }))
  const likely = recogniseLoads(
    files,
    await loadsLike(
      db,
      files.map((file) => file.path),
    ),
  )
  let known: (typeof likely)[number] | undefined
  for (const one of likely)
    if (!known && (await samplesEqual(medium, await cards.samplesOf(db, one.id), CARD_ROOT, one.shiftMs))) known = one
  const sums = {
    readerId: input.readerId,
    fileCount: files.length,
    sizeBytes: files.reduce((sum, file) => sum + file.sizeBytes, 0),
    leftOut: listing.entries.filter((entry) => entry.kind === 'link' || entry.kind === 'special').length,
  }
  const [node, device] = await Promise.all([medium.place(), medium.device()])
  return db.transaction().execute(async (tx) => {
    const id =
      known?.id ??
      (
        await cards.addLoad(tx, {
          productionId: input.productionId,
          label: await freeLabel(tx, input, content.cardName),
          ...sums,
        })
      ).id
    await cards.renewLoad(tx, id, { ...sums, lookDone: false })
    const { readerId } = input
    const { entries, print } = listing
    await putCardListing(tx, { loadId: id, readerId, node, device, print, entries, shiftMs: known?.shiftMs ?? 0 })
    return { id, productionId: (await cards.load(tx, id))?.productionId ?? input.productionId }
  })
}

/** Samples of the content, and that the look came to its end; not when another card lies there by now. */
async function finishLook(
  { db }: Work,
  loadId: string,
  { medium, cardName }: ReaderContent,
  listing: Listing,
  rows: ReadonlyMap<string, cards.EntryRow>,
  place: string,
): Promise<void> {
  const samples = await takeSamples(medium, listing.files, loadId)
  if ((await medium.place().catch(() => '')) !== place)
    throw new CannotWork(`Another card lies in the reader now than ${cardName}, which was being looked at. Look again.`)
  const known = samples.flatMap(({ path, hash }) => {
    const row = rows.get(path.toString('latin1'))
    return row ? [{ loadId, entryId: row.id, hash }] : []
  })
  await db.transaction().execute(async (tx) => {
    await cards.addSamples(tx, known)
    const shootOn = (await cards.load(tx, loadId))?.shootOn ?? undefined
    await countRecorded(tx, loadId)
    await cards.finishLook(tx, loadId, clipFindings(await cards.scannedClips(tx, loadId), shootOn))
  })
}

async function freeLabel(db: Work['db'], input: ScanInput, cardName: string): Promise<string> {
  const wanted = input.label || cardName
  const taken = await cards.loadLabels(db, input.productionId)
  for (let turn = 1; ; turn += 1) {
    const label = turn === 1 ? wanted : `${wanted} (${turn})`
    if (!taken.some((one) => sameFolder(one, label))) return label
  }
}

/** Folder and name up to the ending: what belongs to one clip has the same. */
const stemOf = (entry: WalkedEntry) => entry.path.toString('latin1').replace(/\.[^./]*$/, '')

function stemsOf(files: readonly WalkedEntry[]): Map<string, WalkedEntry[]> {
  const stems = new Map<string, WalkedEntry[]>()
  for (const file of files) {
    const same = stems.get(stemOf(file))
    if (same) same.push(file)
    else stems.set(stemOf(file), [file])
  }
  return stems
}

async function keepPicture(clipId: string, picture: Buffer): Promise<void> {
  await mkdir(picturesFolder(), { recursive: true })
  await writeFile(join(picturesFolder(), `${clipId}.jpg`), picture)
}
