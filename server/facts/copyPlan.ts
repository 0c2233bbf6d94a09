import { decisionsOf, type Decision } from '../../core/copies/decisions'
import { copyPlan, type CopyPlan, type FileCount } from '../../core/copies/plan'
import { sameDevice } from '../../core/copies/device'
import type { Db } from '../db/connection'
import type { LoadRow } from '../db/queries/cards'
import { mirrorsOf, troubledBytes } from '../db/queries/copies'
import { readerOfLoad } from '../db/queries/readers'
import { lastCardDigest } from '../db/queries/seen'
import { hashSpeed } from '../db/queries/settings'
import { volumes } from '../db/queries/volumes'

/** What is known of a volume beyond the rows, by the job that has just looked at it. */
export interface SeenThere {
  /** Bytes of the load's files that lie there under their names, proved or not. */
  readonly thereBytes: number
  readonly freeBytes: number
  /** Of another size, under the name of a file of the load, and not known before. */
  readonly strangers: FileCount
}

/** What a copy of a load to volumes would do, in the order in which they are given; unknown volumes are left out. */
export async function copyPlanOf(
  db: Db,
  host: string,
  load: LoadRow,
  volumeIds: readonly string[],
  meanwhile: Meanwhile = {},
): Promise<CopyPlan> {
  return planFrom(await copyRows(db, host, load), volumeIds, meanwhile)
}

/**
 * A plan, and what it decides of just these files: what the card listed, and how each of them stands on each volume.
 */
export async function decidedPlan(
  db: Db,
  host: string,
  load: LoadRow,
  volumeIds: readonly string[],
  meanwhile: Meanwhile = {},
): Promise<{ readonly plan: CopyPlan; readonly decisions: readonly Decision[] }> {
  const [rows, listed] = await Promise.all([copyRows(db, host, load), lastCardDigest(db, load.id)])
  const plan = planFrom(rows, volumeIds, meanwhile)
  const prints = plan.volumes.map(({ volumeId }) => {
    const standing = rows.mirrors.find((mirror) => mirror.volumeId === volumeId)?.print ?? '0'
    return [volumeId, `${listed} ${standing}`] as const
  })
  return { plan, decisions: decisionsOf(plan.volumes, new Map(prints)) }
}

/** What is known of a load and of all volumes before it is copied. */
export async function copyRows(db: Db, host: string, load: LoadRow) {
  const [mirrors, known, card, hashBytesPerSecond] = await Promise.all([
    mirrorsOf(db, [load.id]),
    volumes(db, host),
    readerOfLoad(db, load),
    hashSpeed(db, host),
  ])
  return { load, mirrors, known, card, hashBytesPerSecond, troubled: await troubledBytes(db, mirrors) }
}

interface Meanwhile {
  readonly seen?: ReadonlyMap<string, SeenThere>
  /** Bytes that other copies will have written to each volume by then. */
  readonly taken?: ReadonlyMap<string, number>
  /** The volume that is read, instead of the card. */
  readonly from?: string
}

/** The plan of a copy from rows. */
export function planFrom(
  { load, mirrors, known, card, troubled, hashBytesPerSecond }: Awaited<ReturnType<typeof copyRows>>,
  volumeIds: readonly string[],
  { seen = new Map(), taken = new Map(), from }: Meanwhile = {},
): CopyPlan {
  /** What is written to one volume takes room of all on the same drive. */
  const takenOf = (row: (typeof known)[number]) =>
    known.reduce(
      (sum, other) =>
        other.id === row.id || (row.device && sameDevice(row.device, other.device ?? undefined))
          ? sum + (taken.get(other.id) ?? 0)
          : sum,
      0,
    )
  const targets = volumeIds.flatMap((id) => {
    const row = known.find((one) => one.id === id)
    if (!row) return []
    const mirror = mirrors.find((one) => one.volumeId === id)
    const bytes = troubled.find((one) => one.volumeId === id)
    const proved = {
      // What may have been replaced lies there, and is read again.
      files: (mirror?.filesVerified ?? 0) + (mirror?.filesMemory ?? 0) + (mirror?.filesDoubted ?? 0),
      sizeBytes: (mirror?.sizeBytes ?? 0) + (bytes?.doubtedBytes ?? 0),
    }
    const now = seen.get(id)
    const stuck = (mirror?.filesDiffer ?? 0) + (mirror?.filesConflict ?? 0) + (mirror?.filesChanged ?? 0)
    const conflict = {
      files: stuck + (now?.strangers.files ?? 0),
      sizeBytes: (bytes?.inTheWayBytes ?? 0) + (now?.strangers.sizeBytes ?? 0),
    }
    // Room that was never measured is found out by the job, before it writes.
    const room = now?.freeBytes ?? row.freeBytes ?? Number.MAX_SAFE_INTEGER
    const freeBytes = row.connected ? Math.max(0, room - takenOf(row)) : undefined
    return [
      {
        id,
        name: row.name,
        freeBytes,
        device: row.device ?? undefined,
        proved,
        inTheWay: conflict,
        thereBytes: now?.thereBytes ?? proved.sizeBytes + conflict.sizeBytes,
        readBytesPerSecond: row.readBytesPerSecond ?? undefined,
        writeBytesPerSecond: row.writeBytesPerSecond ?? undefined,
      },
    ]
  })
  const drive = known.find((row) => row.id === from)
  return copyPlan({
    wanted: { files: load.fileCount, sizeBytes: load.sizeBytes },
    card: drive
      ? {
          name: drive.name,
          readBytesPerSecond: drive.readBytesPerSecond ?? undefined,
          writeBytesPerSecond: undefined,
          device: drive.device ?? undefined,
        }
      : {
          name: card?.name ?? 'the card',
          readBytesPerSecond: card?.readBytesPerSecond ?? undefined,
          writeBytesPerSecond: undefined,
          device: card?.device ?? undefined,
        },
    targets,
    hashBytesPerSecond,
  })
}
