/** A file as something to be read in pieces. `read` gives at most `length` bytes from `position`, fewer at the end. */
export interface ByteSource {
  readonly sizeBytes: number
  read(position: number, length: number): Promise<Uint8Array>
}

export const view = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

export const ascii = (bytes: Uint8Array, at: number, length: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + length))

export const startsWith = (bytes: Uint8Array, ...signature: readonly number[]): boolean =>
  signature.every((byte, at) => bytes[at] === byte)
