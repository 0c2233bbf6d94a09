import { randomUUID } from 'node:crypto'
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Router } from 'express'
import { sumByClass } from '../../core/storage/budget'
import { newVolume, type StorageView } from '../../contract/storage'
import { readers } from '../db/queries/cards'
import { productions } from '../db/queries/productions'
import { addVolume, knownBytes, moveVolume, volumes } from '../db/queries/storage'
import { tellChanged } from '../db/queries/tasks'
import { FolderMedium } from '../engine/folder'
import { hostName } from '../home'
import { MARKER } from '../places'
import type { Context } from './context'
import { bodyOf, invalid, isUuid } from './problem'
import { registrableFolder } from './register'
import { connectedVolumes, volumeViews } from './volumes'

export function storageRoutes({ db }: Context): Router {
  const router = Router()

  router.get('/storage', async (req, res) => {
    const [views, bytes, all] = await Promise.all([volumeViews(db), knownBytes(db), productions(db)])
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
    const known = await volumes(db)
    const id = await markerIn(path)
    const connected = await connectedVolumes(db)
    const again = known.find((row) => row.id === id)
    if (again && (again.simulated || connected.has(again.id)))
      throw invalid(
        `The volume at ${path} is registered already, as ${again.name} at ${again.rootPath}. If this is a copy of that drive, remove ${MARKER} from it first.`,
        'path',
      )
    if (!again && known.some((row) => row.name === name))
      throw invalid(`There is a volume called ${name} already.`, 'name')
    // A mount point may show another drive today: a volume that is not there now does not hold its old place.
    const rootPath = await registrableFolder(
      path,
      [...known.filter((row) => connected.has(row.id)), ...(await readers(db))].map((row) => row.rootPath),
    )
    const place = { rootPath, host: hostName() }
    const { capacityBytes } = await new FolderMedium(rootPath).room()
    const newId = again ? again.id : await markVolume(rootPath)
    await db.transaction().execute(async (tx) => {
      for (const row of known)
        if (row.rootPath === rootPath && row.id !== newId)
          await moveVolume(tx, row.id, { rootPath: null, host: row.host })
      await (again
        ? moveVolume(tx, newId, place)
        : addVolume(tx, { id: newId, name, kind, site, ...place, simulated: false, capacityBytes }))
    })
    await tellChanged(db, 'storage', 'copies', 'productions')
    res.status(again ? 200 : 201).json({ id: newId })
  })

  return router
}

/** The id in a folder's marker: a volume is known by it wherever it is mounted. */
const markerIn = (root: string): Promise<unknown> =>
  readFile(join(root, MARKER), 'utf8')
    .then((text) => (JSON.parse(text) as { id?: unknown }).id)
    .catch(() => undefined)

/** Keeps the marker that a volume has from another installation, or writes a new one. */
async function markVolume(root: string): Promise<string> {
  const known = await markerIn(root)
  if (typeof known === 'string' && isUuid(known)) return known
  const id = randomUUID()
  const file = join(root, MARKER)
  try {
    await mkdir(dirname(file), { recursive: true })
    await writeFile(file, `${JSON.stringify({ id })}\n`)
  } catch {
    throw invalid(`${root} cannot be written to. Check its write protection and rights.`, 'path')
  }
  return id
}
