import type { TaskInput } from '../../../contract/taskKinds'
import { counted } from '../../../core/units/quantity'
import { clipsToRecheck, proxyOf } from '../../db/queries/proxies'
import { volume } from '../../db/queries/volumes'
import { ToolFailed } from '../../engine/tool/tool'
import { CannotWork } from '../../media/cannotWork'
import { fullPath, volumeMedium } from '../../media/mediumOf'
import { originalOf } from '../../media/originals'
import { inTransaction } from '../../db/connection'
import type { Job, Work, WorkEnd } from '../work'
import { compareProxy, keepCompared } from './steps/compared'

/** Compares proxies with their originals; those whose drives are away stay as they were. */
export const recheck: Job<'recheck'> = { kind: 'recheck', run: runRecheck }

async function runRecheck(work: Work, { productionId, all = false }: TaskInput<'recheck'>): Promise<WorkEnd> {
  const { control, progress } = work
  const clipIds = await clipsToRecheck(work.db, productionId, all)
  const [troubles, count] = [[] as string[], { equal: 0, differs: 0, waiting: 0 }]
  for (const [done, clipId] of clipIds.entries()) {
    await control.gate()
    progress.set({ done, total: clipIds.length, unit: 'files' })
    const found = await recheckOne(work, clipId)
    count[found.state] += 1
    if (found.trouble !== undefined) troubles.push(found.trouble)
  }
  progress.set({ done: clipIds.length, total: clipIds.length, unit: 'files' })
  const { equal, differs, waiting } = count
  if (equal + differs === 0 && waiting > 0)
    throw new CannotWork(
      `${counted(waiting, 'proxy waits', 'proxies wait')} for ` +
        `${waiting === 1 ? 'its drive or its' : 'drives or'} original: ${troubles[0] ?? ''}`,
    )
  const rest = waiting > 0 ? `; ${counted(waiting, 'more waits', 'more wait')} for drives` : ''
  return {
    sentence:
      `${counted(equal + differs, 'proxy', 'proxies')} compared, sound and all: ${equal} ` +
      `equal${differs > 0 ? `, ${differs} not` : ''}${rest}.`,
    troubles,
  }
}

async function recheckOne(
  { db, host, control }: Work,
  clipId: string,
): Promise<{ readonly state: 'equal' | 'differs' | 'waiting'; readonly trouble?: string }> {
  const kept = await proxyOf(db, clipId)
  const row = kept && (await volume(db, host, kept.volumeId))
  const medium = row && (await volumeMedium(db, row))
  if (!kept || !row || !medium) return { state: 'waiting', trouble: `${row?.name ?? 'The drive'} is not connected.` }
  const path = Buffer.from(kept.path)
  const entry = await medium.entry(path).catch(() => undefined)
  if (entry?.kind !== 'file' || entry.sizeBytes !== kept.sizeBytes)
    return { state: 'waiting', trouble: `${kept.path} is not on ${row.name} as it was made. Make it again.` }
  try {
    const original = await originalOf(db, clipId)
    const found = await compareProxy(original, fullPath(medium, path), control)
    const { volumeId, sizeBytes } = kept
    await inTransaction(db, (tx) =>
      keepCompared(tx, { mediaFileId: clipId, volumeId, path: kept.path, sizeBytes }, found),
    )
    const wrong = found.checks.filter((check) => !check.pass).map((check) => `${check.name}: ${check.found}`)
    return found.state === 'equal'
      ? { state: 'equal' }
      : { state: 'differs', trouble: `${original.clip.name}: ${wrong.join('; ')}. Make it again.` }
  } catch (error) {
    // One that cannot be read now does not hold up the others.
    if (error instanceof CannotWork || error instanceof ToolFailed) return { state: 'waiting', trouble: error.message }
    throw error
  }
}
