import { mkdir, writeFile } from 'node:fs/promises'
import { dirname } from 'node:path'
import type { TaskInput } from '../../../contract/taskKinds'
import { ALGORITHM_WORDS } from '../../../core/copies/lists/algorithm'
import { readingCommand } from '../../../core/copies/lists/tools'
import { printablePath } from '../../../core/copies/pathText'
import { fileNameOf } from '../../../core/units/filePath'
import { counted, formatBytes } from '../../../core/units/quantity'
import { inTransaction } from '../../db/connection'
import { provedContents, putWrittenLists, type WrittenListRow } from '../../db/queries/lists'
import { publishNew, settlePublished } from '../../engine/copy/publish'
import { listFolder, type ListedFolder, type WrittenSums } from '../../engine/lists/writeList'
import { errorCode, joinPath, parentOf } from '../../engine/medium/medium'
import { readWhole } from '../../engine/medium/readWhole'
import { listsFolder, writtenListPath } from '../../home'
import { CannotWork } from '../../media/cannotWork'
import { partsOf } from '../../media/mediumOf'
import { readableFolder, someFolder, type SomeFolder } from '../../media/someFolder'
import type { Job, Work, WorkEnd } from '../work'
import { bytesRead, isOurs } from './steps/listed'

/** Reads a folder and writes a checksum list of it that any program reads. */
export const list: Job<'list'> = { kind: 'list', run: runList }

async function runList(work: Work, input: TaskInput<'list'>): Promise<WorkEnd> {
  const folder = await readableFolder(input.folder)
  const some = await someFolder(work.db, work.host, folder)
  if (!some) throw new CannotWork(`What ${folder} lies on is not there now. Connect it, then try again.`)
  if (input.where === 'beside' && !some.volume)
    throw new CannotWork(
      `${folder} lies on no registered volume, so nothing is written there. Take the list for download.`,
    )
  // A whole volume is listed from within, since nothing of it lies beside it.
  const isRoot = some.volume !== undefined && some.folder.length === 0
  const checkedIn = isRoot ? folder : dirname(folder)
  const listed = await listFolder({
    ...{ medium: some.medium, folder: some.folder, algorithm: input.algorithm, gate: work.control.gate, isOwn: isOurs },
    before: isRoot ? '' : `${Buffer.from(fileNameOf(folder)).toString('latin1')}/`,
    ...(some.volume && (await provedBelow(work, some.volume.id, some.folder))),
    ...bytesRead(work.progress),
  }).catch((error: unknown) => {
    if (!['ENODEV', 'ENOENT', 'ENOTDIR', 'ETIMEDOUT'].includes(errorCode(error))) throw error
    throw new CannotWork(`${folder} went away while it was read, so no list was written. Connect it, then try again.`)
  })
  if (listed.lists.length === 0) throw new CannotWork(`There is no file in ${folder} of which a list could be written.`)
  const written: WrittenListRow[] = []
  for (const sums of listed.lists) {
    const name = `${fileNameOf(folder)}.${sums.algorithm}`
    const path = input.where === 'beside' ? await putBeside(work, some, sums, name) : await keep(work.taskId, sums)
    written.push({
      ...{ taskId: work.taskId, folder, algorithm: sums.algorithm, lines: sums.lines, checkedIn },
      ...(path === null ? { path, name } : { path, name: fileNameOf(path) }),
    })
  }
  await inTransaction(work.db, (tx) => putWrittenLists(tx, work.taskId, written))
  return { sentence: sentenceOf(fileNameOf(folder), listed, written), troubles: troublesOf(listed) }
}

function sentenceOf(
  title: string,
  { files, sizeBytes, fromMedium }: ListedFolder,
  written: readonly WrittenListRow[],
): string {
  const what = new Intl.ListFormat('en-GB').format(
    written.map((one) => `${one.name} (${ALGORITHM_WORDS[one.algorithm]})`),
  )
  const read = `${counted(files, 'file')} of ${title}, ${formatBytes(sizeBytes)}, ${files === 1 ? 'was' : 'were'} read${fromMedium ? ' from the medium' : ', perhaps from memory'}`
  const [first] = written
  const check = first ? ` It is checked with: ${readingCommand(first)}` : ''
  return `${read}; ${what} ${written.length === 1 ? 'lists' : 'list'} them.${check}`
}

