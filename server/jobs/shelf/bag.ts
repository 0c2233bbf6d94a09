import type { TaskInput } from '../../../contract/taskKinds'
import { destinationOf } from '../../../core/exports/destination'
import { fileTitle } from '../../../core/units/fileTitle'
import { counted, formatBytes } from '../../../core/units/quantity'
import { clip as clipRow } from '../../db/queries/cards'
import { addFileProofs } from '../../db/queries/proofs'
import { deliverable, type DeliverableRow } from '../../db/queries/exports'
import { addNote } from '../../db/queries/journal'
import { volume as volumeRow } from '../../db/queries/volumes'
import { production } from '../../db/queries/productions'
import { addBag, bagAt } from '../../db/queries/shelf'
import { writeBag, type BagOrder, type WrittenBag } from '../../engine/bag/bag'
import type { Medium } from '../../engine/medium/medium'
import { readBag } from '../../engine/bag/readBag'
import { passes } from '../../facts/deliveries'
import { CannotWork } from '../../media/cannotWork'
import { targetVolume } from '../../media/originals'
import { partsOf, volumeMedium } from '../../media/mediumOf'
import type { Job, Work, WorkEnd } from '../work'
import { inTransaction } from '../../db/connection'
import { stemOf } from '../../../core/units/filePath'

/** Puts a deliverable on the shelf as a BagIt bag that any tool can check. */
export const bag: Job<'bag'> = { kind: 'bag', run: runBag }

async function runBag({ db, host, attemptId, control, progress }: Work, input: TaskInput<'bag'>): Promise<WorkEnd> {
  const made = await deliverable(db, input.deliverableId)
  const owner = made && (await production(db, made.productionId))
  const clip = made && (await clipRow(db, made.mediaFileId))
  if (!made || !owner || !clip) throw new CannotWork('This deliverable is no longer known.')
  const sourceRow = await volumeRow(db, host, made.volumeId)
  const source = sourceRow && (await volumeMedium(db, sourceRow))
  const path = Buffer.from(made.path)
  const entry = await source?.entry(path)
  if (!source || !entry)
    throw new CannotWork(
      `${made.path} is not on ${sourceRow?.name ?? 'its volume'} now. Connect the volume, or render it again.`,
    )
  const { name, medium } = await targetVolume(db, input.volumeId, entry.sizeBytes * 1.01 + 1e6)
  const fileName = entry.name.toString()
  const place = { volumeId: input.volumeId, identifier: made.id, gate: control.gate }
  const { folder, left } = await freeFolder(db, medium, `${owner.folder}/Shelf/${fileTitle(stemOf(fileName))}`, place)
  let bytes = 0
  const total = entry.sizeBytes * 2
  progress.set({ done: 0, total, unit: 'bytes' })
  const order = {
    target: medium,
    folder: Buffer.from(folder),
    parts: partsOf(attemptId),
    gate: control.gate,
    payload: [{ medium: source, path, name: fileName, modifiedMs: entry.modifiedMs }],
    notes: [{ name: 'about this film.txt', text: filmNote(made, owner.title, clip, input.why) }],
    info: [
      ['Bagging-Date', new Date().toISOString().slice(0, 10)] as const,
      ['External-Description', `${owner.title}, ${destinationName(made)}`] as const,
      ['External-Identifier', made.id] as const,
    ],
    onBytes: (more: number) => {
      bytes += more
      progress.set({ done: Math.min(bytes, total), total, unit: 'bytes' })
    },
  } satisfies BagOrder
  const written = left ?? (await writeBag(order))
  await keepBag({ db, attemptId }, { made, input, folder, medium }, written)
  return {
    sentence:
      `A bag with ${counted(written.files.length, 'file')}, ${formatBytes(sizeOf(written))}, is on ` +
      `${name}${written.fromMedium ? ', every file read back and equal' : '; it could only be read back through memory, so it is not proved'}.`,
    troubles: [],
  }
}

type MasterRow = NonNullable<Awaited<ReturnType<typeof clipRow>>>

/** What lies beside the film, for whoever opens the bag without this house. */
const filmNote = (made: DeliverableRow, title: string, clip: MasterRow, why: string | undefined): string =>
  [
    `Production: ${title}`,
    `Destination: ${destinationName(made)}`,
    `Master: ${clip.pathText} of “${clip.loadLabel}”`,
    `Window: ${made.cropWindow.widthPx}×${made.cropWindow.heightPx} at ${made.cropWindow.x}, ${made.cropWindow.y}`,
    `Made: ${made.madeAt.toISOString()}`,
    ...(passes(made) ? [] : [`It fails a check, and was put on the shelf all the same: ${why ?? ''}`]),
    '',
    'Check: sha256sum --strict -c manifest-sha256.txt, in the folder of this bag.',
    '',
  ].join('\n')

const destinationName = ({ destinationId }: DeliverableRow) => destinationOf(destinationId)?.name ?? destinationId

interface PlacedBag {
  readonly made: DeliverableRow
  readonly input: TaskInput<'bag'>
  readonly folder: string
  readonly medium: Medium
}

/** Keeps a written bag with its proofs, all or nothing. */
async function keepBag(
  { db, attemptId }: Pick<Work, 'db' | 'attemptId'>,
  { made, input: { volumeId, why }, folder, medium }: PlacedBag,
  written: WrittenBag,
): Promise<void> {
  const { productionId } = made
  const times = new Map<string, number>()
  for (const file of written.files)
    times.set(file.path, (await medium.entry(Buffer.from(`${folder}/${file.path}`)))?.modifiedMs ?? 0)
  await inTransaction(db, async (tx) => {
    const { id } = await addBag(tx, {
      ...{ productionId, deliverableId: made.id, volumeId, path: folder },
      fileCount: written.files.length,
      sizeBytes: sizeOf(written),
      verifiedAt: written.fromMedium ? new Date() : null,
    })
    await addFileProofs(
      tx,
      written.files.map((file) => ({
        ...{ what: 'bag', volumeId, path: `${folder}/${file.path}`, algorithm: 'sha256', hash: file.sha256 },
        ...{ sizeBytes: file.sizeBytes, modifiedMs: times.get(file.path) ?? 0 },
        ...{ pastCache: written.fromMedium, runId: attemptId, bagId: id },
      })),
    )
    await addNote(tx, { kind: 'shelved', productionId, volumeId, detail: { path: folder, why: why ?? '' } })
  })
}

const sizeOf = ({ files }: WrittenBag) => files.reduce((sum, file) => sum + file.sizeBytes, 0)

interface BagPlace {
  readonly volumeId: string
  readonly identifier: string
  readonly gate: () => Promise<void>
}

/**
 * The first folder that is free, or a bag of this film that got its name just before its worker died, whole and not
 * known yet.
 */
async function freeFolder(
  db: Work['db'],
  medium: Medium,
  base: string,
  { volumeId, identifier, gate }: BagPlace,
): Promise<{ folder: string; left?: WrittenBag }> {
  for (let turn = 1; ; turn += 1) {
    const folder = `${base}${turn === 1 ? '' : ` (${turn})`}`
    if (!(await medium.entry(Buffer.from(folder)))) return { folder }
    if (await bagAt(db, volumeId, folder)) continue
    const left = await readBag(medium, Buffer.from(folder), identifier, gate)
    if (left) return { folder, left }
  }
}
