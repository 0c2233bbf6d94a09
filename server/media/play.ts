import { spawn, type ChildProcessByStdio } from 'node:child_process'
import { constants, createReadStream } from 'node:fs'
import type { FileHandle } from 'node:fs/promises'
import type { Readable } from 'node:stream'
import type { Piece } from '../../core/copies/playSample'
import type { MediaFacts } from '../../core/media/facts'
import { plays } from '../../core/media/plays'
import type { Db } from '../db/connection'
import { clip as clipRow } from '../db/queries/cards'
import { holdersOf } from '../db/queries/copies'
import { joinPath } from '../engine/medium/medium'
import { openHere } from '../engine/medium/openHere'
import { boundedCommand, FFMPEG_BASE, INPUT } from '../engine/tool/tool'
import { hostName } from '../home'
import { CannotWork } from './cannotWork'
import { fullPath, inPlace, volumeMedium } from './mediumOf'

const typeOf = (probe: MediaFacts) =>
  probe.video ? 'video/mp4' : probe.container.includes('wav') ? 'audio/wav' : 'audio/mp4'

/** A file that a browser plays, opened, in pieces as they are asked for. */
export interface OpenFile {
  readonly kind: 'file'
  readonly type: string
  readonly sizeBytes: number
  piece(start: number, end: number): Readable
  close(): Promise<void>
}

/** A clip of one copy, opened: the file itself where a browser can play it, else a quick picture of it. */
export type OpenCopy =
  | OpenFile
  | {
      readonly kind: 'preview'
      readonly type: string
      readonly stream: (onFailed: () => void) => { readonly out: Readable; readonly end: () => void }
    }

/** Opens a clip on one volume. Throws CannotWork with what is missing; `undefined` when there is no such clip. */
export async function openCopy(
  db: Db,
  { loadId, volumeId, clipId }: { loadId: string; volumeId: string; clipId: string },
  piece?: Piece,
): Promise<OpenCopy | undefined> {
  const clip = await clipRow(db, clipId)
  if (!clip?.probe || clip.loadId !== loadId) return undefined
  const { probe } = clip
  if (probe.sequence)
    throw new CannotWork(
      'A clip of single frames, one file each, cannot be played as a film. Open one of its files instead.',
    )
  const holder = (await holdersOf(db, hostName(), loadId, clip.entryId)).find((one) => one.id === volumeId)
  if (!holder) throw new CannotWork('This volume holds no proved copy of the clip. Copy it first.')
  const medium = await volumeMedium(db, holder)
  if (!medium) throw new CannotWork(`${holder.name} is not connected.`)
  const path = fullPath(medium, joinPath(Buffer.from(holder.folder), clip.pathBytes))
  let file: FileHandle | undefined
  const here = await inPlace(medium, async () => {
    file = await openHere(path, constants.O_RDONLY).catch(() => undefined)
    return true
  })
  if (!here) {
    await file?.close()
    throw new CannotWork(`${holder.name} went away while the clip was opened.`)
  }
  if (!file) throw new CannotWork(`The file is no longer on ${holder.name}. Copy it again.`)
  return plays(probe) && !piece ? wholeFile(file, probe) : preview(file, piece)
}

export async function wholeFile(file: FileHandle, probe: MediaFacts): Promise<OpenFile> {
  const { size } = await file.stat()
  return {
    kind: 'file',
    type: typeOf(probe),
    sizeBytes: size,
    piece: (start, end) => createReadStream('', { fd: file, start, end }),
    close: () => file.close(),
  }
}

const MOST_PREVIEWS = 2
const PREVIEW_MS = 30 * 60 * 1000
let previews = 0

const PREVIEW_CODING = [
  ...['-vf', 'scale=960:-2', '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'aac'],
  ...['-movflags', 'frag_keyframe+empty_moov', '-f', 'mp4', 'pipe:1'],
]

/** All of a file, or a piece of it: the reader goes there, and decodes from the picture that it needs on. */
async function preview(file: FileHandle, piece?: Piece): Promise<OpenCopy> {
  const [from, length] = piece
    ? [
        ['-ss', String(piece.fromSeconds)],
        ['-t', String(piece.seconds)],
      ]
    : [[], []]
  if (previews >= MOST_PREVIEWS) {
    await file.close()
    throw new CannotWork('Two clips are being played already. Close one of them first.')
  }
  const [command, ...bounds] = await boundedCommand('ffmpeg')
  return {
    kind: 'preview',
    type: 'video/mp4',
    stream(onFailed) {
      previews += 1
      const child = spawn(command, [...bounds, ...FFMPEG_BASE, ...from, '-i', INPUT, ...length, ...PREVIEW_CODING], {
        stdio: ['ignore', 'pipe', 'ignore', file.fd],
      }) as ChildProcessByStdio<null, Readable, null>
      const end = () => void child.kill('SIGKILL')
      const timer = setTimeout(end, PREVIEW_MS)
      let over = false
      const finish = () => {
        if (over) return
        over = true
        previews -= 1
        clearTimeout(timer)
        void file.close()
      }
      // A program that is missing must not take the pages down with it.
      child.on('error', () => {
        onFailed()
        finish()
      })
      child.on('close', finish)
      return { out: child.stdout, end }
    },
  }
}
