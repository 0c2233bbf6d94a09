import { lstat } from 'node:fs/promises'
import type { VideoTrack } from '../../core/media/facts'
import { framePicture } from '../engine/picture'
import { Stopped } from '../engine/stopped'
import type { ToolControl } from '../engine/tool'
import { CannotWork } from './cannotWork'

const AT_ONCE = 3
const MOST_WAITING = 24
const MOST_KEPT = 200

let free = AT_ONCE
const waiting: (() => void)[] = []
/** The pictures that were asked for last, the oldest first. */
const kept = new Map<string, Promise<Buffer>>()

export interface WantedFrame {
  readonly path: Buffer
  readonly video: VideoTrack
  readonly atSeconds: number
  readonly widthPx: number
}

/**
 * One frame of an original as a JPEG. The same frame is made once and kept for a while; a few are made at once, however
 * many are asked for. Throws CannotWork when too many wait, Stopped when `signal` says that nobody wants it any more.
 */
export async function frameOf(wanted: WantedFrame, signal: AbortSignal): Promise<Buffer> {
  const { path, atSeconds, widthPx } = wanted
  const { mtimeMs, size } = await lstat(path)
  const name = `${path.toString('latin1')} ${mtimeMs} ${size} ${atSeconds.toFixed(3)} ${widthPx}`
  const standing = await kept.get(name)?.catch((error: unknown) => {
    // Whoever asked first has left; it is made for this one then.
    if (!(error instanceof Stopped)) throw error
  })
  if (standing) return standing
  const made = makeFrame(wanted, signal)
  kept.set(name, made)
  made.catch(() => kept.delete(name))
  for (const oldest of kept.keys()) {
    if (kept.size <= MOST_KEPT) break
    kept.delete(oldest)
  }
  return made
}

function makeFrame({ path, video, atSeconds, widthPx }: WantedFrame, signal: AbortSignal): Promise<Buffer> {
  return bounded(() => {
    if (signal.aborted) throw new Stopped()
    const control: ToolControl = { signal, onPause: () => () => undefined }
    return framePicture(path, video, atSeconds, widthPx, control)
  })
}

/** Does what decodes for a page, a few at once. Throws CannotWork when too many wait. */
export async function bounded<T>(work: () => Promise<T>): Promise<T> {
  if (free > 0) free -= 1
  else {
    if (waiting.length >= MOST_WAITING) throw new CannotWork('Too many frames are asked for at once. Wait a moment.')
    await new Promise<void>((resolve) => waiting.push(resolve))
  }
  try {
    return await work()
  } finally {
    const next = waiting.shift()
    if (next) next()
    else free += 1
  }
}
