import { randomUUID } from 'node:crypto'
import { Router } from 'express'
import { decidedOtherwise, decisionsText, namedDecisions } from '../../../core/copies/decisions'
import { markOf } from '../../../core/copies/mark'
import type { CopyState } from '../../../core/copies/copyState'
import { copiesApi, type LoadCopies } from '../../../contract/copies'
import { unattendedApi } from '../../../contract/unattended'
import * as cards from '../../db/queries/cards'
import { copyQueue, emptyQueue, putInQueue } from '../../db/queries/copyQueue'
import { copyTroubles, oddNamesOf } from '../../db/queries/copies'
import { readers } from '../../db/queries/readers'
import { volumes } from '../../db/queries/volumes'
import { readSettings, writeSettings, writeUnattended } from '../../db/queries/settings'
import { addSaid, formattedOf, largestEntry } from '../../db/queries/said'
import { tellChanged } from '../../db/queries/tasks'
import { backupCardsOf } from '../../db/queries/backupCards'
import { startNextCopy } from '../../enqueue/copyQueue'
import { decidedPlan } from '../../facts/copyPlan'
import { loadStates, type LoadState } from '../../facts/loadStates'
import { nightOf } from '../../facts/night'
import { unattendedView } from '../../facts/unattended'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve, serveStream } from '../route'
import { sendCopy } from './play'

const WORDS: Partial<Record<CopyState, string>> = {
  differs: 'differed when it was read back',
  conflict: 'another file has its name on the volume',
  missing: 'was proved once, and is gone from the volume',
  doubted: 'may have been replaced since it was proved: it is being read again',
  changed: 'was proved once, and was changed or away since: only reading it again tells what it is now',
}
const SHOWN_TROUBLES = 100

