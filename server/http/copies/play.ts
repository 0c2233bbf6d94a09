import { pipeline } from 'node:stream/promises'
import type { Request, Response } from 'express'
import type { Piece } from '../../../core/copies/playSample'
import type { Db } from '../../db/connection'
import { openCopy, type OpenFile } from '../../media/play'
import { notFound, ProblemError } from '../problem'

/** Streams one clip from one copy, in pieces where the browser asks for them. */
export async function sendCopy(
  db: Db,
  which: { loadId: string; volumeId: string; clipId: string },
  piece: Piece | undefined,
  req: Request,
  res: Response,
): Promise<void> {
  const copy = await openCopy(db, which, piece)
  if (!copy) throw notFound('That clip')
  if (copy.kind === 'preview') {
    res.type(copy.type)
    const { out, end } = copy.stream(() => {
      if (res.headersSent) res.destroy()
      else res.status(503).end()
    })
    res.on('close', end)
    out.pipe(res)
    return
  }
  await sendFile(copy, req, res)
}

/** Sends an opened file, or the piece of it that the browser asks for; closes it. */
export async function sendFile(file: OpenFile, req: Request, res: Response): Promise<void> {
  res.type(file.type)
  const range = req.range(file.sizeBytes)
  if (range === -1) {
    await file.close()
    res.set('Content-Range', `bytes */${file.sizeBytes}`)
    throw new ProblemError(
      416,
      'no-such-piece',
      'No such piece',
      `The file has ${file.sizeBytes} bytes; ask for some of them.`,
    )
  }
  const wanted = Array.isArray(range) ? range[0] : undefined
  const [start, end] = [wanted?.start ?? 0, wanted?.end ?? file.sizeBytes - 1]
  res.status(wanted ? 206 : 200).set({
    'Accept-Ranges': 'bytes',
    'Content-Length': String(end - start + 1),
    'Cache-Control': 'no-store',
    ...(wanted ? { 'Content-Range': `bytes ${start}-${end}/${file.sizeBytes}` } : {}),
  })
  // A player that has seen enough hangs up in the middle; the file is closed either way.
  await pipeline(file.piece(start, end), res).catch(() => res.destroy())
}