const printed = (path: string) => printablePath(Buffer.from(path, 'latin1'))

const UNKNOWN_WORDS = {
  missing: 'is missing',
  unreadable: 'cannot be read',
  changed: 'changed while it was read',
  'not-proved': 'is not as it was proved; Copies says how it can be mended',
} as const

const troublesOf = ({ unknown, leftOut }: ListedFolder): string[] => [
  ...unknown.map(
    ({ path, why }) => `${printed(path)} ${UNKNOWN_WORDS[why]}: its sum is zeros, so that no program passes it.`,
  ),
  ...leftOut.map(
    (path) =>
      `${printed(path)} is a link, cannot be opened or is another drive: the list says nothing of what lies there.`,
  ),
]

/**
 * What the files of copies in a folder must hold, by their paths below it, and which belong there where the folder is a
 * copy itself: a list never vouches for a file that rotted, and none is left out of it.
 */
async function provedBelow({ db }: Work, volumeId: string, folder: Buffer) {
  const before = folder.length === 0 ? '' : `${folder.toString('latin1')}/`
  const [proved, expected] = [new Map<string, Set<string>>(), new Set<string>()]
  for (const row of await provedContents(db, volumeId)) {
    const mirror = Buffer.from(row.folder)
    const path = `${mirror.toString('latin1')}/${row.path.toString('latin1')}`
    if (!path.startsWith(before)) continue
    const below = path.slice(before.length)
    proved.set(below, (proved.get(below) ?? new Set()).add(row.hash))
    if (mirror.equals(folder)) expected.add(below)
  }
  return { proved, expected }
}

/** Kept for download: whole and on the disk before a row names it. */
async function keep(taskId: string, { algorithm, text }: WrittenSums): Promise<null> {
  await mkdir(listsFolder(), { recursive: true })
  await writeFile(writtenListPath(taskId, algorithm), Buffer.from(text, 'latin1'), { flush: true })
  return null
}

/** Puts a list beside the folder, or into it where it is a whole volume; nothing that has the name is written over. */
async function putBeside(
  { attemptId }: Work,
  { medium, folder, volume }: SomeFolder,
  { algorithm, text }: WrittenSums,
  name: string,
): Promise<string> {
  const bytes = Buffer.from(text, 'latin1')
  const parts = partsOf(attemptId)
  const part = joinPath(parts, Buffer.from(`list.${algorithm}`))
  await medium.makeFolder(parts)
  const stem = name.slice(0, -algorithm.length - 1)
  try {
    const out = await medium.create(part)
    await out.write(bytes, 0).catch(async (error: unknown) => {
      await out.abandon()
      throw error
    })
    await out.close(Date.now(), 'settled-later')
    for (let turn = 1; ; turn += 1) {
      const path = joinPath(parentOf(folder), Buffer.from(`${stem}${turn === 1 ? '' : ` ${turn}`}.${algorithm}`))
      if ((await publishNew(medium, part, path)) === 'named') return `${medium.root}/${path.toString()}`
      // Written by an attempt that was cut just afterwards, or of the same files: once is enough.
      if (!(await readWhole(medium, path, bytes.length))?.equals(bytes)) continue
      await settlePublished(medium, path)
      return `${medium.root}/${path.toString()}`
    }
  } catch (error) {
    if (['ENOSPC', 'EROFS', 'EACCES', 'EPERM', 'EDQUOT'].includes(errorCode(error)))
      throw new CannotWork(
        `${volume?.name ?? name} took no list (${errorCode(error)}). Make room or allow writing, or take it for download.`,
      )
    throw error
  } finally {
    await medium.remove(parts).catch(() => undefined)
  }
}
