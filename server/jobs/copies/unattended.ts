import type { Db } from '../../db/connection'
import { putInQueue } from '../../db/queries/copyQueue'
import { readNoticed, readUnattended } from '../../db/queries/settings'
import type { NewTask } from '../../db/queries/tasks'
import { watchedReaders } from '../../facts/unattended'
import { log } from '../../log'
import { unmountCard } from '../../media/appeared'

/** What the rule needs of the program that it runs in. */
export interface Orders {
  /** Puts a look into the line, unless one is under way. */
  look(task: Omit<NewTask<'scan'>, 'host'>): Promise<void>
  startNextCopy(): Promise<void>
}

/**
 * The rule for the tired: a card of a known camera is looked at and copied to its two usual volumes by itself. Each stay of a
 * card is tried once; whatever goes wrong is said, and waits for a person. Nothing here ever says that a card may be formatted.
 */
export class Unattended {
  readonly #tried = new Set<string>()

  constructor(
    readonly db: Db,
    readonly host: string,
    readonly orders: Orders,
  ) {}

  async turn(): Promise<void> {
    const { on, productionId, volumeIds } = await readUnattended(this.db)
    if (!on || productionId === null || volumeIds.length < 2) return
    const watched = await watchedReaders(this.db, this.host, Date.now())
    const stays = new Set(watched.map(({ reader }) => reader.id))
    for (const tried of this.#tried) if (!stays.has(tried.split(' ')[0] ?? '')) this.#tried.delete(tried)
    for (const { reader, load, card } of watched) {
      const once = (what: string) => {
        const key = `${reader.id} ${what} ${reader.print ?? ''} ${load?.scannedAt.getTime() ?? ''}`
        const isNew = !this.#tried.has(key)
        this.#tried.add(key)
        return isNew
      }
      if (card.act === 'look' && once('look'))
        await this.orders.look({
          kind: 'scan',
          title: `Look at the card in ${reader.name}`,
          productionId,
          loadId: null,
          input: { readerId: reader.id, productionId, label: '' },
          idempotencyKey: null,
        })
      // What lies on two cards is copied from one of them.
      const isDouble =
        reader.twinId !== null && watched.some((one) => one.load?.id === load?.id && one.reader.twinId === null)
      if (card.act === 'copy' && load && !isDouble && once('copy')) {
        await putInQueue(this.db, this.host, [{ loadId: load.id, volumeIds: [...volumeIds], plan: null }])
        await this.orders.startNextCopy()
      }
      if (card.state === 'proved' && reader.rootPath !== null && !reader.simulated && once('unmount'))
        await unmountCard(reader.rootPath, (await readNoticed(this.db)).folders).catch((error: unknown) =>
          log.info(error, 'a card stays mounted'),
        )
    }
  }
}
