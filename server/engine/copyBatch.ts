import { itemAt } from './blocks'
import type { CopyDestination, CopyRecord, SourceFile } from './copy'
import { assertUnchanged, nameIfEqual } from './copyLarge'
import type { CopyRun } from './copyRun'
import { settleExisting } from './existing'
import { readBack, RunningHash } from './hash'

/** Small files under way at the same time. */
export const LANES = 16

interface Written {
  readonly file: SourceFile
  readonly hash: string
  readonly targets: readonly CopyDestination[]
}

/**
 * Many small files together: write all, wait for the media once, read all back, name all. One wait for the medium
 * serves hundreds of files, where a wait for each would cost more than the bytes.
 */
export async function copyBatch(
  run: CopyRun,
  files: readonly SourceFile[],
  blocks: readonly Uint8Array[],
): Promise<void> {
  const written: Written[] = []
  await inLanes(files, blocks, async (file, block) => {
    await run.order.gate()
    const done = await writeSmall(run, file, block)
    if (done) written.push(done)
  })
  await Promise.all(run.alive().map((to) => run.attempt(to, () => to.medium.settle())))
  const records: CopyRecord[] = []
  const proofs = written.flatMap(({ file, hash, targets }) => targets.map((to) => ({ file, hash, to })))
  await inLanes(proofs, blocks, async ({ file, hash, to }, block) => {
    const found = await run.attempt(to, () =>
      readBack(
        to.medium,
        run.partPath(to, file),
        [block],
        (bytes) => run.order.onBytes(to.id, 'proved', bytes),
        run.order.gate,
      ),
    )
    const record = found && (await nameIfEqual(run, file, to, hash, found))
    if (record) records.push(record)
  })
  await run.settleNames()
  await run.order.report(records)
}

/** Works through items with one block for each lane; the first error stops all lanes and is thrown. */
async function inLanes<T>(
  items: readonly T[],
  blocks: readonly Uint8Array[],
  work: (item: T, block: Uint8Array) => Promise<void>,
): Promise<void> {
  let next = 0
  await Promise.all(
    blocks.slice(0, LANES).map(async (block) => {
      while (next < items.length) {
        const item = itemAt(items, next)
        next += 1
        await work(item, block).catch((error: unknown) => {
          next = items.length
          throw error
        })
      }
    }),
  )
}

async function writeSmall(run: CopyRun, file: SourceFile, block: Uint8Array): Promise<Written | undefined> {
  const existing = await settleExisting(run, file, [block])
  const targets = run.alive(file).filter((to) => !existing.has(to.id))
  if (targets.length === 0) return undefined
  const bytes = await readWhole(run, file, block)
  if (bytes === undefined) return undefined
  const view = block.subarray(0, bytes)
  const hash = new RunningHash()
  hash.update(view)
  const taken = await Promise.all(
    targets.map((to) =>
      run.attempt(to, async () => {
        const part = await to.medium.create(run.partPath(to, file))
        try {
          await part.write(view, 0)
        } catch (error) {
          await part.abandon()
          throw error
        }
        await part.close(file.modifiedMs, 'settled-later')
        run.order.onBytes(to.id, 'written', bytes)
        return to
      }),
    ),
  )
  return { file, hash: hash.digest(), targets: taken.filter((to) => to !== undefined) }
}

async function readWhole(run: CopyRun, file: SourceFile, block: Uint8Array): Promise<number | undefined> {
  try {
    const source = await run.order.source.open(file.path)
    try {
      const bytes = await source.read(block, 0)
      assertUnchanged(file, bytes)
      return bytes
    } finally {
      await source.close()
    }
  } catch (error) {
    await run.sourceFailed(file, error)
    return undefined
  }
}
