import type { CopyRecord } from '../../../../core/copies/record'
import { SET_ASIDE, fileTitle } from '../../../../core/units/fileTitle'
import { counted, formatBytes } from '../../../../core/units/quantity'
import type { LoadRow } from '../../../db/queries/cards'
import { addNote } from '../../../db/queries/journal'
import { addCopyProofs } from '../../../db/queries/proofs'
import { copyTree } from '../../../engine/copy/copy'
import type { SourceFile } from '../../../engine/copy/copyOrder'
import { SourceGone, SourceSwapped } from '../../../engine/copy/copyRun'
import { awaitedLater } from '../../../engine/copy/hash'
import type { MeasuredMedium } from '../../../engine/copy/measured'
import { joinPath, type Medium } from '../../../engine/medium/medium'
import { setAside } from '../../../engine/copy/publish'
import { rescueFile } from '../../../engine/copy/rescue'
import { Stopped } from '../../../engine/tool/stopped'
import { CannotWork } from '../../../media/cannotWork'
import { fullPath } from '../../../media/mediumOf'
import type { Work } from '../../work'
import type { CopySource, SourceEntry } from './source'
import { Tally } from './tally'
import type { Target } from './target'
import { troubleSentence } from './troubles'

interface Copied {
  readonly load: LoadRow
  readonly source: CopySource
  readonly measured: MeasuredMedium
  readonly targets: readonly Target[]
  readonly troubles: string[]
  readonly known: ReadonlyMap<number, string>
  /** Whatever stands in the way is moved aside, also what nobody knew of before. */
  readonly setAside: boolean
}

/** Codes of files that are there and cannot be read. */
const UNREADABLE = new Set(['EIO', 'ETIMEDOUT'])

/**
 * Copies every file that can be read, then saves what is left of the others. A card that keeps a reading waiting is
 * read on in a program that can be given up.
 */
export class CopyPasses {
  readonly tally: Tally
  readonly #names: ReadonlyMap<number, string>
  readonly #settled = new Map<string, Set<number>>()
  readonly #failed = new Map<number, string>()
  readonly #conflicts: { readonly fileId: number; readonly destinationId: string; readonly sentence: string }[] = []

  constructor(
    readonly work: Work,
    readonly copied: Copied,
  ) {
    const { source, targets } = copied
    const bytes = source.files.reduce((sum, file) => sum + file.sizeBytes, 0)
    this.#names = new Map(source.files.map((file) => [file.id, file.pathText]))
    this.tally = new Tally(
      work.progress,
      targets.map((to) => ({ id: to.id, name: to.name, wantedBytes: bytes })),
    )
  }

  async run(folders: readonly Buffer[]): Promise<void> {
    const { source, measured, targets } = this.copied
    if (targets.length === 0) return
    const hungAt = await this.#pass(measured.medium, folders, source.files)
    const again = hungAt === undefined && this.#failed.size === 0 ? undefined : source.again()
    try {
      if (hungAt !== undefined && again) {
        // What kept the first reading waiting comes last.
        const open = this.#openFiles()
        open.sort((a, b) => Number(a.path.equals(hungAt)) - Number(b.path.equals(hungAt)))
        this.#failed.clear()
        await this.#pass(again.medium, folders, open)
      }
      await this.#setConflictsAside(measured.medium, folders)
      await this.#rescue(again?.medium ?? measured.medium)
    } finally {
      again?.end()
    }
  }

