import { sql } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import { findingKeyOf } from '../../../core/cards/findings/findings'
import { contentOf } from '../../../core/cards/load/load'
import { anyNumberOf } from '../anyOf'
import type { Db } from '../connection'

/** An entry of a card as it was listed. */
export interface NewEntry {
  readonly path: Buffer
  readonly pathText: string
  readonly kind: 'file' | 'folder' | 'link' | 'special'
  readonly sizeBytes: number
  readonly modifiedMs: number
}

/** What a card listed at one scan. */
export interface CardListing {
  readonly loadId: string
  readonly readerId: string
  readonly node: string
  readonly device: DeviceIdentity
  readonly print: string
  readonly entries: readonly NewEntry[]
  /** A change of the camera’s or computer’s clock since the scan before, in milliseconds. */
  readonly shiftMs: number
}

const CHUNK = 2000

async function inChunks<T>(items: readonly T[], write: (chunk: readonly T[]) => Promise<unknown>): Promise<void> {
  for (let at = 0; at < items.length; at += CHUNK) await write(items.slice(at, at + CHUNK))
}

/** A file with another size or time is other content; folders and links are what their name and kind say. */
const sameContent = (a: Omit<NewEntry, 'pathText'>, b: Omit<NewEntry, 'pathText'>) =>
  a.kind === b.kind && (a.kind !== 'file' || contentOf(a) === contentOf(b))

const keyOf = (path: Buffer) => path.toString('latin1')

/**
 * Writes down what a card lists now: the first listing whole, later ones as differences. Entries known already keep
 * their id, and with it their proofs; what is no longer there is marked as gone, and what has other content now gets a
 * new row that nothing is proved of yet. Runs inside a transaction of the caller.
 */
export async function putCardListing(tx: Db, listing: CardListing): Promise<void> {
  const { loadId, entries, shiftMs } = listing
  if (shiftMs !== 0) await shiftEntries(tx, loadId, shiftMs)
  const known = await tx
    .selectFrom('loadEntry')
    .select(['id', 'path', 'kind', 'sizeBytes', 'modifiedMs', 'state'])
    .where('loadId', '=', loadId)
    .where('state', '!=', 'replaced')
    .execute()
  const here = new Map(entries.map((entry) => [keyOf(entry.path), entry]))
  const kept = new Set<string>()
  const changes = { 'on-card': [] as number[], gone: [] as number[], replaced: [] as number[] }
  const gonePaths: Buffer[] = []
  const back: Buffer[] = []
  for (const row of known) {
    const key = keyOf(row.path)
    const now = here.get(key)
    const state = now === undefined ? 'gone' : sameContent(row, now) ? 'on-card' : 'replaced'
    if (state === 'on-card') kept.add(key)
    if (state === row.state) continue
    changes[state].push(row.id)
    if (state === 'gone') gonePaths.push(row.path)
    if (state === 'on-card') back.push(row.path)
  }
  for (const state of ['on-card', 'gone', 'replaced'] as const) await setEntryState(tx, changes[state], state)
  const fresh = entries.filter((entry) => !kept.has(keyOf(entry.path)))
  await inChunks(fresh, (chunk) =>
    tx
      .insertInto('loadEntry')
      .values(chunk.map((entry) => ({ loadId, ...entry, odd: entry.pathText.includes('\\') })))
      .execute(),
  )
  const returned = back.flatMap((path) => here.get(keyOf(path)) ?? [])
  await addSeen(tx, listing, [...fresh, ...returned], gonePaths)
  await countEntryFindings(tx, loadId)
}

/** The same files with other times: the clock moved, not the content. */
const shiftEntries = (tx: Db, loadId: string, shiftMs: number) =>
  tx
    .updateTable('loadEntry')
    .set({ modifiedMs: sql<number>`modified_ms + ${shiftMs}` })
    .where('loadId', '=', loadId)
    .where('state', '=', 'on-card')
    .where('kind', '=', 'file')
    .execute()

async function setEntryState(tx: Db, ids: readonly number[], state: 'on-card' | 'gone' | 'replaced'): Promise<void> {
  await inChunks(ids, async (chunk) => {
    await tx.updateTable('loadEntry').set({ state }).where(anyNumberOf('id', chunk)).execute()
    // What lies under the name now is to be the new content; the old one has no place any more.
    const place = state === 'replaced' ? { listed: 'changed' as const, standing: 'changed' as const } : {}
    await tx
      .updateTable('copyFile')
      .set({ onCard: state === 'on-card', ...place })
      .where(anyNumberOf('entry_id', chunk))
      .execute()
  })
}

