/** A file as something to be read in pieces. `read` gives at most `length` bytes from `position`, fewer at the end. */
export interface ByteSource {
  readonly sizeBytes: number
  read(position: number, length: number): Promise<Uint8Array>
}

const WINDOW = 16 * 1024
const NOTHING = new Uint8Array()

/**
 * A source whose small reads come from a window of 16 KiB: the index of a film is hundreds of boxes that lie close
 * together. Bytes that the window did not get are asked for alone, so that a bad place ahead is no one's trouble but
 * its own. Rejects as `read` does.
 */
export function windowed(sizeBytes: number, read: ByteSource['read']): ByteSource {
  let start = 0
  let window: Promise<Uint8Array> | undefined
  return {
    sizeBytes,
    read: async (position, length) => {
      const wanted = Math.max(0, Math.min(length, sizeBytes - position))
      if (wanted > WINDOW) return read(position, wanted)
      if (!window || position < start || position + wanted > start + WINDOW) {
        start = position
        window = read(position, Math.max(0, Math.min(WINDOW, sizeBytes - position))).catch(() => NOTHING)
      }
      // Another read may move the window while this one waits.
      const at = position - start
      const bytes = await window
      return at + wanted <= bytes.length ? bytes.subarray(at, at + wanted) : read(position, wanted)
    },
  }
}

export const view = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

export const ascii = (bytes: Uint8Array, at: number, length: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + length))

export const startsWith = (bytes: Uint8Array, ...signature: readonly number[]): boolean =>
  signature.every((byte, at) => bytes[at] === byte)
