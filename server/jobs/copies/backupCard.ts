import type { TaskInput } from '../../../contract/taskKinds'
import type { CopyRecord } from '../../../core/copies/record'
import { counted, formatBytes } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import { knownHashes } from '../../db/queries/copies'
import { databaseTime } from '../../db/queries/mirrors'
import { readers, type ReaderRow } from '../../db/queries/readers'
import { addComparison, doubtCard, forgetStay, knowStay, trustCard } from '../../db/queries/stays'
import { addBackupCardReading } from '../../db/queries/backupCards'
import { checkCopy } from '../../engine/copy/check'
import { CannotWork } from '../../media/cannotWork'
import { CARD_ROOT, listCard } from '../../media/listing'
import { readerContent } from '../../media/mediumOf'
import type { Job, Work, WorkEnd } from '../work'

/**
 * Reads a card whole and compares it with what was proved of its load: a backup card is a copy from then on, while it
 * lies there; the load’s own card is known to be that card in this stay.
 */
export const twin: Job<'twin'> = { kind: 'twin', run: runBackupCard }

async function runBackupCard(work: Work, { loadId, twinId }: TaskInput<'twin'>): Promise<WorkEnd> {
  const { db, attemptId, control } = work
  const load = await cards.load(db, loadId)
  await work.look([])
  const reader = (await readers(db)).find(
    (row) => row.twinId === twinId && row.loadId === loadId && row.state === 'card' && (twinId === null || row.same),
  )
  if (!load || !reader)
    throw new CannotWork(
      `${twinId === null ? 'The card' : 'The backup card'} is in no reader now. Put it in and read it again.`,
    )
  const what = twinId === null ? 'card' : 'backup card'
  const content = await readerContent(db, reader)
  if (typeof content === 'string') throw new CannotWork(`There is no card in ${reader.name}. Put it in again.`)
  const { medium, cardName } = content
  const begunAt = await databaseTime(db)
  const [place, hashes, rows] = await Promise.all([
    medium.place(),
    knownHashes(db, loadId),
    cards.entriesOf(db, loadId),
  ])
  const wanted = rows.filter((row) => row.kind === 'file')
  const files = wanted.flatMap(({ id, path, pathText, sizeBytes }) => {
    const hash = hashes.get(id)
    return hash === undefined ? [] : [{ id, path, pathText, sizeBytes, hash }]
  })
  // Of its own card, what is proved nowhere is read when it is copied.
  if (files.length < wanted.length && (twinId !== null || files.length === 0))
    throw new CannotWork(
      `${counted(wanted.length - files.length, 'file')} of “${load.label}” ` +
        `${wanted.length - files.length === 1 ? 'is' : 'are'} proved nowhere yet: copy it first, then ` +
        'read it again.',
    )
  const { print } = await listCard(medium)
  const names = new Map(files.map((file) => [file.id, file.pathText]))
  const total = files.reduce((sum, file) => sum + file.sizeBytes, 0)
  const count = { equal: 0, memory: 0 }
  const wrong: string[] = []
  let done = 0
  const onBytes = (bytes: number) => {
    done += bytes
    work.progress.set({ done: Math.min(done, total), total, unit: 'bytes' })
  }
  onBytes(0)
  const report = (records: readonly CopyRecord[]) => {
    for (const record of records)
      if (record.kind === 'proved') count[record.fromMedium ? 'equal' : 'memory'] += 1
      else if (record.kind === 'mismatch')
        wrong.push(`${names.get(record.fileId) ?? ''} on the ${what} is not what was copied (${record.found}).`)
    return Promise.resolve()
  }
  await checkCopy({
    ...{ destinationId: twinId ?? loadId, medium, folder: CARD_ROOT, files, isSource: true },
    ...{ gate: control.gate, onBytes, report },
  })
  if ((await medium.place().catch(() => '')) !== place || (await listCard(medium)).print !== print)
    throw new CannotWork(
      `${cardName} was changed or taken out while it was read. Nothing was written down: read it again.`,
    )
  // What was written on it meanwhile is noticed by its numbers before it is trusted.
  await work.look([])
  if (twinId === null) await compared(db, { reader, loadId, print, files, wrong, begunAt })
  else
    await addBackupCardReading(db, {
      ...{ twinId, print, sizeBytes: total, runId: attemptId, stayId: reader.stayId },
      ...{ filesEqual: count.equal, filesMemory: count.memory, filesWrong: wrong.length },
    })
  const all = `${counted(files.length, 'file')}, ${formatBytes(total)}`
  const sentence =
    wrong.length === 0
      ? `All ${all} of the ${what} ${cardName} were read and are what was copied.`
      : `${wrong.length} of ${all} of the ${what} ${cardName} are not what was copied.`
  return { sentence, troubles: wrong }
}

/** The card was read whole in this stay: it is known to be the card of the load, or not to be. */
async function compared(
  db: Work['db'],
  {
    reader,
    loadId,
    print,
    files,
    wrong,
    begunAt,
  }: {
    reader: ReaderRow
    loadId: string
    print: string
    files: readonly unknown[]
    wrong: readonly string[]
    begunAt: Date
  },
): Promise<void> {
  if (reader.stayId === null) return
  await addComparison(db, {
    ...{ how: 'whole', clips: files.length, compared: files.length, withCopies: files.length, unreadable: 0 },
    ...{ differing: wrong.length, volumeNames: [], stayId: reader.stayId, loadId, print, paths: [], seed: 'whole' },
  })
  if (wrong.length > 0) {
    await doubtCard(db, loadId)
    await forgetStay(db, reader.stayId)
    return
  }
  await trustCard(db, { stayId: reader.stayId, loadId, since: begunAt })
  await knowStay(db, reader.stayId, { loadId, twinId: null, knownHow: 'compared' })
}
