import { counted, formatBytes, formatLength } from '../../../core/units/quantity'
import type { Db } from '../../db/connection'
import { doubtedCopies, mirrorsOf, troubledBytes } from '../../db/queries/copies'
import type { NextTask } from '../work'

/** One try that did not help is not repeated all the time. */
const AGAIN_MS = 600_000

/** Has files read again that may have been replaced since they were proved: they count for nothing until then. */
export class Doubts {
  readonly #tried = new Map<string, number>()

  constructor(
    readonly db: Db,
    readonly host: string,
    /** Puts a task into the line, unless one like it is open. */
    readonly order: (task: NextTask) => Promise<void>,
  ) {}

  async turn(): Promise<void> {
    const copies = await doubtedCopies(this.db, this.host)
    const now = performance.now()
    for (const loadId of new Set(copies.map((copy) => copy.loadId))) {
      const own = copies.filter((copy) => copy.loadId === loadId)
      const key = own.map((copy) => `${copy.volumeId} ${copy.filesDoubted}`).join()
      if (now - (this.#tried.get(`${loadId} ${key}`) ?? -Infinity) < AGAIN_MS) continue
      this.#tried.set(`${loadId} ${key}`, now)
      const [first] = own
      if (!first) continue
      const volumeIds = own.map((copy) => copy.volumeId)
      await this.order({
        kind: 'check',
        title: await this.#title(own),
        productionId: first.productionId,
        loadId,
        input: { loadId, volumeIds, how: 'doubted', seed: 'doubted' },
        idempotencyKey: null,
      })
    }
  }

  async #title(copies: Awaited<ReturnType<typeof doubtedCopies>>): Promise<string> {
    const loadIds = copies.map((copy) => copy.loadId)
    const bytes = await troubledBytes(this.db, await mirrorsOf(this.db, loadIds))
    const parts = copies.map(({ volumeId, loadId, filesDoubted, name, readBytesPerSecond }) => {
      const sizeBytes = bytes.find((one) => one.volumeId === volumeId && one.loadId === loadId)?.doubtedBytes ?? 0
      const time = readBytesPerSecond ? `, about ${formatLength(Math.ceil(sizeBytes / readBytesPerSecond))}` : ''
      return `${counted(filesDoubted, 'file')} on ${name} (${formatBytes(sizeBytes)}${time})`
    })
    return `Read again what may have been replaced of “${copies[0]?.label}”: ${parts.join(' and ')}`
  }
}
