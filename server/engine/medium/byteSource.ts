import { constants } from 'node:fs'
import { windowed, type ByteSource } from '../../../core/media/bytes'
import { openHere } from './openHere'

/**
 * Opens a file without following links and hands it on as something to be read in pieces. Rejects when it cannot be
 * opened.
 */
export async function withBytes<T>(
  path: Buffer,
  sizeBytes: number,
  work: (file: ByteSource) => Promise<T>,
): Promise<T> {
  const handle = await openHere(path, constants.O_RDONLY)
  try {
    return await work(
      windowed(sizeBytes, async (position, length) => {
        const block = Buffer.alloc(length)
        const { bytesRead } = await handle.read(block, 0, length, position)
        return block.subarray(0, bytesRead)
      }),
    )
  } finally {
    await handle.close()
  }
}
