import { constants } from 'node:fs'
import { STRIP_FRAMES } from '../../core/cards/review/review'
import type { Db } from '../db/connection'
import { frameEntry } from '../db/queries/takes'
import { frameFilePicture } from '../engine/picture/frameFile'
import { openHere } from '../engine/medium/openHere'
import { stripPicture } from '../engine/picture/strip'
import { soundPeaks } from '../engine/picture/wave'
import { CannotWork } from './cannotWork'
import { bounded, frameOf } from './frames'
import { kept } from './kept'
import { plays } from '../../core/media/plays'
import { wholeFile, type OpenFile } from './play'
import { previewFile, previewSize } from './previews'
import { openAt, pathAt, watchPlace, type WatchedClip, type WatchPlace } from './watch'

const WAVE_PIECES = 1000
const STRIP_PX = 90
const STILL_PX = 1600

/** The place that a clip is watched from; throws CannotWork when nothing that is connected has it. */
export async function placeOf(db: Db, clip: WatchedClip): Promise<WatchPlace> {
  const place = await watchPlace(db, clip)
  if (!place) throw new CannotWork(`Neither a copy of ${clip.name} nor its card is connected. Connect one of them.`)
  return place
}

/** A clip as a browser plays it: the file itself, else the preview that was made of it. */
export async function filmOf(db: Db, clip: WatchedClip): Promise<OpenFile> {
  if (clip.probe.sequence)
    throw new CannotWork(`${clip.name} is a clip of single frames, which cannot be played as a film.`)
  if (plays(clip.probe)) return wholeFile(await openAt(await placeOf(db, clip), clip), clip.probe)
  if ((await previewSize(clip.id)) === 0)
    throw new CannotWork(`No browser plays ${clip.name} as it is. Make a preview of it first.`)
  const file = await openHere(Buffer.from(previewFile(clip.id)), constants.O_RDONLY)
  return { ...(await wholeFile(file, clip.probe)), type: 'video/mp4' }
}

/** Frames from beginning to end side by side, made once; `undefined` of what has no film. */
export async function filmstripOf(db: Db, clip: WatchedClip): Promise<Buffer | undefined> {
  const { video, sequence } = clip.probe
  if (!video || sequence) return undefined
  return kept(`${clip.id}.strip.jpg`, async () => {
    const place = await placeOf(db, clip)
    const size = { frames: STRIP_FRAMES, heightPx: STRIP_PX }
    return bounded(() => stripPicture(pathAt(place, clip.pathBytes), video, size))
  })
}

/** The loudest samples of a clip from beginning to end as JSON, made once; none where it has no sound. */
export async function waveOf(db: Db, clip: WatchedClip): Promise<Buffer> {
  const { audio } = clip.probe
  if (!audio) return Buffer.from('{"peaks":[]}')
  return kept(`${clip.id}.wave.json`, async () => {
    const place = await placeOf(db, clip)
    const peaks = await bounded(() => soundPeaks(pathAt(place, clip.pathBytes), audio, WAVE_PIECES))
    return Buffer.from(JSON.stringify({ peaks: peaks.map((peak) => Math.round(peak * 1000) / 1000) }))
  })
}

/**
 * One frame of a clip as a JPEG: decoded from its film, or the file that the frame is. Past its end is the last one.
 */
export async function stillOf(
  db: Db,
  clip: WatchedClip,
  atSeconds: number,
  signal: AbortSignal,
): Promise<Buffer | undefined> {
  const { video, sequence } = clip.probe
  if (!video) return undefined
  const place = await placeOf(db, clip)
  const last = Math.max(0, video.seconds - video.rate.den / video.rate.num)
  const at = Math.min(atSeconds, last)
  if (!sequence)
    return frameOf({ path: pathAt(place, clip.pathBytes), video, atSeconds: at, widthPx: STILL_PX }, signal)
  const number = Math.floor((at * video.rate.num) / video.rate.den + 1e-6)
  const frame = await frameEntry(db, clip.id, number)
  return frame && bounded(() => frameFilePicture(pathAt(place, frame.path), frame.sizeBytes, STILL_PX))
}