/** Station 3: plans, copies, checks, playing, and the answer whether a card may be formatted. */
export function copyRoutes(context: Context): Router {
  const { db, host, looks } = context
  const router = Router()

  /** What is true of loads; whatever comes near a yes is looked at first. */
  async function lookedAt(loads: readonly cards.LoadRow[]): Promise<LoadState[]> {
    const states = await loadStates(db, loads, { host, now: Date.now(), looked: true })
    const near = states.filter(
      (state) => !state.formattedAt && state.copies.some((copy) => markOf(copy, state.settings) >= 2),
    )
    if (near.length === 0) return states
    const looked = await looks.ask(near.map((state) => state.load.id))
    return loadStates(db, loads, { host, now: Date.now(), looked })
  }

  async function stateOf(loadId: string): Promise<LoadState> {
    const [state] = await lookedAt([await loadOf(loadId)])
    if (!state) throw notFound('That load')
    return state
  }

  serve(router, copiesApi.all, async ({ params, query }) => {
    const owner = await productionOf(db, params.id)
    const { rows: loads, next } = await cards.loadPage(db, owner.id, query)
    const [states, odd] = await Promise.all([
      lookedAt(loads),
      oddNamesOf(
        db,
        loads.map((load) => load.id),
      ),
    ])
    const withOddNames = new Set(odd.map((row) => row.loadId))
    return { rows: await Promise.all(states.map((state) => copiesView(state, withOddNames))), next }
  })

  async function copiesView(state: LoadState, withOddNames: ReadonlySet<string>): Promise<LoadCopies> {
    const { load, copies, clear, settings, formattedAt, formattedAgainst, returned, twins, asked, saidButThere, card } =
      state
    const troubled = copies.some(
      (copy) => copy.filesMismatched + copy.filesInConflict + copy.filesMissing + copy.filesDoubted > 0,
    )
    const troubles = troubled ? await copyTroubles(db, load.id).limit(SHOWN_TROUBLES).execute() : []
    return {
      loadId: load.id,
      label: load.label,
      sizeBytes: load.sizeBytes,
      fileCount: load.fileCount,
      clear,
      formattedAt: returned ? null : (formattedAt ?? null),
      formattedAgainst: returned && !saidButThere ? null : (formattedAgainst ?? null),
      copies: copies.map((copy) => ({
        ...copy,
        mark: markOf(copy, settings),
        hasOddNames: withOddNames.has(load.id),
        troubles: copy.mirrorLost
          ? []
          : troubles.flatMap((one) =>
              one.volumeId === copy.volumeId ? [{ path: one.pathText, sentence: WORDS[one.standing] ?? '' }] : [],
            ),
      })),
      playable: load.playable,
      twins: twins.map(({ id, name, reader, readAt, facts, format, isFormatted }) => ({
        ...{ id, name, readerName: reader?.name ?? null, readAt: readAt?.toISOString() ?? null },
        filesEqual: facts.filesVerified + facts.filesVerifiedFromCache,
        filesWrong: facts.filesMismatched,
        formattedAt: isFormatted ? (format?.at.toISOString() ?? null) : null,
      })),
      asked: asked?.id ?? null,
      saidButThere,
      card: card ?? null,
      sources: copies
        .filter((copy) => copy.connected && !copy.mirrorLost && copy.filesCopied > 0)
        .map((copy) => ({
          ...{ volumeId: copy.volumeId, volumeName: copy.volumeName },
          files: copy.filesVerified + copy.filesVerifiedFromCache,
        }))
        .filter(({ files }) => files > 0)
        .sort((a, b) => b.files - a.files),
    }
  }

  async function namesOf(volumeIds: readonly string[]): Promise<string> {
    const known = await volumes(db, host)
    const names = volumeIds.map((id) => known.find((row) => row.id === id)?.name)
    if (names.includes(undefined)) throw notFound('One of these volumes')
    return names.join(' and ')
  }

  serve(router, copiesApi.plan, async ({ params, query: { volumeIds, from } }) => {
    const load = await loadOf(params.id)
    const ids = volumeIds.split(',').filter(Boolean)
    const { plan, decisions } = await decidedPlan(db, host, load, ids, { from: from || undefined })
    return { ...plan, decisions: decisionsText(decisions) }
  })

  serve(router, copiesApi.copy, async ({ params, body: { volumeIds, setAside, from, decisions }, req }) => {
    const load = await loadOf(params.id)
    const names = await namesOf(volumeIds)
    if (from !== null && volumeIds.includes(from))
      throw invalid('A copy is not copied onto itself. Choose another volume to copy to.', 'volumeIds')
    const source = from === null ? '' : ` from ${await namesOf([from])}`
    const now = await decidedPlan(db, host, load, volumeIds, { from: from ?? undefined })
    const { plan } = now
    if (decisions !== null) {
      const seen = namedDecisions(decisions)
      if (!seen) throw invalid('That is no plan that was shown. Ask for the plan again.', 'decisions')
      const otherwise = decidedOtherwise(seen, now.decisions)
      if (otherwise.length > 0)
        throw conflict(
          `It is otherwise than in the plan you saw, so nothing was written. ${otherwise.join(' ')} Look at the plan below, then copy again.`,
        )
    }
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'copy',
        title: `Copy “${load.label}”${source} to ${names}`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, volumeIds, setAside, from, plan, seen: decisions !== null },
      },
      `“${load.label}” is being copied already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  serve(router, copiesApi.night, async ({ params, query: { volumeIds } }) => {
    const { id } = await productionOf(db, params.id)
    const [night, queue, inReaders] = await Promise.all([
      nightOf(db, { host, now: Date.now() }, id, volumeIds.split(',').filter(Boolean)),
      copyQueue(db, host),
      readers(db),
    ])
    const unlooked = inReaders.filter((row) => row.putAwayAt === null && row.state === 'card' && !row.same)
    return {
      ...night,
      unlooked: unlooked.map((row) => row.cardName ?? row.name),
      queue: queue.filter((one) => one.productionId === id).map((one) => one.label),
    }
  })

  serve(router, copiesApi.copyAll, async ({ params, body: { volumeIds } }) => {
    const { id } = await productionOf(db, params.id)
    await namesOf(volumeIds)
    await looks.ask()
    const { steps } = await nightOf(db, { host, now: Date.now() }, id, volumeIds)
    if (steps.length === 0) throw conflict('No card in a reader needs a copy on these volumes.')
    await putInQueue(
      db,
      host,
      steps.map(({ loadId, plan }) => ({ loadId, plan, volumeIds })),
    )
    await startNextCopy(db, context.boss)
    await tellChanged(db, 'copies', 'tasks')
  })

  serve(router, copiesApi.emptyQueue, async ({ params }) => {
    const { id } = await productionOf(db, params.id)
    await emptyQueue(db, id)
    await tellChanged(db, 'copies')
  })

  serve(router, unattendedApi.one, () => unattendedView(db, host, Date.now()))

  serve(router, unattendedApi.set, async ({ body }) => {
    if (body.productionId !== null) await productionOf(db, body.productionId)
    await namesOf(body.volumeIds)
    await writeUnattended(db, body)
    await tellChanged(db, 'copies')
  })

  serve(router, copiesApi.check, async ({ params, body: { volumeIds, how }, req }) => {
    const load = await loadOf(params.id)
    const names = await namesOf(volumeIds)
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'check',
        title:
          how === 'whole' ? `Read “${load.label}” again on ${names}` : `Read a sample of “${load.label}” on ${names}`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, volumeIds, how, seed: randomUUID() },
      },
      `“${load.label}” is being read again already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  serve(router, copiesApi.readTwin, async ({ params: { id, twinId }, req }) => {
    const load = await loadOf(id)
    const twin = (await backupCardsOf(db, [load.id])).find((one) => one.id === twinId)
    if (!twin) throw notFound('That backup card')
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'twin',
        title: `Read the backup card “${twin.name}” of “${load.label}”`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, twinId },
      },
      `The backup card “${twin.name}” is being read already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  serveStream(router, copiesApi.play, ({ params: { id: loadId, volumeId, clipId }, req, res }) =>
    sendCopy(db, { loadId, volumeId, clipId }, req, res),
  )

  serve(router, copiesApi.played, async ({ params, body: { volumeId, clipId, seconds } }) => {
    const load = await loadOf(params.id)
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

  serve(router, copiesApi.formatted, async ({ params, body: { anyway, twinId } }) => {
    const { load, clear, asked } = await stateOf(params.id)
    if ((asked?.id ?? null) !== twinId)
      throw conflict(
        'Another card lies in the reader now than the one you answered for. Read the answer again, then say it.',
      )
    if (!clear.clear && !anyway) throw conflict(`Do not format this card yet. ${clear.sentence}`)
    await addSaid(db, {
      ...{ kind: 'formatted', loadId: load.id },
      ...(twinId !== null && { twinId }),
      ...(!clear.clear && { against: clear.sentence }),
    })
    await tellChanged(db, 'copies', 'productions', 'cards')
  })

  serve(router, copiesApi.unformatted, async ({ params, body: { twinId } }) => {
    const load = await loadOf(params.id)
    const said = await formattedOf(db, [load.id])
    if (!said.some((one) => one.twinId === twinId))
      throw conflict('Nobody said that this card was formatted, or it was taken back already.')
    await addSaid(db, { kind: 'unformatted', loadId: load.id, ...(twinId !== null && { twinId }) })
    await tellChanged(db, 'copies', 'productions', 'cards')
  })

  serve(router, copiesApi.readCard, async ({ params: { id }, req }) => {
    const load = await loadOf(id)
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'twin',
        title: `Read the card of “${load.label}” whole`,
        productionId: load.productionId,
        loadId: load.id,
        input: { loadId: load.id, twinId: null },
      },
      `The card of “${load.label}” is being read already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  serve(router, copiesApi.settings, () => readSettings(db))

  serve(router, copiesApi.setSettings, async ({ body }) => {
    await writeSettings(db, body)
    await tellChanged(db, 'copies', 'productions')
  })

  serve(router, copiesApi.differentDrives, async ({ body: { volumeId, otherVolumeId } }) => {
    await namesOf([volumeId, otherVolumeId])
    await addSaid(db, { kind: 'different-drives', volumeId, otherVolumeId })
    await tellChanged(db, 'copies', 'storage', 'productions')
  })

  async function loadOf(id: string) {
    const load = await cards.load(db, id)
    if (!load) throw notFound('That load')
    return load
  }

  return router
}
