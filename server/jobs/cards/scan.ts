import type { TaskInput } from '../../../contract/taskKinds'
import { TOUCHED } from '../../../core/cards/load/stay'
import { markOf } from '../../../core/copies/mark'
import { proposeVolumes } from '../../../core/copies/proposal'
import { printablePath } from '../../../core/copies/pathText'
import { freeTitle, loadLabel, sameFolder } from '../../../core/units/fileTitle'
import { counted, formatBytes, inWords } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import { putInQueue } from '../../db/queries/copyQueue'
import { knownHashes } from '../../db/queries/copies'
import { countRecorded } from '../../db/queries/measured'
import { reader as readerRow, type ReaderRow } from '../../db/queries/readers'
import { putCardListing } from '../../db/queries/seen'
import { knowStay, readWhole, seeCardOf, stay } from '../../db/queries/stays'
import { seeBackupCardAgain } from '../../db/queries/backupCards'
import { renewClocks, renewSpans } from '../../derived/clocks'
import { loadStates } from '../../facts/loadStates'
import { renewRigs } from '../../derived/rigs'
import { volumeViews } from '../../facts/volumes'
import { CannotWork } from '../../media/cannotWork'
import { mediaByContent } from '../../media/contentKind'
import { CARD_ROOT, listCard, mountedInside, takeSamples, type Listing } from '../../media/listing'
import { cardFiles, readerContent, type ReaderContent } from '../../media/mediumOf'
import { compareCard, isBorneOut, isWithCopies } from '../../media/compareCard'
import type { Held } from '../../observer/backupCards'
import { waitingTitle } from '../../facts/waiting'
import { whichLoad } from '../../observer/whichLoad'
import type { Job, NextTask, Work, WorkEnd } from '../work'
import { arrange, findInClips } from './steps/arrange'
import { noteSameContent } from './steps/sameContent'
import { scanAll, sortedFiles } from './steps/scanAll'
import { inTransaction } from '../../db/connection'

type ScanInput = TaskInput<'scan'>

/** Scans a card without writing to it: lists it, knows its load again, reads every clip and takes a picture. */
export const scan: Job<'scan'> = { kind: 'scan', run: runScan }

async function runScan(work: Work, input: ScanInput): Promise<WorkEnd> {
  await work.look([])
  const reader = await readerRow(work.db, input.readerId)
  if (!reader) throw new CannotWork('This reader is no longer registered. Add it again.')
  const content = await readerContent(work.db, reader)
  if (content === 'empty') throw new CannotWork(`There is no card in ${reader.name}. Put it in and scan again.`)
  if (content === 'unreachable') throw new CannotWork(`${reader.name} cannot be reached. Connect it and scan again.`)
  const files = cardFiles(reader, content)
  try {
    return await scanCard(work, input, reader, { ...content, medium: files.medium })
  } finally {
    files.end()
  }
}

