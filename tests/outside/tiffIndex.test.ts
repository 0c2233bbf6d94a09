import { execFileSync } from 'node:child_process'
import fc from 'fast-check'
import { decode, encode, type IFD } from 'utif2'
import { expect, it } from 'vitest'
import { mainImage, readTiffIndex } from '../../core/media/tiffIndex'
import { sourceOf } from '../../core/media/testBytes'

const numbers = (directory: IFD, tag: number): number[] => {
  const values = directory[`t${tag}`]
  return Array.isArray(values) ? values.map(Number) : []
}

/**
 * What utif2, a reader of TIFF that shares nothing with ours, finds in the directories. Numbers are those of TIFF 6.0.
 */
const theirs = (bytes: Uint8Array) =>
  decode(new Uint8Array(bytes).buffer).map((directory) => {
    const [offsets, sizes] = numbers(directory, 324).length > 0 ? [324, 325] : [273, 279]
    const one = (tag: number, otherwise: number) => numbers(directory, tag)[0] ?? otherwise
    return {
      ...{ widthPx: one(256, 0), heightPx: one(257, 0), bitDepth: one(258, 1) },
      ...{ compression: one(259, 1), photometric: one(262, 0) },
      pieces: numbers(directory, offsets).map((offset, at) => ({ offset, bytes: numbers(directory, sizes)[at] ?? 0 })),
    }
  })

it('finds in the frames of ffmpeg what utif2 finds', async () => {
  for (const pixels of ['rgb24', 'gray16le', 'yuv420p', 'monob', 'rgba64le'])
    for (const packed of ['raw', 'deflate']) {
      const bytes = execFileSync('ffmpeg', [
        ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=322x182:d=0.04', '-frames:v', '1', '-pix_fmt', pixels],
        ...['-c:v', 'tiff', '-compression_algo', packed, '-f', 'image2pipe', '-'],
      ])
      const index = await readTiffIndex(sourceOf(bytes))
      expect(index?.images, `${pixels} ${packed}`).toEqual(theirs(bytes))
      expect(index?.images[0]?.pieces.length, `${pixels} ${packed}`).toBeGreaterThan(0)
    }
}, 60_000)

const small = fc.integer({ min: 1, max: 40_000 })
const directory = fc
  .record({
    ...{ width: small, height: small, bits: fc.constantFrom(8, 10, 12, 14, 16), packed: fc.constantFrom(1, 5, 7, 8) },
    ...{ photometric: fc.constantFrom(1, 2, 6, 32_803, 34_892), tiled: fc.boolean() },
    pieces: fc.array(fc.tuple(fc.nat(1e9), fc.nat(1e9)), { minLength: 1, maxLength: 40 }),
  })
  .map(({ width, height, bits, packed, photometric, tiled, pieces }) => ({
    ...{ t256: [width], t257: [height], t258: [bits], t259: [packed], t262: [photometric] },
    [tiled ? 't324' : 't273']: pieces.map(([offset]) => offset),
    [tiled ? 't325' : 't279']: pieces.map(([, bytes]) => bytes),
    t306: ['2026:11:14 09:12:00'],
  }))

it('reads with the bytes the other way round what utif2 wrote', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(directory, { minLength: 1, maxLength: 8 }), async (directories) => {
      const bytes = new Uint8Array(encode(directories as unknown as IFD[]))
      expect([bytes[0], bytes[1]]).toEqual([0x4d, 0x4d])
      const index = await readTiffIndex(sourceOf(bytes))
      expect(index?.images).toEqual(theirs(bytes))
      expect(index?.recorded).toBe('2026:11:14 09:12:00')
      const areas = index?.images.map((image) => image.widthPx * image.heightPx) ?? []
      const main = index && mainImage(index)
      expect((main?.widthPx ?? 0) * (main?.heightPx ?? 0)).toBe(Math.max(...areas))
    }),
    { numRuns: 200 },
  )
})
