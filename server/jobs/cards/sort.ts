import type { TaskInput } from '../../../contract/taskKinds'
import { LIBRARY, type SortStep } from '../../../core/cards/review/sorted'
import { counted } from '../../../core/units/quantity'
import { production } from '../../db/queries/productions'
import * as sorted from '../../db/queries/sorted'
import { tellChanged } from '../../db/queries/tasks'
import { volume as volumeRow } from '../../db/queries/volumes'
import type { Medium } from '../../engine/medium/medium'
import { joinPath } from '../../engine/medium/medium'
import { CannotLink, placeFile } from '../../engine/copy/placeFile'
import { setAside } from '../../engine/copy/publish'
import { Stopped } from '../../engine/tool/stopped'
import { sortedOf, type SortSource } from '../../facts/sorted'
import { CannotWork } from '../../media/cannotWork'
import { whyItStays } from '../../media/mayGo'
import { partsOf, volumeMedium } from '../../media/mediumOf'
import type { Job, Work, WorkEnd } from '../work'
import { keepingStamp } from './steps/keepStamp'

type SortInput = TaskInput<'sort'>

/**
 * Brings the sorted view of a production up to date, or takes its last change back; may be cut anywhere and called
 * again.
 */
export const sort: Job<'sort'> = { kind: 'sort', run: runSort }

interface View {
  readonly work: Work
  readonly productionId: string
  readonly volumeId: string
  readonly volumeName: string
  readonly medium: Medium
  /** The folder of the production on the volume. */
  readonly base: string
  readonly how: 'reflink' | 'hard' | 'copy'
  readonly sources: ReadonlyMap<number, SortSource>
  readonly runId: string
  readonly troubles: string[]
}

async function runSort(work: Work, { productionId, undo }: SortInput): Promise<WorkEnd> {
  const { db, host, taskId } = work
  const owner = await production(db, productionId)
  const { volumeId, settings } = await sorted.sortedView(db, productionId)
  const row = volumeId === null ? undefined : await volumeRow(db, host, volumeId)
  const medium = row && (await volumeMedium(db, row))
  if (!owner || volumeId === null || !row) throw new CannotWork('Choose the volume of the sorted view first.')
  if (!medium) throw new CannotWork(`${row.name} is not connected. Connect it, and sort again.`)
  const editBegun = settings.editBegun || (await hasLibrary(medium, `${owner.folder}/${LIBRARY}`))
  if (editBegun && !settings.editBegun)
    await sorted.putSortedView(db, productionId, { volumeId, settings: { ...settings, editBegun } })
  await forgetGone(db, medium, { productionId, volumeId, base: owner.folder })
  const now = await sortedOf(db, host, productionId, volumeId, { ...settings, editBegun })
  const view: View = {
    ...{ work, productionId, volumeId, volumeName: row.name, medium, base: owner.folder, how: settings.links },
    ...{ sources: now.sources, runId: taskId, troubles: [] },
  }
  try {
    if (undo) {
      if (editBegun) throw new CannotWork('The edit has begun: what lies in the view stays where it is.')
      return await takeBack(view)
    }
    for (const { path } of settings.template) await medium.makeFolder(Buffer.from(`${owner.folder}/${path}`))
    return await carryOut(view, now.plan.steps)
  } finally {
    await medium.remove(partsOf(work.attemptId)).catch(() => undefined)
    await tellChanged(db, 'review', 'storage')
  }
}

/** The edit keeps something there: what it refers to is not to move. */
async function hasLibrary(medium: Medium, folder: string): Promise<boolean> {
  if ((await medium.entry(Buffer.from(folder)))?.kind !== 'folder') return false
  return (await medium.list(Buffer.from(folder))).length > 0
}

/** What somebody took out of the view is no longer in it, and is placed again where it is wanted. */
async function forgetGone(
  db: Work['db'],
  medium: Medium,
  { productionId, volumeId, base }: Pick<View, 'productionId' | 'volumeId' | 'base'>,
): Promise<void> {
  for (const { path } of await sorted.placedFiles(db, productionId, volumeId))
    if (!(await medium.entry(Buffer.from(`${base}/${path}`)))) await sorted.forgetPlaced(db, volumeId, path)
}

