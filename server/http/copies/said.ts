import type { Router } from 'express'
import { copiesApi } from '../../../contract/copies'
import { inTransaction } from '../../db/connection'
import * as cards from '../../db/queries/cards'
import { addSaid, doubtCopy, formattedOf, foundWrong, largestEntry } from '../../db/queries/said'
import { tellChanged } from '../../db/queries/tasks'
import { loadStates } from '../../facts/loadStates'
import { plays } from '../../../core/media/plays'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'
import { freshStates, loadOf, namesOf } from './known'

/** What a person did and says: played, formatted, that two drives are two. */
export function saidRoutes(router: Router, context: Context): void {
  const { db, host } = context

  /** The file of a copy that somebody played or opened. 404 and 409 say why it cannot have been. */
  async function playedFile(loadId: string, { volumeId, clipId }: { volumeId: string; clipId: string | null }) {
    const load = await loadOf(context, loadId)
    const [state] = await loadStates(db, [load], { host, now: Date.now(), looked: true })
    const copy = state?.copies.find((one) => one.volumeId === volumeId)
    const clip = clipId === null ? undefined : await cards.clip(db, clipId)
    const isPlayable = clip?.loadId === load.id && clip.shown && clip.playable
    if (!copy || (clipId !== null && !isPlayable)) throw notFound('That copy')
    if (clipId === null && load.playable > 0) throw invalid('Say which clip was played.', 'clipId')
    const entryId = clip?.entryId ?? (await largestEntry(db, load.id))?.id
    if (entryId === undefined || copy.filesCopied + copy.filesDoubted === 0)
      throw conflict(`${copy.volumeName} holds no proved copy to play from. Copy to it first.`)
    return { loadId: load.id, volumeId, entryId, isPreview: clip?.probe ? !plays(clip.probe) : false }
  }

  serve(router, copiesApi.played, async ({ params, body: { seconds, asPreview, ...body } }) => {
    const { isPreview, ...file } = await playedFile(params.id, body)
    const preview = asPreview || isPreview
    await addSaid(db, {
      kind: 'spot-played',
      ...file,
      detail: { seconds, clipId: body.clipId, ...(preview && { preview }) },
    })
    await tellChanged(db, 'copies', 'productions')
  })

  serve(router, copiesApi.foundWrong, async ({ params, body: { note, ...body } }) => {
    const { isPreview: _, ...file } = await playedFile(params.id, body)
    await inTransaction(db, async (tx) => {
      await addSaid(tx, { kind: 'found-wrong', ...file, detail: { note, clipId: body.clipId } })
      await doubtCopy(tx, file.volumeId, file.entryId)
    })
    await tellChanged(db, 'copies', 'productions')
  })

  serve(router, copiesApi.foundWhole, async ({ params, body: { volumeId, entryId } }) => {
    const load = await loadOf(context, params.id)
    const open = await foundWrong(db, [load.id])
    if (!open.some((one) => one.volumeId === volumeId && one.entryId === entryId))
      throw conflict('Nobody said that something is wrong with it, or it was settled already.')
    await addSaid(db, { kind: 'found-whole', loadId: load.id, volumeId, entryId })
    await tellChanged(db, 'copies', 'productions')
  })

  serve(router, copiesApi.formatted, async ({ params, body: { anyway, reason, twinId } }) => {
    const [state] = await freshStates(context, [await loadOf(context, params.id)])
    if (!state) throw notFound('That load')
    const { load, clear, asked } = state
    if ((asked?.id ?? null) !== twinId)
      throw conflict(
        'Another card lies in the reader now than the one you answered for. Read the answer again, then say it.',
      )
    if (!clear.clear && !anyway) throw conflict(`Do not format this card yet. ${clear.sentence}`)
    if (!clear.clear && reason === '') throw invalid('Say why it was formatted all the same.', 'reason')
    await addSaid(db, {
      ...{ kind: 'formatted', loadId: load.id },
      ...(twinId !== null && { twinId }),
      ...(!clear.clear && { against: clear.sentence, detail: { reason } }),
    })
    await tellChanged(db, 'copies', 'productions', 'cards')
  })

  serve(router, copiesApi.unformatted, async ({ params, body: { twinId } }) => {
    const load = await loadOf(context, params.id)
    const said = await formattedOf(db, [load.id])
    if (!said.some((one) => one.twinId === twinId))
      throw conflict('Nobody said that this card was formatted, or it was taken back already.')
    await addSaid(db, { kind: 'unformatted', loadId: load.id, ...(twinId !== null && { twinId }) })
    await tellChanged(db, 'copies', 'productions', 'cards')
  })

  serve(router, copiesApi.differentDrives, async ({ body: { volumeId, otherVolumeId } }) => {
    await namesOf(context, [volumeId, otherVolumeId])
    await addSaid(db, { kind: 'different-drives', volumeId, otherVolumeId })
    await tellChanged(db, 'copies', 'storage', 'productions')
  })
}
