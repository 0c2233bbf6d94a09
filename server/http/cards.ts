import { Router } from 'express'
import { cardSentence } from '../../core/cards/findings'
import { frameRateText } from '../../core/units/frameRate'
import {
  findingAnswer,
  newReader,
  scanOrder,
  type ClipView,
  type LoadView,
  type ReaderView,
} from '../../contract/cards'
import type { Db } from '../db/connection'
import * as cards from '../db/queries/cards'
import { addEvent } from '../db/queries/events'
import { production } from '../db/queries/productions'
import { volumes } from '../db/queries/storage'
import { openTasks, tellChanged } from '../db/queries/tasks'
import { framePicture } from '../engine/picture'
import { hostName, picturesFolder } from '../home'
import { originalOf } from '../jobs/originals'
import { startTask } from '../jobs/queue'
import type { Context } from './context'
import { loadStates, scannedClip } from './loads'
import { bodyOf, conflict, idOf, invalid, notFound } from './problem'
import { productionOf } from './productionOf'
import { readerStates } from './readers'
import { registrableFolder } from './register'

type ClipRow = Awaited<ReturnType<typeof cards.clipsOf>>[number]

const clipView = (row: ClipRow): ClipView => ({
  id: row.id,
  path: row.pathText,
  name: row.name,
  widthPx: row.probe?.video?.widthPx ?? null,
  heightPx: row.probe?.video?.heightPx ?? null,
  rate: row.probe?.video ? frameRateText(row.probe.video.rate) : null,
  frames: row.probe?.video?.frames ?? null,
  seconds: row.probe?.seconds ?? null,
  codec: row.probe?.video?.codec ?? row.probe?.audio?.codec ?? null,
  sizeBytes: row.sizeBytes,
  sidecars: row.sidecars,
  recordedAt: row.probe?.recordedAt ?? null,
  trouble: row.trouble,
  onCard: Boolean(row.onCard),
  hasPicture: row.hasPicture,
  pictureMade: row.pictureMade,
})

export function cardRoutes({ db, boss }: Context): Router {
  const router = Router()

  router.get('/readers', async (_req, res) => {
    const states = await readerStates(db)
    res.json(
      states.map(({ row, state, cardName, loadId }): ReaderView => ({
        id: row.id,
        name: row.name,
        path: row.rootPath ?? '',
        simulated: row.simulated,
        state,
        cardName: cardName ?? null,
        loadId: loadId ?? null,
      })),
    )
  })

  router.post('/readers', async (req, res) => {
    const { name, path } = await bodyOf(newReader, req)
    const known = [...(await cards.readers(db)), ...(await volumes(db))]
    if ((await cards.readers(db)).some((row) => row.name === name))
      throw invalid(`There is a reader called ${name} already.`, 'name')
    const rootPath = await registrableFolder(
      path,
      known.map((row) => row.rootPath),
    )
    const { id } = await cards.addReader(db, { name, rootPath, simulated: false, host: hostName() })
    await tellChanged(db, 'cards')
    res.status(201).json({ id })
  })

  router.post('/readers/:id/scan', async (req, res) => {
    const readerId = idOf(req)
    const reader = await cards.reader(db, readerId)
    if (!reader) throw notFound('That reader')
    const { productionId, label } = await bodyOf(scanOrder, req)
    const owner = await production(db, productionId)
    if (!owner) throw notFound('That production')
    // Two looks at once would take one card for two.
    const busy = (await openTasks(db, reader.host)).some(
      (task) => task.kind === 'scan' && (task.input as { readerId?: string }).readerId === readerId,
    )
    if (busy) throw conflict(`The card in ${reader.name} is being looked at already. Wait for it.`)
    const id = await startTask(db, boss, {
      kind: 'scan',
      title: `Look at the card in ${reader.name}`,
      productionId,
      loadId: null,
      input: { readerId, productionId, label },
    })
    res.status(202).json({ taskId: id })
  })

  router.get('/productions/:id/loads', async (req, res) => {
    res.json(await loadViews(db, (await productionOf(db, req)).id))
  })

  router.post('/loads/:id/answers', async (req, res) => {
    const load = await cards.load(db, idOf(req))
    if (!load) throw notFound('That load')
    const answer = await bodyOf(findingAnswer, req)
    await addEvent(db, { kind: 'answered', productionId: load.productionId, loadId: load.id, detail: answer })
    await tellChanged(db, 'cards', 'productions')
    res.status(204).end()
  })

  router.get('/clips/:id/picture', (req, res, next) => {
    res.sendFile(`${idOf(req)}.jpg`, { root: picturesFolder(), maxAge: '1h' }, (error) => {
      if (error && !res.headersSent) next(notFound('A picture of that clip'))
    })
  })

  router.get('/clips/:id/frame', async (req, res) => {
    const at = Number(req.query.at ?? 0)
    const { path, video } = await originalOf(db, idOf(req))
    const last = Math.max(0, video.seconds - video.rate.den / video.rate.num)
    if (!Number.isFinite(at) || at < 0) throw invalid('Give the time of the frame in seconds.', 'at')
    res
      .type('image/jpeg')
      .set('Cache-Control', 'private, max-age=600')
      .send(await framePicture(path, Math.min(at, last), 1600))
  })

  return router
}

async function loadViews(db: Db, productionId: string): Promise<LoadView[]> {
  const loads = await cards.loadsOf(db, [productionId])
  return (await loadStates(db, loads)).map(({ load, clips, findings }) => ({
    id: load.id,
    productionId: load.productionId,
    label: load.label,
    scannedAt: load.scannedAt.toISOString(),
    fileCount: load.fileCount,
    sizeBytes: load.sizeBytes,
    sentence: cardSentence(clips.map(scannedClip), findings),
    findings,
    clips: clips.map(clipView),
  }))
}
