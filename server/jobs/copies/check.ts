import type { TaskInput } from '../../../contract/taskKinds'
import type { CopyRecord } from '../../../core/copies/record'
import { riskSample } from '../../../core/copies/riskSample'
import { counted, formatBytes } from '../../../core/units/quantity'
import * as cards from '../../db/queries/cards'
import * as copies from '../../db/queries/copies'
import { addCopyProofs, addReading } from '../../db/queries/proofs'
import { volume as volumeRow } from '../../db/queries/volumes'
import { checkCopy, type ProvedFile } from '../../engine/copy/check'
import { CannotWork } from '../../media/cannotWork'
import { volumeMedium } from '../../media/mediumOf'
import { scanMirror } from '../../observer/mirrorScan'
import type { Job, Work, WorkEnd } from '../work'

type CheckInput = TaskInput<'check'>

/** Reads copies again, past the cache: whole, or a sample that a seed draws by risk. */
export const check: Job<'check'> = { kind: 'check', run: runCheck }

interface Planned {
  readonly volumeId: string
  readonly name: string
  readonly folder: Buffer
  readonly medium: Parameters<typeof checkCopy>[0]['medium']
  readonly files: readonly (ProvedFile & { readonly pathText: string })[]
}

async function runCheck(work: Work, input: CheckInput): Promise<WorkEnd> {
  const load = await cards.load(work.db, input.loadId)
  if (!load) throw new CannotWork('This load is no longer known.')
  const planned: Planned[] = []
  for (const volumeId of new Set(input.volumeIds)) planned.push(await planCheck(work, input, volumeId))
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
    const wrong = await readOne(work, input, one, onBytes)
    troubles.push(...wrong)
    const files = `${counted(one.files.length, 'file')}, ${formatBytes(bytesOf(one.files))}`
    sentences.push(
      wrong.length === 0
        ? `${one.name}: ${HOW_WORDS[input.how]} ${files} read again and equal.`
        : `${one.name}: ${wrong.length} of ${counted(one.files.length, 'file')} are not as they were proved.`,
    )
  }
  return { sentence: sentences.join(' '), troubles }
}

const HOW_WORDS = { whole: 'all', sample: 'a sample of', doubted: 'what may have been replaced,' } as const

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
  const all = proved.map((file) => ({ ...file, id: file.entryId }))
  const drawn = new Set(
    riskSample(
      all.map((file) => ({
        id: file.id,
        sizeBytes: file.sizeBytes,
        provedAt: file.provedAt.getTime(),
        memory: file.standing === 'memory',
      })),
      `${input.seed} ${volumeId}`,
      Date.now(),
    ),
  )
  const files =
    input.how === 'whole'
      ? all
      : input.how === 'doubted'
        ? all.filter((file) => file.standing === 'doubted')
        : all.filter((file) => drawn.has(file.id))
  return { volumeId, name: row.name, folder: Buffer.from(mirror.folder), medium, files }
}

/** Reads one copy and writes down what was found; returns a sentence for each file that is not as it was proved. */
async function readOne(
  work: Work,
  input: CheckInput,
  one: Planned,
  onBytes: (bytes: number) => void,
): Promise<string[]> {
  const { db, attemptId, control } = work
  const { volumeId, medium, folder, files, name } = one
  const names = new Map(files.map((file) => [file.id, file.pathText]))
  const wrong: string[] = []
  const run = { loadId: input.loadId, runId: attemptId, folders: new Map([[volumeId, folder.toString()]]) }
  await checkCopy({
    destinationId: volumeId,
    medium,
    folder,
    files,
    gate: control.gate,
    onBytes,
    report: async (records: readonly CopyRecord[]) => {
      // What is not there is for the listing to say; what differs is proved to differ.
      await addCopyProofs(
        db,
        run,
        records.filter((record) => record.kind !== 'mismatch' || record.found !== 'nothing'),
      )
      for (const record of records)
        if (record.kind === 'mismatch')
          wrong.push(
            `${names.get(record.fileId)} on ${name} is not as it was proved (${record.found} instead of ` +
              `${record.wanted}). Set it aside, and copy again from the card or from the other copy.`,
          )
    },
  })
  await scanMirror(db, { loadId: input.loadId, volumeId, folder: folder.toString() }, medium)
  // What was doubted says nothing of the rest of the copy.
  if (input.how === 'doubted') return wrong
  await addReading(db, {
    loadId: input.loadId,
    volumeId,
    how: input.how,
    seed: input.how === 'sample' ? input.seed : null,
    files: files.length,
    sizeBytes: bytesOf(files),
    wrong: wrong.length,
    runId: attemptId,
  })
  return wrong
}
