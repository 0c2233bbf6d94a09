import type { MediaFacts, SidecarField, VideoTrack } from '../../../../core/media/facts'
import { nothingIn } from '../../../../core/media/nothingIn'
import { findCut } from '../../../../core/media/truncation'
import { withBytes } from '../../../engine/medium/byteSource'
import type { Medium } from '../../../engine/medium/medium'
import { framePicture } from '../../../engine/picture/picture'
import { probeFile } from '../../../engine/probe/probe'
import { sidecarFields } from '../../../engine/probe/sidecarFields'
import { Stopped } from '../../../engine/tool/stopped'
import { ToolFailed } from '../../../engine/tool/tool'
import { nameOf, type TreeEntry } from '../../../engine/medium/medium'
import { fullPath } from '../../../media/mediumOf'
import type { TaskControl } from '../../control'

export interface SeenClip {
  readonly probe: MediaFacts | undefined
  readonly trouble: string | undefined
  readonly toolLines?: readonly string[]
  /** What is missing of its end, in words. */
  readonly cut: string | undefined
  readonly hasPicture: boolean
  readonly picture: Buffer | undefined
}

/** Reads what a clip and its sidecars say of it, and whether its end is there; its picture is taken later. */
export async function scanClip(
  medium: Medium,
  file: TreeEntry,
  sidecars: readonly TreeEntry[],
  control: TaskControl,
): Promise<SeenClip> {
  const nothing = { probe: undefined, cut: undefined, hasPicture: true, picture: undefined }
  if (file.sizeBytes === 0) return { ...nothing, trouble: 'the file is empty' }
  const path = fullPath(medium, file.path)
  const cut = await cutOf(path, file.sizeBytes)
  try {
    // A program that looks for the beginning of a film would search all of it.
    if (await beginsWithZeros(path, file.sizeBytes)) return { ...nothing, cut, trouble: ZEROS }
    const probe = { ...(await probeFile(path, control)), sidecar: await sidecarOf(medium, sidecars) }
    const trouble = nothingIn(probe)
    if (trouble !== undefined) return { ...nothing, cut, trouble }
    return { probe, trouble: undefined, cut, hasPicture: probe.video !== undefined, picture: undefined }
  } catch (error) {
    if (error instanceof Stopped) throw error
    return { ...nothing, cut, ...troubleOf(error) }
  }
}

/** From a third of the clip, else from its first frame: some can only be decoded from there. */
export async function pictureOf(path: Buffer, video: VideoTrack, control: TaskControl): Promise<Buffer | undefined> {
  for (const at of [video.seconds / 3, 0]) {
    const picture = await framePicture(path, video, at, 480, control).catch((error: unknown) => {
      if (error instanceof Stopped) throw error
      return undefined
    })
    if (picture) return picture
  }
  return undefined
}

const ZEROS = 'only zeros stand where it should begin: its content was never written'
const HEAD_BYTES = 64 * 1024

const beginsWithZeros = (path: Buffer, sizeBytes: number): Promise<boolean> =>
  withBytes(path, sizeBytes, async (file) => {
    const head = await file.read(0, Math.min(HEAD_BYTES, sizeBytes))
    return head.length > 0 && head.every((byte) => byte === 0)
    // Where it cannot be read, the program that reads it says why.
  }).catch(() => false)

const MOST_SIDECAR_BYTES = 256 * 1024

async function sidecarOf(medium: Medium, sidecars: readonly TreeEntry[]): Promise<SidecarField[]> {
  const xml = sidecars.find(
    (one) => /\.xml$/i.test(nameOf(one.path).toString('latin1')) && one.sizeBytes <= MOST_SIDECAR_BYTES,
  )
  if (!xml) return []
  return withBytes(fullPath(medium, xml.path), xml.sizeBytes, async (file) =>
    sidecarFields(Buffer.from(await file.read(0, xml.sizeBytes)).toString()),
  ).catch(() => [])
}

async function cutOf(path: Buffer, sizeBytes: number): Promise<string | undefined> {
  try {
    return (await withBytes(path, sizeBytes, findCut))?.sentence
  } catch {
    return undefined
  }
}

/** Why a file could not be read as media, in words, and in those of the program that read it. */
export function troubleOf(error: unknown): { trouble: string; toolLines?: readonly string[] } {
  if (error instanceof ToolFailed) return { trouble: error.reason, toolLines: error.lines }
  return { trouble: error instanceof Error ? error.message : String(error) }
}
