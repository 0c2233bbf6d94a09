import { sql } from 'kysely'
import type { CopyRecord, FileRecord } from '../../../core/copies/record'
import { copyStateOf } from '../../../core/copies/copyState'
import { anyNumberOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { lockCopy } from '../lock'

const OUTCOMES = { proved: 'equal', mismatch: 'differs', conflict: 'conflict' } as const
type Provable = Exclude<FileRecord, { kind: 'refused' }>
const isProvable = (record: CopyRecord): record is Provable =>
  record.kind === 'proved' || record.kind === 'mismatch' || record.kind === 'conflict'

/** Which run of the engine its records belong to. */
export interface CopyRunFacts {
  readonly loadId: string
  readonly runId: string
  /** The mirror’s folder on each volume. */
  readonly folders: ReadonlyMap<string, string>
  /** Where the files were read, when that was not the card. */
  readonly sourceVolumeId?: string
}

/** Writes what the engine reported of single files; records about a whole side are the task's to tell. */
export async function addCopyProofs(db: Db, run: CopyRunFacts, records: readonly CopyRecord[]): Promise<void> {
  const provable = records.filter(isProvable)
  const volumeIds = [...new Set(provable.map((record) => record.destinationId))].sort()
  for (const volumeId of volumeIds) {
    const own = provable.filter((record) => record.destinationId === volumeId)
    for (let at = 0; at < own.length; at += 1000)
      await inTransaction(db, (tx) => addProofs(tx, run, volumeId, own.slice(at, at + 1000)))
  }
}

/** A record as the table has it. */
const rowOf = (record: Provable) => {
  const proved = record.kind === 'proved' ? record : undefined
  return {
    entry_id: record.fileId,
    outcome: OUTCOMES[record.kind],
    hash: record.kind === 'proved' ? record.hash : record.wanted,
    found: record.kind === 'proved' ? null : record.found,
    size_bytes: proved?.sizeBytes ?? null,
    modified_ms: proved?.modifiedMs ?? null,
    past_cache: proved?.fromMedium ?? false,
    placed: proved?.placed ?? false,
    inode: proved?.inode ?? null,
    changed_ms: proved?.changedMs ?? null,
    ends: proved?.ends ?? null,
    difference: record.kind === 'mismatch' ? (record.difference ?? null) : null,
  }
}

/** What a copied file's proof says of it, in the words of core. */
const STANDINGS = sql`case
  when p.outcome = 'differs' then ${copyStateOf({ outcome: 'differs', pastCache: false }, 'as-proved')}
  when p.outcome = 'conflict' then ${copyStateOf({ outcome: 'conflict', pastCache: false }, 'as-proved')}
  when p.past_cache then ${copyStateOf({ outcome: 'equal', pastCache: true }, 'as-proved')}
  else ${copyStateOf({ outcome: 'equal', pastCache: false }, 'as-proved')} end`

async function addProofs(tx: Db, run: CopyRunFacts, volumeId: string, records: readonly Provable[]): Promise<void> {
  const { loadId, runId } = run
  await lockCopy(tx, loadId, volumeId)
  // One value for a thousand rows: building and reading a statement with a value for each field takes longer than the
  // rows.
  const rows = JSON.stringify(records.map(rowOf))
  const folder = Buffer.from(`${run.folders.get(volumeId) ?? ''}/`)
  const { rows: proofs } = await sql<{ id: number }>`
    insert into proof (what, outcome, volume_id, path, hash, found, size_bytes, modified_ms, past_cache, placed, run_id, load_id, entry_id,
      inode, changed_ms, ends, difference, source_volume_id)
    select 'copy', r.outcome, ${volumeId}::uuid, ${folder}::bytea || e.path, r.hash, r.found, r.size_bytes, r.modified_ms, r.past_cache,
      r.placed, ${runId}::uuid, ${loadId}::uuid, e.id, r.inode, r.changed_ms, r.ends, r.difference, ${run.sourceVolumeId ?? null}::uuid
    from jsonb_to_recordset(${rows}::jsonb) as r (
      entry_id bigint, outcome text, hash text, found text, size_bytes bigint, modified_ms double precision, past_cache boolean, placed boolean,
      inode text, changed_ms double precision, ends text, difference text)
    join load_entry e on e.id = r.entry_id
    returning id`.execute(tx)
  await sql`
    insert into copy_file (load_id, volume_id, entry_id, proof_id, proved_at, on_card, entry_bytes, placed_at, standing, inode, changed_ms)
    select p.load_id, p.volume_id, p.entry_id, p.id, p.at, e.state = 'on-card', e.size_bytes, p.at, ${STANDINGS}, p.inode, p.changed_ms
    from proof p join load_entry e on e.id = p.entry_id where ${anyNumberOf(
      'p.id',
      proofs.map((proof) => proof.id),
    )}
    on conflict (volume_id, entry_id) do update set
      proof_id = excluded.proof_id, inode = excluded.inode, changed_ms = excluded.changed_ms, modified_ms = null, proved_at = excluded.proved_at, on_card = excluded.on_card, standing = excluded.standing, listed = 'as-proved',
      -- A file that was found there lies there since it was placed.
      placed_at = case when (select placed from proof where proof.id = excluded.proof_id) then excluded.placed_at else copy_file.placed_at end`.execute(
    tx,
  )
  const equal = records.filter((record) => record.kind === 'proved').map((record) => record.fileId)
  await tx
    .updateTable('loadEntry')
    .set({ copied: true })
    .where(anyNumberOf('id', equal))
    .where('copied', '=', false)
    .execute()
  await tx
    .updateTable('mirror')
    .set({ present: true })
    .where('loadId', '=', loadId)
    .where('volumeId', '=', volumeId)
    .where('present', '=', false)
    .execute()
}

/** Writes down that a copy was read again, and how many files were wrong. */
export const addReading = (
  db: Db,
  values: {
    loadId: string
    volumeId: string
    how: 'whole' | 'sample' | 'cycle'
    seed: string | null
    files: number
    sizeBytes: number
    wrong: number
    retried: number
    bytesPerSecond: number | null
    runId: string
  },
) => db.insertInto('reading').values(values).execute()

/** How fast a volume was read again lately, in bytes per second, the newest first. */
export const readingSpeeds = async (db: Db, volumeId: string): Promise<number[]> =>
  (
    await db
      .selectFrom('reading')
      .select('bytesPerSecond')
      .where('volumeId', '=', volumeId)
      .where('bytesPerSecond', 'is not', null)
      .orderBy('at', 'desc')
      .limit(20)
      .execute()
  ).flatMap((row) => row.bytesPerSecond ?? [])

/** A file that was made here and read back: its path on the volume, hash, bytes and time. */
export interface FileProof {
  readonly what: 'proxy' | 'deliverable' | 'bag'
  readonly volumeId: string
  readonly path: string
  readonly algorithm: 'xxh64' | 'sha256'
  readonly hash: string
  readonly sizeBytes: number
  readonly modifiedMs: number
  readonly pastCache: boolean
  readonly runId: string
  readonly mediaFileId?: string
  readonly deliverableId?: string
  readonly bagId?: string
}

/** Proofs of what was made here: proxies, deliverables, the files of bags. */
export async function addFileProofs(db: Db, proofs: readonly FileProof[]): Promise<void> {
  if (proofs.length === 0) return
  await db
    .insertInto('proof')
    .values(
      proofs.map(({ path, ...proof }) => ({
        ...proof,
        outcome: 'equal' as const,
        path: Buffer.from(path),
        placed: true,
        found: null,
        loadId: null,
        entryId: null,
        mediaFileId: proof.mediaFileId ?? null,
        deliverableId: proof.deliverableId ?? null,
        bagId: proof.bagId ?? null,
      })),
    )
    .execute()
}
