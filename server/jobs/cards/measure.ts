import type { TaskInput } from '../../../contract/taskKinds'
import { clipFindings } from '../../../core/cards/findings'
import type { MediaFacts, MeasuredFields } from '../../../core/media/facts'
import { counted } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import { reader as readerRow } from '../../db/queries/readers'
import { measureFields } from '../../engine/measureFields'
import { ToolFailed } from '../../engine/tool'
import { CannotWork } from '../../media/cannotWork'
import { fullPath, readerContent } from '../../media/mediumOf'
import type { Job, Work, WorkEnd } from '../work'

/** Measures what files do not say and only decoded frames show: whether they are woven of fields. After the look, so that looking stays quick. */
export const measure: Job<'measure'> = { kind: 'measure', run: runMeasure }

/** Whether frames have to be decoded to know how a clip is scanned. */
export const isUnmeasured = (probe: MediaFacts | null | undefined): boolean =>
  probe?.video !== undefined && probe.video.fieldOrder === undefined && probe.video.measuredFields === undefined

async function runMeasure({ db, control, progress }: Work, input: TaskInput<'measure'>): Promise<WorkEnd> {
  const open = (await cards.clipsOf(db, input.loadId)).filter((clip) => isUnmeasured(clip.probe) && clip.onCard)
  const entries = new Map((await cards.entriesOf(db, input.loadId)).map((row) => [row.id, row]))
  const medium = await cardMedium(db, input)
  let woven = 0
  for (const [done, clip] of open.entries()) {
    await control.gate()
    progress.set({ done, total: open.length, unit: 'files' })
    const entry = entries.get(clip.entryId)
    const lies = entry && (await medium.entry(entry.path).catch(() => undefined))
    if (!clip.probe?.video || lies?.kind !== 'file' || lies.sizeBytes !== clip.sizeBytes) continue
    const measured = await measureFields(
      fullPath(medium, entry?.path ?? Buffer.alloc(0)),
      clip.probe.video,
      control,
    ).catch((error: unknown): MeasuredFields => {
      if (error instanceof ToolFailed) return { order: 'undecided', frames: 0 }
      throw error
    })
    if (measured.order === 'top first' || measured.order === 'bottom first') woven += 1
    await cards.setFacts(db, clip.id, withFields(clip.probe, measured))
  }
  progress.set({ done: open.length, total: open.length, unit: 'files' })
  const shootOn = (await cards.load(db, input.loadId))?.shootOn ?? undefined
  await cards.setClipFindings(db, input.loadId, clipFindings(await cards.scannedClips(db, input.loadId), shootOn))
  return {
    sentence: `Scan of ${counted(open.length, 'clip')} measured: ${woven === 0 ? 'none is interlaced' : `${counted(woven, 'clip')} interlaced`}.`,
    troubles: [],
  }
}

async function cardMedium(db: Work['db'], { readerId, loadId }: TaskInput<'measure'>) {
  const reader = await readerRow(db, readerId)
  const content = reader && (await readerContent(db, reader))
  if (!content || content === 'empty' || content === 'unreachable' || reader.loadId !== loadId)
    throw new CannotWork('The card is no longer in its reader. How its clips are scanned is measured at the next look.')
  return content.medium
}

const withFields = (facts: MediaFacts, measuredFields: MeasuredFields): MediaFacts => {
  const video = facts.video && { ...facts.video, measuredFields }
  return {
    ...facts,
    video,
    videos: facts.videos.map((track) => (video && track.index === video.index ? video : track)),
  }
}
