import { Router } from 'express'
import { markOf } from '../../core/copies/mark'
import { counted } from '../../core/units/quantity'
import { copyOrder, spotPlay, type LoadCopies } from '../../contract/copies'
import * as cards from '../db/queries/cards'
import { copyTroubles } from '../db/queries/copies'
import { addEvent } from '../db/queries/events'
import { volumes } from '../db/queries/storage'
import { openTaskOf, tellChanged } from '../db/queries/tasks'
import { lostFiles } from '../engine/medium'
import { startTask } from '../jobs/queue'
import type { Context } from './context'
import { loadStates, type LoadState } from './loads'
import { playCopy } from './play'
import { bodyOf, conflict, idOf, invalid, notFound } from './problem'
import { productionOf } from './productionOf'
import { connectedVolumes } from './volumes'

const WORDS = {
  mismatch: 'differed when it was read back; it was not kept',
  conflict: 'another file has its name on the volume',
} as const

const isPlayable = (clip: { probe: object | null; trouble: string | null }) =>
  clip.probe !== null && clip.trouble === null

export function copyRoutes({ db, boss }: Context): Router {
  const router = Router()

  router.get('/productions/:id/copies', async (req, res) => {
    const owner = await productionOf(db, req)
    const loads = await cards.loadsOf(db, [owner.id])
    const states = await loadStates(db, loads)
    res.json(
      await Promise.all(
        states.map(async ({ load, clips, copies, clear, formattedAt, returned }): Promise<LoadCopies> => {
          const troubled = copies.some((copy) => copy.filesMismatched + copy.filesInConflict > 0)
          const troubles = troubled ? await copyTroubles(db, load.id) : []
          return {
            loadId: load.id,
            label: load.label,
            sizeBytes: load.sizeBytes,
            fileCount: load.fileCount,
            clear,
            formattedAt: returned ? null : (formattedAt ?? null),
            copies: copies.map((copy) => ({
              ...copy,
              mark: markOf(copy),
              troubles: troubles.flatMap((one) =>
                one.volumeId === copy.volumeId && one.kind !== 'proved'
                  ? [{ path: one.pathText, sentence: WORDS[one.kind] }]
                  : [],
              ),
            })),
            playableClips: clips.flatMap((clip) =>
              isPlayable(clip) ? [{ id: clip.id, name: clip.name, seconds: clip.probe?.seconds ?? 0 }] : [],
            ),
          }
        }),
      ),
    )
  })

  router.post('/loads/:id/copies', async (req, res) => {
    const load = await loadOf(idOf(req))
    const { volumeIds, setAside } = await bodyOf(copyOrder, req)
    const known = await volumes(db)
    const names = volumeIds.map((id) => known.find((row) => row.id === id)?.name)
    if (names.includes(undefined)) throw notFound('One of these volumes')
    if (await openTaskOf(db, 'copy', load.id))
      throw conflict(`“${load.label}” is being copied already. Wait for it, or stop it first.`)
    const id = await startTask(db, boss, {
      kind: 'copy',
      title: `Copy “${load.label}” to ${names.join(' and ')}`,
      productionId: load.productionId,
      loadId: load.id,
      input: { loadId: load.id, volumeIds: [...new Set(volumeIds)], setAside },
    })
    res.status(202).json({ taskId: id })
  })

  router.get('/loads/:id/play/:volumeId/:clipId', async (req, res) => {
    await playCopy(db, { loadId: idOf(req), volumeId: idOf(req, 'volumeId'), clipId: idOf(req, 'clipId') }, req, res)
  })

  router.post('/loads/:id/spot-plays', async (req, res) => {
    const load = await loadOf(idOf(req))
    const { volumeId, clipId, seconds } = await bodyOf(spotPlay, req)
    const [state] = await loadStates(db, [load])
    const copy = state?.copies.find((one) => one.volumeId === volumeId)
    const playable = state?.clips.filter(isPlayable) ?? []
    if (!copy || (clipId !== null && !playable.some((clip) => clip.id === clipId))) throw notFound('That copy')
    if (clipId === null && playable.length > 0) throw invalid('Say which clip was played.', 'clipId')
    if (markOf(copy) < 2)
      throw conflict(`${copy.volumeName} holds no verified copy of “${load.label}” yet. Copy it first, then play it.`)
    await addEvent(db, {
      kind: 'spot-played',
      productionId: load.productionId,
      loadId: load.id,
      volumeId,
      clipId: clipId ?? undefined,
      detail: { seconds },
    })
    await tellChanged(db, 'copies', 'productions')
    res.status(204).end()
  })

  router.post('/loads/:id/formatted', async (req, res) => {
    const load = await loadOf(idOf(req))
    const [state] = await loadStates(db, [load])
    if (!state?.clear.clear) throw conflict(`Do not format this card yet. ${state?.clear.sentence ?? ''}`)
    await assertCopiesThere(state)
    await addEvent(db, { kind: 'said-formatted', productionId: load.productionId, loadId: load.id })
    await tellChanged(db, 'copies', 'productions', 'cards')
    res.status(204).end()
  })

  /** The last look before the card is gone for good: every file of every verified copy that can be reached must still be in its place. */
  async function assertCopiesThere({ load, copies }: LoadState): Promise<void> {
    const files = (await cards.entriesOf(db, load.id)).filter((entry) => entry.kind === 'file')
    const connected = await connectedVolumes(db)
    for (const copy of copies.filter((one) => markOf(one) >= 2)) {
      const medium = connected.get(copy.volumeId)
      const [lost, ...more] = medium ? await lostFiles(medium, Buffer.from(copy.folder), files) : []
      if (lost)
        throw conflict(
          `Do not format this card yet. ${lost.pathText}${more.length > 0 ? ` and ${counted(more.length, 'more file')}` : ''} on ${copy.volumeName} is gone or has another size since it was proved. Copy again first.`,
        )
    }
  }

  async function loadOf(id: string) {
    const load = await cards.load(db, id)
    if (!load) throw notFound('That load')
    return load
  }

  return router
}
