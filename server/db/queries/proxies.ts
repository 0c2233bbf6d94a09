import type { MediaFacts } from '../../../core/media/facts'
import type { PageAsked } from '../../../contract/page'
import type { ProxiesAsked } from '../../../contract/proxies'
import type { Db } from '../connection'
import { pageOf, type ListOrder } from '../page'
import { hasWords, wordsOf } from '../words'

const ORDERS: Record<ProxiesAsked['sort'], ListOrder> = {
  name: { by: 'clip.sort_path', type: 'text', id: 'clip.id' },
  size: { by: 'clip.size_bytes', type: 'bigint', id: 'clip.id' },
}

/** Clips of a production that can have a proxy, each with the one it has. */
export const proxyPage = (
  db: Db,
  productionId: string,
  { show, q, sort, ...asked }: PageAsked & Pick<ProxiesAsked, 'show' | 'q' | 'sort'>,
) =>
  pageOf(
    db
      .selectFrom('clip')
      .innerJoin('load', 'load.id', 'clip.loadId')
      .leftJoin('proxy', 'proxy.clipId', 'clip.id')
      .leftJoin('volume', 'volume.id', 'proxy.volumeId')
      .select(['clip.id', 'clip.name', 'clip.sizeBytes', 'clip.probe', 'clip.pictureMade', 'load.label'])
      .select(['proxy.path', 'proxy.sizeBytes as madeBytes', 'proxy.probe as madeProbe', 'volume.name as volumeName'])
      .select(['proxy.decodedFrames', 'proxy.decodeErrors', 'proxy.timesCompared', 'proxy.worstSeconds'])
      .where('clip.productionId', '=', productionId)
      .where('clip.shown', '=', true)
      .where('clip.hasVideo', '=', true)
      .$if(show !== 'all', (clips) => clips.where('clip.proxy', '=', show === 'all' ? 'none' : show))
      .$if(wordsOf(q).length > 0, (clips) => clips.where(hasWords('clip.name', q))),
    ORDERS[sort],
    asked,
  )

/** Clips of a production that have no proxy that equals them. */
const openOnes = (db: Db, productionId: string) =>
  db
    .selectFrom('clip')
    .where('productionId', '=', productionId)
    .where('shown', '=', true)
    .where('hasVideo', '=', true)
    .where('proxy', '<>', 'equal')
    .orderBy('sortPath')

export const clipsToProxy = async (db: Db, productionId: string): Promise<string[]> =>
  (await openOnes(db, productionId).select('id').execute()).map((row) => row.id)

/** The same clips with what tells them apart and what their proxies will have at most; not all that was read of them, since they may be very many. */
export const openClips = (db: Db, productionId: string) =>
  openOnes(db, productionId).select(['id', 'loadId', 'framePx', 'rate', 'seconds', 'proxyBytes']).execute()

/** Keeps what a clip's proxy will have, predicted from a few of its seconds. */
export const putProxySample = (db: Db, sample: { clipId: string; bytes: number }) =>
  db
    .insertInto('proxySample')
    .values(sample)
    .onConflict((at) => at.column('clipId').doUpdateSet({ bytes: sample.bytes, measuredAt: new Date() }))
    .execute()

/** What was predicted of a production's clips, beside the most that each can have. A few rows. */
export const proxySamples = (db: Db, productionId: string) =>
  db
    .selectFrom('proxySample')
    .innerJoin('clip', 'clip.id', 'proxySample.clipId')
    .select(['proxySample.bytes', 'clip.proxyBytes as mostBytes'])
    .where('clip.productionId', '=', productionId)
    .where('clip.shown', '=', true)
    .execute()

/** The proxy of a clip, if it has one. */
export const proxyOf = (db: Db, clipId: string) =>
  db.selectFrom('proxy').selectAll().where('clipId', '=', clipId).executeTakeFirst()

/** A proxy that was made, decoded from end to end and compared. */
export interface NewProxy {
  readonly clipId: string
  readonly volumeId: string
  readonly path: string
  readonly sizeBytes: number
  readonly probe: MediaFacts
  readonly decodedFrames: number
  readonly decodeErrors: number
  /** How many time stamps were compared with the original's, and the largest difference. */
  readonly timesCompared: number
  readonly worstSeconds: number
  /** Passes every check against its original. */
  readonly pass: boolean
}

/** Runs inside a transaction of the caller. */
export async function putProxy(tx: Db, { probe, pass, ...rest }: NewProxy): Promise<void> {
  const values = { ...rest, probe: JSON.stringify(probe), madeAt: new Date() }
  await tx
    .insertInto('proxy')
    .values(values)
    .onConflict((at) => at.column('clipId').doUpdateSet(values))
    .execute()
  await setProxyState(tx, rest.clipId, pass)
}

/** Whether a clip's proxy equals it; told anew when one of the two was read again. */
export const setProxyState = (db: Db, clipId: string, pass: boolean) =>
  db
    .updateTable('clip')
    .set({ proxy: pass ? 'equal' : 'differs' })
    .where('id', '=', clipId)
    .execute()
