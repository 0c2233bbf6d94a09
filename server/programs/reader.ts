import { alignedBlocks, itemAt } from '../engine/medium/blocks'
import { FolderMedium } from '../engine/medium/folder'
import { errorCode, type ReadableFile } from '../engine/medium/medium'
import { sampleHash } from '../engine/copy/sample'
import type { ReaderAnswer, ReaderQuestion } from '../engine/tool/readerProcess'

/** Reads what lies at one root for another program, and is ended by it when that hangs. Writes nothing. */
const medium = new FolderMedium(process.argv[2] ?? '')
const open = new Map<number, ReadableFile>()
let files = 0
const PAGE = 65_536

const fileOf = (id: number | undefined): ReadableFile => {
  const file = open.get(id ?? -1)
  if (!file) throw new Error('No such file is open.')
  return file
}

async function answerTo({ ask, path, file, length = 0, position = 0 }: ReaderQuestion): Promise<unknown> {
  const at = Buffer.from(path ?? [])
  switch (ask) {
    case 'list':
    case 'tree':
    case 'entry':
      return medium[ask](at)
    case 'sample':
      return sampleHash(medium, at, length)
    case 'open': {
      const opened = await medium.open(at)
      files += 1
      open.set(files, opened)
      return { file: files, fromMedium: opened.fromMedium }
    }
    case 'read': {
      const block = itemAt(alignedBlocks(1, Math.ceil(length / PAGE) * PAGE), 0).subarray(0, length)
      return Buffer.from(block.subarray(0, await fileOf(file).read(block, position)))
    }
    case 'identity':
      return fileOf(file).identity()
    case 'close': {
      const closing = fileOf(file)
      open.delete(file ?? -1)
      return closing.close()
    }
    default:
      return medium[ask]()
  }
}

process.on('message', (question: ReaderQuestion) => {
  const { id } = question
  const send = (answer: ReaderAnswer) => process.send?.(answer)
  answerTo(question).then(
    (answer) => send({ id, answer }),
    (error: unknown) =>
      send({ id, error: { code: errorCode(error), message: error instanceof Error ? error.message : String(error) } }),
  )
})
process.on('disconnect', () => process.exit(0))
