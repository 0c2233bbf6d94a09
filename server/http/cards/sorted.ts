import { Router } from 'express'
import { sortedFolder, sortSentence } from '../../../core/cards/review/sorted'
import { sortedApi, type SortedClip, type SortedView } from '../../../contract/sorted'
import { shotsOf } from '../../db/queries/shoot'
import { cameraNames, lastChanges, putByHand, putSortedView, sortedView } from '../../db/queries/sorted'
import { tellChanged } from '../../db/queries/tasks'
import { volume as volumeRow, volumes } from '../../db/queries/volumes'
import { sortedOf, type Sorted } from '../../facts/sorted'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, invalid } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { undoably } from '../undoably'
import { counted } from '../../../core/units/quantity'
import { fileNameOf, stemOf } from '../../../core/units/filePath'

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

/** The sorted view of a production. */
export function sortedRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  /** The volume that was chosen, else the connected edit volume. */
  async function chosen(productionId: string) {
    const { volumeId, settings } = await sortedView(db, productionId)
    const known = await volumes(db, host)
    const offered = known.filter((row) => row.connected && row.putAwayAt === null)
    const row = known.find((one) => one.id === volumeId) ?? offered.find((one) => one.kind === 'edit') ?? offered[0]
    return { row, settings: { ...settings, links: possible(settings.links, row?.links ?? null) } }
  }

  serve(router, sortedApi.one, async ({ params }): Promise<SortedView> => {
    const { id } = await productionOf(db, params.id)
    const { row, settings } = await chosen(id)
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
      clips: now.clips.slice(0, SHOWN_CLIPS).map((clip): SortedClip => {
        const path = names.get(clip.id) ?? ''
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
      }),
      plan: {
        ...plan,
        held: plan.held.slice(0, SHOWN_STEPS),
        sentence: sortSentence(now.plan),
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
  })

  serve(router, sortedApi.set, async ({ params, body: { volumeId, ...settings } }) => {
    const { id } = await productionOf(db, params.id)
    if (!(await volumeRow(db, host, volumeId))) throw invalid('That volume is not known.', 'volumeId')
    const before = await sortedView(db, id)
    if (before.settings.editBegun && before.volumeId !== null && before.volumeId !== volumeId)
      throw conflict('The edit has begun on the volume where the view lies: it stays there.')
    await putSortedView(db, id, { volumeId, settings })
    await tellChanged(db, 'review', 'productions')
  })

  serve(router, sortedApi.putByHand, async ({ params, body: { clipIds, folder }, res }) => {
    const { id } = await productionOf(db, params.id)
    const { settings } = await sortedView(db, id)
    if (folder !== null && !settings.template.some((one) => one.path === folder))
      throw invalid('That is no folder of the template.', 'folder')
    const what = counted(clipIds.length, 'clip')
    const title = folder === null ? `${what} left to the rules.` : `${what} for ${folder}.`
    const touched = [{ table: 'review', by: 'media_file_id', ids: clipIds }] as const
    await undoably({ db, res }, touched, title, (tx) => putByHand(tx, id, clipIds, folder))
    await tellChanged(db, 'review')
  })

  const order = async (productionId: string, undo: boolean, req: Parameters<typeof orderTask>[1]) => {
    const owner = await productionOf(db, productionId)
    const { row, settings } = await chosen(owner.id)
    if (!row) throw conflict('No volume is connected. Connect the edit volume first.')
    if (undo && settings.editBegun) throw conflict('The edit has begun: what lies in the view stays where it is.')
    if (undo && !(await lastChanges(db, owner.id))) throw conflict('There is nothing to take back.')
    // What was shown is what is done: the way that this volume can.
    await putSortedView(db, owner.id, { volumeId: row.id, settings })
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'sort',
        title: undo ? `Take the last sorting of “${owner.title}” back` : `Sort “${owner.title}” on ${row.name}`,
        productionId: owner.id,
        loadId: null,
        input: { productionId: owner.id, undo },
      },
      'The sorted view is being changed already. Wait for it.',
    )
    return { taskId }
  }

  serve(router, sortedApi.sort, ({ params, req }) => order(params.id, false, req))
  serve(router, sortedApi.undo, ({ params, req }) => order(params.id, true, req))

  return router
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