async function scanCard(work: Work, input: ScanInput, reader: ReaderRow, content: ReaderContent): Promise<WorkEnd> {
  const { db } = work
  const stayRow = reader.stayId === null ? undefined : await stay(db, reader.stayId)
  if (!stayRow) throw new CannotWork(`${reader.name} cannot be reached. Connect it and scan again.`)
  const place = await content.medium.place()
  const listing = await listCard(content.medium)
  const [mounted] = mountedInside(content.medium, CARD_ROOT)
  if (mounted !== undefined)
    throw new CannotWork(
      `Another file system is mounted on the card in ${reader.name}, at “${mounted}”: what the card ` +
        'itself holds there cannot be seen. Unmount it, and scan again.',
    )
  const held = {
    ...{ readerId: reader.id, name: content.cardName, medium: content.medium, stay: stayRow },
    volumeUid: stayRow.mark.volumeUid ?? undefined,
  }
  const files = listing.files.map((file) => ({ ...file, path: file.pathText }))
  const not = new Set<string>()
  let found = await whichLoad(db, held, listing)
  let same: SameCard = 'another'
  while (found.kind === 'own') {
    same = await sameCard(work, found.load, held, listing)
    if (same !== 'another') break
    not.add(found.load.id)
    found = await whichLoad(db, held, listing, not)
  }
  if (found.kind === 'backup') return scannedBackupCard(db, found, content.cardName)
  const known = found.kind === 'own' ? found : undefined
  const load = await settleLoad(work, input, { reader, content, listing, known, volumeUid: held.volumeUid })
  const rows = new Map((await cards.entriesOf(db, load.id)).map((row) => [row.pathText, row]))
  const sorted = sortedFiles(listing, await mediaByContent(content.medium, listing.walked))
  const seen = await scanAll(work, { load, medium: content.medium, rows, files: sorted })
  const clips = await arrange(db, load.id, { ...sorted, entryIdOf: (path) => rows.get(path)?.id })
  await noteSameContent(db, {
    ...{ loadId: load.id, medium: content.medium, media: sorted.media },
    gate: work.control.gate,
  })
  const media = new Set(sorted.media.map((file) => file.path))
  await finishScan(work, {
    loadId: load.id,
    content,
    listing,
    rows,
    place,
    media,
    stayId: stayRow.id,
    isFirst: !known || same === 'nothing known',
  })
  await renewClocks(db, load.productionId)
  await renewSpans(db, load.productionId)
  await renewRigs(db, load.productionId)
  const bytes = bytesOf(files)
  const then = input.copy ? ` ${await queueCopy(work, load.id)}` : ''
  return {
    sentence:
      `${counted(clips, 'clip')} and ${counted(sorted.others, 'other file')} on “${load.label}”, ` +
      `${formatBytes(bytes)}${seen.troubled > 0 ? `; ${counted(seen.troubled, 'clip')} in trouble` : ''}.${then}`,
    troubles: [],
    ...(seen.unmeasured > 0 && { next: measuring(load, input.readerId) }),
  }
}

/** Puts the copy of a load to the drives that are proposed for it into the line, and says where it goes. */
async function queueCopy({ db, host }: Work, loadId: string): Promise<string> {
  const [load] = await cards.loadsById(db, [loadId])
  const asked = { host, now: Date.now(), looked: true }
  const [state] = load ? await loadStates(db, [load], asked) : []
  if (!load || !state) return ''
  const held = state.copies.filter((copy) => markOf(copy, state.rule) >= 2)
  if (held.length >= state.rule.copies) return `It is proved on ${inWords(held.length)} drives already.`
  const volumes = await volumeViews(db, asked)
  const volumeIds = proposeVolumes(volumes, load.sizeBytes, held, state.rule.copies)
  if (volumeIds.length === 0)
    return 'Nothing is copied: no drive with room for it is connected. Connect two, then copy.'
  await putInQueue(db, host, [{ loadId, volumeIds, plan: null }])
  const names = volumeIds.map((id) => volumes.find((one) => one.id === id)?.name ?? '')
  const isEnough = held.length + volumeIds.length >= state.rule.copies
  return (
    'Its copy to ' +
    `${names.join(' and ')}${isEnough ? '' : ', the only drive with room: connect another for the second copy'}.`
  )
}

const bytesOf = (files: readonly { readonly sizeBytes: number }[]) =>
  files.reduce((sum, file) => sum + file.sizeBytes, 0)

/** What lies on another card already was scanned there: nothing of it is read twice. */
async function scannedBackupCard(
  db: Work['db'],
  { twinId, load }: { readonly twinId: string; readonly load: { readonly label: string } },
  cardName: string,
): Promise<WorkEnd> {
  await seeBackupCardAgain(db, twinId)
  const sentence =
    `${cardName} is the backup card of “${load.label}”: the same files with the same samples of ` +
    'content. Nothing was read twice.'
  return { sentence, troubles: [] }
}

const measuring = (
  { id, productionId, label }: { id: string; productionId: string; label: string },
  readerId: string,
): NextTask => ({
  kind: 'measure',
  title: `Find out whether clips on “${label}” are interlaced`,
  productionId,
  loadId: id,
  input: { loadId: id, readerId },
  idempotencyKey: null,
})

type SameCard = 'the same' | 'another' | 'nothing known'

