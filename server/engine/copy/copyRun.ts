import type { CopyRecord, DestinationFailed, FileRecord } from '../../../core/copies/record'
import type { CopyDestination, CopyOrder, SourceFile } from './copyOrder'
import {
  errorCode,
  joinPath,
  parentOf,
  type FileIdentity,
  type Medium,
  type Stamps,
  type WritableFile,
} from '../medium/medium'
import { NewNames } from './newNames'
import { partName, removeParts } from './parts'
import { stampOf, type FileStamp } from '../medium/stamps'
import { EndsHash } from './sample'
import { SourceDiffers } from './sourceDiffers'
import { Stopped } from '../tool/stopped'
import { whatBlocks } from '../medium/wayBlocked'

const GONE = new Set(['ENODEV', 'ENXIO', 'ENOTCONN', 'ESTALE', 'EHOSTDOWN'])
/** One name that a file system cannot hold; all others can still arrive. */
const NAME_REFUSED = new Set(['ENAMETOOLONG', 'EILSEQ', 'EINVAL', 'EISDIR'])
const REASONS: Readonly<Record<string, DestinationFailed['reason']>> = {
  ENOSPC: 'full',
  EDQUOT: 'full',
  EROFS: 'read-only',
}

/** The card itself went away: nothing more can be copied, and no single file is to blame. */
export class SourceGone extends Error {}

/** Another card, or another folder, lies where the card lay when the copy began. */
export class SourceSwapped extends Error {}

const isGone = (medium: Medium): Promise<boolean> =>
  medium.list(Buffer.alloc(0)).then(
    () => false,
    () => true,
  )

const messageOf = (error: unknown) => (error instanceof Error ? error.message : String(error))

const freshKey = (to: CopyDestination, folder: Buffer) => `${to.id} ${folder.toString('latin1')}`

/** The state of one copy while it runs: which destinations still answer, and what they still lack. */
export class CopyRun {
  readonly #failed = new Set<string>()
  readonly #placed = new Map<string, number>()
  readonly #fresh = new Set<string>()
  readonly #names: Map<string, NewNames>
  readonly #sizes: ReadonlyMap<number, number>
  readonly #stamps = new Map<string, Stamps>()
  /** Parts that did not take all their bytes, by destination and file: they may be as long for the holes in them. */
  readonly #holed = new Set<string>()
  #place = ''
  sourceStamps: Stamps = 'none'

  constructor(readonly order: CopyOrder) {
    this.#sizes = new Map(order.files.map((file) => [file.id, file.sizeBytes]))
    this.#names = new Map(order.destinations.map((to) => [to.id, new NewNames(to.medium)]))
  }

  /** Destinations that still answer; with a file, those that still want it. */
  alive(file?: SourceFile): CopyDestination[] {
    return this.order.destinations.filter(
      (to) => !this.#failed.has(to.id) && (file === undefined || file.wantedBy.has(to.id)),
    )
  }

  partPath(to: CopyDestination, file: SourceFile): Buffer {
    return joinPath(to.parts, partName(file.id))
  }

  /** Writes bytes of a file to its part. */
  async writePart(
    to: CopyDestination,
    file: SourceFile,
    part: WritableFile,
    bytes: Uint8Array,
    position: number,
  ): Promise<void> {
    try {
      await part.write(bytes, position)
    } catch (error) {
      this.#holed.add(`${to.id} ${file.id}`)
      throw error
    }
  }

