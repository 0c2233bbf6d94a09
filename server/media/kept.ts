import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { picturesFolder } from '../home'

const making = new Map<string, Promise<Buffer>>()

/** Something that is made of a clip once and kept beside its picture; asked for twice at once it is made once. */
export async function kept(name: string, make: () => Promise<Buffer>): Promise<Buffer> {
  const path = join(picturesFolder(), name)
  const standing = await readFile(path).catch(() => undefined)
  if (standing) return standing
  const under = making.get(name)
  if (under) return under
  const made = make().then(async (content) => {
    await mkdir(picturesFolder(), { recursive: true })
    // Named when it is whole: nobody may read half of it.
    const part = join(picturesFolder(), `${randomUUID()}.part`)
    await writeFile(part, content)
    await rename(part, path)
    return content
  })
  making.set(name, made)
  return made.finally(() => making.delete(name))
}
