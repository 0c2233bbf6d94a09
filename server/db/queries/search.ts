import { sql } from 'kysely'
import type { SearchHit } from '../../../contract/search'
import type { Db } from '../connection'
import { hasWords, wordsOf } from '../words'

/** Hits of each kind at most. */
const MOST = 20

const escaped = (text: string) => text.replaceAll(/[\\%_]/g, '\\$&')

/** Productions, clips and volumes with words that begin with those typed; of each kind at most 20. */
export async function search(db: Db, typed: string): Promise<SearchHit[]> {
  const words = wordsOf(typed)
  const [productions, volumes, clips] = await Promise.all([
    namedProductions(db, words),
    words.length === 0 ? [] : namedVolumes(db, words),
    words.length === 0 ? [] : namedClips(db, typed.trim().toLowerCase()),
  ])
  return [...productions, ...clips, ...volumes]
}

/** True where each word begins a word of the text. */
const beginsWords = (text: ReturnType<typeof sql>, words: readonly string[]) =>
  sql<boolean>`(' ' || regexp_replace(lower(${text}), '[^[:alnum:]]+', ' ', 'g')) like all (${words.map((word) => `% ${escaped(word)}%`)}::text[])`

async function namedProductions(db: Db, words: readonly string[]): Promise<SearchHit[]> {
  const rows = await db
    .selectFrom('production')
    .leftJoin('client', 'client.id', 'production.clientId')
    .select(['production.id', 'title', 'client.name as client'])
    .where(beginsWords(sql`title || ' ' || coalesce(client.name, '')`, words))
    .orderBy('production.createdAt', 'desc')
    .limit(MOST)
    .execute()
  return rows.map(({ id, title, client }) => ({
    kind: 'production',
    id,
    name: title,
    more: client ?? '',
    productionId: id,
  }))
}

async function namedVolumes(db: Db, words: readonly string[]): Promise<SearchHit[]> {
  const rows = await db
    .selectFrom('volume')
    .innerJoin('site', 'site.id', 'volume.siteId')
    .select(['volume.id', 'volume.name', 'site.name as site'])
    .where(beginsWords(sql`volume.name || ' ' || site.name`, words))
    .orderBy('volume.name')
    .limit(MOST)
    .execute()
  return rows.map(({ id, name, site }) => ({ kind: 'volume', id, name, more: site, productionId: null }))
}

async function namedClips(db: Db, typed: string): Promise<SearchHit[]> {
  const clips = () =>
    db
      .selectFrom('mediaFile')
      .innerJoin('load', 'load.id', 'mediaFile.loadId')
      .where('mediaFile.shown', '=', true)
      .select(['mediaFile.id', 'mediaFile.name', 'load.label', 'mediaFile.productionId'])
      .limit(MOST)
  const begin = await clips()
    .where(sql<boolean>`lower(media_file.name) like ${`${escaped(typed)}%`}`)
    // In the order of the index, so that of a thousand clips of one name only the first are read.
    .orderBy(sql`lower(media_file.name) using ~<~`)
    .execute()
  const inside = begin.length < MOST ? await clips().where(hasWords('mediaFile.name', typed)).execute() : []
  const rows = new Map([...begin, ...inside].map((row) => [row.id, row]))
  return [...rows.values()].slice(0, MOST).map(({ id, name, label, productionId }) => ({
    kind: 'clip',
    id,
    name,
    more: label,
    productionId,
  }))
}
