import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { FolderMedium } from '../medium/folder'
import { EndsHash, sampleHash } from './sample'

it('the ends of a file hash the same in whatever blocks it is read, and when only they are read', async () => {
  const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'ends-'))
  const [medium, path] = [new FolderMedium(root), Buffer.from('CURL0041.MP4')]
  const sizes = fc.oneof(fc.nat(300_000), fc.constantFrom(0, 65_536, 65_537, 69_631, 69_632, 69_633, 131_072, 135_168))
  await fc.assert(
    fc.asyncProperty(sizes, fc.integer({ min: 1000, max: 200_000 }), fc.nat(), async (size, blockBytes, seed) => {
      const bytes = Uint8Array.from({ length: size }, (_, at) => Math.imul(at + seed, 2654435761) >>> 24)
      writeFileSync(join(root, path.toString()), bytes)
      const ends = new EndsHash(size)
      // Blocks are lent: each is written over by the next.
      const lent = new Uint8Array(blockBytes)
      for (let at = 0; at < size; at += blockBytes) {
        const view = lent.subarray(0, Math.min(blockBytes, size - at))
        view.set(bytes.subarray(at, at + view.length))
        ends.update(view)
      }
      expect(ends.digest()).toBe(await sampleHash(medium, path, size))
    }),
    { numRuns: 60 },
  )
  rmSync(root, { recursive: true })
})

it('a file that is shorter or longer than it was has no ends', () => {
  const ends = new EndsHash(100)
  ends.update(new Uint8Array(99))
  expect(ends.digest()).toBeUndefined()
  ends.update(new Uint8Array(2))
  expect(ends.digest()).toBeUndefined()
})
