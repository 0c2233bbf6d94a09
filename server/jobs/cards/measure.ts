import type { TaskInput } from '../../../contract/taskKinds'
import type { MediaFacts, MeasuredFields } from '../../../core/media/facts'
import { counted } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import { reader as readerRow } from '../../db/queries/readers'
import { measureFields } from '../../engine/probe/measureFields'
import { ToolFailed } from '../../engine/tool/tool'
import { fullPath, readerContent } from '../../media/mediumOf'
import { originalOf } from '../../media/originals'
import type { Job, Work, WorkEnd } from '../work'
import { findInClips } from './steps/arrange'

/**
 * Measures what files do not say and only decoded frames show: whether they are woven of fields. After the scan, so
 * that it stays quick.
 */
export const measure: Job<'measure'> = { kind: 'measure', run: runMeasure }

/** Whether frames have to be decoded to know how a clip is scanned. */
export const isUnmeasured = (probe: MediaFacts | null | undefined): boolean =>
  probe?.video !== undefined && probe.video.fieldOrder === undefined && probe.video.measuredFields === undefined

async function runMeasure({ db, control, progress }: Work, input: TaskInput<'measure'>): Promise<WorkEnd> {
  const open = await cards.unmeasuredClips(db, input.loadId)
  const fileOf = await filesOf(db, input)
  let [measured, woven] = [0, 0]
  for (const [done, { id, entryId, probe }] of open.entries()) {
    await control.gate()
    progress.set({ done, total: open.length, unit: 'files' })
    const path = await fileOf(id, entryId)
    if (!probe?.video || !path) continue
    const fields = await measureFields(path, probe.video, control).catch((error: unknown): MeasuredFields => {
      if (error instanceof ToolFailed) return { order: 'undecided', frames: 0 }
      throw error
    })
    measured += 1
    if (fields.order === 'top first' || fields.order === 'bottom first') woven += 1
    await cards.setFacts(db, id, withFields(probe, fields))
  }
  progress.set({ done: open.length, total: open.length, unit: 'files' })
  await cards.setClipFindings(db, input.loadId, await findInClips(db, input.loadId))
  const left = open.length - measured
  return {
    sentence:
      `${counted(measured, 'clip')} measured: ` +
      `${woven === 0 ? 'none is interlaced' : `${counted(woven, 'clip')} interlaced`}${left > 0 ? `; ${left} left for the next scan, since neither card nor copy is there` : ''}.`,
    troubles: [],
  }
}

/** Where a clip can be read now: on the card that was scanned, else on a connected copy. */
async function filesOf(db: Work['db'], { readerId, loadId }: TaskInput<'measure'>) {
  const entries = new Map((await cards.entriesOf(db, loadId)).map((row) => [row.id, row]))
  const reader = await readerRow(db, readerId)
  const content = reader?.loadId === loadId ? await readerContent(db, reader) : undefined
  const card = content === 'empty' || content === 'unreachable' ? undefined : content?.medium
  return async (clipId: string, entryId: number): Promise<Buffer | undefined> => {
    const entry = entries.get(entryId)
    const lies = entry && (await card?.entry(entry.path).catch(() => undefined))
    if (card && entry && lies?.kind === 'file' && lies.sizeBytes === entry.sizeBytes) return fullPath(card, entry.path)
    return originalOf(db, clipId).then(
      (original) => original.path,
      () => undefined,
    )
  }
}

const withFields = (facts: MediaFacts, measuredFields: MeasuredFields): MediaFacts => {
  const video = facts.video && { ...facts.video, measuredFields }
  return {
    ...facts,
    video,
    videos: facts.videos.map((track) => (video && track.index === video.index ? video : track)),
  }
}
