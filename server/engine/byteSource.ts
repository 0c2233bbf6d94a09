import { constants } from 'node:fs'
import type { ByteSource } from '../../core/media/bytes'
import { openHere } from './openHere'

/** Opens a file without following links and hands it on as something to be read in pieces. Rejects when it cannot be opened. */
export async function withBytes<T>(
  path: Buffer,
  sizeBytes: number,
  work: (file: ByteSource) => Promise<T>,
): Promise<T> {
  const handle = await openHere(path, constants.O_RDONLY)
  try {
    return await work({
      sizeBytes,
      read: async (position, length) => {
        const block = Buffer.alloc(Math.max(0, Math.min(length, sizeBytes - position)))
        const { bytesRead } = await handle.read(block, 0, block.length, position)
        return block.subarray(0, bytesRead)
      },
    })
  } finally {
    await handle.close()
  }
}
