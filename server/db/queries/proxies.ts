import { sql } from 'kysely'
import type { SoundCompared } from '../../../core/media/compareSound'
import type { MediaFacts } from '../../../core/media/facts'
import type { ProxyState } from '../../../core/proxies/check'
import type { PageAsked } from '../../../contract/page'
import type { ProxiesAsked } from '../../../contract/proxies'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { pageOf, type ListOrder } from '../page'
import { hasWords, wordsOf } from '../words'

const ORDERS: Record<ProxiesAsked['sort'], ListOrder> = {
  name: { by: 'media_file.sort_path', type: 'text', id: 'media_file.id' },
  size: { by: 'media_file.size_bytes', type: 'bigint', id: 'media_file.id' },
}

/** Clips of a production that can have a proxy, each with the one it has. */
export const proxyPage = (
  db: Db,
  productionId: string,
  { show, q, sort, ...asked }: PageAsked & Pick<ProxiesAsked, 'show' | 'q' | 'sort'>,
) => {
  const state = show === 'all' || show === 'without' ? undefined : show
  return pageOf(
    db
      .selectFrom('mediaFile')
      .innerJoin('load', 'load.id', 'mediaFile.loadId')
      .leftJoin('proxy', 'proxy.mediaFileId', 'mediaFile.id')
      .leftJoin('volume', 'volume.id', 'proxy.volumeId')
      .select([
        'mediaFile.id',
        'mediaFile.name',
        'mediaFile.sizeBytes',
        'mediaFile.probe',
        'mediaFile.pictureMade',
        'mediaFile.proxyWanted',
        'load.label',
      ])
      .select(['proxy.path', 'proxy.sizeBytes as madeBytes', 'proxy.probe as madeProbe', 'volume.name as volumeName'])
      .select([
        'proxy.decodedFrames',
        'proxy.decodeErrors',
        'proxy.timesCompared',
        'proxy.worstSeconds',
        'proxy.sounds',
      ])
      .where('mediaFile.productionId', '=', productionId)
      .where('mediaFile.shown', '=', true)
      .where('mediaFile.hasVideo', '=', true)
      .$if(show !== 'all', (clips) => clips.where('mediaFile.proxyWanted', '=', show !== 'without'))
      .$if(state !== undefined, (clips) => clips.where('mediaFile.proxy', '=', state ?? 'none'))
      .$if(wordsOf(q).length > 0, (clips) => clips.where(hasWords('mediaFile.name', q))),
    ORDERS[sort],
    asked,
  )
}

/** Clips of a production that have no proxy that equals them, as far as is known. */
const openOnes = (db: Db, productionId: string) =>
  db
    .selectFrom('mediaFile')
    .where('productionId', '=', productionId)
    .where('shown', '=', true)
    .where('hasVideo', '=', true)
    .where('proxyWanted', '=', true)
    .where('proxy', 'not in', ['equal', 'unchecked'])
    .orderBy('sortPath')

export const clipsToProxy = async (db: Db, productionId: string): Promise<string[]> =>
  (await openOnes(db, productionId).select('id').execute()).map((row) => row.id)

/** Films of a production that are edited without a proxy. */
export const clipsWithoutProxy = async (db: Db, productionId: string): Promise<string[]> =>
  (
    await db
      .selectFrom('mediaFile')
      .select('id')
      .where('productionId', '=', productionId)
      .where('proxyWanted', '=', false)
      .execute()
  ).map((row) => row.id)

/** Says of clips whether they are edited without a proxy; how many of them are there and have a picture. */
export async function sayWithoutProxy(tx: Db, ids: readonly string[], without: boolean): Promise<number> {
  if (!without) await tx.deleteFrom('withoutProxy').where(anyOf('media_file_id', ids)).execute()
  else
    await sql`insert into without_proxy select id from media_file where ${anyOf('id', ids)} and has_video
      on conflict do nothing`.execute(tx)
  const { many } = await tx
    .selectFrom('mediaFile')
    .select(sql<number>`count(*)::int`.as('many'))
    .where(anyOf('id', ids))
    .where('hasVideo', '=', true)
    .executeTakeFirstOrThrow()
  return many
}

/**
 * The same clips with what tells them apart and what their proxies will have at most; not all that was read of them,
 * since they may be very many.
 */
export const openClips = (db: Db, productionId: string) =>
  openOnes(db, productionId).select(['id', 'loadId', 'framePx', 'rate', 'seconds', 'proxyBytes']).execute()

/** Keeps what a clip's proxy will have, predicted from a few of its seconds. */
export const putProxySample = (db: Db, sample: { mediaFileId: string; bytes: number }) =>
  db
    .insertInto('proxySample')
    .values(sample)
    .onConflict((at) => at.column('mediaFileId').doUpdateSet({ bytes: sample.bytes, measuredAt: new Date() }))
    .execute()

