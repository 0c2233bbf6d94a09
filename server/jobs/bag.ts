import { fileTitle } from '../../core/shelf/bag'
import { destinationOf } from '../../core/exports/destination'
import { counted, formatBytes } from '../../core/units/quantity'
import type { BagOrder } from '../../contract/shelf'
import { clip as clipRow } from '../db/queries/cards'
import { addEvent } from '../db/queries/events'
import { deliverable } from '../db/queries/exports'
import { production } from '../db/queries/productions'
import { addBag } from '../db/queries/shelf'
import { volume as volumeRow } from '../db/queries/storage'
import { writeBag } from '../engine/bag'
import { parentOf } from '../engine/medium'
import { volumeMedium } from '../places'
import { targetVolume } from './originals'
import { CannotWork, type Work, type WorkEnd } from './work'

/** Puts a deliverable on the shelf as a BagIt bag that any tool can check. */
export async function bag({ db, taskId, control, progress }: Work, input: BagOrder): Promise<WorkEnd> {
  const made = await deliverable(db, input.deliverableId)
  const owner = made && (await production(db, made.productionId))
  const clip = made && (await clipRow(db, made.clipId))
  if (!made || !owner || !clip) throw new CannotWork('This deliverable is no longer known.')
  const sourceRow = await volumeRow(db, made.volumeId)
  const source = sourceRow && (await volumeMedium(db, sourceRow))
  const path = Buffer.from(made.path)
  const entry = await source?.entry(path)
  if (!source || !entry)
    throw new CannotWork(
      `${made.path} is not on ${sourceRow?.name ?? 'its volume'} now. Connect the volume, or render it again.`,
    )
  const { name, medium } = await targetVolume(db, input.volumeId, entry.sizeBytes * 1.01 + 1e6)
  const fileName = entry.name.toString()
  const shelf = `${fileTitle(owner.title)}/Shelf`
  const folder = await freeFolder(medium, shelf, fileTitle(fileName.replace(/\.[^.]*$/, '')))
  await medium.makeFolder(parentOf(Buffer.from(folder)))
  let bytes = 0
  const total = entry.sizeBytes * 2
  progress.set({ done: 0, total, unit: 'bytes' })
  const today = new Date().toISOString().slice(0, 10)
  const note = [
    `Production: ${owner.title}`,
    `Destination: ${destinationOf(made.destinationId)?.name ?? made.destinationId}`,
    `Master: ${clip.pathText} of “${clip.loadLabel}”`,
    `Window: ${made.cropWindow.widthPx}×${made.cropWindow.heightPx} at ${made.cropWindow.x}, ${made.cropWindow.y}`,
    `Made: ${made.madeAt.toISOString()}`,
    '',
    'Check: sha256sum -c manifest-sha256.txt, in the folder of this bag.',
    '',
  ].join('\n')
  const written = await writeBag({
    target: medium,
    folder: Buffer.from(folder),
    parts: Buffer.from(`.yendra/parts/${taskId}`),
    gate: control.gate,
    payload: [{ medium: source, path, name: fileName, modifiedMs: entry.modifiedMs }],
    notes: [{ name: 'about this film.txt', text: note }],
    info: [
      ['Bagging-Date', today],
      ['External-Description', `${owner.title}, ${destinationOf(made.destinationId)?.name ?? made.destinationId}`],
      ['External-Identifier', made.id],
    ],
    onBytes: (more) => {
      bytes += more
      progress.set({ done: Math.min(bytes, total), total, unit: 'bytes' })
    },
  })
  const sizeBytes = written.files.reduce((sum, file) => sum + file.sizeBytes, 0)
  await addBag(db, {
    productionId: owner.id,
    deliverableId: made.id,
    volumeId: input.volumeId,
    path: folder,
    fileCount: written.files.length,
    sizeBytes,
    verifiedAt: written.fromMedium ? new Date() : null,
  })
  await addEvent(db, { kind: 'shelved', productionId: owner.id, volumeId: input.volumeId, detail: { path: folder } })
  return {
    sentence: `A bag with ${counted(written.files.length, 'file')}, ${formatBytes(sizeBytes)}, is on ${name}${written.fromMedium ? ', every file read back and equal' : '; it could not be read past the cache, so it is not proved'}.`,
    troubles: [],
  }
}

async function freeFolder(
  medium: { entry(path: Buffer): Promise<unknown> },
  shelf: string,
  base: string,
): Promise<string> {
  for (let turn = 1; ; turn += 1) {
    const folder = `${shelf}/${base}${turn === 1 ? '' : ` (${turn})`}`
    if (!(await medium.entry(Buffer.from(folder)))) return folder
  }
}
