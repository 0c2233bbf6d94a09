import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { recogniseLoad } from '../../core/cards/load'
import { printablePath } from '../../core/copies/pathText'
import { isMediaName, type Probe } from '../../core/media/probe'
import { sameFolder } from '../../core/shelf/bag'
import { counted, formatBytes } from '../../core/units/quantity'
import * as cards from '../db/queries/cards'
import { addEvent } from '../db/queries/events'
import { framePicture } from '../engine/picture'
import { probeFile } from '../engine/probe'
import { ToolFailed } from '../engine/tool'
import { listingPrint, walk, type WalkedEntry } from '../engine/walk'
import { picturesFolder } from '../home'
import { fullPath, readerContent, type ReaderContent } from '../places'
import { CannotWork, type Work, type WorkEnd } from './work'

export interface ScanInput {
  readonly readerId: string
  readonly productionId: string
  readonly label: string
}

/** Looks at a card without writing to it: lists it, knows its load again, reads every clip and takes a picture. */
export async function scan(work: Work, input: ScanInput): Promise<WorkEnd> {
  const { db, control, progress } = work
  const reader = await cards.reader(db, input.readerId)
  if (!reader) throw new CannotWork('This reader is no longer registered. Add it again.')
  const content = await readerContent(db, reader)
  if (content === 'empty') throw new CannotWork(`There is no card in ${reader.name}. Put it in and look again.`)
  if (content === 'unreachable') throw new CannotWork(`${reader.name} cannot be reached. Connect it and look again.`)
  const entries = await walk(content.medium)
  const files = entries.filter((entry) => entry.kind === 'file')
  const loadId = await settleLoad(work, input, content, entries)
  const rows = new Map((await cards.entriesOf(db, loadId)).map((row) => [row.path.toString('latin1'), row]))
  const clips = files.filter((file) => isMediaName(printablePath(file.name)))
  let troubled = 0
  for (const [at, file] of clips.entries()) {
    await control.gate()
    progress.set({ done: at, total: clips.length, unit: 'files' })
    const row = rows.get(file.path.toString('latin1'))
    if (!row) continue
    const seen = await lookAtClip(content, file)
    if (seen.trouble) troubled += 1
    const { id } = await cards.putClip(db, {
      loadId,
      entryId: row.id,
      pathText: row.pathText,
      name: printablePath(file.name),
      sizeBytes: file.sizeBytes,
      sidecars: sidecarsOf(file, files),
      probe: seen.probe,
      trouble: seen.trouble,
      hasPicture: seen.hasPicture,
      pictureMade: seen.picture !== undefined,
    })
    if (seen.picture) await keepPicture(id, seen.picture)
  }
  progress.set({ done: clips.length, total: clips.length, unit: 'files' })
  await addEvent(db, {
    kind: 'looked-at',
    productionId: input.productionId,
    loadId,
    detail: { readerId: reader.id, print: listingPrint(entries) },
  })
  const bytes = files.reduce((sum, file) => sum + file.sizeBytes, 0)
  return {
    sentence: `${counted(clips.length, 'clip')} and ${counted(files.length - clips.length, 'other file')} on ${content.cardName}, ${formatBytes(bytes)}${troubled > 0 ? `; ${counted(troubled, 'clip')} in trouble` : ''}.`,
    troubles: [],
  }
}

async function settleLoad(
  { db }: Work,
  input: ScanInput,
  content: ReaderContent,
  entries: readonly WalkedEntry[],
): Promise<string> {
  const listed = entries.map((entry) => ({
    path: entry.path,
    pathText: printablePath(entry.path),
    kind: entry.kind,
    sizeBytes: entry.kind === 'file' ? entry.sizeBytes : 0,
    modifiedMs: entry.modifiedMs,
  }))
  const files = listed.filter((entry) => entry.kind === 'file')
  const known = recogniseLoad(
    files.map((file) => ({ path: file.pathText, sizeBytes: file.sizeBytes, modifiedMs: file.modifiedMs })),
    await cards.knownLoads(db),
  )
  const sums = {
    readerId: input.readerId,
    fileCount: files.length,
    sizeBytes: files.reduce((sum, file) => sum + file.sizeBytes, 0),
    leftOut: listed.filter((entry) => entry.kind === 'link' || entry.kind === 'special').length,
  }
  return db.transaction().execute(async (tx) => {
    const id =
      known ??
      (
        await cards.addLoad(tx, {
          productionId: input.productionId,
          label: await freeLabel(tx, input, content.cardName),
          ...sums,
        })
      ).id
    if (known) await cards.renewLoad(tx, known, sums)
    await cards.putEntries(tx, id, listed)
    return id
  })
}

async function freeLabel(db: Work['db'], input: ScanInput, cardName: string): Promise<string> {
  const wanted = input.label || cardName
  const taken = (await cards.loadsOf(db, [input.productionId])).map((load) => load.label)
  for (let turn = 1; ; turn += 1) {
    const label = turn === 1 ? wanted : `${wanted} (${turn})`
    if (!taken.some((one) => sameFolder(one, label))) return label
  }
}

const baseOf = (name: Buffer) => name.toString('latin1').replace(/\.[^.]*$/, '')
const folderOf = (entry: WalkedEntry) =>
  entry.path.subarray(0, entry.path.length - entry.name.length).toString('latin1')

const sidecarsOf = (clip: WalkedEntry, files: readonly WalkedEntry[]) =>
  files.filter(
    (file) =>
      file !== clip &&
      folderOf(file) === folderOf(clip) &&
      baseOf(file.name) === baseOf(clip.name) &&
      !isMediaName(printablePath(file.name)),
  ).length

interface SeenClip {
  readonly probe: Probe | undefined
  readonly trouble: string | undefined
  readonly hasPicture: boolean
  readonly picture: Buffer | undefined
}

async function lookAtClip(content: ReaderContent, file: WalkedEntry): Promise<SeenClip> {
  if (file.sizeBytes === 0)
    return { probe: undefined, trouble: 'the file is empty', hasPicture: true, picture: undefined }
  const path = fullPath(content.medium, file.path)
  try {
    const probe = await probeFile(path)
    if (!probe.video && !probe.audio)
      return { probe, trouble: 'it holds neither picture nor sound', hasPicture: true, picture: undefined }
    const hasPicture = probe.video !== undefined
    const picture = hasPicture ? await framePicture(path, probe.seconds / 3, 480).catch(() => undefined) : undefined
    return { probe, trouble: undefined, hasPicture, picture }
  } catch (error) {
    return { probe: undefined, trouble: troubleOf(error), hasPicture: true, picture: undefined }
  }
}

function troubleOf(error: unknown): string {
  if (error instanceof ToolFailed && error.messages.includes('moov atom not found'))
    return 'the index is missing, as after a battery that died'
  if (error instanceof ToolFailed && error.messages.includes('Invalid data found'))
    return 'what is in it is no picture and no sound'
  return error instanceof Error ? error.message : String(error)
}

async function keepPicture(clipId: string, picture: Buffer): Promise<void> {
  await mkdir(picturesFolder(), { recursive: true })
  await writeFile(join(picturesFolder(), `${clipId}.jpg`), picture)
}
