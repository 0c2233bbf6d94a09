import type { TaskInput } from '../../../contract/taskKinds'
import { dueBefore, dueFiles, slowSentence, tellsSpeed } from '../../../core/copies/cycle'
import { DIFFERENCE_WORDS } from '../../../core/copies/difference'
import type { CopyRecord } from '../../../core/copies/record'
import { riskSample } from '../../../core/copies/riskSample'
import { counted, formatBytes } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import * as copies from '../../db/queries/copies'
import { addCopyProofs, addReading, readingSpeeds } from '../../db/queries/proofs'
import { putVolumeSpeed, volume as volumeRow } from '../../db/queries/volumes'
import { checkCopy, type ProvedFile } from '../../engine/copy/check'
import { MeasuredMedium } from '../../engine/copy/measured'
import { movedBelow } from '../../engine/medium/traffic'
import { Stopped } from '../../engine/tool/stopped'
import { CannotWork } from '../../media/cannotWork'
import { volumeMedium, type Medium } from '../../media/mediumOf'
import { scanMirror } from '../../observer/mirrorScan'
import type { Job, Work, WorkEnd } from '../work'
import { strangersIn } from './steps/strangers'
import { QuietGate, TimeOver } from './steps/quiet'

type CheckInput = TaskInput<'check'>

/** Reads copies again, past the cache: whole, what is due by its age, or a sample that a seed draws by risk. */
export const check: Job<'check'> = { kind: 'check', run: runCheck }

interface Planned {
  readonly volumeId: string
  readonly name: string
  readonly folder: Buffer
  readonly medium: Medium
  readonly files: readonly (ProvedFile & { readonly pathText: string })[]
}

/** By themselves they give way to whatever else goes on. */
const givesWay = ({ how }: CheckInput) => how === 'cycle' || how === 'start'

async function runCheck(work: Work, input: CheckInput): Promise<WorkEnd> {
  const load = await cards.load(work.db, input.loadId)
  if (!load) throw new CannotWork('This load is no longer known.')
  const planned: Planned[] = []
  for (const volumeId of new Set(input.volumeIds)) {
    const one = await planCheck(work, input, volumeId).catch((error: unknown) => {
      // Pulled out before it began: it is asked for again when the drive is back.
      if (givesWay(input) && error instanceof CannotWork) return error.message
      throw error
    })
    if (typeof one === 'string') return { sentence: one, troubles: [] }
    planned.push(one)
  }
  const total = planned.reduce((sum, one) => sum + bytesOf(one.files), 0)
  let done = 0
  const onBytes = (bytes: number) => {
    done += bytes
    work.progress.set({ done: Math.min(done, total), total, unit: 'bytes' })
  }
  onBytes(0)
  const troubles: string[] = []
  const sentences: string[] = []
  for (const one of planned) {
    const read = await readOne(work, input, one, onBytes)
    troubles.push(...read.troubles)
    sentences.push(readSentence(input, one, read))
  }
  return { sentence: sentences.join(' '), troubles }
}

const HOW_WORDS = {
  whole: 'all',
  sample: 'a sample of',
  start: 'a sample of',
  cycle: 'what was due,',
  doubted: 'what may have been replaced,',
} as const

function readSentence({ how }: CheckInput, { name, files }: Planned, { read, wrong, cut }: Read): string {
  if (wrong > 0)
    return `${name}: ${wrong} of ${counted(read.files, 'file')} ${wrong === 1 ? 'is not as it was' : 'are not as they were'} proved.`
  if (cut && read.files === 0) return `${name}: nothing was read yet: ${cut}.`
  const words = `${counted(read.files, 'file')}, ${formatBytes(read.sizeBytes)}`
  if (!cut) return `${name}: ${HOW_WORDS[how]} ${words} read again and equal.`
  return `${name}: ${words} read again and equal, ${files.length - read.files} more the next time: ${cut}.`
}

const bytesOf = (files: readonly { sizeBytes: number }[]) => files.reduce((sum, file) => sum + file.sizeBytes, 0)

async function planCheck({ db, host }: Work, input: CheckInput, volumeId: string): Promise<Planned> {
  const row = await volumeRow(db, host, volumeId)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium)
    throw new CannotWork(`${row?.name ?? 'That volume'} is not connected. Connect it and check again.`)
  const mirror = await copies.mirror(db, input.loadId, volumeId)
  const proved = await copies.provedOn(db, input.loadId, volumeId)
  if (!mirror || proved.length === 0)
    throw new CannotWork(`${row.name} holds no proved copy of this load yet. Copy it first.`)
  const all = proved.map(({ provedBytes, modifiedMs, inode, changedMs, ...file }) => ({
    ...{ ...file, id: file.entryId, memory: file.standing === 'memory', provedAt: file.provedAt.getTime() },
    ...(provedBytes !== null &&
      modifiedMs !== null && { lay: { sizeBytes: provedBytes, modifiedMs, inode, changedMs } }),
  }))
  return {
    ...{ volumeId, name: row.name, folder: Buffer.from(mirror.folder), medium },
    files: chosen(input, all, row.cycleDays, volumeId),
  }
}

function chosen<File extends { id: number; sizeBytes: number; provedAt: number; memory: boolean; standing: string }>(
  { how, seed, mostBytes = Infinity }: CheckInput,
  all: readonly File[],
  cycleDays: number,
  volumeId: string,
): readonly File[] {
  switch (how) {
    case 'whole':
      return all
    case 'doubted':
      return all.filter((file) => file.standing === 'doubted')
    case 'cycle':
      // What is gone is named by the listing.
      return dueFiles(
        all.filter((file) => file.standing !== 'missing'),
        dueBefore(Date.now(), cycleDays),
        mostBytes,
      )
    default: {
      const drawn = new Set(riskSample(all, `${seed} ${volumeId}`, Date.now()))
      return all.filter((file) => drawn.has(file.id))
    }
  }
}