/** What was predicted of a production's clips, beside the most that each can have. A few rows. */
export const proxySamples = (db: Db, productionId: string) =>
  db
    .selectFrom('proxySample')
    .innerJoin('mediaFile', 'mediaFile.id', 'proxySample.mediaFileId')
    .select(['proxySample.bytes', 'mediaFile.proxyBytes as mostBytes'])
    .where('mediaFile.productionId', '=', productionId)
    .where('mediaFile.shown', '=', true)
    .execute()

/** The proxy of a media file, if it has one. */
export const proxyOf = (db: Db, mediaFileId: string) =>
  db.selectFrom('proxy').selectAll().where('mediaFileId', '=', mediaFileId).executeTakeFirst()

/**
 * Proxies of earlier versions of a media file under the name of its own: the card’s file was rewritten since they were
 * made.
 */
const earlierAt = (db: Db, { volumeId, path, mediaFileId }: Pick<NewProxy, 'volumeId' | 'path' | 'mediaFileId'>) =>
  db
    .selectFrom('proxy')
    .innerJoin('mediaFile as old', 'old.id', 'proxy.mediaFileId')
    .innerJoin('mediaFile as now', (join) =>
      join.onRef('now.loadId', '=', 'old.loadId').onRef('now.pathText', '=', 'old.pathText'),
    )
    .where('now.id', '=', mediaFileId)
    .where('old.id', '<>', mediaFileId)
    .where('proxy.volumeId', '=', volumeId)
    .where('proxy.path', '=', path)

/** The hash of the latest of them, as it was proved when it was made; `undefined` where there is none. */
export const earlierProxyHash = async (db: Db, at: Pick<NewProxy, 'volumeId' | 'path' | 'mediaFileId'>) =>
  (
    await earlierAt(db, at)
      .innerJoin('proof', 'proof.mediaFileId', 'proxy.mediaFileId')
      .select('proof.hash')
      .where('proof.what', '=', 'proxy')
      .where('proof.volumeId', '=', at.volumeId)
      .where('proof.path', '=', Buffer.from(at.path))
      .orderBy('proof.id', 'desc')
      .limit(1)
      .executeTakeFirst()
  )?.hash

/** Another one has their name now. Runs inside a transaction of the caller. */
export async function endEarlierProxies(
  tx: Db,
  at: Pick<NewProxy, 'volumeId' | 'path' | 'mediaFileId'>,
): Promise<void> {
  for (const { mediaFileId } of await earlierAt(tx, at).select('proxy.mediaFileId').execute()) {
    await tx.updateTable('proxy').set({ sizeBytes: 0 }).where('mediaFileId', '=', mediaFileId).execute()
    await setProxyState(tx, mediaFileId, 'none')
  }
}

/** A proxy that was made, decoded from end to end and compared. */
export interface NewProxy {
  readonly mediaFileId: string
  readonly volumeId: string
  readonly path: string
  readonly sizeBytes: number
  readonly probe: MediaFacts
  readonly decodedFrames: number
  readonly decodeErrors: number
  /** How many time stamps were compared with the original's, and the largest difference. */
  readonly timesCompared: number
  readonly worstSeconds: number
  /** For each sound track. */
  readonly sounds: readonly SoundCompared[]
  readonly state: ProxyState
}

/** Runs inside a transaction of the caller. */
export async function putProxy(tx: Db, { probe, sounds, state, ...rest }: NewProxy): Promise<void> {
  const values = { ...rest, probe: JSON.stringify(probe), sounds: JSON.stringify(sounds), madeAt: new Date() }
  await tx
    .insertInto('proxy')
    .values(values)
    .onConflict((at) => at.column('mediaFileId').doUpdateSet(values))
    .execute()
  await setProxyState(tx, rest.mediaFileId, state)
}

/** How a clip's proxy stands to it; told anew when one of the two was read again. */
export const setProxyState = (db: Db, mediaFileId: string, state: ProxyState | 'none') =>
  db.updateTable('mediaFile').set({ proxy: state }).where('id', '=', mediaFileId).execute()

/** Clips of a production whose proxies are to be checked. */
export const clipsToRecheck = async (db: Db, productionId: string, all: boolean): Promise<string[]> =>
  (
    await db
      .selectFrom('mediaFile')
      .select('id')
      .where('productionId', '=', productionId)
      .where('proxyWanted', '=', true)
      .where('proxy', 'in', all ? ['unchecked', 'equal', 'differs'] : ['unchecked'])
      .orderBy('sortPath')
      .execute()
  ).map((row) => row.id)

/** Productions with proxies that are to be checked. */
export const productionsToRecheck = (db: Db) =>
  db
    .selectFrom('mediaFile')
    .innerJoin('production', 'production.id', 'mediaFile.productionId')
    .select(['production.id', 'production.title'])
    .distinct()
    .where('mediaFile.proxyWanted', '=', true)
    .where('mediaFile.proxy', '=', 'unchecked')
    .execute()
