import { spawn } from 'node:child_process'
import { createReadStream } from 'node:fs'
import { constants } from 'node:fs'
import { open } from 'node:fs/promises'
import { pipeline } from 'node:stream/promises'
import type { Request, Response } from 'express'
import type { Probe } from '../../core/media/probe'
import type { Db } from '../db/connection'
import { clip as clipRow } from '../db/queries/cards'
import { holdersOf } from '../db/queries/copies'
import { FFMPEG_BASE, INPUT } from '../engine/tool'
import { joinPath } from '../engine/medium'
import { fullPath, volumeMedium } from '../places'
import { conflict, notFound } from './problem'

/** What every browser plays by itself. */
const plays = (probe: Probe) =>
  probe.video
    ? probe.video.codec === 'h264' &&
      probe.video.pixelFormat.startsWith('yuv') &&
      probe.video.pixelFormat.includes('420p') &&
      !probe.video.pixelFormat.includes('10') &&
      probe.container.includes('mp4')
    : probe.audio?.codec.startsWith('pcm') === true || probe.audio?.codec === 'aac'

/** Streams one clip from one copy: the file itself where a browser can play it, else a quick picture of it. */
export async function playCopy(
  db: Db,
  { loadId, volumeId, clipId }: { loadId: string; volumeId: string; clipId: string },
  req: Request,
  res: Response,
): Promise<void> {
  const clip = await clipRow(db, clipId)
  if (!clip?.probe || clip.loadId !== loadId) throw notFound('That clip')
  const holder = (await holdersOf(db, loadId, clip.entryId)).find((one) => one.id === volumeId)
  if (!holder) throw conflict('This volume holds no proved copy of the clip. Copy it first.')
  const medium = await volumeMedium(db, holder)
  if (!medium) throw conflict(`${holder.name} is not connected.`)
  const path = fullPath(medium, joinPath(Buffer.from(holder.folder), clip.pathBytes))
  const file = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW).catch(() => undefined)
  if (!file) throw conflict(`The file is no longer on ${holder.name}. Copy it again.`)
  if (!plays(clip.probe)) {
    const child = spawn(
      'ffmpeg',
      [
        ...FFMPEG_BASE,
        '-i',
        INPUT,
        '-vf',
        'scale=960:-2',
        '-c:v',
        'libx264',
        '-preset',
        'ultrafast',
        '-pix_fmt',
        'yuv420p',
        '-c:a',
        'aac',
        '-movflags',
        'frag_keyframe+empty_moov',
        '-f',
        'mp4',
        'pipe:1',
      ],
      { stdio: ['ignore', 'pipe', 'ignore', file.fd] },
    )
    res.type('video/mp4')
    child.stdout?.pipe(res)
    res.on('close', () => child.kill('SIGKILL'))
    child.on('close', () => void file.close())
    return
  }
  const { size } = await file.stat()
  const range = req.range(size)
  const wanted = Array.isArray(range) ? range[0] : undefined
  const [start, end] = [wanted?.start ?? 0, wanted?.end ?? size - 1]
  res
    .status(wanted ? 206 : 200)
    .type(clip.probe.video ? 'video/mp4' : clip.probe.container.includes('wav') ? 'audio/wav' : 'audio/mp4')
  res.set({
    'Accept-Ranges': 'bytes',
    'Content-Length': String(end - start + 1),
    'Cache-Control': 'no-store',
    ...(wanted ? { 'Content-Range': `bytes ${start}-${end}/${size}` } : {}),
  })
  // A player that has seen enough hangs up in the middle; the file is closed either way.
  await pipeline(createReadStream('', { fd: file, start, end }), res).catch(() => res.destroy())
}
