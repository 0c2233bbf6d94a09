import { Router } from 'express'
import { faultOrder, insertOrder, type BenchView } from '../../../contract/bench'
import * as bench from '../../db/queries/bench'
import { readers, volumes } from '../../db/queries/places'
import { tellChanged } from '../../db/queries/tasks'
import type { Context } from '../context'
import { bodyOf, idOf, notFound } from '../problem'

export function benchRoutes({ db, host, looks }: Context): Router {
  const router = Router()

  router.get('/bench', async (_req, res) => {
    const [devices, cards, known] = await Promise.all([
      bench.benchDevices(db),
      bench.benchCards(db),
      Promise.all([readers(db), volumes(db, host)]),
    ])
    const names = new Map(known.flat().map((row) => [row.id, { name: row.name, folder: row.rootPath ?? '' }]))
    const answer: BenchView = {
      devices: devices
        .map((row) => ({
          id: row.id,
          name: names.get(row.id)?.name ?? '',
          folder: names.get(row.id)?.folder ?? '',
          role: row.role,
          plugged: row.plugged,
          card: row.card,
          capacityBytes: row.capacityBytes,
          readBytesPerSecond: row.readBytesPerSecond,
          writeBytesPerSecond: row.writeBytesPerSecond,
          fault: row.fault?.kind ?? ('none' as const),
          afterBytes: row.fault?.afterBytes ?? 0,
        }))
        .sort((a, b) => a.role.localeCompare(b.role) || a.name.localeCompare(b.name)),
      cards: cards.map((card) => ({
        name: card.name,
        story: card.story,
        inReader: names.get(devices.find((row) => row.card === card.name)?.id ?? '')?.name ?? null,
      })),
    }
    res.json(answer)
  })

  /** What was done to a device is seen at once. */
  const changed = async () => {
    await tellChanged(db, 'bench')
    await looks.ask()
    await tellChanged(db, 'cards', 'copies', 'storage', 'productions')
  }

  async function deviceOf(id: string) {
    const device = await bench.benchDevice(db, id)
    if (!device) throw notFound('That device')
    return device
  }

  router.post('/bench/:id/insert', async (req, res) => {
    const device = await deviceOf(idOf(req))
    const { card } = await bodyOf(insertOrder, req)
    if (device.role !== 'reader' || !(await bench.benchCard(db, card))) throw notFound('That card or reader')
    await bench.putCard(db, device.id, card)
    await changed()
    res.status(204).end()
  })

  router.post('/bench/:id/eject', async (req, res) => {
    await bench.putCard(db, (await deviceOf(idOf(req))).id, undefined)
    await changed()
    res.status(204).end()
  })

  for (const [path, plugged] of [
    ['plug', true],
    ['unplug', false],
  ] as const) {
    router.post(`/bench/:id/${path}`, async (req, res) => {
      await bench.setPlugged(db, (await deviceOf(idOf(req))).id, plugged)
      await changed()
      res.status(204).end()
    })
  }

  router.post('/bench/:id/fault', async (req, res) => {
    const device = await deviceOf(idOf(req))
    const { kind, afterBytes } = await bodyOf(faultOrder, req)
    await bench.armFault(db, device.id, kind === 'none' ? undefined : { kind, afterBytes })
    await changed()
    res.status(204).end()
  })

  return router
}