  /**
   * Removes the parts of this run but those that are whole, which may be the only file with those bytes; says how many
   * bytes stay.
   */
  async #removeParts(to: CopyDestination): Promise<number> {
    let staying = 0
    await removeParts(to.medium, to.parts, ({ entryId, sizeBytes }) => {
      const isWhole = !this.#holed.has(`${to.id} ${entryId}`) && this.#sizes.get(entryId) === sizeBytes && sizeBytes > 0
      if (isWhole) staying += sizeBytes
      return Promise.resolve(isWhole)
    })
    return staying
  }

  /** Gives up what was written for a file, unless it is whole. */
  async #dropPart(to: CopyDestination, file: SourceFile): Promise<void> {
    const part = await to.medium.entry(this.partPath(to, file))
    if (part && part.sizeBytes < file.sizeBytes) await to.medium.remove(this.partPath(to, file))
  }

  finalPath(to: CopyDestination, file: SourceFile): Buffer {
    return joinPath(to.folder, file.path)
  }

  async prepare(): Promise<void> {
    this.#place = await this.order.source.place().catch((error: unknown) => {
      throw new SourceGone(messageOf(error))
    })
    this.sourceStamps = await this.order.source.stamps().catch(() => 'none' as const)
    await Promise.all(
      this.order.destinations.map((to) =>
        this.attempt(to, async () => {
          this.#stamps.set(to.id, await to.medium.stamps())
          await to.medium.makeFolder(to.parts)
          await this.#makeFolder(to, to.folder)
          for (const folder of this.order.folders) {
            const path = joinPath(to.folder, folder)
            await this.#makeFolder(to, path).catch(async (error: unknown) => {
              // A folder that cannot be made is missed by the files that need it.
              if (!NAME_REFUSED.has(errorCode(error)) && !(await whatBlocks(to.medium, path, error))) throw error
            })
          }
        }),
      ),
    )
  }

  /** What the file system of a destination tells of a file beside size and time. */
  stampOf(to: CopyDestination, identity: FileIdentity): FileStamp {
    return stampOf(this.#stamps.get(to.id) ?? 'none', identity)
  }

  /** A copy that is read is proved again, with its ends; of a card nothing is written down. */
  endsOfSource(file: SourceFile): EndsHash | undefined {
    return this.order.sourceId === undefined ? undefined : new EndsHash(file.sizeBytes)
  }

  async #makeFolder(to: CopyDestination, folder: Buffer): Promise<void> {
    if (await to.medium.makeFolder(folder)) this.#fresh.add(freshKey(to, folder))
    this.#names.get(to.id)?.add(folder)
  }

  /** Whether this run made the folder of a file: nothing of anybody else’s has its name there. */
  isFresh(to: CopyDestination, file: SourceFile): boolean {
    return this.#fresh.has(freshKey(to, parentOf(this.finalPath(to, file))))
  }

  /** Throws when another card lies where this one lay: nothing read from there may be taken for this card’s. */
  async assertSamePlace(): Promise<void> {
    const place = await this.order.source.place().catch((error: unknown) => {
      throw new SourceGone(messageOf(error))
    })
    if (place !== this.#place) throw new SourceSwapped('Another card lies in the reader now.')
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

  /**
   * As `attempt`, for what concerns one file’s own name: one that does not fit, or that something stands in the way of, is
   * the file’s trouble alone.
   */
  async attemptFile<T>(to: CopyDestination, file: SourceFile, action: () => Promise<T>): Promise<T | undefined> {
    return this.attempt(to, async () => {
      try {
        return await action()
      } catch (error) {
        const inTheWay = await whatBlocks(to.medium, this.finalPath(to, file), error)
        if (inTheWay === undefined && !NAME_REFUSED.has(errorCode(error))) throw error
        const what = { fileId: file.id, destinationId: to.id, message: messageOf(error) }
        await this.order.report([{ kind: 'refused', ...what, ...(inTheWay !== undefined && { inTheWay }) }])
        return undefined
      }
    })
  }

  async #destinationFailure(to: CopyDestination, error: unknown): Promise<DestinationFailed> {
    const code = errorCode(error)
    const wanted = this.order.files
      .filter((file) => file.wantedBy.has(to.id))
      .reduce((sum, file) => sum + file.sizeBytes, 0)
    const open = wanted - (this.#placed.get(to.id) ?? 0)
    const gone = GONE.has(code) || (await isGone(to.medium))
    const reason = REASONS[code] ?? (gone ? 'gone' : 'refused')
    // Parts of files that did not arrive are ours to remove, and count as room again; so do whole ones, which go before
    // the next copy.
    const left = gone ? 0 : await this.#removeParts(to).catch(() => 0)
    const staying = reason === 'full' ? left : 0
    const room = reason === 'full' ? await to.medium.room().catch(() => undefined) : undefined
    return {
      kind: 'destination-failed',
      destinationId: to.id,
      reason,
      message: messageOf(error),
      missingBytes: Math.max(0, open - staying - (room?.freeBytes ?? 0)),
    }
  }

  /** Reports a file that cannot be read; throws when that is because the card is no longer there. */
  async sourceFailed(file: SourceFile, error: unknown): Promise<void> {
    if (error instanceof SourceGone || error instanceof SourceSwapped) throw error
    if (await isGone(this.order.source)) throw new SourceGone(messageOf(error))
    await this.assertSamePlace()
    const code = error instanceof SourceDiffers ? 'differs' : errorCode(error)
    await this.order.report([{ kind: 'source-failed', fileId: file.id, message: messageOf(error), code }])
    // Other bytes than the file’s are nobody’s original.
    const drop = (to: CopyDestination) =>
      code === 'differs' ? to.medium.remove(this.partPath(to, file)) : this.#dropPart(to, file)
    await Promise.all(this.alive(file).map((to) => drop(to).catch(() => undefined)))
  }

  /** Gives a proved part its name; `undefined` when something has that name already. */
  async place(to: CopyDestination, file: SourceFile): Promise<FileIdentity | undefined> {
    const path = this.finalPath(to, file)
    if ((await to.medium.publish(this.partPath(to, file), path)) === 'taken') return undefined
    this.#placed.set(to.id, (this.#placed.get(to.id) ?? 0) + file.sizeBytes)
    return this.met(to, path)
  }

  /** What lies under a name now; the name is made durable before it is reported. */
  async met(to: CopyDestination, path: Buffer): Promise<FileIdentity> {
    this.#names.get(to.id)?.add(path)
    const entry = await to.medium.entry(path)
    if (!entry) throw new Error('A file is gone the moment after it got its name.')
    return entry
  }

  /** Makes names durable, then reports; of a destination where that failed nothing is reported as proved. */
  async report(records: readonly FileRecord[]): Promise<void> {
    await Promise.all(
      this.alive().map((to) => this.attempt(to, () => this.#names.get(to.id)?.settle() ?? Promise.resolve())),
    )
    const durable: CopyRecord[] = records.filter(
      (record) => record.kind !== 'proved' || !this.#failed.has(record.destinationId),
    )
    await this.order.report(durable)
  }

  async finish(): Promise<void> {
    await this.report([])
    await Promise.all(this.alive().map((to) => this.attempt(to, () => this.#removeParts(to))))
  }

  /** After a run that was cut: what it left half-written takes no room on the drives. */
  async giveUp(): Promise<void> {
    await Promise.all(this.alive().map((to) => this.#removeParts(to).catch(() => undefined)))
  }
}
