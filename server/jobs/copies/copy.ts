import type { TaskInput } from '../../../contract/taskKinds'
import { planChanges, planFault } from '../../../core/copies/plan'
import { fileTitle } from '../../../core/units/fileTitle'
import { counted } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import * as copies from '../../db/queries/copies'
import { putReaderSpeed, readerOfLoad } from '../../db/queries/readers'
import { addOffload } from '../../db/queries/measured'
import { putVolumeSpeed } from '../../db/queries/volumes'
import { addCopyProofs } from '../../db/queries/proofs'
import { addNote } from '../../db/queries/journal'
import { tellChanged } from '../../db/queries/tasks'
import { copyTree } from '../../engine/copy'
import type { SourceFile } from '../../engine/copyOrder'
import { awaitedLater } from '../../engine/hash'
import { SourceGone, SourceSwapped } from '../../engine/copyRun'
import { writeLists } from '../../engine/lists'
import { MeasuredMedium } from '../../engine/measured'
import { copyPlanOf } from '../../facts/copyPlan'
import { CannotWork } from '../../media/cannotWork'
import { lookAtMirror } from '../../observer/mirrorLook'
import type { Job, Work, WorkEnd } from '../work'
import { cardOf, changesOf } from './source'
import { Tally } from './tally'
import { prepareTarget, type Target } from './target'
import { troubleSentence } from './troubles'

type CopyInput = TaskInput<'copy'>

/** Copies a load to volumes and proves it; may be cut anywhere and called again. */
export const copy: Job<'copy'> = { kind: 'copy', run: runCopy }

async function runCopy(work: Work, input: CopyInput): Promise<WorkEnd> {
  const { db, control, attemptId } = work
  const load = await cards.load(db, input.loadId)
  if (!load) throw new CannotWork('This load is no longer known. Look at the card again.')
  const entries = await cards.entriesOf(db, load.id)
  const files = entries.filter((entry) => entry.kind === 'file')
  const card = await cardOf(work, load, files)
  const source = new MeasuredMedium(card)
  const folder = `${load.productionFolder}/Cards/${fileTitle(load.label)}`
  const { targets, troubles } = await prepareTargets(work, input, load, folder, files)
  await tellChanged(db, 'copies')
  const bytes = files.reduce((sum, file) => sum + file.sizeBytes, 0)
  const tally = new Tally(
    work.progress,
    targets.map((to) => ({ id: to.id, name: to.name, wantedBytes: bytes })),
  )
  const names = new Map(files.map((file) => [file.id, file.pathText]))
  const known = await copies.knownHashes(db, load.id)
  const wantedBy = new Set(targets.map((to) => to.id))
  const run = {
    loadId: load.id,
    runId: attemptId,
    folders: new Map(targets.map((to) => [to.id, to.folder.toString()])),
  }
  let writing: Promise<void> = Promise.resolve()
  const begun = performance.now()
  const engine = copyTree({
    source: source.medium,
    destinations: targets,
    gate: control.gate,
    folders: entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path),
    files:
      targets.length === 0
        ? []
        : files.map((file): SourceFile => ({ ...file, wantedBy, knownHash: known.get(file.id) })),
    onBytes: (id, stage, more) => tally.add(id, stage, more),
    report: async (records) => {
      // While these are written down, the engine goes on; the next ones wait for them.
      await writing
      writing = awaitedLater(addCopyProofs(db, run, records))
      for (const record of records) {
        const sentence = troubleSentence(record, names, targets)
        if (sentence) troubles.push(sentence)
        if (record.kind === 'destination-failed') tally.fail(record.destinationId, sentence ?? '')
      }
    },
  })
  // What was reported is written down in any case.
  await engine
    .finally(() => writing)
    .catch(async (error: unknown) => {
      await Promise.all(targets.map((to) => to.medium.remove(to.parts).catch(() => undefined)))
      if (error instanceof SourceGone)
        throw new CannotWork(
          `The card of “${load.label}” went away in mid-copy. What was proved stays; put the card in and copy again.`,
        )
      if (error instanceof SourceSwapped)
        throw new CannotWork(
          `Another card lies in the reader now than the one of “${load.label}” that was being copied. What was proved stays; put that card in again and copy.`,
        )
      throw error
    })
  for (const to of targets) if (!tally.failed(to.id)) await finishTarget(work, to, load.id, files)
  await keepSpeeds(work, load, source, targets, (performance.now() - begun) / 1000)
  const changed = (await changesOf(card, files)).words
  if (changed !== '') troubles.push(`The card changed while it was copied: ${changed}. Look at it again, then copy.`)
  await addNote(db, {
    kind: 'copied',
    productionId: load.productionId,
    loadId: load.id,
    detail: { volumeIds: input.volumeIds, troubles: troubles.length },
  })
  await tellChanged(db, 'copies', 'productions', 'storage')
  return { sentence: await closingSentence(work, load, targets), troubles }
}

