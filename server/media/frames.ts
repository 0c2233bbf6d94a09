import { lstat } from 'node:fs/promises'
import { LRUCache } from 'lru-cache'
import pLimit from 'p-limit'
import type { VideoTrack } from '../../core/media/facts'
import { framePicture } from '../engine/picture/picture'
import { Stopped } from '../engine/tool/stopped'
import type { ToolControl } from '../engine/tool/tool'
import { CannotWork } from './cannotWork'

const AT_ONCE = 3
const MOST_WAITING = 24
const MOST_KEPT = 200

const decoding = pLimit(AT_ONCE)
const kept = new LRUCache<string, Promise<Buffer>>({ max: MOST_KEPT })

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
  if (decoding.activeCount + decoding.pendingCount >= AT_ONCE + MOST_WAITING)
    throw new CannotWork('Too many frames are asked for at once. Wait a moment.')
  return decoding(work)
}
