import { sortedFolder, sortSentence, type SortClip, type SortSettings } from '../../core/cards/review/sorted'
import { fileNameOf, stemOf } from '../../core/units/filePath'
import type { SortedClip, SortedView } from '../../contract/sorted'
import type { Db } from '../db/connection'
import { shotsOf } from '../db/queries/shoot'
import { cameraNames, lastChanges, sortedView } from '../db/queries/sorted'
import { volumes } from '../db/queries/volumes'
import { sortedOf, type Sorted } from './sorted'

/** Steps that a page shows one by one; all are counted. */
const SHOWN_STEPS = 200
const SHOWN_CLIPS = 500

const EMPTY: Sorted = {
  clips: [],
  wanted: [],
  plan: { steps: [], kept: 0, held: [], doubledBytes: 0 },
  sources: new Map(),
  unproved: 0,
}

/**
 * The volume of the view that was chosen, else the connected edit volume; with the rules, as far as that volume can.
 */
export async function sortedPlace(db: Db, host: string, productionId: string) {
  const { volumeId, settings } = await sortedView(db, productionId)
  const known = await volumes(db, host)
  const offered = known.filter((row) => row.connected && row.putAwayAt === null)
  const row = known.find((one) => one.id === volumeId) ?? offered.find((one) => one.kind === 'edit') ?? offered[0]
  return { row, settings: { ...settings, links: possible(settings.links, row?.links ?? null) } }
}

/** The sorted view of a production: its clips by folder, and what is still to be done for it. */
export async function sortedPage(db: Db, host: string, id: string): Promise<SortedView> {
  const { row, settings } = await sortedPlace(db, host, id)
  const [now, cameras, shots, last] = await Promise.all([
    row ? sortedOf(db, host, id, row.id, settings) : EMPTY,
    cameraNames(db, id),
    shotsOf(db, id),
    lastChanges(db, id),
  ])
  const names = new Map(now.wanted.map((file) => [file.clipId, file.path]))
  const { steps, ...plan } = now.plan
  return {
    volumeId: row?.id ?? null,
    settings,
    canLink: row?.links ?? null,
    moreClips: Math.max(0, now.clips.length - SHOWN_CLIPS),
    clips: now.clips.slice(0, SHOWN_CLIPS).map((clip) => sortedClip(clip, names.get(clip.id) ?? '', settings)),
    plan: {
      ...plan,
      held: plan.held.slice(0, SHOWN_STEPS),
      sentence: sortSentence(now.plan, now.unproved),
      steps: steps
        .slice(0, SHOWN_STEPS)
        .map((step) => ({ kind: step.kind, path: step.path, ...(step.kind === 'move' && { from: step.from }) })),
      changes: steps.length,
    },
    unproved: now.unproved,
    cameras,
    shots: shots.map(({ id: shotId, name }) => ({ id: shotId, name })),
    last:
      last && !settings.editBegun && last.volumeId === row?.id
        ? { at: last.at.toISOString(), files: last.changes.length }
        : null,
  }
}

/** A clip with the folder that it goes into; `path` is that of its first file there. */
function sortedClip(clip: SortClip, path: string, settings: SortSettings): SortedClip {
  const fileName = clip.files[0]?.fileName ?? ''
  const last = fileNameOf(path)
  return {
    id: clip.id,
    name: clip.isRun ? (path.split('/').at(-2) ?? '') : stemOf(last),
    fileName,
    load: clip.load,
    folder: sortedFolder(clip, settings) ?? '',
    byHand: clip.folder !== null,
    files: clip.files.length,
    sizeBytes: clip.files.reduce((sum, file) => sum + file.sizeBytes, 0),
    pictureMade: clip.pictureMade,
  }
}

/** Shared bytes where the file system can; a second name only where somebody chose it; else copies. */
function possible(
  wanted: 'reflink' | 'hard' | 'copy',
  can: 'reflink' | 'hard' | 'none' | null,
): 'reflink' | 'hard' | 'copy' {
  if (can === null) return wanted
  if (wanted === 'reflink') return can === 'reflink' ? 'reflink' : 'copy'
  return wanted === 'hard' && can === 'none' ? 'copy' : wanted
}