async function addSeen(
  tx: Db,
  listing: CardListing,
  there: readonly NewEntry[],
  gone: readonly Buffer[],
): Promise<void> {
  const files = listing.entries.filter((entry) => entry.kind === 'file')
  const { id: seenId } = await tx
    .insertInto('seen')
    .values({
      place: 'card',
      loadId: listing.loadId,
      volumeId: null,
      readerId: listing.readerId,
      node: listing.node,
      device: JSON.stringify(listing.device),
      print: listing.print,
      fileCount: files.length,
      sizeBytes: files.reduce((sum, file) => sum + file.sizeBytes, 0),
      shiftMs: listing.shiftMs,
    })
    .returning('id')
    .executeTakeFirstOrThrow()
  const changes = [
    ...there.map(({ path, kind, sizeBytes, modifiedMs }) => ({
      path,
      kind,
      sizeBytes,
      modifiedMs,
      change: 'there' as const,
    })),
    ...gone.map((path) => ({ path, kind: 'file', sizeBytes: null, modifiedMs: null, change: 'gone' as const })),
  ]
  await addSeenChanges(tx, seenId, changes)
}

/** One difference of a listing from the one before. */
export interface SeenChange {
  readonly path: Buffer
  readonly kind: string
  readonly change: 'there' | 'gone'
  readonly sizeBytes: number | null
  readonly modifiedMs: number | null
}

/** Writes the differences of a listing down, in portions. */
export const addSeenChanges = (tx: Db, seenId: number, changes: readonly SeenChange[]): Promise<void> =>
  inChunks(changes, (chunk) =>
    tx
      .insertInto('seenChange')
      .values(chunk.map((change) => ({ seenId, ...change })))
      .execute(),
  )

const SHOWN_PATHS = 20

/** Counts what the findings of a load are about, so that no page has to. */
async function countEntryFindings(tx: Db, loadId: string): Promise<void> {
  const rows = await tx
    .selectFrom('loadEntry')
    .select(['kind', 'state', 'copied', 'pathText'])
    .where('loadId', '=', loadId)
    .where('state', '<>', 'replaced')
    .where('kind', '<>', 'folder')
    .where((at) => at.or([at('kind', '<>', 'file'), at('odd', '=', true), at('state', '=', 'gone')]))
    .orderBy('path')
    .execute()
  const paths = new Map<string, string[]>()
  for (const row of rows) {
    // A link that is gone needs no word.
    if (row.state === 'gone' && row.kind !== 'file') continue
    const file = row.state === 'gone' ? (row.copied ? 'gone' : 'lost') : 'odd-name'
    const kind = row.kind === 'file' ? file : row.kind
    const list = paths.get(kind)
    if (list) list.push(row.pathText)
    else paths.set(kind, [row.pathText])
  }
  await tx.deleteFrom('loadFinding').where('loadId', '=', loadId).execute()
  for (const [kind, list] of paths) {
    const paths = JSON.stringify(list.slice(0, SHOWN_PATHS))
    const values = { loadId, kind, files: list.length, print: findingKeyOf(kind, list), paths }
    await tx.insertInto('loadFinding').values(values).execute()
  }
}

/** The latest scan of the card of each load: when, and what it stood on. */
export const latestCardSeen = async (db: Db, loadIds: readonly string[]) =>
  (
    await sql<{ loadId: string; at: Date; device: DeviceIdentity | null }>`
      select asked.load_id, latest.at, latest.device from unnest(${[...loadIds]}::uuid[]) as asked (load_id)
      join lateral (select at, device from seen where seen.load_id = asked.load_id and place = 'card' order by id desc limit 1) as latest on true`.execute(
      db,
    )
  ).rows

/** What the card of a load listed at its latest scan, as one text; '' of a card that was never listed. */
export const lastCardDigest = async (db: Db, loadId: string): Promise<string> =>
  (
    await db
      .selectFrom('seen')
      .select('print')
      .where('loadId', '=', loadId)
      .where('place', '=', 'card')
      .orderBy('id', 'desc')
      .limit(1)
      .executeTakeFirst()
  )?.print ?? ''

/** Loads whose latest scan listed just this. */
export const loadsWithDigest = (db: Db, print: string) =>
  db
    .selectFrom('seen')
    .innerJoin('load', 'load.id', 'seen.loadId')
    .select(['load.id', 'load.label', 'load.lookDone', 'load.volumeUid', 'load.readerId'])
    .where('seen.place', '=', 'card')
    .where('seen.print', '=', print)
    .where((at) =>
      at.not(
        at.exists(
          at
            .selectFrom('seen as later')
            .select('later.id')
            .whereRef('later.loadId', '=', 'seen.loadId')
            .where('later.place', '=', 'card')
            .whereRef('later.id', '>', 'seen.id'),
        ),
      ),
    )
    .orderBy('seen.id', 'desc')
    .execute()

/** Grows whenever a card was scanned: what was known of cards before may be old then. */
export const lastCardScan = async (db: Db): Promise<number> =>
  (
    await db
      .selectFrom('seen')
      .select((at) => at.fn.max('id').as('id'))
      .where('place', '=', 'card')
      .executeTakeFirst()
  )?.id ?? 0
