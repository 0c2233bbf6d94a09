import { formatChecksumList } from '../../core/copies/checksumList'
import { fileTitle } from '../../core/shelf/bag'
import { counted, formatBytes } from '../../core/units/quantity'
import * as cards from '../db/queries/cards'
import * as copies from '../db/queries/copies'
import { addEvent } from '../db/queries/events'
import { production } from '../db/queries/productions'
import { volume as volumeRow } from '../db/queries/storage'
import { tellChanged } from '../db/queries/tasks'
import { SourceGone } from '../engine/copyRun'
import { copyTree, type CopyDestination, type CopyRecord, type SourceFile } from '../engine/copy'
import { joinPath, lostFiles, type Medium } from '../engine/medium'
import { volumeMedium } from '../places'
import { cardOf, type Entry } from './source'
import { Tally } from './tally'
import { CannotWork, type Work, type WorkEnd } from './work'

export interface CopyInput {
  readonly loadId: string
  readonly volumeIds: readonly string[]
  readonly setAside: boolean
}

interface Target extends CopyDestination {
  readonly name: string
  readonly wanted: ReadonlySet<number>
}

/** Copies a load to volumes and proves it; may be cut anywhere and called again. */
export async function copy(work: Work, input: CopyInput): Promise<WorkEnd> {
  const { db, control } = work
  const load = await cards.load(db, input.loadId)
  const owner = load && (await production(db, load.productionId))
  if (!load || !owner) throw new CannotWork('This load is no longer known. Look at the card again.')
  const entries = await cards.entriesOf(db, load.id)
  const files = entries.filter((entry) => entry.kind === 'file')
  const source = await cardOf(work, load, files)
  const folder = `${fileTitle(owner.title)}/Cards/${fileTitle(load.label)}`
  const troubles: string[] = []
  const targets: Target[] = []
  for (const id of input.volumeIds) {
    const target = await prepareTarget(work, input, id, folder, files, troubles)
    if (target) targets.push(target)
  }
  await tellChanged(db, 'copies')
  const bytesOf = (to: Target) => files.reduce((sum, file) => sum + (to.wanted.has(file.id) ? file.sizeBytes : 0), 0)
  const tally = new Tally(
    work.progress,
    targets.map((to) => ({ id: to.id, name: to.name, wantedBytes: bytesOf(to) })),
  )
  const names = new Map(files.map((file) => [file.id, file.pathText]))
  await copyTree({
    source,
    destinations: targets,
    gate: control.gate,
    folders: entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path),
    files: files.flatMap((file): SourceFile[] => {
      const wantedBy = new Set(targets.filter((to) => to.wanted.has(file.id)).map((to) => to.id))
      return wantedBy.size > 0 ? [{ ...file, wantedBy }] : []
    }),
    onBytes: (id, stage, bytes) => tally.add(id, stage, bytes),
    report: async (records) => {
      await copies.addCopyFacts(db, load.id, work.taskId, records)
      for (const record of records) {
        const sentence = troubleSentence(record, names, targets)
        if (sentence) troubles.push(sentence)
        if (record.kind === 'destination-failed') tally.fail(record.destinationId, sentence ?? '')
      }
    },
  }).catch(async (error: unknown) => {
    await Promise.all(targets.map((to) => to.medium.remove(to.parts).catch(() => undefined)))
    if (error instanceof SourceGone)
      throw new CannotWork(
        `The card of “${load.label}” went away in mid-copy. What was proved stays; put the card in and copy again.`,
      )
    throw error
  })
  for (const to of targets) if (!tally.failed(to.id)) await writeList(work, to, load.id)
  await addEvent(db, {
    kind: 'copied',
    productionId: load.productionId,
    loadId: load.id,
    detail: { volumeIds: input.volumeIds, troubles: troubles.length },
  })
  await tellChanged(db, 'copies', 'productions', 'storage')
  return { sentence: await closingSentence(work, load, targets), troubles }
}

async function prepareTarget(
  { db, taskId }: Work,
  input: CopyInput,
  id: string,
  folder: string,
  files: readonly Entry[],
  troubles: string[],
): Promise<Target | undefined> {
  const row = await volumeRow(db, id)
  const medium = row && (await volumeMedium(db, row))
  if (!row || !medium) {
    troubles.push(`${row?.name ?? 'A volume'} is not connected: nothing was copied there.`)
    return undefined
  }
  await copies.planCopy(db, input.loadId, id, folder)
  const base = Buffer.from(folder)
  const parts = Buffer.from(`.yendra/parts/${input.loadId}`)
  if (input.setAside) await setAside({ db, taskId }, input.loadId, row, medium, base)
  const proved = await copies.provedOn(db, input.loadId, id)
  const sizes = new Map(files.map((file) => [file.id, file.sizeBytes]))
  const wanted = new Set(sizes.keys())
  const lost = new Set(await lostFiles(medium, base, proved))
  for (const fact of proved) if (!lost.has(fact)) wanted.delete(fact.entryId)
  await medium.remove(parts)
  const needed = [...wanted].reduce((sum, entryId) => sum + (sizes.get(entryId) ?? 0), 0)
  const { freeBytes } = await medium.room()
  const present = await presentBytes(medium, base, files, wanted)
  if (needed - present > freeBytes) {
    troubles.push(
      `${row.name} is full: ${formatBytes(needed)} are needed and ${formatBytes(freeBytes)} are free, so ${formatBytes(needed - freeBytes)} (${needed - freeBytes} bytes) are missing. Nothing was copied there; make room or choose another volume.`,
    )
    return undefined
  }
  return { id, name: row.name, medium, folder: base, parts, wanted }
}

