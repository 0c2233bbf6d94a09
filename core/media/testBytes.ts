import type { ByteSource } from './bytes'

/** Bytes in memory as a file; beyond what is there it goes on as zeros where it is longer. */
export const sourceOf = (bytes: Uint8Array, sizeBytes = bytes.length): ByteSource => ({
  sizeBytes,
  read: (position, length) => {
    const wanted = Math.max(0, Math.min(length, sizeBytes - position))
    const found = new Uint8Array(wanted)
    found.set(bytes.subarray(position, position + wanted))
    return Promise.resolve(found)
  },
})

export const joined = (...parts: readonly (Uint8Array | string)[]): Uint8Array =>
  Uint8Array.from(
    parts.flatMap((part) => (typeof part === 'string' ? [...part].map((one) => one.charCodeAt(0)) : [...part])),
  )

/** Whole numbers of so many bytes, the highest first unless `little`. Less than nought in two's complement. */
export function numbers(bytes: number, values: readonly (number | bigint)[], little = false): Uint8Array {
  return joined(
    ...values.map((value) => {
      const left = BigInt.asUintN(bytes * 8, BigInt(value))
      const digits = Array.from({ length: bytes }, (_, at) => Number((left >> BigInt(8 * (bytes - 1 - at))) & 0xffn))
      return Uint8Array.from(little ? digits.reverse() : digits)
    }),
  )
}

export const u16 = (...values: readonly number[]): Uint8Array => numbers(2, values)
export const u32 = (...values: readonly number[]): Uint8Array => numbers(4, values)
export const u64 = (...values: readonly number[]): Uint8Array => numbers(8, values)

/** A box of ISO/IEC 14496-12, 4.2. */
export function box(type: string, ...parts: readonly (Uint8Array | string)[]): Uint8Array {
  const content = joined(...parts)
  return joined(u32(content.length + 8), type, content)
}

/** A table of it: version, flags, how many entries, and these. */
export const table = (type: string, entries: number, ...parts: readonly (Uint8Array | string)[]): Uint8Array =>
  box(type, u32(0, entries), ...parts)
