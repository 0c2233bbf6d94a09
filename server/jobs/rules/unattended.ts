import type { Db } from '../../db/connection'
import { putInQueue } from '../../db/queries/copyQueue'
import { readNoticed, readUnattended } from '../../db/queries/settings'
import { tryOnce } from '../../db/queries/stays'
import type { NewTask } from '../../db/queries/tasks'
import { watchedReaders } from '../../facts/unattended'
import { log } from '../../log'
import { unmountCard } from '../../media/appeared'

/** What the rule needs of the program that it runs in. */
export interface Orders {
  /** Puts a scan into the line, unless one is under way. */
  look(task: Omit<NewTask<'scan'>, 'host' | 'bossId'>): Promise<void>
  startNextCopy(): Promise<void>
}

/**
 * The rule for the tired: a card of a known camera is scanned and copied to its two usual volumes by itself. Each stay
 * of a card is tried once; whatever goes wrong is said, and waits for a person. Nothing here ever says that a card may
 * be formatted.
 */
export class Unattended {
  constructor(
    readonly db: Db,
    readonly host: string,
    readonly orders: Orders,
  ) {}

  async turn(): Promise<void> {
    const { on, productionId, volumeIds } = await readUnattended(this.db)
    if (!on || productionId === null || volumeIds.length < 2) return
    const watched = await watchedReaders(this.db, this.host, Date.now())
    for (const { reader, load, card } of watched) {
      // What was tried hangs on the stay: put in again, a card is tried again, and after a change of it as well.
      const once = (what: string) =>
        reader.stayId === null
          ? Promise.resolve(false)
          : tryOnce(this.db, reader.stayId, `${what} ${reader.print ?? ''} ${load?.scannedAt.getTime() ?? ''}`)
      if (card.act === 'look' && (await once('look')))
        await this.orders.look({
          kind: 'scan',
          title: `Scan the card in ${reader.name}`,
          productionId,
          loadId: null,
          input: { readerId: reader.id, productionId, label: '' },
          idempotencyKey: null,
        })
      // What lies on two cards is copied from one of them.
      const isDouble =
        reader.twinId !== null && watched.some((one) => one.load?.id === load?.id && one.reader.twinId === null)
      if (card.act === 'copy' && load && !isDouble && (await once('copy'))) {
        await putInQueue(this.db, this.host, [{ loadId: load.id, volumeIds: [...volumeIds], plan: null }])
        await this.orders.startNextCopy()
      }
      if (card.state === 'proved' && reader.rootPath !== null && !reader.simulated && (await once('unmount')))
        await unmountCard(reader.rootPath, (await readNoticed(this.db)).folders).catch((error: unknown) =>
          log.info(error, 'a card stays mounted'),
        )
    }
  }
}
