import { Router } from 'express'
import { sumByClass } from '../../../core/storage/budget'
import { newVolume, type Registered, type StorageView } from '../../../contract/storage'
import { knownBytes } from '../../db/queries/bytes'
import { addVolume, putMount, readers, volumes } from '../../db/queries/places'
import { productions } from '../../db/queries/productions'
import { tellChanged } from '../../db/queries/tasks'
import { placesOnDevice, volumeViews } from '../../facts/volumes'
import { MARKER, markerIn } from '../../media/places'
import { folderFigures, markVolume, registrableFolder } from '../../media/register'
import type { Context } from '../context'
import { bodyOf, invalid } from '../problem'

export function storageRoutes({ db, host, looks }: Context): Router {
  const router = Router()

  router.get('/storage', async (req, res) => {
    const [views, bytes, all] = await Promise.all([volumeViews(db, host), knownBytes(db), productions(db)])
    const answer: StorageView = {
      volumes: views,
      productionClasses: sumByClass(bytes.filter((row) => row.productionId === req.query.production)),
      productions: all.map((one) => ({
        id: one.id,
        title: one.title,
        classes: sumByClass(bytes.filter((row) => row.productionId === one.id)),
      })),
    }
    res.json(answer)
  })

  router.post('/volumes', async (req, res) => {
    const { name, kind, site, path } = await bodyOf(newVolume, req)
    await looks.ask()
    const known = await volumes(db, host)
    const id = await markerIn(path)
    const again = known.find((row) => row.id === id)
    if (again && (again.simulated || again.connected))
      throw invalid(
        `The volume at ${path} is registered already, as ${again.name} at ${again.rootPath}. If this is a copy of that drive, remove ${MARKER} from it first.`,
        'path',
      )
    if (!again && known.some((row) => row.name === name))
      throw invalid(`There is a volume called ${name} already.`, 'name')
    // A mount point may show another drive today: a volume that is not there now does not hold its old place.
    const rootPath = await registrableFolder(
      path,
      [...known.filter((row) => row.connected), ...(await readers(db))].map((row) => row.rootPath),
    )
    const { capacityBytes, device } = await folderFigures(rootPath)
    const newId = again ? again.id : await markVolume(rootPath)
    await db.transaction().execute(async (tx) => {
      if (!again) await addVolume(tx, { id: newId, name, kind, site, simulated: false, capacityBytes })
      await putMount(tx, newId, host, rootPath)
    })
    await looks.ask()
    await tellChanged(db, 'storage', 'copies', 'productions')
    const answer: Registered = { id: newId, sharesDriveWith: await placesOnDevice(db, host, device, newId) }
    res.status(again ? 200 : 201).json(answer)
  })

  return router
}
