import { readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { previewsFolder } from '../home'

export const previewFile = (clipId: string): string => join(previewsFolder(), `${clipId}.mp4`)

/** Bytes of a clip's preview; 0 when there is none. */
export const previewSize = async (clipId: string): Promise<number> =>
  stat(previewFile(clipId)).then(
    ({ size }) => size,
    () => 0,
  )

const previewNames = async (): Promise<string[]> =>
  (await readdir(previewsFolder()).catch(() => [])).filter((name) => name.endsWith('.mp4'))

/** How many previews are kept, and how many bytes they take. */
export async function previewsKept(): Promise<{ files: number; sizeBytes: number }> {
  const names = await previewNames()
  const sizes = await Promise.all(names.map((name) => previewSize(name.replace(/\.mp4$/, ''))))
  return { files: names.length, sizeBytes: sizes.reduce((sum, size) => sum + size, 0) }
}

/** Takes all previews away; each can be made again. */
export async function removePreviews(): Promise<void> {
  for (const name of await previewNames()) await rm(join(previewsFolder(), name), { force: true })
}
