import { randomUUID } from 'node:crypto'
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Router } from 'express'
import { sumByClass } from '../../core/storage/budget'
import { newVolume, type StorageView } from '../../contract/storage'
import { readers } from '../db/queries/cards'
import { productions } from '../db/queries/productions'
import { addVolume, knownBytes, volumes } from '../db/queries/storage'
import { tellChanged } from '../db/queries/tasks'
import { FolderMedium } from '../engine/folder'
import { hostName } from '../home'
import { MARKER } from '../places'
import type { Context } from './context'
import { bodyOf, invalid } from './problem'
import { registrableFolder } from './register'
import { volumeViews } from './volumes'

export function storageRoutes({ db }: Context): Router {
  const router = Router()

  router.get('/storage', async (req, res) => {
    const [views, bytes, all] = await Promise.all([volumeViews(db), knownBytes(db), productions(db)])
    const answer: StorageView = {
      volumes: views,
      productionClasses: sumByClass(bytes.filter((row) => row.productionId === req.query.production)),
      productions: all.map((one) => ({ id: one.id, title: one.title, classes: sumByClass(bytes.filter((row) => row.productionId === one.id)) })),
    }
    res.json(answer)
  })

  router.post('/volumes', async (req, res) => {
    const { name, kind, site, path } = await bodyOf(newVolume, req)
    const known = await volumes(db)
    if (known.some((row) => row.name === name)) throw invalid(`There is a volume called ${name} already.`, 'name')
    const rootPath = await registrableFolder(path, [...known, ...(await readers(db))].map((row) => row.rootPath))
    const { capacityBytes } = await new FolderMedium(rootPath).room()
    const id = await markVolume(rootPath)
    if (known.some((row) => row.id === id)) throw invalid(`The volume at ${path} is registered already, as ${known.find((row) => row.id === id)?.name ?? 'another one'}.`, 'path')
    await addVolume(db, { id, name, kind, site, rootPath, simulated: false, capacityBytes, host: hostName() })
    await tellChanged(db, 'storage', 'copies', 'productions')
    res.status(201).json({ id })
  })

  return router
}

/** Reads the marker of a volume that was known before, or writes a new one. */
async function markVolume(root: string): Promise<string> {
  const file = join(root, MARKER)
  const known = await readFile(file, 'utf8').then((text) => (JSON.parse(text) as { id?: unknown }).id).catch(() => undefined)
  if (typeof known === 'string') return known
  const id = randomUUID()
  try {
    await mkdir(dirname(file), { recursive: true })
    await writeFile(file, `${JSON.stringify({ id })}\n`, { flag: 'wx' })
  } catch {
    throw invalid(`${root} cannot be written to. Check its write protection and rights.`, 'path')
  }
  return id
}
