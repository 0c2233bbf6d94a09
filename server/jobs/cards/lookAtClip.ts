import type { MediaFacts, SidecarField, VideoTrack } from '../../../core/media/facts'
import { nothingIn } from '../../../core/media/nothingIn'
import { findCut } from '../../../core/media/truncation'
import { withBytes } from '../../engine/byteSource'
import type { Medium } from '../../engine/medium'
import { framePicture } from '../../engine/picture'
import { probeFile } from '../../engine/probe'
import { sidecarFields } from '../../engine/sidecarFields'
import { Stopped } from '../../engine/stopped'
import { ToolFailed } from '../../engine/tool'
import { nameOf, type TreeEntry } from '../../engine/medium'
import { fullPath } from '../../media/mediumOf'
import type { TaskControl } from '../control'

export interface SeenClip {
  readonly probe: MediaFacts | undefined
  readonly trouble: string | undefined
  /** What is missing of its end, in words. */
  readonly cut: string | undefined
  readonly hasPicture: boolean
  readonly picture: Buffer | undefined
}

/** Reads what a clip and its sidecars say of it, and whether its end is there; its picture is taken later. */
export async function lookAtClip(
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
    const probe = { ...(await probeFile(path, control)), sidecar: await sidecarOf(medium, sidecars) }
    const trouble = nothingIn(probe)
    if (trouble !== undefined) return { ...nothing, cut, trouble }
    return { probe, trouble: undefined, cut, hasPicture: probe.video !== undefined, picture: undefined }
  } catch (error) {
    if (error instanceof Stopped) throw error
    return { ...nothing, cut, trouble: troubleOf(error) }
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

/** Why a file could not be read as media, in words. */
export function troubleOf(error: unknown): string {
  if (error instanceof ToolFailed && error.messages.includes('moov atom not found'))
    return 'the index is missing, as after a battery that died'
  if (error instanceof ToolFailed && /not on whitelist|whitelist/i.test(error.messages))
    return 'it is no film but something that names other files, and was not opened'
  if (error instanceof ToolFailed && /Invalid (data found|argument)/.test(error.messages))
    return 'what is in it is no picture and no sound'
  return error instanceof Error ? error.message : String(error)
}