/** Volumes that the plan has something for, and a sentence for each of the others and for what became different since it was shown. */
async function prepareTargets(
  work: Work,
  input: CopyInput,
  load: cards.LoadRow,
  folder: string,
  files: readonly cards.EntryRow[],
): Promise<{ targets: Target[]; troubles: string[] }> {
  const prepared = []
  for (const id of new Set(input.volumeIds)) prepared.push(await prepareTarget(work, input, id, folder, files))
  const unready = prepared.flatMap((one) => (typeof one === 'string' ? [one] : []))
  const ready = prepared.filter((one) => typeof one !== 'string')
  const seen = new Map(ready.map((to) => [to.id, to.there]))
  const plan = await copyPlanOf(work.db, work.host, load, [...seen.keys()], seen)
  const faults = new Map(plan.volumes.map((volume) => [volume.volumeId, planFault(volume)]))
  return {
    targets: ready.filter((to) => faults.get(to.id) === undefined),
    troubles: [
      ...unready,
      ...[...faults.values()].flatMap((fault) => fault ?? []),
      ...(input.plan && !input.setAside ? planChanges(input.plan, plan) : []),
    ],
  }
}

/** How fast each place was says how long the next copy will take. */
async function keepSpeeds(
  { db, host }: Work,
  load: cards.LoadRow,
  source: MeasuredMedium,
  targets: readonly Target[],
  seconds: number,
): Promise<void> {
  for (const { id, measured } of targets) await putVolumeSpeed(db, id, host, measured)
  if (source.readBytesPerSecond === undefined) return
  const reader = await readerOfLoad(db, load)
  if (reader) await putReaderSpeed(db, reader.id, source.readBytesPerSecond)
  // Reader, bus, drives and reading back are in series: what a person waits for is all of it.
  await addOffload(db, {
    ...{ productionId: load.productionId, loadId: load.id, cameraId: load.cameraId, label: load.label },
    ...{ sizeBytes: source.readBytes, seconds, exportedBytes: null },
  })
}

/** Checksum lists beside the mirror, and a listing of it, so that what is known of it is what lies there. */
async function finishTarget(
  work: Work,
  to: Target,
  loadId: string,
  onCard: readonly Pick<cards.EntryRow, 'id' | 'path'>[],
): Promise<void> {
  const { db, control } = work
  const known = await copies.knownHashes(db, loadId)
  const kept = await copies.provedOn(db, loadId, to.id)
  const belonging = new Map([
    ...kept.map((file) => [file.entryId, file.path] as const),
    ...onCard.map((file) => [file.id, file.path] as const),
  ])
  const files = [...belonging].map(([id, path]) => ({ path, hash: known.get(id) }))
  files.sort((a, b) => a.path.compare(b.path))
  const { medium, folder, parts } = to
  try {
    await writeLists({ medium, folder, parts, files, gate: control.gate })
    await medium.remove(parts)
    await lookAtMirror(db, { loadId, volumeId: to.id, folder: folder.toString() }, medium)
  } catch (error) {
    // Pulled out just after its last file: its proofs stand, the lists come with the next copy.
    if (
      await medium.place().then(
        () => true,
        () => false,
      )
    )
      throw error
  }
}

async function closingSentence(
  { db }: Work,
  load: { id: string; fileCount: number },
  targets: readonly Target[],
): Promise<string> {
  const mirrors = await copies.mirrorsOf(db, [load.id])
  const of = (to: Target) => mirrors.find((one) => one.volumeId === to.id)
  const whole = targets.filter((to) => of(to)?.filesVerified === load.fileCount)
  const cached = targets.filter((to) => {
    const mirror = of(to)
    return (
      mirror !== undefined && mirror.filesMemory > 0 && mirror.filesVerified + mirror.filesMemory === load.fileCount
    )
  })
  const names = (some: readonly Target[]) => some.map((to) => to.name).join(' and ')
  if (cached.length > 0)
    return `Copied, but ${names(cached)} could only be read back through memory, perhaps not from the medium: that counts as copied, not as verified.`
  if (whole.length === 0)
    return `${targets.length === 0 ? 'Nothing was copied' : `${names(targets)} ${targets.length === 1 ? 'holds' : 'hold'} no whole proved copy yet`}. Keep the card as it is.`
  return `All ${counted(load.fileCount, 'file')} proved on ${names(whole)}${whole.length < targets.length ? '; the others are not complete' : ''}.`
}