/** Whether a card with the files of a load is really its card: in a new stay it is compared before anything counts. */
async function sameCard(
  { db, host }: Work,
  load: { readonly id: string },
  { stay: { id: stayId, loadId, knownHow, tried }, medium }: Held,
  { print }: Listing,
): Promise<SameCard> {
  if (knownHow !== null && knownHow !== 'ends' && loadId !== null) return loadId === load.id ? 'the same' : 'another'
  const whole = await readWhole(db, stayId, load.id)
  if (whole && whole.differing > 0) return 'another'
  // One place in each clip would not see what was written on it.
  if (tried.includes(TOUCHED)) return 'the same'
  const compared = await compareCard(db, host, { medium, stayId, loadId: load.id, print })
  if (isBorneOut(compared)) {
    const knownHow = isWithCopies(compared) ? 'compared' : 'ends'
    await knowStay(db, stayId, { loadId: load.id, twinId: null, knownHow })
  }
  if (compared.differing > 0) return 'another'
  // Its first scan was cut before it had read anything that could be compared.
  return compared.compared === 0 && (await knownHashes(db, load.id)).size === 0 ? 'nothing known' : 'the same'
}

/** The load that this card holds: the one that it is known as, or a new one. */
async function settleLoad(
  { db }: Work,
  input: ScanInput,
  {
    reader,
    content,
    listing,
    known,
    volumeUid,
  }: {
    reader: ReaderRow
    content: ReaderContent
    listing: Listing
    known: { readonly load: { readonly id: string }; readonly shiftMs: number } | undefined
    volumeUid: string | undefined
  },
): Promise<{ id: string; productionId: string; label: string }> {
  const { medium } = content
  const files = listing.files
  const sums = {
    readerId: input.readerId,
    fileCount: files.length,
    sizeBytes: bytesOf(files),
    leftOut: listing.entries.filter((entry) => entry.kind === 'link' || entry.kind === 'special').length,
  }
  const [node, device] = await Promise.all([medium.place(), medium.device()])
  return inTransaction(db, async (tx) => {
    const id =
      known?.load.id ??
      (
        await cards.addLoad(tx, {
          productionId: input.productionId,
          label: await freeLabel(tx, input, reader),
          ...sums,
        })
      ).id
    await cards.renewLoad(tx, id, { ...sums, lookDone: false, volumeUid: volumeUid ?? null })
    if (volumeUid !== undefined && !known) await cards.knowCardByUid(tx, id, volumeUid)
    const { readerId } = input
    const { entries, print } = listing
    await putCardListing(tx, { loadId: id, readerId, node, device, print, entries, shiftMs: known?.shiftMs ?? 0 })
    const settled = await cards.load(tx, id)
    return { id, productionId: settled?.productionId ?? input.productionId, label: settled?.label ?? '' }
  })
}

interface FinishedScan {
  readonly loadId: string
  readonly content: ReaderContent
  readonly listing: Listing
  readonly rows: ReadonlyMap<string, cards.EntryRow>
  readonly place: string
  readonly media: ReadonlySet<string>
  readonly stayId: string
  /** Nothing was known of its load before. */
  readonly isFirst: boolean
}

/** Samples of the content, and that the scan came to its end; not when another card lies there by now. */
async function finishScan(
  work: Work,
  { loadId, content: { medium, cardName }, listing, rows, place, media, stayId, isFirst }: FinishedScan,
): Promise<void> {
  const { db } = work
  const samples = await takeSamples(medium, listing.files, loadId, (path) => media.has(path))
  await work.look([])
  const isOver = (await stay(db, stayId))?.leftAt !== null
  if (isOver || (await medium.place().catch(() => '')) !== place)
    throw new CannotWork(`Another card lies in the reader now than ${cardName}, which was being scanned. Scan again.`)
  const known = samples.flatMap(({ path, hash }) => {
    const row = rows.get(printablePath(path))
    return row ? [{ loadId, entryId: row.id, hash }] : []
  })
  await inTransaction(db, async (tx) => {
    await cards.addSamples(tx, known)
    await countRecorded(tx, loadId)
    await cards.finishScan(tx, loadId, await findInClips(tx, loadId))
    // Another card with the same ends says nothing of what was last seen of this one.
    if ((await stay(tx, stayId))?.knownHow !== 'ends') await seeCardOf(tx, loadId, null)
    if (isFirst) await knowStay(tx, stayId, { loadId, twinId: null, knownHow: 'first-look' })
  })
}

async function freeLabel(db: Work['db'], input: ScanInput, reader: ReaderRow): Promise<string> {
  const taken = await cards.loadLabels(db, input.productionId)
  return freeTitle(
    loadLabel(input.label || (await waitingTitle(db, reader, taken))),
    (label) => !taken.some((one) => sameFolder(one, label)),
  )
}