async function carryOut(view: View, steps: readonly SortStep[]): Promise<WorkEnd> {
  const { work, troubles } = view
  let done = 0
  const told = { add: 0, move: 0, remove: 0 }
  // A name that another move gives up is free once that one has gone.
  for (const step of inTurn(steps)) {
    await work.control.gate()
    if (await trying(view, step.path, () => carryOutOne(view, step))) told[step.kind] += 1
    done += 1
    work.progress.set({ done, total: steps.length, unit: 'files' })
  }
  const words = [
    told.add > 0 ? `${counted(told.add, 'file')} added` : '',
    told.move > 0 ? `${told.move} moved` : '',
    told.remove > 0 ? `${told.remove} taken away` : '',
  ].filter(Boolean)
  const what = words.length > 0 ? words.join(', ') : 'nothing had to change'
  return { sentence: `Sorted view on ${view.volumeName}: ${what}.`, troubles }
}

/** Moves whose name is still held by another move come after it; of a circle the first goes aside in between. */
function inTurn(steps: readonly SortStep[]): SortStep[] {
  const waiting = [...steps]
  const out: SortStep[] = []
  while (waiting.length > 0) {
    const held = new Set(waiting.flatMap((step) => (step.kind === 'move' ? [step.from.toLowerCase()] : [])))
    const at = waiting.findIndex(
      (step) =>
        step.kind !== 'move' ||
        !held.has(step.path.toLowerCase()) ||
        step.from.toLowerCase() === step.path.toLowerCase(),
    )
    const [step] = waiting.splice(Math.max(0, at), 1)
    if (!step) break
    if (at < 0 && step.kind === 'move') {
      const aside = `${step.from}.moving`
      out.push({ ...step, path: aside })
      waiting.push({ ...step, from: aside })
    } else out.push(step)
  }
  return out
}

/** One file that cannot be placed is said; the others go on. */
async function trying(view: View, path: string, act: () => Promise<string | undefined>): Promise<boolean> {
  try {
    const trouble = await act()
    if (trouble === undefined) return true
    view.troubles.push(`${path}: ${trouble}.`)
    return false
  } catch (error) {
    if (error instanceof Stopped || error instanceof CannotWork) throw error
    if (error instanceof CannotLink)
      throw new CannotWork(
        `${view.volumeName} cannot ` +
          `${view.how === 'hard' ? 'give a file a second name' : 'share the bytes of two files'}. Choose ` +
          `${view.how === 'hard' ? 'copies' : 'hard links or copies'}; nothing is left half done.`,
      )
    await view.medium.place().catch(() => {
      throw new CannotWork(`${view.volumeName} went away. What was sorted stays; connect it, and sort again.`)
    })
    view.troubles.push(`${path}: ${error instanceof Error ? error.message : 'it failed and gave no reason'}.`)
    return false
  }
}

/** Carries one step out; a sentence where it could not be. `note` is false where a change is taken back. */
const carryOutOne = (view: View, step: SortStep, note = true): Promise<string | undefined> =>
  keepingStamp(view.work.db, { ...view, entryId: step.entryId }, () => carriedOut(view, step, note))

