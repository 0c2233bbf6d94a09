import { sql, type Kysely } from 'kysely'
import { checkDelivery, type MeasuredDelivery } from './core0022/exports/check'
import { destinationOf } from './core0022/exports/destination'
import { deliveryPlan } from './core0022/exports/plan'
import type { CropWindow } from './core0022/exports/reframe'
import { allPass } from './core0022/media/check'
import type { MediaFacts } from './core0022/media/facts'
import { checkProxy } from './core0022/proxies/check'
import { HALF_SIZE, mostProxyBytes } from './core0022/proxies/recipe'

interface ProxyRow {
  readonly id: string
  readonly probe: MediaFacts | null
  readonly made: MediaFacts | null
  readonly decodedFrames: number | null
  readonly decodeErrors: number | null
}

/** Which clips have a proxy that equals them, and how large one would be: judged by core, as it is when one is made. */
export async function judgeProxies(db: Kysely<unknown>): Promise<void> {
  for (let after = ''; ;) {
    const { rows } = await sql<ProxyRow>`
      select clip.id, clip.probe, proxy.probe as made, proxy.decoded_frames as "decodedFrames", proxy.decode_errors as "decodeErrors"
      from clip left join proxy on proxy.clip_id = clip.id
      where clip.has_video and clip.id::text > ${after} order by clip.id::text limit 5000`.execute(db)
    const judged = rows.flatMap(({ id, decodedFrames, decodeErrors, ...kept }) => {
      if (!kept.probe) return []
      const { probe, made } = kept
      const decoded =
        decodedFrames === null ? undefined : { frames: decodedFrames, errors: decodeErrors ?? 0, times: undefined }
      const pass = made ? allPass(checkProxy(probe, made, HALF_SIZE.fraction, decoded)) : undefined
      const proxy = pass === undefined ? 'none' : pass ? 'equal' : 'differs'
      return [{ id, proxy, bytes: mostProxyBytes(probe) }]
    })
    await sql`update clip set proxy = judged.proxy, proxy_bytes = judged.bytes
      from jsonb_to_recordset(${JSON.stringify(judged)}::jsonb) as judged (id uuid, proxy text, bytes bigint) where clip.id = judged.id`.execute(
      db,
    )
    const last = rows.at(-1)
    if (!last) return
    after = last.id
  }
}

interface DeliverableRow {
  readonly id: string
  readonly destinationId: string
  readonly cropWindow: CropWindow
  readonly probe: MediaFacts
  readonly measured: MeasuredDelivery
  readonly master: MediaFacts | null
}

/** Whether each deliverable passes: judged by core, as it is when one is made. */
export async function judgeDeliverables(db: Kysely<unknown>): Promise<void> {
  const { rows } = await sql<DeliverableRow>`
    select d.id, d.destination_id as "destinationId", d.crop_window as "cropWindow", d.probe, d.measured, clip.probe as master
    from deliverable d join clip on clip.id = d.clip_id`.execute(db)
  for (const { id, destinationId, cropWindow, probe, measured, master } of rows) {
    const destination = destinationOf(destinationId)
    const plan = destination && master ? deliveryPlan(master, destination, cropWindow) : undefined
    if (!plan) continue
    await sql`update deliverable set pass = ${allPass(checkDelivery(plan, probe, measured))} where id = ${id}`.execute(
      db,
    )
  }
}
