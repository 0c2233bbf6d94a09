import type { Router } from 'express'
import { copiesApi } from '../../../contract/copies'
import * as cards from '../../db/queries/cards'
import { addSaid, formattedOf, largestEntry } from '../../db/queries/said'
import { tellChanged } from '../../db/queries/tasks'
import { loadStates } from '../../facts/loadStates'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'
import { freshStates, loadOf, namesOf } from './known'

/** What a person did and says: played, formatted, that two drives are two. */
export function saidRoutes(router: Router, context: Context): void {
  const { db, host } = context

  serve(router, copiesApi.played, async ({ params, body: { volumeId, clipId, seconds } }) => {
    const load = await loadOf(context, params.id)
    const [state] = await loadStates(db, [load], { host, now: Date.now(), looked: true })
    const copy = state?.copies.find((one) => one.volumeId === volumeId)
    const clip = clipId === null ? undefined : await cards.clip(db, clipId)
    const isPlayable = clip?.loadId === load.id && clip.shown && clip.playable
    if (!copy || (clipId !== null && !isPlayable)) throw notFound('That copy')
    if (clipId === null && load.playable > 0) throw invalid('Say which clip was played.', 'clipId')
    const entryId = clip?.entryId ?? (await largestEntry(db, load.id))?.id
    if (entryId === undefined || copy.filesCopied === 0)
      throw conflict(`${copy.volumeName} holds no proved copy to play from. Copy to it first.`)
    await addSaid(db, { kind: 'spot-played', loadId: load.id, volumeId, entryId, detail: { seconds, clipId } })
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
