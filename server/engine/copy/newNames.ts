import { parentOf, type Medium } from '../medium/medium'

/**
 * Names that were given or found and must be made durable. A name is safe when its folder is, and every folder above
 * it; a run waits for each folder on the way at least once, since an earlier run may have been cut before it did.
 */
export class NewNames {
  readonly #open = new Set<string>()
  readonly #met = new Set<string>()

  constructor(readonly medium: Medium) {}

  add(path: Buffer): void {
    const folder = parentOf(path)
    this.#open.add(folder.toString('latin1'))
    this.#meet(folder)
  }

  #meet(folder: Buffer): void {
    const key = folder.toString('latin1')
    if (this.#met.has(key)) return
    this.#met.add(key)
    this.#open.add(key)
    if (key !== '') this.#meet(parentOf(folder))
  }

  async settle(): Promise<void> {
    const folders = [...this.#open].map((folder) => Buffer.from(folder, 'latin1'))
    this.#open.clear()
    await this.medium.settleFolders(folders)
  }
}
