import { expect } from '@playwright/test'
import type { ClipView, LoadView } from '../../contract/cards'
import type { DeliverableView } from '../../contract/exports'
import type { Page } from '../../contract/page'
import { deviceId, post, productionId, startTask, taskEnd, volumeIds } from './bench'
import { ownHouse, test } from './house'

ownHouse({ isKept: true })

test('a card comes home by orders alone: scanned, copied, proved, played, with a proxy, a tall film and its bag', async ({
  request,
}) => {
  const id = await productionId(request, 'Steam-bending ribs')
  const done = async (path: string, body: object) => {
    const end = await taskEnd(request, await startTask(request, path, body))
    expect(end, path).toMatchObject({ state: 'done', troubles: [] })
    return end.sentence
  }
  const first = async <T>(path: string) => {
    const [row] = ((await (await request.get(`/api/productions/${id}/${path}`)).json()) as Page<T>).rows
    if (!row) throw new Error(`nothing at ${path}`)
    return row
  }
  const [slipway = '', tide = ''] = await volumeIds(request, 'Slipway', 'Tide 1')
  await done(`/readers/${await deviceId(request, 'Bench reader')}/scan`, { productionId: id, label: 'Curlew A' })
  const load = await first<LoadView>('loads')
  const copied = await done(`/loads/${load.id}/copies`, { volumeIds: [slipway, tide] })
  expect(copied).toContain('All 7 files proved on Slipway and Tide 1')
  const clips = ((await (await request.get(`/api/productions/${id}/clips?show=film`)).json()) as Page<ClipView>).rows
  // The shortest one will do.
  const [clipId] = clips.toSorted((a, b) => a.sizeBytes - b.sizeBytes).map((clip) => clip.id)
  const played = await post(request, `/loads/${load.id}/spot-plays`, { volumeId: tide, clipId, seconds: 2 })
  expect(played.status).toBeLessThan(300)
  const proxies = await post(request, '/proxies', { clipIds: [clipId], volumeId: slipway })
  expect(proxies.status).toBe(202)
  const { taskIds } = proxies.body as { taskIds: string[] }
  for (const taskId of taskIds) expect(await taskEnd(request, taskId)).toMatchObject({ state: 'done', troubles: [] })
  const window = { x: 1312, y: 0, widthPx: 1216, heightPx: 2160 }
  await done('/exports', { clipId, destinationId: 'tall-short', volumeId: slipway, window })
  await done('/bags', { deliverableId: (await first<DeliverableView>('deliverables')).id, volumeId: tide })
})