/** Bytes of wanted files that lie there already, from a run that was cut before it could write down what it did. */
async function presentBytes(
  medium: Medium,
  base: Buffer,
  files: readonly Entry[],
  wanted: ReadonlySet<number>,
): Promise<number> {
  let bytes = 0
  if (!(await medium.entry(base))) return 0
  for (const file of files)
    if (wanted.has(file.id)) bytes += (await medium.entry(joinPath(base, file.path)))?.sizeBytes ?? 0
  return bytes
}

/** Moves files that collide out of the way on their volume; nothing is deleted. */
async function setAside(
  { db, taskId }: Pick<Work, 'db' | 'taskId'>,
  loadId: string,
  row: { id: string; name: string },
  medium: Medium,
  base: Buffer,
): Promise<void> {
  const stuck = (await copies.copyTroubles(db, loadId)).filter(
    (trouble) => trouble.volumeId === row.id && trouble.kind === 'conflict',
  )
  for (const trouble of stuck) {
    const from = joinPath(base, trouble.path)
    if (await medium.entry(from))
      await medium.move(from, joinPath(Buffer.from('Set aside'), Buffer.from(taskId), trouble.path))
  }
  if (stuck.length > 0)
    await addEvent(db, {
      kind: 'set-aside',
      loadId,
      volumeId: row.id,
      detail: { paths: stuck.map((trouble) => trouble.pathText) },
    })
}

function troubleSentence(
  record: CopyRecord,
  names: ReadonlyMap<number, string>,
  targets: readonly Target[],
): string | undefined {
  if (record.kind === 'proved') return undefined
  if (record.kind === 'source-failed')
    return `${names.get(record.fileId)} could not be read from the card: ${record.message}`
  const volume = targets.find((to) => to.id === record.destinationId)?.name ?? 'A volume'
  switch (record.kind) {
    case 'mismatch':
      return `${names.get(record.fileId)} on ${volume} differed when it was read back (${record.found} instead of ${record.wanted}). It was not kept there; copy again, and distrust ${volume} if it happens twice.`
    case 'conflict':
      return `${names.get(record.fileId)} on ${volume} is another file (${record.found}; the card’s is ${record.wanted}). It was left as it is: set it aside and copy again.`
    case 'destination-failed':
      return record.reason === 'full'
        ? `${volume} is full: ${formatBytes(record.missingBytes)} (${record.missingBytes} bytes) are missing. Make room and copy again; what is proved there stays.`
        : record.reason === 'gone'
          ? `${volume} was unplugged. Connect it and copy again; what is proved there stays.`
          : `${volume} refused: ${record.message}. What is proved there stays.`
  }
}

/** A checksum list beside the mirror, so that the copy can be checked in ten years with xxhsum alone. */
async function writeList({ db }: Work, to: Target, loadId: string): Promise<void> {
  const proved = await copies.provedOn(db, loadId, to.id)
  const label = to.folder.subarray(to.folder.lastIndexOf(0x2f) + 1)
  const text = formatChecksumList(
    proved.map((fact) => ({ hash: fact.hash, path: joinPath(label, fact.path).toString('latin1') })),
  )
  const final = Buffer.concat([to.folder, Buffer.from('.xxh64')])
  const part = joinPath(to.parts, Buffer.from('list'))
  await to.medium.makeFolder(to.parts)
  const out = await to.medium.create(part)
  await out.write(Buffer.from(text, 'latin1'), 0)
  await out.close(Date.now(), 'durable')
  await to.medium.remove(final)
  await to.medium.publish(part, final)
  await to.medium.remove(to.parts)
}

async function closingSentence(
  { db }: Work,
  load: { id: string; fileCount: number },
  targets: readonly Target[],
): Promise<string> {
  const counts = await copies.copyCounts(db, [load.id])
  const whole = targets.filter((to) => counts.find((count) => count.volumeId === to.id)?.fromMedium === load.fileCount)
  const cached = targets.filter((to) => {
    const count = counts.find((one) => one.volumeId === to.id)
    return count?.proved === load.fileCount && count.fromMedium < load.fileCount
  })
  if (cached.length > 0)
    return `Copied, but ${cached.map((to) => to.name).join(' and ')} could not be read past the system’s cache: that counts as copied, not as verified.`
  if (whole.length === 0)
    return `${targets.length === 0 ? 'Nothing was copied' : `${targets.map((to) => to.name).join(' and ')} ${targets.length === 1 ? 'holds' : 'hold'} no whole proved copy yet`}. Keep the card as it is.`
  return `All ${counted(load.fileCount, 'file')} proved on ${whole.map((to) => to.name).join(' and ')}${whole.length < targets.length ? '; the others are not complete' : ''}.`
}
