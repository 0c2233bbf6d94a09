import { cardChanges, changeWords } from '../../../../core/cards/load/load'
import { TOUCHED } from '../../../../core/cards/load/stay'
import * as copies from '../../../db/queries/copies'
import { samplesOf, type EntryRow, type LoadRow } from '../../../db/queries/cards'
import { readerOfLoad, type ReaderRow } from '../../../db/queries/readers'
import { databaseTime } from '../../../db/queries/mirrors'
import { doubtCard, forgetStay, stay, trustCard, tryOnce } from '../../../db/queries/stays'
import { noteReadFromBackupCard } from '../../../db/queries/backupCards'
import { volume as volumeRow } from '../../../db/queries/volumes'
import { below } from '../../../engine/medium/below'
import { FolderMedium } from '../../../engine/medium/folder'
import type { Medium } from '../../../engine/medium/medium'
import { TimedMedium } from '../../../engine/medium/withinTimeout'
import { ReaderProcess } from '../../../engine/tool/readerProcess'
import { CannotWork } from '../../../media/cannotWork'
import { CARD_ROOT, listCard, samplesEqual, type KnownSample } from '../../../media/listing'
import { cardFiles, readerContent, volumeMedium, type ReaderContent } from '../../../media/mediumOf'
import { scanMirror } from '../../../observer/mirrorScan'
import type { Work } from '../../work'

/** A file as it lies where it is read. */
export interface SourceEntry {
  readonly id: number
  readonly path: Buffer
  readonly pathText: string
  readonly sizeBytes: number
  readonly modifiedMs: number
}

/** Where a copy is read: the card of the load, or a proved copy of it. */
export interface CopySource {
  readonly medium: Medium
  /** For sentences: `the card of “Curlew A”`, `Tide 1`. */
  readonly name: string
  /** Of a copy. */
  readonly volumeId: string | undefined
  /** The folder of the copy on its volume; `''` of a card. */
  readonly folder: string
  readonly files: readonly SourceEntry[]
  /** An answer of it was given up: nothing more is read through it. */
  isHung(): boolean
  /** What was being read then. */
  hungAt(): Buffer | undefined
  /** Something of it is not what was proved: from then on only reading the card whole counts. */
  unlike(): Promise<void>
  /** Reads it in a program that can be given up; `undefined` where that is not needed. */
  again(): ReaderProcess | undefined
  /** How it differs from what it listed before, in words; `''` when it does not. */
  changes(): Promise<string>
}

const byBytes = (file: { path: Buffer; sizeBytes: number; modifiedMs: number }) => ({
  path: file.path.toString('latin1'),
  sizeBytes: file.sizeBytes,
  modifiedMs: file.modifiedMs,
})

async function changesOf(medium: Medium, files: readonly EntryRow[]): Promise<{ stayed: number; words: string }> {
  const listed = (await listCard(medium)).files
  const changes = cardChanges(files.map(byBytes), listed.map(byBytes))
  return { stayed: changes.stayed, words: changeWords(changes) }
}

/** The card of a load, in its reader, just as it was when it was scanned. */
export async function cardSource({ db, look }: Work, load: LoadRow, files: readonly EntryRow[]): Promise<CopySource> {
  // In a new stay the card is compared with what is known of it, before anything of it is copied or counts.
  await look([])
  const reader = await readerOfLoad(db, load)
  const content = reader ? await readerContent(db, reader) : 'unreachable'
  if (!reader || content === 'empty' || content === 'unreachable')
    throw new CannotWork(
      `The card of “${load.label}” is not in the reader. Put it in and copy again, or copy from a ` +
        'drive that has a proved copy.',
    )
  if (!load.lookDone)
    throw new CannotWork(`The scan of “${load.label}” did not finish. Scan the card again, then copy.`)
  const patient = new TimedMedium(content.medium)
  const { stayed, words } = await changesOf(patient.medium, files)
  const other = files.length > 0 && stayed === 0
  if (other || !(await hasSamples(reader, content, await samplesOf(db, load.id))))
    throw new CannotWork(
      `The card in the reader is not the one of “${load.label}”. Change cards, or scan this one first.`,
    )
  if (words !== '')
    throw new CannotWork(
      `The card has changed since it was scanned: ${words}. Scan it again, then copy; nothing was written.`,
    )
  const stayRow = reader.stayId === null ? undefined : await stay(db, reader.stayId)
  if (!reader.same || stayRow?.loadId !== load.id || stayRow.knownHow === null)
    throw new CannotWork(
      reader.difference ??
        `The card in the reader could not be compared with what is known of “${load.label}”: nothing was ` +
          'copied. Connect a drive with a copy of it, or read the card whole, then copy again.',
    )
  if (reader.twinId !== null) await noteReadFromBackupCard(db, load.id)
  // The first copy reads all of it.
  else if ((await copies.knownHashes(db, load.id)).size === 0)
    await trustCard(db, { stayId: stayRow.id, loadId: load.id, since: await databaseTime(db) })
  return {
    medium: patient.medium,
    name: `the card of “${load.label}”`,
    volumeId: undefined,
    folder: '',
    files,
    isHung: () => patient.isHung,
    hungAt: () => patient.hungAt,
    unlike: async () => {
      if (reader.twinId === null) await doubtCard(db, load.id)
      await tryOnce(db, stayRow.id, TOUCHED)
      await forgetStay(db, stayRow.id)
    },
    // A simulated reader answers for itself.
    again: () => (reader.simulated ? undefined : new ReaderProcess(new FolderMedium(content.medium.root))),
    changes: async () => (patient.isHung ? '' : (await changesOf(patient.medium, files)).words),
  }
}

async function hasSamples(
  reader: ReaderRow,
  content: ReaderContent,
  samples: readonly KnownSample[],
): Promise<boolean> {
  const files = cardFiles(reader, content)
  return samplesEqual(files.medium, samples, CARD_ROOT, 0).finally(() => files.end())
}

/** A proved copy of a load on a connected volume: its files that are proved and lie there as they were proved. */
export async function volumeSource(work: Work, load: LoadRow, volumeId: string): Promise<CopySource> {
  const { db, host } = work
  const row = await volumeRow(db, host, volumeId)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium)
    throw new CannotWork(`${row?.name ?? 'That volume'} is not connected. Connect it, or copy from another one.`)
  const mirror = await copies.mirror(db, load.id, volumeId)
  if (!mirror) throw new CannotWork(`${row.name} holds no copy of “${load.label}”.`)
  const { files: there } = await scanMirror(db, mirror, medium)
  const proved = await copies.provedOn(db, load.id, volumeId)
  const files = proved.flatMap(({ entryId, path, pathText, sizeBytes, standing }): SourceEntry[] => {
    const listed = there.get(path.toString('latin1'))
    const isGood = standing === 'verified' || standing === 'memory'
    return listed && isGood ? [{ id: entryId, path, pathText, sizeBytes, modifiedMs: listed.modifiedMs }] : []
  })
  if (files.length === 0)
    throw new CannotWork(`${row.name} holds no proved file of “${load.label}” to copy from. Choose another one.`)
  return {
    medium: below(medium, Buffer.from(mirror.folder)),
    name: row.name,
    volumeId,
    folder: mirror.folder,
    files,
    isHung: () => false,
    hungAt: () => undefined,
    again: () => undefined,
    // What differs of a copy is written down as its proof.
    unlike: () => Promise.resolve(),
    changes: () => Promise.resolve(''),
  }
}
