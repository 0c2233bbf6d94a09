import { sql } from 'kysely'
import type { CopyRecord, FileRecord } from '../../../core/copies/record'
import { standingOf } from '../../../core/copies/standing'
import { anyNumberOf } from '../anyOf'
import type { Db } from '../connection'
import { lockCopy } from '../lockCopy'

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
}

/** Writes what the engine reported of single files; records about a whole side are the task's to tell. */
export async function addCopyProofs(db: Db, run: CopyRunFacts, records: readonly CopyRecord[]): Promise<void> {
  const provable = records.filter(isProvable)
  const volumeIds = [...new Set(provable.map((record) => record.destinationId))].sort()
  for (const volumeId of volumeIds) {
    const own = provable.filter((record) => record.destinationId === volumeId)
    for (let at = 0; at < own.length; at += 1000)
      await db.transaction().execute((tx) => addProofs(tx, run, volumeId, own.slice(at, at + 1000)))
  }
}

async function addProofs(tx: Db, run: CopyRunFacts, volumeId: string, records: readonly Provable[]): Promise<void> {
  const { loadId, runId } = run
  await lockCopy(tx, loadId, volumeId)
  const ids = records.map((record) => record.fileId)
  const entries = await tx
    .selectFrom('loadEntry')
    .select(['id', 'path', 'sizeBytes', 'state'])
    .where(anyNumberOf('id', ids))
    .execute()
  const byId = new Map(entries.map((entry) => [entry.id, entry]))
  const folder = Buffer.from(`${run.folders.get(volumeId) ?? ''}/`)
  const proofs = await tx
    .insertInto('proof')
    .values(
      records.map((record) => ({
        what: 'copy' as const,
        outcome: OUTCOMES[record.kind],
        volumeId,
        path: Buffer.concat([folder, byId.get(record.fileId)?.path ?? Buffer.alloc(0)]),
        hash: record.kind === 'proved' ? record.hash : record.wanted,
        found: record.kind === 'proved' ? null : record.found,
        sizeBytes: record.kind === 'proved' ? record.sizeBytes : null,
        modifiedMs: record.kind === 'proved' ? record.modifiedMs : null,
        pastCache: record.kind === 'proved' && record.fromMedium,
        placed: record.kind === 'proved' && record.placed,
        runId,
        loadId,
        entryId: record.fileId,
        clipId: null,
        deliverableId: null,
        bagId: null,
      })),
    )
    .returning(['id', 'entryId', 'at', 'outcome', 'pastCache', 'placed'])
    .execute()
  const rows = proofs.flatMap((proof) => {
    const entry = byId.get(proof.entryId ?? -1)
    if (!entry) return []
    return {
      loadId,
      volumeId,
      entryId: entry.id,
      proofId: proof.id,
      provedAt: proof.at,
      onCard: entry.state === 'on-card',
      entryBytes: entry.sizeBytes,
      placedAt: proof.at,
      absentAt: null,
      standing: standingOf(proof, 'as-proved'),
    }
  })
  await tx
    .insertInto('copyFile')
    .values(rows)
    .onConflict((at) =>
      at.columns(['volumeId', 'entryId']).doUpdateSet((set) => ({
        proofId: set.ref('excluded.proofId'),
        provedAt: set.ref('excluded.provedAt'),
        onCard: set.ref('excluded.onCard'),
        standing: set.ref('excluded.standing'),
        listed: 'as-proved' as const,
        // A file that was found there lies there since it was placed.
        placedAt: sql<Date>`case when (select placed from proof where proof.id = excluded.proof_id) then excluded.placed_at else copy_file.placed_at end`,
      })),
    )
    .execute()
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
    how: 'whole' | 'sample'
    seed: string | null
    files: number
    sizeBytes: number
    wrong: number
    runId: string
  },
) => db.insertInto('reading').values(values).execute()

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
  readonly clipId?: string
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
        clipId: proof.clipId ?? null,
        deliverableId: proof.deliverableId ?? null,
        bagId: proof.bagId ?? null,
      })),
    )
    .execute()
}
