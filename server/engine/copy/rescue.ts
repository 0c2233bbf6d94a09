import { alignedBlocks, itemAt } from '../medium/blocks'
import { errorCode, joinPath, parentOf, type Medium, type ReadableFile } from '../medium/medium'
import { isNoAnswer } from '../medium/withinTimeout'
import { publishNew } from './publish'

/** A file of a card that could not be read whole. */
export interface RescueOrder {
  readonly source: Medium
  readonly path: Buffer
  readonly sizeBytes: number
  readonly modifiedMs: number
  /** Where what can be read of it is kept, on each drive. */
  readonly targets: readonly { readonly medium: Medium; readonly part: Buffer; readonly to: Buffer }[]
  readonly gate: () => Promise<void>
}

export interface Hole {
  readonly from: number
  readonly to: number
}

export interface Rescued {
  readonly rescuedBytes: number
  readonly holes: readonly Hole[]
  /** Where it is kept, on each drive that took it. */
  readonly kept: readonly { readonly medium: Medium; readonly path: Buffer }[]
}

const MIB = 1024 * 1024
/** A piece that cannot be read is tried again in smaller ones. */
const PIECES = [4 * MIB, 64 * 1024, 4096] as const
/** A file that keeps a reading waiting is not waited for again and again. */
const MOST_SILENT = 3

/**
 * Saves what can be read of a file, piece by piece; what cannot be is a hole. The file is kept aside and never counts
 * as a copy.
 */
export async function rescueFile(order: RescueOrder): Promise<Rescued> {
  const { source, path, sizeBytes, modifiedMs, gate } = order
  const outs = await Promise.all(
    order.targets.map(async (target) => {
      await target.medium.makeFolder(parentOf(target.part))
      return { ...target, file: await target.medium.create(target.part) }
    }),
  )
  const block = itemAt(alignedBlocks(1, PIECES[0]), 0)
  const holes: Hole[] = []
  const state: { file: ReadableFile | undefined; silent: number; rescuedBytes: number } = {
    ...{ file: undefined, silent: 0, rescuedBytes: 0 },
  }
  /** The bytes of a piece; `undefined` when it cannot be read. */
  const piece = async (from: number, length: number): Promise<Uint8Array | 'unreadable' | 'silent'> => {
    if (state.silent >= MOST_SILENT) return 'silent'
    try {
      state.file ??= await source.open(path)
      return block.subarray(0, await state.file.read(block.subarray(0, length), from))
    } catch (error) {
      if (!isNoAnswer(error)) {
        if (errorCode(error) === 'ENODEV') throw error
        return 'unreadable'
      }
      state.silent += 1
      await state.file?.close().catch(() => undefined)
      state.file = undefined
      return 'silent'
    }
  }
  const take = async (from: number, to: number, level: number): Promise<void> => {
    const size = PIECES[level] ?? PIECES[2]
    for (let at = from; at < to; at += size) {
      await gate()
      const end = Math.min(at + size, to)
      const bytes = await piece(at, size)
      if (typeof bytes !== 'string' && bytes.length >= end - at) {
        for (const out of outs) await out.file.write(bytes.subarray(0, end - at), at)
        state.rescuedBytes += end - at
      } else if (bytes === 'unreadable' && level + 1 < PIECES.length) await take(at, end, level + 1)
      else addHole(holes, { from: at, to: end })
    }
  }
  try {
    await take(0, sizeBytes, 0)
  } catch (error) {
    for (const { medium, part, file } of outs) {
      await file.abandon().catch(() => undefined)
      await medium.remove(part).catch(() => undefined)
    }
    throw error
  } finally {
    await state.file?.close().catch(() => undefined)
  }
  const { rescuedBytes } = state
  // As long as the file is: what is missing at its end is zeros as well.
  if (holes.at(-1)?.to === sizeBytes) for (const out of outs) await out.file.write(Buffer.alloc(1), sizeBytes - 1)
  const kept = []
  for (const { medium, part, to, file: out } of outs) {
    await out.close(modifiedMs, 'durable')
    if (rescuedBytes === 0) await medium.remove(part)
    else kept.push({ medium, path: await keptAs(medium, part, to, { holes, rescuedBytes, sizeBytes }) })
  }
  return { rescuedBytes, holes, kept }
}

function addHole(holes: Hole[], hole: Hole): void {
  const last = holes.at(-1)
  if (last?.to === hole.from) holes[holes.length - 1] = { from: last.from, to: hole.to }
  else holes.push(hole)
}

/** Gives it the first free name, and lists its holes beside it. */
async function keptAs(
  medium: Medium,
  part: Buffer,
  to: Buffer,
  { holes, rescuedBytes, sizeBytes }: { holes: readonly Hole[]; rescuedBytes: number; sizeBytes: number },
): Promise<Buffer> {
  for (let turn = 1; turn < 1000; turn += 1) {
    const path = turn === 1 ? to : Buffer.concat([to, Buffer.from(` (${turn})`)])
    if ((await publishNew(medium, part, path)) === 'taken') continue
    const list = [
      `Saved ${rescuedBytes} of ${sizeBytes} bytes. This is not a copy: the bytes below could not be ` +
        'read and are zeros here.',
      ...holes.map((hole) => `${hole.from}-${hole.to - 1} (${hole.to - hole.from} bytes)`),
      '',
    ].join('\n')
    const listPart = joinPath(parentOf(part), Buffer.from('holes'))
    const out = await medium.create(listPart)
    await out.write(Buffer.from(list), 0)
    await out.close(Date.now(), 'durable')
    await publishNew(medium, listPart, Buffer.concat([path, Buffer.from('.holes.txt')]))
    return path
  }
  throw new Error('There is no free name for what was saved.')
}
