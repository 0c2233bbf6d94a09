import type { TaskInput } from '../../../contract/taskKinds'
import { SET_ASIDE } from '../../../core/units/fileTitle'
import { counted, formatBytes } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import * as copies from '../../db/queries/copies'
import { addNote } from '../../db/queries/journal'
import { addCopyProofs } from '../../db/queries/proofs'
import { goodCopies, stillAmiss } from '../../db/queries/repairs'
import { liveAttempts, tellChanged } from '../../db/queries/tasks'
import { volume as volumeRow } from '../../db/queries/volumes'
import { putAside } from '../../engine/copy/aside'
import { checkCopy } from '../../engine/copy/check'
import type { CopyDestination } from '../../engine/copy/copyOrder'
import { MeasuredMedium } from '../../engine/copy/measured'
import { joinPath, parentOf } from '../../engine/medium/medium'
import { removeStaleParts } from '../../media/attempts'
import { CannotWork } from '../../media/cannotWork'
import { partsOf, volumeMedium } from '../../media/mediumOf'
import { scanMirror } from '../../observer/mirrorScan'
import type { Job, Work, WorkEnd } from '../work'
import { CopyPasses } from './steps/copyPasses'
import { finishTarget } from './steps/finishTarget'
import { cardSource, volumeSource, type SourceEntry } from './steps/source'
import type { Target } from './steps/target'

type RepairInput = TaskInput<'repair'>
type Step = RepairInput['steps'][number]

/**
 * Mends files of copies from other copies or from the card. A bad file is put aside the moment a good one is written,
 * read back and ready to take its name. May be cut anywhere and called again.
 */
export const repair: Job<'repair'> = { kind: 'repair', run: runRepair }

async function runRepair(work: Work, { steps }: RepairInput): Promise<WorkEnd> {
  const troubles: string[] = []
  const sentences: string[] = []
  for (const step of steps) {
    const told = await mendStep(work, step).catch((error: unknown) => {
      // One drive that is not there keeps no other from being mended.
      if (error instanceof CannotWork) return { sentence: undefined, troubles: [error.message] }
      throw error
    })
    troubles.push(...told.troubles)
    if (told.sentence) sentences.push(told.sentence)
  }
  await tellChanged(work.db, 'copies', 'productions', 'chart')
  return { sentence: sentences.join(' ') || 'Nothing was mended.', troubles }
}

interface Told {
  readonly sentence: string | undefined
  readonly troubles: readonly string[]
}

async function mendStep(work: Work, step: Step): Promise<Told> {
  const { db } = work
  const load = await cards.load(db, step.loadId)
  const mirror = await copies.mirror(db, step.loadId, step.volumeId)
  if (!load || !mirror) throw new CannotWork('This load is no longer known. Look at the plan again.')
  const place = await placeOf(work, step, mirror.folder)
  await scanMirror(db, mirror, place.medium)
  const onCard = (await cards.entriesOf(db, load.id)).filter((entry) => entry.kind === 'file')
  const wantedIds = new Set(step.entryIds)
  await readFirst(
    work,
    step,
    place,
    onCard.filter((entry) => wantedIds.has(entry.id)),
  )
  const amiss = await stillAmiss(db, step.volumeId, step.entryIds)
  const whole = step.entryIds.length - amiss.size
  const said = whole > 0 ? `${counted(whole, 'file')} on ${place.name} ${whole === 1 ? 'is' : 'are'} as proved.` : ''
  if (amiss.size === 0) return { sentence: said, troubles: [] }
  if (step.onlyRead)
    return {
      sentence: said || undefined,
      troubles: [`${counted(amiss.size, 'file')} of “${load.label}” on ${place.name} have no good copy.`],
    }
  const source = step.from === null ? await cardSource(work, load, onCard) : await volumeSource(work, load, step.from)
  const wanted = source.files.filter((file) => amiss.has(file.id))
  const bytes = wanted.reduce((sum, file) => sum + file.sizeBytes, 0)
  const { freeBytes } = await place.medium.room()
  if (freeBytes < bytes)
    throw new CannotWork(
      `${place.name} lacks ${formatBytes(bytes - freeBytes)}: nothing was mended there. Make room, then repair.`,
    )
  const target: Target = { ...place, there: { thereBytes: 0, freeBytes, strangers: { files: 0, sizeBytes: 0 } } }
  const troubles: string[] = []
  const passes = new CopyPasses(work, {
    ...{ load, source: { ...source, files: wanted }, measured: new MeasuredMedium(source.medium) },
    ...{ targets: [target], troubles, known: await rightHashes(db, step), setAside: false },
  })
  // Folders may be gone with what lay in them.
  const folders = new Set(wanted.map((file) => parentOf(file.path).toString('latin1')))
  await passes.run([...folders].map((folder) => Buffer.from(folder, 'latin1')))
  if (!passes.tally.failed(target.id)) await finishTarget(work, target, load.id, onCard, troubles)
  const left = await stillAmiss(db, step.volumeId, step.entryIds)
  const mended = amiss.size - left.size
  if (mended > 0)
    await addNote(db, {
      ...{ kind: 'repaired', productionId: load.productionId, loadId: load.id, volumeId: step.volumeId },
      detail: { files: mended, from: step.from, taskId: work.taskId },
    })
  const aside = place.moved() ? ` What was bad lies in “${place.asideFolder}” on ${place.name}.` : ''
  const mend =
    mended === 0
      ? `Nothing of “${load.label}” on ${place.name} was mended.`
      : `${counted(mended, 'file')} of “${load.label}” on ${place.name} mended from ${source.name} and proved.`
  return { sentence: `${said ? `${said} ` : ''}${mend}${aside}`, troubles }
}

