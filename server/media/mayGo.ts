import type { Db } from '../db/connection'
import { provedCopies } from '../db/queries/copies'
import { ruleOfEntry } from '../db/queries/clearRules'
import { volumes } from '../db/queries/volumes'
import { joinPath, type Medium } from '../engine/medium/medium'
import { sampleHash } from '../engine/copy/sample'
import { volumeMedium } from './mediumOf'

/** A file that holds, or may hold, the bytes of an original. */
export interface OriginalFile {
  readonly volumeId: string
  readonly medium: Medium
  readonly path: Buffer
  readonly entryId: number
}

/**
 * Why a file with the bytes of an original has to stay; `undefined` when it may be removed. It may where another name
 * of the same file stays and opens now, or where another file with its bytes, proved and connected, opens now with
 * equal size and ends and was read whole within the hours of its rule. Asked by everything that removes such a
 * file.
 */
export async function whyItStays(db: Db, host: string, file: OriginalFile): Promise<string | undefined> {
  const there = await file.medium.entry(file.path)
  if (there?.kind !== 'file') return undefined
  const [{ proofHours, acceptMemory }, known] = await Promise.all([ruleOfEntry(db, file.entryId), volumes(db, host)])
  const oldest = Date.now() - proofHours * 3_600_000
  for (const copy of await provedCopies(db, host, file.entryId)) {
    const row = known.find((one) => one.id === copy.volumeId)
    const medium =
      copy.volumeId === file.volumeId ? file.medium : row && (await volumeMedium(db, row).catch(() => undefined))
    const path = joinPath(Buffer.from(copy.folder), copy.path)
    if (!medium || (copy.volumeId === file.volumeId && path.equals(file.path))) continue
    const other = await medium.entry(path).catch(() => undefined)
    if (other?.kind !== 'file' || other.sizeBytes !== there.sizeBytes) continue
    if (copy.volumeId === file.volumeId && other.node === there.node) {
      if (await opens(medium, path, other.sizeBytes)) return undefined
      continue
    }
    const counts = copy.standing === 'verified' || acceptMemory
    if (!counts || copy.provedAt.getTime() < oldest) continue
    if (await equalEnds(file, { medium, path }, there.sizeBytes)) return undefined
  }
  return `no other proved copy of it could be opened just now that was read within the last ${proofHours} hours`
}

const opens = async (medium: Medium, path: Buffer, sizeBytes: number): Promise<boolean> =>
  (await sampleHash(medium, path, sizeBytes).catch(() => undefined)) !== undefined

async function equalEnds(
  file: OriginalFile,
  other: { readonly medium: Medium; readonly path: Buffer },
  sizeBytes: number,
): Promise<boolean> {
  const [own, theirs] = await Promise.all(
    [file, other].map(({ medium, path }) => sampleHash(medium, path, sizeBytes).catch(() => undefined)),
  )
  return own !== undefined && own === theirs
}
