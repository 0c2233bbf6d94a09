import type { TaskInput } from '../../../contract/taskKinds'
import { recogniseLoads, type KnownLoad, type Recognised } from '../../../core/cards/load'
import { printablePath } from '../../../core/copies/pathText'
import { sameFolder } from '../../../core/units/fileTitle'
import { counted, formatBytes } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import { loadsLike } from '../../db/queries/loadsLike'
import { countRecorded } from '../../db/queries/measured'
import { reader as readerRow } from '../../db/queries/readers'
import { putCardListing } from '../../db/queries/seen'
import { seeTwinAgain } from '../../db/queries/twins'
import { renewClocks, renewSpans } from '../../facts/clocks'
import { renewRigs } from '../../facts/rigs'
import { CannotWork } from '../../media/cannotWork'
import { mediaByContent } from '../../media/contentKind'
import { CARD_ROOT, listCard, samplesEqual, takeSamples, type Listing } from '../../media/listing'
import { readerContent, type ReaderContent } from '../../media/mediumOf'
import { sameCards, twinAmong } from '../../observer/twins'
import type { Job, NextTask, Work, WorkEnd } from '../work'
import { arrange, findInClips } from './arrange'
import { noteSameContent } from './sameContent'
import { lookAtAll, sortedFiles } from './lookAtAll'
import { inTransaction } from '../../db/connection'

type ScanInput = TaskInput<'scan'>

/** Looks at a card without writing to it: lists it, knows its load again, reads every clip and takes a picture. */
export const scan: Job<'scan'> = { kind: 'scan', run: runScan }

async function runScan(work: Work, input: ScanInput): Promise<WorkEnd> {
  const { db } = work
  const reader = await readerRow(db, input.readerId)
  if (!reader) throw new CannotWork('This reader is no longer registered. Add it again.')
  const content = await readerContent(db, reader)
  if (content === 'empty') throw new CannotWork(`There is no card in ${reader.name}. Put it in and look again.`)
  if (content === 'unreachable') throw new CannotWork(`${reader.name} cannot be reached. Connect it and look again.`)
  const place = await content.medium.place()
  const listing = await listCard(content.medium)
  const held = {
    ...{ readerId: reader.id, name: content.cardName, medium: content.medium },
    volumeUid: await content.volumeUid(),
  }
  const files = listing.files.map((file) => ({ ...file, path: file.pathText }))
  const known = await loadsLike(
    db,
    files.map((file) => file.path),
  )
  const twin = await twinAmong(db, held, files, known)
  if (twin) return lookedAtTwin(db, twin, content.cardName)
  const load = await settleLoad(work, input, { content, listing, likely: await sameCards(db, held, known) })
  const rows = new Map((await cards.entriesOf(db, load.id)).map((row) => [row.pathText, row]))
  const sorted = sortedFiles(listing, await mediaByContent(content.medium, listing.walked))
  const seen = await lookAtAll(work, { load, medium: content.medium, rows, files: sorted })
  const clips = await arrange(db, load.id, { ...sorted, entryIdOf: (path) => rows.get(path)?.id })
  await noteSameContent(db, {
    ...{ loadId: load.id, medium: content.medium, media: sorted.media },
    gate: work.control.gate,
  })
  await finishLook(work, load.id, content, listing, rows, place)
  await renewClocks(db, load.productionId)
  await renewSpans(db, load.productionId)
  await renewRigs(db, load.productionId)
  const bytes = bytesOf(files)
  return {
    sentence: `${counted(clips, 'clip')} and ${counted(sorted.others, 'other file')} on ${content.cardName}, ${formatBytes(bytes)}${seen.troubled > 0 ? `; ${counted(seen.troubled, 'clip')} in trouble` : ''}.`,
    troubles: [],
    ...(seen.unmeasured > 0 && { next: measuring(load, input.readerId, content.cardName) }),
  }
}

const bytesOf = (files: readonly { readonly sizeBytes: number }[]) =>
  files.reduce((sum, file) => sum + file.sizeBytes, 0)

/** What lies on another card already was looked at there: nothing of it is read twice. */
async function lookedAtTwin(
  db: Work['db'],
  { id, load }: { readonly id: string; readonly load: { readonly label: string } },
  cardName: string,
): Promise<WorkEnd> {
  await seeTwinAgain(db, id)
  const sentence = `${cardName} is the twin of the card of “${load.label}”: the same files with the same samples of content. Nothing was read twice.`
  return { sentence, troubles: [] }
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

/** The load that this card holds: one that is known by its listing and by samples of its content, or a new one. */
async function settleLoad(
  { db }: Work,
  input: ScanInput,
  { content, listing, likely }: { content: ReaderContent; listing: Listing; likely: readonly KnownLoad[] },
): Promise<{ id: string; productionId: string }> {
  const { medium } = content
  const files = listing.files.map((file) => ({ ...file, path: file.pathText }))
  let known: Recognised | undefined
  for (const one of recogniseLoads(files, likely))
    if (!known && (await samplesEqual(medium, await cards.samplesOf(db, one.id), CARD_ROOT, one.shiftMs))) known = one
  const sums = {
    readerId: input.readerId,
    fileCount: files.length,
    sizeBytes: bytesOf(files),
    leftOut: listing.entries.filter((entry) => entry.kind === 'link' || entry.kind === 'special').length,
  }
  const [node, device, volumeUid] = await Promise.all([medium.place(), medium.device(), content.volumeUid()])
  return inTransaction(db, async (tx) => {
    const id =
      known?.id ??
      (
        await cards.addLoad(tx, {
          productionId: input.productionId,
          label: await freeLabel(tx, input, content.cardName),
          ...sums,
        })
      ).id
    await cards.renewLoad(tx, id, { ...sums, lookDone: false, volumeUid: volumeUid ?? null })
    if (volumeUid !== undefined && !known) await cards.knowCardByUid(tx, id, volumeUid)
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
    const row = rows.get(printablePath(path))
    return row ? [{ loadId, entryId: row.id, hash }] : []
  })
  await inTransaction(db, async (tx) => {
    await cards.addSamples(tx, known)
    await countRecorded(tx, loadId)
    await cards.finishLook(tx, loadId, await findInClips(tx, loadId))
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
