import { Router } from 'express'
import { cardSentence } from '../../../core/cards/findings'
import { frameRateText } from '../../../core/units/frameRate'
import {
  findingAnswer,
  newReader,
  scanOrder,
  type ClipView,
  type LoadView,
  type ReaderView,
} from '../../../contract/cards'
import type { Registered } from '../../../contract/storage'
import * as cards from '../../db/queries/cards'
import { addReader, reader as readerRow, readers, volumes } from '../../db/queries/places'
import { production } from '../../db/queries/productions'
import { addSaid } from '../../db/queries/said'
import { tellChanged } from '../../db/queries/tasks'
import { loadStates, scannedClip } from '../../facts/loads'
import { placesOnDevice } from '../../facts/volumes'
import { picturesFolder } from '../../home'
import { frameOf } from '../../media/frames'
import { originalOf } from '../../media/originals'
import { folderFigures, registrableFolder } from '../../media/register'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { bodyOf, idOf, invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'

const clipView = (row: cards.ClipRow): ClipView => ({
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
  cut: row.cut,
  onCard: Boolean(row.onCard),
  hasPicture: row.hasPicture,
  pictureMade: row.pictureMade,
})

export function cardRoutes(context: Context): Router {
  const { db, host, looks } = context
  const router = Router()

  router.get('/readers', async (_req, res) => {
    const rows = await readers(db)
    res.json(
      rows.map((row): ReaderView => ({
        id: row.id,
        name: row.name,
        path: row.rootPath ?? '',
        simulated: row.simulated,
        state: row.state,
        cardName: row.cardName,
        loadId: row.same ? row.loadId : null,
        difference: row.difference,
      })),
    )
  })

  router.post('/readers', async (req, res) => {
    const { name, path } = await bodyOf(newReader, req)
    const known = await readers(db)
    if (known.some((row) => row.name === name)) throw invalid(`There is a reader called ${name} already.`, 'name')
    const taken = [...known, ...(await volumes(db, host))].map((row) => row.rootPath)
    const rootPath = await registrableFolder(path, taken)
    const { device } = await folderFigures(rootPath)
    const sharesDriveWith = await placesOnDevice(db, host, device, '')
    const { id } = await addReader(db, { name, rootPath, simulated: false, host })
    await looks.ask()
    await tellChanged(db, 'cards')
    const answer: Registered = { id, sharesDriveWith }
    res.status(201).json(answer)
  })

  router.post('/readers/:id/scan', async (req, res) => {
    const readerId = idOf(req)
    const reader = await readerRow(db, readerId)
    if (!reader) throw notFound('That reader')
    const { productionId, label } = await bodyOf(scanOrder, req)
    const owner = await production(db, productionId)
    if (!owner) throw notFound('That production')
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'scan',
        title: `Look at the card in ${reader.name}`,
        productionId,
        loadId: null,
        input: { readerId, productionId, label },
      },
      // Two looks at once would take one card for two.
      `The card in ${reader.name} is being looked at already. Wait for it.`,
    )
    res.status(202).json({ taskId })
  })

  router.get('/productions/:id/loads', async (req, res) => {
    const loads = await cards.loadsOf(db, [(await productionOf(db, req)).id])
    const states = await loadStates(db, loads, { host, now: Date.now(), looked: true })
    res.json(
      states.map(({ load, clips, findings }): LoadView => ({
        id: load.id,
        productionId: load.productionId,
        label: load.label,
        scannedAt: load.scannedAt.toISOString(),
        fileCount: load.fileCount,
        sizeBytes: load.sizeBytes,
        sentence: cardSentence(clips.map(scannedClip), findings),
        findings,
        clips: clips.map(clipView),
      })),
    )
  })

  router.post('/loads/:id/answers', async (req, res) => {
    const load = await cards.load(db, idOf(req))
    if (!load) throw notFound('That load')
    const answer = await bodyOf(findingAnswer, req)
    await addSaid(db, { kind: 'answered', loadId: load.id, detail: answer })
    await tellChanged(db, 'cards', 'productions', 'copies')
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
    const picture = await frameOf(path, Math.min(at, last), 1600)
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=600').send(picture)
  })

  return router
}