  /** Files that a target still wants. */
  #openFiles(): SourceEntry[] {
    const { source, targets } = this.copied
    return source.files.filter((file) => targets.some((to) => !this.#settled.get(to.id)?.has(file.id)))
  }

  /**
   * One run of the engine; what the first reading was waiting for when it was given up, `undefined` when it came to its
   * end.
   */
  async #pass(medium: Medium, folders: readonly Buffer[], files: readonly SourceEntry[]): Promise<Buffer | undefined> {
    const { work, copied } = this
    const { source, targets, known, load } = copied
    const run = {
      loadId: load.id,
      runId: work.attemptId,
      folders: new Map([
        ...targets.map((to) => [to.id, to.folder.toString()] as const),
        ...(source.volumeId === undefined ? [] : [[source.volumeId, source.folder] as const]),
      ]),
      sourceVolumeId: source.volumeId,
    }
    const wantedBy = (file: SourceEntry) =>
      new Set(targets.filter((to) => !this.#settled.get(to.id)?.has(file.id)).map((to) => to.id))
    let writing: Promise<void> = Promise.resolve()
    const engine = copyTree({
      source: medium,
      sourceId: source.volumeId,
      destinations: targets.filter((to) => !this.tally.failed(to.id)),
      gate: work.control.gate,
      folders,
      files: files.map((file): SourceFile => ({ ...file, wantedBy: wantedBy(file), knownHash: known.get(file.id) })),
      onBytes: (id, stage, more) => this.tally.add(id, stage, more),
      report: async (records) => {
        // While these are written down, the engine goes on; the next ones wait for them.
        await writing
        writing = awaitedLater(addCopyProofs(work.db, run, records))
        for (const record of records) this.#note(record)
        if (records.some((record) => record.kind === 'source-failed' && record.code === 'differs'))
          await source.unlike()
      },
    })
    try {
      try {
        await engine
      } finally {
        // What was reported is written down in any case.
        await writing
      }
      return source.isHung() ? (source.hungAt() ?? Buffer.alloc(0)) : undefined
    } catch (error) {
      if (source.isHung() && medium === copied.measured.medium) return source.hungAt() ?? Buffer.alloc(0)
      throw this.#sourceFault(error)
    }
  }

  #note(record: CopyRecord): void {
    const { troubles, targets } = this.copied
    if (record.kind === 'source-failed') {
      this.#failed.set(record.fileId, record.code)
      // What is left of it is saved first, and said with it.
      if (UNREADABLE.has(record.code)) return
    }
    if ('fileId' in record && 'destinationId' in record) {
      const settled = this.#settled.get(record.destinationId) ?? new Set()
      settled.add(record.fileId)
      this.#settled.set(record.destinationId, settled)
    }
    const sentence = troubleSentence(record, this.#names, targets)
    // What stands in the way of many files is said once.
    if (sentence && !(record.kind === 'refused' && troubles.includes(sentence))) troubles.push(sentence)
    if (record.kind === 'conflict' && sentence)
      this.#conflicts.push({ fileId: record.fileId, destinationId: record.destinationId, sentence })
    if (record.kind === 'destination-failed') this.tally.fail(record.destinationId, sentence ?? '')
  }

  #sourceFault(error: unknown): unknown {
    const { source, load } = this.copied
    if (error instanceof SourceGone)
      return new CannotWork(
        source.volumeId === undefined
          ? `The card of “${load.label}” was disconnected during the copy. What was proved stays; put the ` +
              'card in and copy again.'
          : `${source.name} was disconnected during the copy. What was proved stays; connect it and copy again.`,
      )
    if (error instanceof SourceSwapped)
      return new CannotWork(
        `Another card lies in the reader now than the one of “${load.label}” that was being copied. What ` +
          'was proved stays; put that card in again and copy.',
      )
    return error
  }

  /** Files in the way that were met on the way are moved aside, and theirs copied after all. */
  async #setConflictsAside(medium: Medium, folders: readonly Buffer[]): Promise<void> {
    const { work, copied } = this
    const conflicts = copied.setAside ? [...this.#conflicts] : []
    if (conflicts.length === 0 || copied.source.isHung()) return
    this.#conflicts.length = 0
    for (const { fileId, destinationId, sentence } of conflicts) {
      const [to, file] = [
        copied.targets.find((one) => one.id === destinationId),
        copied.source.files.find((one) => one.id === fileId),
      ]
      if (!to || !file || this.tally.failed(to.id)) continue
      const aside = joinPath(Buffer.from(SET_ASIDE), Buffer.from(work.taskId), file.path)
      await setAside(to.medium, joinPath(to.folder, file.path), aside)
      await addNote(work.db, {
        kind: 'set-aside',
        loadId: copied.load.id,
        volumeId: to.id,
        detail: { paths: [file.pathText] },
      })
      this.#settled.get(to.id)?.delete(file.id)
      const at = copied.troubles.indexOf(sentence)
      if (at >= 0) copied.troubles.splice(at, 1)
    }
    await this.#pass(medium, folders, this.#openFiles())
  }

  /** Saves what can be read of files that could not be read whole. */
  async #rescue(medium: Medium): Promise<void> {
    const { work, copied } = this
    const { source, targets, troubles, load } = copied
    const alive = targets.filter((to) => !this.tally.failed(to.id))
    for (const file of source.files) {
      const code = this.#failed.get(file.id)
      if (code === undefined || !UNREADABLE.has(code) || alive.length === 0) continue
      const folder = Buffer.from(`${SET_ASIDE}/Rescued/${fileTitle(load.label)}`)
      const saved = await rescueFile({
        ...{ source: medium, path: file.path, sizeBytes: file.sizeBytes, modifiedMs: file.modifiedMs },
        gate: work.control.gate,
        targets: alive.map((to) => ({
          medium: to.medium,
          part: joinPath(to.parts, Buffer.from('rescued')),
          to: joinPath(folder, file.path),
        })),
      }).catch((error: unknown) => {
        if (error instanceof Stopped) throw error
        return error
      })
      troubles.push(rescueSentence(file, saved, source.name))
      if (!isRescued(saved)) continue
      const detail = { path: file.pathText, holes: saved.holes, rescuedBytes: saved.rescuedBytes }
      await addNote(work.db, { kind: 'rescued', loadId: load.id, detail })
    }
  }
}

type Saved = Awaited<ReturnType<typeof rescueFile>>
const isRescued = (saved: unknown): saved is Saved => typeof saved === 'object' && saved !== null && 'holes' in saved

function rescueSentence(file: SourceEntry, saved: unknown, from: string): string {
  const keep = 'It is no copy: keep the card, and try it in another reader.'
  if (!isRescued(saved) || saved.rescuedBytes === 0)
    return `${file.pathText} cannot be read from ${from}, and nothing of it could be saved. ${keep}`
  const [place] = saved.kept
  const where = place ? fullPath(place.medium, place.path).toString() : ''
  const what =
    saved.holes.length === 0
      ? 'was read whole at the second try'
      : `was read with ${counted(saved.holes.length, 'hole')}: ${formatBytes(saved.rescuedBytes)} of ` +
        `${formatBytes(file.sizeBytes)}`
  return (
    `${file.pathText} cannot be read from ${from} at once. It ${what}, and is kept at ${where}, with ` +
    `its holes listed beside it. ${keep}`
  )
}
