import { createReadStream, createWriteStream } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { withCleanAperture } from '../../../core/media/cleanAperture'
import type { CleanAperture } from '../../../core/media/facts'
import { boxesOf } from '../../../core/media/isoBoxes'
import { withBytes } from '../medium/byteSource'

/**
 * Writes a film whose index stands before its media anew, with a clean aperture, which the coder cannot write; removes
 * the old one.
 */
export async function addCleanAperture(from: string, to: string, clean: CleanAperture): Promise<void> {
  const { size } = await stat(from)
  const { index, start, end } = await withBytes(Buffer.from(from), size, async (file) => {
    const movie = (await boxesOf(file, 0, size)).find((box) => box.type === 'moov')
    if (!movie) throw new Error('What was made has no index.')
    return { index: await file.read(movie.start, movie.end - movie.start), start: movie.start, end: movie.end }
  })
  const parts = async function* () {
    yield* createReadStream(from, { end: start - 1 })
    yield withCleanAperture(index, clean)
    yield* createReadStream(from, { start: end })
  }
  await pipeline(Readable.from(parts()), createWriteStream(to))
  await rm(from)
}
