import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { windowed } from './bytes'

const SIZE = 100_000
const content = Uint8Array.from({ length: SIZE }, (_, at) => (at * 7919) % 251)

/** A file that counts how often it is read, and cannot be read from `bad` on: it gives what lies before, or fails. */
function file(bad = Infinity) {
  let reads = 0
  const source = windowed(SIZE, (position, length) => {
    reads += 1
    if (position >= bad) return Promise.reject(new Error('EIO'))
    return Promise.resolve(content.subarray(position, Math.min(position + length, bad)))
  })
  return { source, reads: () => reads }
}

describe('small reads from a window', () => {
  it('give the bytes that lie there, whatever is asked for in whatever order, also all at once', async () => {
    const piece = fc.tuple(fc.nat(SIZE + 50), fc.nat(40_000))
    await fc.assert(
      fc.asyncProperty(fc.array(piece, { maxLength: 20 }), async (pieces) => {
        const { source } = file()
        const isRight = async ([at, length]: [number, number]) =>
          Buffer.from(await source.read(at, length)).equals(content.subarray(at, at + length))
        expect((await Promise.all(pieces.map(isRight))).every(Boolean)).toBe(true)
        for (const one of pieces) expect(await isRight(one)).toBe(true)
      }),
    )
  })

  it('read the file once for what lies close together', async () => {
    const { source, reads } = file()
    for (let at = 5000; at < 21_000; at += 16) await source.read(at, 16)
    expect(reads()).toBe(1)
  })

  it('fail only where the bytes that were asked for cannot be read', async () => {
    const { source } = file(6000)
    expect(await source.read(5000, 16)).toEqual(content.subarray(5000, 5016))
    expect(await source.read(5984, 16)).toEqual(content.subarray(5984, 6000))
    await expect(source.read(6000, 16)).rejects.toThrow('EIO')
    expect(await source.read(5984, 16)).toEqual(content.subarray(5984, 6000))
  })
})
