import { Router } from 'express'
import { benchApi } from '../../../contract/bench'
import * as bench from '../../db/queries/bench'
import { readers } from '../../db/queries/readers'
import { volumes } from '../../db/queries/volumes'
import { tellChanged } from '../../db/queries/tasks'
import type { Context } from '../context'
import { notFound } from '../problem'
import { serve } from '../route'

/** The bench of simulated devices. */
export function benchRoutes({ db, host, looks }: Context): Router {
  const router = Router()

  serve(router, benchApi.all, async () => {
    const [devices, cards, known] = await Promise.all([
      bench.benchDevices(db),
      bench.benchCards(db),
      Promise.all([readers(db), volumes(db, host)]),
    ])
    const names = new Map(known.flat().map((row) => [row.id, { name: row.name, folder: row.rootPath ?? '' }]))
    return {
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

  serve(router, benchApi.insert, async ({ params, body: { card } }) => {
    const device = await deviceOf(params.id)
    if (device.role !== 'reader' || !(await bench.benchCard(db, card))) throw notFound('That card or reader')
    await bench.putCard(db, device.id, card)
    await changed()
  })

  serve(router, benchApi.eject, async ({ params }) => {
    await bench.putCard(db, (await deviceOf(params.id)).id, undefined)
    await changed()
  })

  for (const [endpoint, plugged] of [
    [benchApi.plug, true],
    [benchApi.unplug, false],
  ] as const) {
    serve<'/bench/:id/plug' | '/bench/:id/unplug', undefined, undefined, undefined>(
      router,
      endpoint,
      async ({ params }) => {
        await bench.setPlugged(db, (await deviceOf(params.id)).id, plugged)
        await changed()
      },
    )
  }

  serve(router, benchApi.fault, async ({ params, body: { kind, afterBytes } }) => {
    const device = await deviceOf(params.id)
    await bench.armFault(db, device.id, kind === 'none' ? undefined : { kind, afterBytes })
    await changed()
  })

  return router
}
