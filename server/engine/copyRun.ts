import type { CopyDestination, CopyOrder, CopyRecord, SourceFile } from './copy'
import { errorCode, joinPath, parentOf, type Medium } from './medium'
import { Stopped } from './stopped'

const GONE = new Set(['ENODEV', 'ENXIO', 'ENOTCONN', 'ESTALE', 'EHOSTDOWN'])

/** The card itself went away: nothing more can be copied, and no single file is to blame. */
export class SourceGone extends Error {}

const isGone = (medium: Medium): Promise<boolean> =>
  medium.list(Buffer.alloc(0)).then(
    () => false,
    () => true,
  )

/** The state of one copy while it runs: which destinations still answer, and what they still lack. */
export class CopyRun {
  readonly #failed = new Set<string>()
  readonly #placed = new Map<string, number>()
  readonly #settling = new Map<string, Set<string>>()

  constructor(readonly order: CopyOrder) {}

  /** Destinations that still answer; with a file, those that still want it. */
  alive(file?: SourceFile): CopyDestination[] {
    return this.order.destinations.filter(
      (to) => !this.#failed.has(to.id) && (file === undefined || file.wantedBy.has(to.id)),
    )
  }

  partPath(to: CopyDestination, file: SourceFile): Buffer {
    return joinPath(to.parts, Buffer.from(`${file.id}.part`))
  }

  finalPath(to: CopyDestination, file: SourceFile): Buffer {
    return joinPath(to.folder, file.path)
  }

  async prepare(): Promise<void> {
    await Promise.all(
      this.order.destinations.map((to) =>
        this.attempt(to, async () => {
          await to.medium.makeFolder(to.parts)
          await to.medium.makeFolder(to.folder)
          for (const folder of this.order.folders) await to.medium.makeFolder(joinPath(to.folder, folder))
        }),
      ),
    )
  }

  /** Does one thing on one destination; a failure takes that destination out of the run and is reported. */
  async attempt<T>(to: CopyDestination, action: () => Promise<T>): Promise<T | undefined> {
    if (this.#failed.has(to.id)) return undefined
    try {
      return await action()
    } catch (error) {
      if (error instanceof Stopped) throw error
      // Several lanes may meet the same dead destination; it is reported once.
      if (!this.#failed.has(to.id)) {
        this.#failed.add(to.id)
        await this.order.report([await this.#destinationFailure(to, error)])
      }
      return undefined
    }
  }

  async #destinationFailure(to: CopyDestination, error: unknown): Promise<CopyRecord> {
    const code = errorCode(error)
    const message = error instanceof Error ? error.message : String(error)
    const wanted = this.order.files
      .filter((file) => file.wantedBy.has(to.id))
      .reduce((sum, file) => sum + file.sizeBytes, 0)
    const open = wanted - (this.#placed.get(to.id) ?? 0)
    const reason =
      code === 'ENOSPC' || code === 'EDQUOT' ? 'full' : GONE.has(code) || (await isGone(to.medium)) ? 'gone' : 'refused'
    // Parts of files that did not arrive are ours to remove, and count as room again.
    if (reason === 'full') await to.medium.remove(to.parts).catch(() => undefined)
    const room = reason === 'full' ? await to.medium.room().catch(() => undefined) : undefined
    return {
      kind: 'destination-failed',
      destinationId: to.id,
      reason,
      message,
      missingBytes: Math.max(0, open - (room?.freeBytes ?? 0)),
    }
  }

  /** Reports a file that cannot be read; throws SourceGone when that is because the card is no longer there. */
  async sourceFailed(file: SourceFile, error: unknown): Promise<void> {
    const message = error instanceof Error ? error.message : String(error)
    if (await isGone(this.order.source)) throw new SourceGone(message)
    await this.order.report([{ kind: 'source-failed', fileId: file.id, message }])
    await Promise.all(this.alive(file).map((to) => to.medium.remove(this.partPath(to, file)).catch(() => undefined)))
  }

  /** Gives a proved part its name. Names become durable in `settleNames`. */
  async place(to: CopyDestination, file: SourceFile): Promise<'named' | 'taken'> {
    const path = this.finalPath(to, file)
    const result = await to.medium.publish(this.partPath(to, file), path)
    if (result === 'taken') return result
    this.#placed.set(to.id, (this.#placed.get(to.id) ?? 0) + file.sizeBytes)
    const folders = this.#settling.get(to.id) ?? new Set()
    this.#settling.set(to.id, folders.add(parentOf(path).toString('latin1')))
    return result
  }

  async settleNames(): Promise<void> {
    await Promise.all(
      this.alive().map((to) =>
        this.attempt(to, async () => {
          const folders = [...(this.#settling.get(to.id) ?? [])].map((folder) => Buffer.from(folder, 'latin1'))
          this.#settling.delete(to.id)
          await to.medium.settleFolders(folders)
        }),
      ),
    )
  }

  async finish(): Promise<void> {
    await this.settleNames()
    await Promise.all(this.alive().map((to) => this.attempt(to, () => to.medium.remove(to.parts))))
  }
}
