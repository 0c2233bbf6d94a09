import { isUuid } from '../../core/units/uuid'
import { alignedBlocks, itemAt } from '../engine/medium/blocks'
import { joinPath, readOnce, type Medium } from '../engine/medium/medium'
import { publishOver } from '../engine/copy/publish'

const PATH = Buffer.from('.yendra/books.json')
const MOST_BYTES = 65_536
/** A drive that goes around between computers has a few. */
const MOST_BOOKS = 20

/** The state of some records as a volume keeps it. */
export interface WrittenRecords {
  readonly books: string
  readonly number: number
  readonly token: string
}

const isWritten = (one: unknown): one is WrittenRecords => {
  const { books, number, token } = (one ?? {}) as Partial<WrittenRecords>
  return [books, token].every((id) => typeof id === 'string' && isUuid(id)) && Number.isInteger(number)
}

/** What records have written on a volume; nothing where there is no such file, or one that cannot be read. */
export async function readRecordsFile(medium: Medium): Promise<WrittenRecords[]> {
  try {
    if ((await medium.entry(PATH))?.kind !== 'file') return []
    const block = itemAt(alignedBlocks(1, MOST_BYTES), 0)
    const bytes = await readOnce(await medium.open(PATH), block)
    const all: unknown = JSON.parse(Buffer.from(block.subarray(0, bytes)).toString())
    return Array.isArray(all) ? all.filter(isWritten) : []
  } catch {
    return []
  }
}

/**
 * Writes the state of these records on a volume, beside those of others: at every moment one of the two versions is
 * there.
 */
export async function writeRecordsFile(medium: Medium, own: WrittenRecords): Promise<void> {
  const others = (await readRecordsFile(medium)).filter((one) => one.books !== own.books)
  const part = joinPath(Buffer.from('.yendra'), Buffer.from(`books-${own.token}.part`))
  const out = await medium.create(part)
  try {
    await out.write(Buffer.from(`${JSON.stringify([own, ...others].slice(0, MOST_BOOKS))}\n`), 0)
    await out.close(Date.now(), 'settled-later')
    await publishOver(medium, part, PATH)
  } catch (error) {
    await out.abandon().catch(() => undefined)
    await medium.remove(part).catch(() => undefined)
    throw error
  }
}
