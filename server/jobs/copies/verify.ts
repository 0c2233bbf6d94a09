import { dirname } from 'node:path'
import type { TaskInput } from '../../../contract/taskKinds'
import { printablePath } from '../../../core/copies/pathText'
import { LIST_FINDINGS } from '../../../core/copies/lists/finding'
import { listSentence, verdictOf, type ListChecked } from '../../../core/copies/lists/verdict'
import { fileNameOf } from '../../../core/units/filePath'
import { inTransaction } from '../../db/connection'
import { putListCheck } from '../../db/queries/lists'
import { BAG_FILE, readBagLists, type BagLists } from '../../engine/lists/bag'
import { Findings, type FoundLine } from '../../engine/lists/findings'
import { NoList, readList } from '../../engine/lists/readList'
import { verifyFolder } from '../../engine/lists/verify'
import { errorCode, joinPath } from '../../engine/medium/medium'
import { CannotWork } from '../../media/cannotWork'
import { besideFile, readableFile, readableFolder, someFolder, type SomeFolder } from '../../media/someFolder'
import type { Job, Work, WorkEnd } from '../work'
import { bytesRead, isOurs } from './steps/listed'

/** Compares a folder with a checksum list of anybody, or a bag with its manifests. */
export const verify: Job<'verify'> = { kind: 'verify', run: runVerify }

async function runVerify(work: Work, input: TaskInput<'verify'>): Promise<WorkEnd> {
  const folder = await readableFolder(input.folder)
  const some = await someFolder(work.db, work.host, folder)
  if (!some) throw new CannotWork(`What ${folder} lies on is not there now. Connect it, then compare again.`)
  const findings = new Findings()
  const checked = await compared(work, some, { ...input, folder }, findings).catch((error: unknown) => {
    if (error instanceof NoList) throw new CannotWork(error.message)
    if (['ENODEV', 'ENOENT', 'ENOTDIR', 'ETIMEDOUT'].includes(errorCode(error)))
      throw new CannotWork(
        `${folder} went away while it was read, so nothing is said of it. Connect it, then compare again.`,
      )
    throw error
  })
  const { sentence } = listSentence(checked)
  const rows = LIST_FINDINGS.flatMap((kind) => findings.kept.filter((one) => one.kind === kind)).map(asRow)
  await inTransaction(work.db, (tx) => putListCheck(tx, { id: work.taskId, folder, list: input.list, checked }, rows))
  const isFine = verdictOf(checked) === 'equal'
  return {
    sentence: `${fileNameOf(folder)}: ${sentence}`,
    troubles: isFine ? [] : ['Checksum lists names each file of which something was found.'],
  }
}

const asRow = ({ kind, path, line, detail }: FoundLine) => ({
  ...{ kind, line: line === 0 ? null : line },
  pathText: printablePath(Buffer.from(path, 'latin1')),
  detail,
})

async function compared(
  { control, progress }: Work,
  some: SomeFolder,
  input: TaskInput<'verify'>,
  findings: Findings,
): Promise<ListChecked> {
  const { medium, folder } = some
  const read = bytesRead(progress)
  const order = { medium, folder, folderPath: input.folder, gate: control.gate, ...read }
  if (input.list === '') {
    if ((await medium.entry(joinPath(folder, Buffer.from(BAG_FILE))))?.kind !== 'file')
      throw new CannotWork(`${input.folder} is no bag: there is no ${BAG_FILE} in it. Choose a list.`)
    const bag = await readBagLists(medium, folder, findings, control.gate)
    return { ...(await bagCompared(order, bag, findings)), found: findings.counts, cut: false, isBag: true }
  }
  const list = await readableFile(input.list)
  if (list === undefined) throw new CannotWork(`There is no file at ${input.list}. Choose the list again.`)
  const beside = besideFile(list)
  const { lines, ...rest } = await readList(beside.medium, beside.path, control.gate)
  findings.addFaults(rest)
  const own = list.startsWith(`${input.folder}/`) ? list.slice(input.folder.length + 1) : undefined
  const self = own && Buffer.from(own).toString('latin1')
  const verified = await verifyFolder({ ...order, listFolder: dirname(list), lines, self, isOwn: isOurs }, findings)
  return { ...verified, found: findings.counts, cut: rest.cut, isBag: false }
}

type BagOrder = Omit<Parameters<typeof verifyFolder>[0], 'lines' | 'listFolder' | 'isOwn'>

function bagCompared(order: BagOrder, { lines, complete }: BagLists, findings: Findings) {
  return verifyFolder(
    {
      ...{ ...order, lines, listFolder: order.folderPath },
      base: { above: [], inside: [], backslashes: false },
      // What belongs to the payload and is not named is told by the manifests; tag files need no line.
      isOwn: () => true,
      onTree: complete,
    },
    findings,
  )
}
