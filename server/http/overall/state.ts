import { Router } from 'express'
import { stateApi } from '../../../contract/state'
import { hasPlug } from '../../../contract/storage'
import { putCard, setPlugged } from '../../db/queries/bench'
import { load } from '../../db/queries/cards'
import { addNote } from '../../db/queries/journal'
import { reader as readerRow } from '../../db/queries/readers'
import { openTasks, tellChanged } from '../../db/queries/tasks'
import { volume as volumeRow } from '../../db/queries/volumes'
import { stateOf } from '../../facts/state'
import { booksFolder } from '../../home'
import { roomOf } from '../../media/choose'
import { letGo, letGoSentence } from '../../media/letGo'
import type { Context } from '../context'
import { conflict, notFound } from '../problem'
import { serve } from '../route'

/** What goes on, and letting go of cards and drives. */
export function stateRoutes({ db, host, looks }: Context): Router {
  const router = Router()

  serve(router, stateApi.state, async () => {
    const folder = booksFolder()
    const room = folder === undefined ? null : await roomOf(folder)
    return stateOf(db, { host, now: Date.now(), booksFreeBytes: room?.freeBytes })
  })

  /** A task under way would be cut off: it is waited for, or stopped by the person. */
  async function assertUnused(isUsed: (input: string) => boolean): Promise<void> {
    const using = (await openTasks(db, host)).find((task) => isUsed(JSON.stringify([task.input, task.subject])))
    if (using) throw conflict(`“${using.title}” is under way there. Wait for it or stop it, then let go.`)
  }

  async function out(name: string, rootPath: string | null, simulated: () => Promise<unknown>, isSimulated: boolean) {
    if (isSimulated) await simulated()
    const done = isSimulated || rootPath === null ? ({ kind: 'out' } as const) : await letGo(rootPath)
    const sentence = letGoSentence(name, done)
    if (done.kind === 'held' || done.kind === 'around' || done.kind === 'unwritten') throw conflict(sentence)
    await addNote(db, { kind: 'let-go', detail: { name, how: done.kind } })
    await tellChanged(db, 'bench')
    await looks.ask()
    await tellChanged(db, 'cards', 'copies', 'storage', 'productions')
    return { sentence, out: done.kind === 'out' }
  }

  serve(router, stateApi.letGoOfReader, async ({ params: { id } }) => {
    const row = await readerRow(db, id)
    if (!row || row.host !== host) throw notFound('That reader')
    const { loadId } = row
    await assertUnused((input) => input.includes(row.id) || (loadId !== null && input.includes(loadId)))
    const label = loadId === null ? undefined : (await load(db, loadId))?.label
    const name = label === undefined ? `The card in ${row.name}` : `“${label}”`
    return out(name, row.rootPath, () => putCard(db, row.id, undefined), row.simulated)
  })

  serve(router, stateApi.letGoOfVolume, async ({ params: { id } }) => {
    const row = await volumeRow(db, host, id)
    if (!row) throw notFound('That volume')
    if (!hasPlug(row.kind)) throw conflict(`“${row.name}” is a cloud: nothing of it is plugged in here, or pulled out.`)
    await assertUnused((input) => input.includes(row.id))
    return out(row.name, row.rootPath, () => setPlugged(db, row.id, false), row.simulated)
  })

  return router
}
