import { Router } from 'express'
import { sumByClass } from '../../../core/storage/budget'
import { storageApi } from '../../../contract/storage'
import { knownBytes } from '../../db/queries/bytes'
import { addVolume, putMount, volumes } from '../../db/queries/volumes'
import { putAway } from '../../db/queries/locker'
import { readers } from '../../db/queries/readers'
import { isTaken } from '../../db/taken'
import { tellChanged } from '../../db/queries/tasks'
import { placesOnDevice, volumeViews } from '../../facts/volumes'
import { MARKER, markerIn } from '../../media/marker'
import { folderFigures, markVolume, registrableFolder } from '../../media/register'
import type { Context } from '../context'
import { invalid } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { inTransaction } from '../../db/connection'

/** Station 5: volumes and their room. */
export function storageRoutes({ db, host, looks }: Context): Router {
  const router = Router()

  serve(router, storageApi.all, async ({ params }) => {
    const { id: productionId } = await productionOf(db, params.id)
    const [views, bytes] = await Promise.all([
      volumeViews(db, { host, now: Date.now(), looked: true }),
      knownBytes(db, [productionId]),
    ])
    return { volumes: views, productionClasses: sumByClass(bytes) }
  })

  serve(router, storageApi.volumes, () => volumeViews(db, { host, now: Date.now(), looked: true }))

  serve(router, storageApi.addVolume, async ({ body: { name, kind, site, path, sure }, res }) => {
    await looks.ask()
    const known = await volumes(db, host)
    const id = await markerIn(path)
    const again = known.find((row) => row.id === id)
    if (again?.putAwayAt) {
      await putAway(db, 'volume', again.id, false)
      await tellChanged(db, 'storage', 'copies', 'productions', 'gear')
      res.status(200)
      return { id: again.id, sharesDriveWith: [] }
    }
    if (again && (again.simulated || again.connected))
      throw invalid(
        `The volume at ${path} is registered already, as ${again.name} at ${again.rootPath}. If this is ` +
          `a copy of that drive, remove ${MARKER} from it first.`,
        'path',
      )
    if (!again && known.some((row) => row.name === name))
      throw invalid(`There is a volume called ${name} already.`, 'name')
    // A mount point may show another drive today: a volume that is not there now does not hold its old place.
    const rootPath = await registrableFolder(
      path,
      [...known.filter((row) => row.connected), ...(await readers(db))].map((row) => row.rootPath),
      sure || again !== undefined,
    )
    const { capacityBytes, device, isMountPoint } = await folderFigures(rootPath)
    // Nothing is ever written to a card, also not where it is mounted a second time.
    const card = (await readers(db)).find((row) => row.device?.fileSystem === device.fileSystem)
    if (isMountPoint && card)
      throw invalid(`What is mounted at ${path} is the card in ${card.name}. A card is no volume.`, 'path')
    const marked = await markVolume(rootPath)
    const newId = marked.id
    try {
      await inTransaction(db, async (tx) => {
        if (!again) await addVolume(tx, { id: newId, name, kind, site, simulated: false, capacityBytes })
        await putMount(tx, newId, host, rootPath)
      })
    } catch (error) {
      // The folder is left as it was.
      await marked.undo()
      if (isTaken(error)) throw invalid(`There is a volume called ${name}, or one in this folder, already.`, 'name')
      throw error
    }
    await looks.ask()
    await tellChanged(db, 'storage', 'copies', 'productions')
    if (again) res.status(200)
    return { id: newId, sharesDriveWith: await placesOnDevice(db, host, device, newId) }
  })

  return router
}
