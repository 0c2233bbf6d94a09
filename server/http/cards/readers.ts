import { Router, type Request } from 'express'
import { freeTitle } from '../../../core/units/fileTitle'
import { offerOf } from '../../../core/cards/load/appeared'
import { cardsApi, type ReaderView, type ScanOrder } from '../../../contract/cards'
import { noticedApi } from '../../../contract/noticed'
import { appeared, appearedOne, leaveAlone } from '../../db/queries/appeared'
import { putAway } from '../../db/queries/locker'
import { production, titlesOf } from '../../db/queries/productions'
import { addReader, reader as readerRow, readers } from '../../db/queries/readers'
import { readNoticed, writeNoticed } from '../../db/queries/settings'
import { readersScanned, tellChanged } from '../../db/queries/tasks'
import { volumes } from '../../db/queries/volumes'
import { isTaken } from '../../db/taken'
import { placesOnDevice } from '../../facts/volumes'
import { waitingCards } from '../../facts/waiting'
import { folderFigures, namableFolder, registrableFolder } from '../../media/register'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'

/** Station 2: readers and what lies in them, and what appears by itself. */
export function readerRoutes(context: Context): Router {
  const { db, host, looks } = context
  const router = Router()

  serve(router, cardsApi.readers, async () => {
    const [rows, looking, waiting] = await Promise.all([
      readers(db),
      readersScanned(db),
      waitingCards(db, { host, now: Date.now(), looked: true }),
    ])
    const titles = await titlesOf(
      db,
      waiting.flatMap(({ belongs }) => belongs?.productionId ?? []),
    )
    const proposedFor = (id: string): ReaderView['proposed'] => {
      const card = waiting.find(({ reader }) => reader.id === id)
      if (!card) return null
      const { label, belongs } = card
      const title = titles.get(belongs?.productionId ?? '')
      return {
        label,
        production: belongs && title !== undefined ? { id: belongs.productionId, title, why: belongs.why } : null,
      }
    }
    const here = rows.filter((row) => row.putAwayAt === null)
    return here.map((row): ReaderView => ({
      id: row.id,
      name: row.name,
      path: row.rootPath ?? '',
      simulated: row.simulated,
      state: row.state,
      cardName: row.cardName,
      stay: row.stayId,
      loadId: row.same ? row.loadId : null,
      isTwin: row.twinId !== null,
      difference: row.difference,
      writeProtected: row.device?.writeProtected === true,
      looking: looking.has(row.id),
      proposed: proposedFor(row.id),
      room:
        row.capacityBytes === null || row.freeBytes === null
          ? null
          : { capacityBytes: row.capacityBytes, freeBytes: row.freeBytes },
    }))
  })

  /** Registers a folder as a reader, or brings back the one that was put away. */
  async function register({ name, path, sure }: { name: string; path: string; sure: boolean }) {
    const known = await readers(db)
    const away = known.find((row) => row.putAwayAt !== null && row.rootPath === path)
    if (away) {
      await putAway(db, 'reader', away.id, false)
      await looks.ask()
      await tellChanged(db, 'cards', 'gear')
      return { id: away.id, sharesDriveWith: [] }
    }
    if (known.some((row) => row.name === name)) throw invalid(`There is a reader called ${name} already.`, 'name')
    const taken = [...known, ...(await volumes(db, host)).filter((row) => row.connected)].map((row) => row.rootPath)
    const rootPath = await registrableFolder(path, taken, sure)
    const { device } = await folderFigures(rootPath)
    const sharesDriveWith = await placesOnDevice(db, host, device, '')
    const { id } = await addReader(db, { name, rootPath, simulated: false, host }).catch((error: unknown) => {
      if (isTaken(error)) throw invalid(`There is a reader called ${name}, or one in this folder, already.`, 'name')
      throw error
    })
    await looks.ask()
    await tellChanged(db, 'cards')
    return { id, sharesDriveWith }
  }

  serve(router, cardsApi.addReader, ({ body }) => register(body))

  /** Orders a look at the card in a reader. */
  async function look(reader: { id: string; name: string }, { productionId, label, copy }: ScanOrder, req: Request) {
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'scan',
        title: copy ? `Take in the card in ${reader.name}` : `Scan the card in ${reader.name}`,
        productionId,
        loadId: null,
        input: { readerId: reader.id, productionId, label, copy },
      },
      // Two looks at once would take one card for two.
      `The card in ${reader.name} is being scanned already. Wait for it.`,
    )
    return { taskId }
  }

  serve(router, cardsApi.look, async ({ params, body, req }) => {
    const reader = await readerRow(db, params.id)
    if (!reader) throw notFound('That reader')
    if (!(await production(db, body.productionId))) throw notFound('That production')
    if (body.stay !== null && body.stay !== reader.stayId)
      throw conflict(
        `Another card lies in ${reader.name} by now, or none. Look at what is asked of it, and press again.`,
      )
    return look(reader, body, req)
  })

  serve(router, noticedApi.all, async () => {
    const known = (await volumes(db, host)).map((row) => ({ ...row, connected: row.connected === true }))
    return (await appeared(db, host))
      .filter((row) => !row.leftAlone)
      .map((row) => ({
        id: row.id,
        name: row.name,
        path: row.path,
        appearedAt: row.appearedAt.toISOString(),
        offer: offerOf({
          ...row,
          marker: row.marker === null ? undefined : { volume: known.find((one) => one.id === row.marker) },
        }),
      }))
  })

  async function asReader(appearedId: string) {
    const row = await appearedOne(db, host, appearedId)
    if (!row) throw notFound('What appeared there')
    const names = new Set((await readers(db)).filter((one) => one.host === host).map((one) => one.name))
    const name = freeTitle(row.name.slice(0, 60) || 'card', (one) => !names.has(one))
    return { id: (await register({ name, path: row.path, sure: true })).id, name }
  }

  serve(router, noticedApi.look, async ({ params, body, req }) => {
    if (!(await production(db, body.productionId))) throw notFound('That production')
    return look(await asReader(params.id), body, req)
  })

  serve(router, noticedApi.read, async ({ params }) => ({ id: (await asReader(params.id)).id }))

  serve(router, noticedApi.leave, async ({ params }) => {
    if (!(await leaveAlone(db, host, params.id))) throw notFound('What appeared there')
    await tellChanged(db, 'cards')
  })

  serve(router, noticedApi.folders, () => readNoticed(db))

  serve(router, noticedApi.setFolders, async ({ body: { folders } }) => {
    const real = await Promise.all(folders.map(namableFolder))
    await writeNoticed(db, { folders: [...new Set(real)] })
    await looks.ask()
    await tellChanged(db, 'gear', 'cards')
  })

  return router
}