async function carriedOut(view: View, step: SortStep, note: boolean): Promise<string | undefined> {
  const { medium, base, productionId, volumeId, runId } = view
  const { db } = view.work
  const at = (path: string) => Buffer.from(`${base}/${path}`)
  const change = { runId, productionId, volumeId, kind: step.kind, path: step.path, entryId: step.entryId }
  if (step.kind === 'add') {
    const placed = await place(view, step)
    if (typeof placed === 'string') return placed
    await sorted.putSorted(db, { ...change, fromPath: null }, placed, note)
    return undefined
  }
  const from = step.kind === 'move' ? step.from : step.path
  const known = await sorted.placedFile(db, volumeId, from)
  const now = await medium.entry(at(from))
  if (step.kind === 'remove') {
    if (now && !(known && isOurs(known, now))) return 'it was changed since it was placed, and stays'
    const file = { volumeId, medium, path: at(from), entryId: step.entryId }
    const why = now && (await whyItStays(db, view.work.host, file))
    if (why !== undefined) return `it stays, since ${why}`
    if (now) await medium.remove(at(from))
    await sorted.putSorted(db, { ...change, fromPath: null }, undefined, note)
    return undefined
  }
  if (!known) return 'it is no longer known in the view'
  const there = await medium.entry(at(step.path))
  const sameName = step.path.toLowerCase() === from.toLowerCase()
  if (!now && !there) return 'somebody moved it or took it away'
  if (there && now && !sameName && there.node !== now.node) return 'another file has its name there'
  await setAside(medium, at(from), at(step.path))
  const { sizeBytes, modifiedMs } = known
  await sorted.putSorted(db, { ...change, fromPath: from }, { sizeBytes, modifiedMs }, note)
  return undefined
}

/** Cards and sticks keep times to two seconds. */
const CLOCK_MS = 2000

const isOurs = (
  known: { readonly sizeBytes: number; readonly modifiedMs: number },
  now: { readonly kind: string; readonly sizeBytes: number; readonly modifiedMs: number },
): boolean =>
  now.kind === 'file' && now.sizeBytes === known.sizeBytes && Math.abs(now.modifiedMs - known.modifiedMs) < CLOCK_MS

async function place(
  view: View,
  { path, entryId, sizeBytes }: SortStep,
): Promise<string | { sizeBytes: number; modifiedMs: number }> {
  const { medium, base, how, work } = view
  const source = view.sources.get(entryId)
  if (!source) return 'no connected volume has a proved copy of it'
  const holder = source.volumeId === view.volumeId ? medium : await holderOf(work, source.volumeId)
  if (!holder) return 'the volume of its copy went away'
  const placed = await placeFile({
    ...{ source: holder, from: joinPath(Buffer.from(source.folder), source.path), hash: source.hash, sizeBytes },
    ...{
      target: medium,
      to: Buffer.from(`${base}/${path}`),
      part: joinPath(partsOf(work.attemptId), Buffer.from('sorted')),
    },
    ...{ how, gate: work.control.gate, onBytes: () => undefined },
  })
  if (placed === 'taken') return 'another file has its name there, and is left as it is'
  return { sizeBytes: placed.sizeBytes, modifiedMs: placed.modifiedMs }
}

async function holderOf({ db, host }: Work, volumeId: string): Promise<Medium | undefined> {
  const row = await volumeRow(db, host, volumeId)
  return row && volumeMedium(db, row)
}

async function takeBack(view: View): Promise<WorkEnd> {
  const { db, progress, control } = view.work
  const last = await sorted.lastChanges(db, view.productionId)
  if (!last || last.volumeId !== view.volumeId) throw new CannotWork('There is nothing to take back on this volume.')
  const sizes = new Map(
    (await sorted.placedFiles(db, view.productionId, view.volumeId)).map((file) => [file.path, file]),
  )
  let done = 0
  let back = 0
  for (const { id, kind, path, fromPath, entryId } of last.changes) {
    await control.gate()
    const about = { entryId, sizeBytes: sizes.get(path)?.sizeBytes ?? 0 }
    const step: SortStep =
      kind === 'add'
        ? { kind: 'remove', path, ...about }
        : kind === 'move'
          ? { kind: 'move', path: fromPath ?? path, from: path, ...about }
          : { kind: 'add', path, entryId, sizeBytes: await sorted.entryBytes(db, entryId) }
    if (await trying(view, path, () => carryOutOne(view, step, false))) {
      back += 1
      await sorted.undone(db, id)
    }
    done += 1
    progress.set({ done, total: last.changes.length, unit: 'files' })
  }
  return { sentence: `Taken back on ${view.volumeName}: ${counted(back, 'change')}.`, troubles: view.troubles }
}
