import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { BenchMedium } from '../../server/bench/benchMedium'
import type { BenchDevice } from '../../server/bench/benchDevice'
import type { CopyRecord } from '../../core/copies/record'
import { copyTree } from '../../server/engine/copy/copy'
import type { SourceFile } from '../../server/engine/copy/copyOrder'
import { FolderMedium } from '../../server/engine/medium/folder'
import type { Medium } from '../../server/engine/medium/medium'
import { walk } from '../../server/engine/medium/walk'

/** A device without limits or faults. */
export const HEALTHY: BenchDevice = {
  capacityBytes: 1e12,
  readBytesPerSecond: 1e12,
  writeBytesPerSecond: 1e12,
  plugged: true,
  fault: undefined,
}

export interface Bench {
  readonly card: string
  readonly slipway: string
  readonly tide: string
}

/** An empty card and two empty drives in a temporary folder (on disk: direct reading needs a real file system). */
export function emptyBench(): Bench {
  const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-faults-'))
  const [card, slipway, tide] = ['card', 'slipway', 'tide'].map((name) => join(root, name))
  if (!card || !slipway || !tide) throw new Error('unreachable')
  for (const folder of [card, slipway, tide]) mkdirSync(folder)
  return { card, slipway, tide }
}

/** A card with clips above and below the size of one block, a sidecar, and an empty file. */
export function filledBench(): Bench {
  const bench = emptyBench()
  const folder = join(bench.card, 'DCIM/100CURLW')
  mkdirSync(folder, { recursive: true })
  const pattern = (bytes: number, seed: number) =>
    Buffer.alloc(bytes, Buffer.from(Array.from({ length: 257 }, (_, at) => (at * 31 + seed) % 256)))
  writeFileSync(join(folder, 'CURL0041.MP4'), pattern(21_000_123, 1))
  writeFileSync(join(folder, 'CURL0042.MP4'), pattern(9_000_000, 2))
  for (let at = 0; at < 40; at += 1)
    writeFileSync(join(folder, `CURL${String(100 + at)}.XML`), pattern(1000 + at * 997, at))
  writeFileSync(join(folder, 'EMPTY.TXT'), '')
  return bench
}

export const simulated = (root: string, device: Partial<BenchDevice> = {}): BenchMedium =>
  new BenchMedium(root, { id: root, settings: { ...HEALTHY, ...device }, onStruck: () => undefined })

export interface CopyResult {
  readonly records: readonly CopyRecord[]
  readonly files: ReadonlyMap<number, string>
}

/** Copies a card to two media as the jobs do, and returns everything that was reported. */
export async function copyCard(
  card: Medium,
  slipway: Medium,
  tide: Medium,
  gate: () => Promise<void> = () => Promise.resolve(),
): Promise<CopyResult> {
  const entries = await walk(new FolderMedium(card.root))
  const files: SourceFile[] = entries
    .filter((entry) => entry.kind === 'file')
    .map((entry, id) => ({
      id,
      path: entry.path,
      sizeBytes: entry.sizeBytes,
      modifiedMs: entry.modifiedMs,
      wantedBy: new Set(['slipway', 'tide']),
    }))
  const records: CopyRecord[] = []
  const place = { folder: Buffer.from('Mirror'), parts: Buffer.from('.yendra/parts') }
  await copyTree({
    source: card,
    files,
    folders: entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path),
    destinations: [
      { id: 'slipway', medium: slipway, ...place },
      { id: 'tide', medium: tide, ...place },
    ],
    gate,
    onBytes: () => undefined,
    report: (found) => Promise.resolve(void records.push(...found)),
  })
  return { records, files: new Map(files.map((file) => [file.id, file.path.toString('latin1')])) }
}

/** Differences between two trees as Debian's diffutils sees them; `''` when equal. Links are not followed. */
export function treeDifference(a: string, b: string): string {
  try {
    return execFileSync('diff', ['-r', '--no-dereference', a, b], {
      encoding: 'latin1',
      stdio: ['ignore', 'pipe', 'ignore'],
    })
  } catch (error) {
    return String((error as { stdout?: unknown }).stdout)
  }
}