/** What is read must be this: of a copy what was proved of it, of the card what was proved of the file. */
async function rightHashes(db: Work['db'], step: Step): Promise<ReadonlyMap<number, string>> {
  if (step.from === null) return copies.knownHashes(db, step.loadId)
  const good = await goodCopies(db, step.entryIds)
  return new Map(good.flatMap((one) => (one.volumeId === step.from ? [[one.entryId, one.hash] as const] : [])))
}

interface Place extends CopyDestination {
  readonly name: string
  readonly measured: MeasuredMedium
  readonly asideFolder: string
  /** Whether anything was put aside. */
  readonly moved: () => boolean
}

/** The volume that is mended, with the way in which a bad file makes room for a good one. */
async function placeOf(work: Work, step: Step, folder: string): Promise<Place> {
  const { db, host, attemptId, taskId } = work
  const row = await volumeRow(db, host, step.volumeId)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium) throw new CannotWork(`${row?.name ?? 'A volume'} is not connected: nothing was mended there.`)
  await removeStaleParts({ db, host, volumeId: step.volumeId, medium, live: await liveAttempts(db) })
  const measured = new MeasuredMedium(medium)
  const asideFolder = `${SET_ASIDE}/${taskId}`
  let moved = false
  return {
    ...{ id: step.volumeId, name: row.name, measured, medium: measured.medium, asideFolder, moved: () => moved },
    ...{ folder: Buffer.from(folder), parts: partsOf(attemptId) },
    makeWay: async (file) => {
      const to = await putAside(medium, Buffer.from(folder), file.path, asideFolder)
      if (to === undefined) return
      moved = true
      await addNote(db, {
        ...{ kind: 'set-aside', loadId: step.loadId, volumeId: step.volumeId },
        detail: { paths: [file.path.toString()], to: to.toString() },
      })
    },
  }
}

/**
 * Reads what nobody has read since it was changed, and what an earlier attempt has put something aside for: it may be
 * whole.
 */
async function readFirst(
  work: Work,
  step: Step,
  place: Place,
  entries: readonly Pick<SourceEntry, 'id' | 'path' | 'sizeBytes'>[],
): Promise<void> {
  const { db, attemptId, control } = work
  const amiss = await stillAmiss(db, step.volumeId, step.entryIds)
  const known = await copies.knownHashes(db, step.loadId)
  const first = []
  for (const entry of entries) {
    const aside = joinPath(Buffer.from(place.asideFolder), joinPath(place.folder, entry.path))
    if (amiss.get(entry.id) !== 'changed' && !(await place.medium.entry(aside))) continue
    const hash = known.get(entry.id)
    if (hash) first.push({ ...entry, hash })
  }
  const run = {
    ...{ loadId: step.loadId, runId: attemptId },
    folders: new Map([[step.volumeId, place.folder.toString()]]),
  }
  await checkCopy({
    ...{ destinationId: step.volumeId, medium: place.medium, folder: place.folder, files: first },
    ...{ gate: control.gate, onBytes: () => undefined },
    report: (records) =>
      addCopyProofs(
        db,
        run,
        records.filter((record) => record.kind !== 'mismatch' || record.found !== 'nothing'),
      ),
  })
}