interface Read {
  /** A sentence for each file that is not as it was proved, and for what else is amiss. */
  readonly troubles: readonly string[]
  readonly wrong: number
  readonly read: { readonly files: number; readonly sizeBytes: number }
  /** Why it ended before all was read. */
  readonly cut: string | undefined
}

/** Reads one copy and writes down what was found. */
async function readOne(work: Work, input: CheckInput, one: Planned, onBytes: (bytes: number) => void): Promise<Read> {
  const { db, attemptId, control } = work
  const { volumeId, folder, files, name } = one
  const measured = new MeasuredMedium(one.medium)
  const moved = () => movedBelow(one.medium.root).catch(() => undefined)
  const quiet = new QuietGate({
    moved,
    own: () => measured.readBytes,
    gate: control.gate,
    until: input.until === undefined ? undefined : new Date(input.until),
  })
  const movedBefore = await moved()
  const found = new Found(name, files)
  const run = { loadId: input.loadId, runId: attemptId, folders: new Map([[volumeId, folder.toString()]]) }
  const cut = await checkCopy({
    ...{ destinationId: volumeId, medium: measured.medium, folder, files, onBytes },
    gate: givesWay(input) ? quiet.pass : control.gate,
    report: async (records: readonly CopyRecord[]) => {
      // What is not there is for the listing to say; what differs is proved to differ.
      await addCopyProofs(
        db,
        run,
        records.filter((record) => record.kind !== 'mismatch' || record.found !== 'nothing'),
      )
      found.add(records)
    },
  }).then(
    () => undefined,
    (error: unknown) => whyCut(work, input, one, error),
  )
  const movedAfter = await moved()
  const othersBytes =
    movedBefore === undefined || movedAfter === undefined ? undefined : movedAfter - movedBefore - measured.readBytes
  const speed = tellsSpeed({ files: found.files, bytes: found.bytes, othersBytes })
    ? measured.readBytesPerSecond
    : undefined
  const medium = cut === undefined || cut === OVER ? await stillThere(work, volumeId) : undefined
  const listed = medium && (await scanMirror(db, { loadId: input.loadId, volumeId, folder: folder.toString() }, medium))
  if (input.how !== 'doubted') {
    found.troubles.push(...(await slowness(work, one, speed)))
    if (listed) found.troubles.push(...(await strangersIn(db, input.loadId, name, listed.files)))
  }
  // What was doubted says nothing of the rest of the copy.
  if (input.how !== 'doubted' && found.files > 0)
    await addReading(db, {
      ...{ loadId: input.loadId, volumeId, runId: attemptId },
      how: input.how === 'start' ? 'sample' : input.how,
      seed: input.how === 'sample' || input.how === 'start' ? input.seed : null,
      ...{ files: found.files, sizeBytes: found.bytes, wrong: found.wrong, retried: found.retried },
      bytesPerSecond: speed ?? null,
    })
  return { troubles: found.troubles, wrong: found.wrong, read: { files: found.files, sizeBytes: found.bytes }, cut }
}

const OVER = 'the hours were over'

/** Read by itself, it ends without a complaint when its time is over or the drive is pulled out. */
async function whyCut(work: Work, input: CheckInput, { volumeId, name }: Planned, error: unknown): Promise<string> {
  if (error instanceof TimeOver) return OVER
  if (error instanceof Stopped || (await stillThere(work, volumeId))) throw error
  if (givesWay(input)) return `${name} was taken away`
  throw new CannotWork(
    `${name} went away while it was read. What was read before stays proved; connect it, then check.`,
  )
}

async function stillThere({ db, host }: Work, volumeId: string): Promise<Medium | undefined> {
  const row = await volumeRow(db, host, volumeId)
  return (row && (await volumeMedium(db, row))) ?? undefined
}

async function slowness({ db, host }: Work, { volumeId, name }: Planned, speed: number | undefined) {
  const said = slowSentence(name, speed, await readingSpeeds(db, volumeId))
  await putVolumeSpeed(db, volumeId, host, { readBytesPerSecond: speed })
  return said === undefined ? [] : [said]
}

/** What a reading found, file by file. */
class Found {
  readonly troubles: string[] = []
  files = 0
  bytes = 0
  wrong = 0
  retried = 0
  readonly #files: ReadonlyMap<number, Planned['files'][number]>

  constructor(
    readonly name: string,
    files: Planned['files'],
  ) {
    this.#files = new Map(files.map((file) => [file.id, file]))
  }

  add(records: readonly CopyRecord[]): void {
    for (const record of records) {
      if (record.kind !== 'mismatch' && record.kind !== 'proved') continue
      const file = this.#files.get(record.fileId)
      const path = `${file?.pathText ?? ''} on ${this.name}`
      this.files += 1
      this.bytes += file?.sizeBytes ?? 0
      if (record.kind === 'mismatch') {
        this.wrong += 1
        const how = record.difference === undefined ? 'is not as it was proved' : DIFFERENCE_WORDS[record.difference]
        this.troubles.push(
          `${path} ${how} (${record.found} instead of ${record.wanted}). Copies says how it can be mended.`,
        )
      } else if (record.retried) {
        this.retried += 1
        const first = record.retried === 'unreadable' ? 'could not be read' : 'was read otherwise'
        this.troubles.push(
          `${path} ${first} at first, and as it was proved the second time: its drive or cable may be failing.`,
        )
      }
    }
  }
}
