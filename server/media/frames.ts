import { framePicture } from '../engine/picture'

const AT_ONCE = 3
let free = AT_ONCE
const waiting: (() => void)[] = []

/** One frame of an original as a JPEG; a few at once, however many are asked for. */
export async function frameOf(path: Buffer, atSeconds: number, widthPx: number): Promise<Buffer> {
  if (free > 0) free -= 1
  else await new Promise<void>((resolve) => waiting.push(resolve))
  try {
    return await framePicture(path, atSeconds, widthPx)
  } finally {
    const next = waiting.shift()
    if (next) next()
    else free += 1
  }
}
