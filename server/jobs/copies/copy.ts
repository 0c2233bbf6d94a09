import type { TaskInput } from '../../../contract/taskKinds'
import { fewerKept, moreInTheWay, planFault } from '../../../core/copies/plan'
import { fileTitle } from '../../../core/units/fileTitle'
import { counted } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import * as copies from '../../db/queries/copies'
import { putReaderSpeed, readerOfLoad } from '../../db/queries/readers'
import { addOffload } from '../../db/queries/measured'
import { putVolumeSpeed } from '../../db/queries/volumes'
import { addNote } from '../../db/queries/journal'
import { tellChanged } from '../../db/queries/tasks'
import { MeasuredMedium } from '../../engine/copy/measured'
import { copyPlanOf } from '../../facts/copyPlan'
import { CannotWork } from '../../media/cannotWork'
import type { Job, Work, WorkEnd } from '../work'
import { CopyPasses } from './steps/copyPasses'
import { finishTarget } from './steps/finishTarget'
import { cardSource, volumeSource, type CopySource, type SourceEntry } from './steps/source'
import { prepareTarget, type Target } from './steps/target'

type CopyInput = TaskInput<'copy'>

/** Copies a load to volumes and proves it; may be cut anywhere and called again. */
export const copy: Job<'copy'> = { kind: 'copy', run: runCopy }

async function runCopy(work: Work, input: CopyInput): Promise<WorkEnd> {
  const { db } = work
  const load = await cards.load(db, input.loadId)
  if (!load) throw new CannotWork('This load is no longer known. Scan the card again.')
  const entries = await cards.entriesOf(db, load.id)
  const onCard = entries.filter((entry) => entry.kind === 'file')
  const from = input.from ?? undefined
  const source = from === undefined ? await cardSource(work, load, onCard) : await volumeSource(work, load, from)
  const folder = `${load.productionFolder}/Cards/${fileTitle(load.label)}`
  const { targets, troubles } = await prepareTargets(work, input, load, folder, source.files)
  await tellChanged(db, 'copies')
  const begun = performance.now()
  const measured = new MeasuredMedium(source.medium)
  const passes = new CopyPasses(work, {
    load,
    source,
    measured,
    targets,
    troubles,
    known: await copies.knownHashes(db, load.id),
    setAside: input.setAside,
  })
  await passes.run(entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path))
  const alive = targets.filter((to) => !passes.tally.failed(to.id))
  for (const to of alive) await finishTarget(work, to, load.id, onCard, troubles)
  if (source.volumeId === undefined) await keepSpeeds(work, load, measured, targets, (performance.now() - begun) / 1000)
  else await putVolumeSpeed(db, source.volumeId, work.host, measured)
  const changed = await source.changes()
  if (changed !== '') troubles.push(`The card changed while it was copied: ${changed}. Scan it again, then copy.`)
  await addNote(db, {
    kind: 'copied',
    productionId: load.productionId,
    loadId: load.id,
    detail: { volumeIds: input.volumeIds, from: from ?? null, troubles: troubles.length },
  })
  await tellChanged(db, 'copies', 'productions', 'storage')
  return { sentence: await closingSentence(work, load, source, targets), troubles }
}

/**
 * Volumes that the plan has something for, and a sentence for each of the others and for what became different since it
 * was shown.
 */
async function prepareTargets(
  work: Work,
  input: CopyInput,
  load: cards.LoadRow,
  folder: string,
  files: readonly SourceEntry[],
): Promise<{ targets: Target[]; troubles: string[] }> {
  const prepared = []
  for (const id of new Set(input.volumeIds)) prepared.push(await prepareTarget(work, input, id, folder, files))
  const unready = prepared.flatMap((one) => (typeof one === 'string' ? [one] : []))
  const ready = prepared.filter((one) => typeof one !== 'string')
  const seen = new Map(ready.map((to) => [to.id, to.there]))
  const plan = await copyPlanOf(work.db, work.host, load, [...seen.keys()], { seen, from: input.from ?? undefined })
  const faults = new Map(plan.volumes.map((volume) => [volume.volumeId, planFault(volume)]))
  const fewer = input.plan && !input.setAside ? fewerKept(input.plan, plan) : []
  const changes = input.plan && !input.setAside ? [...fewer, ...moreInTheWay(input.plan, plan)] : []
  // Nobody saw the plan of an order of the night: what is in the way there is named, and waits for a person.
  if (input.seen === true && changes.length > 0)
    throw new CannotWork(
      `This differs from the plan you saw, so nothing more was written. ${changes.join(' ')} Look at ` +
        'the plan again, then copy.',
    )
  return {
    targets: ready.filter((to) => faults.get(to.id) === undefined),
    troubles: [...unready, ...[...faults.values()].flatMap((fault) => fault ?? []), ...fewer],
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

async function closingSentence(
  { db }: Work,
  load: { id: string; fileCount: number },
  source: Pick<CopySource, 'name' | 'volumeId'>,
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
    return (
      `Copied, but ${names(cached)} could only be read back through memory, perhaps not from the ` +
      'medium: that counts as copied, not as verified.'
    )
  if (whole.length === 0)
    return (
      `${targets.length === 0 ? 'Nothing was copied' : `${names(targets)} ${targets.length === 1 ? 'holds' : 'hold'} no whole proved copy yet`}. ` +
      `Keep ${source.volumeId === undefined ? 'the card' : `the copy on ${source.name}`} as it is.`
    )
  return (
    `All ${counted(load.fileCount, 'file')} proved on ` +
    `${names(whole)}${whole.length < targets.length ? '; the others are not complete' : ''}.`
  )
}
