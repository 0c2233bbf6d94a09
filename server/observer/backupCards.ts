import type { KnownLoad, ListedFile } from '../../core/cards/load/load'
import { backupCardKey, backupCardListing, type HeldCard } from '../../core/cards/load/backupCard'
import type { Db } from '../db/connection'
import { loadsById, samplesOf } from '../db/queries/cards'
import { readers } from '../db/queries/readers'
import type { StayRow } from '../db/queries/stays'
import { putBackupCard, backupCardsOf } from '../db/queries/backupCards'
import { CARD_ROOT, samplesEqual } from '../media/listing'
import type { Medium } from '../media/mediumOf'

/** A card in a reader whose content is known already. */
export interface Held extends Omit<HeldCard, 'isFirstStay'> {
  /** In which it lies there. */
  readonly stay: Pick<StayRow, 'id' | 'loadId' | 'twinId' | 'knownHow' | 'tried'>
  /** As it calls itself. */
  readonly name: string
  readonly medium: Medium
}

interface OwnLoad {
  readonly id: string
  readonly label: string
  readonly volumeUid: string | null
  readonly readerId: string | null
  readonly lookDone: boolean
}

/** The backup card that a card with the content of a load is; `undefined` where it is the load’s own card. */
export async function backupCardOf(
  db: Db,
  held: Held,
  load: OwnLoad,
  times: 'equal' | 'times',
): Promise<string | undefined> {
  const inReaders = await readers(db)
  const known = (await backupCardsOf(db, [load.id])).map((card) => card.key)
  const own = inReaders.find((row) => row.id === load.readerId)
  const heldNow = own?.state === 'card' && own.loadId === load.id && own.same && own.twinId === null
  const { stay } = held
  const isFirstStay = stay.knownHow === 'first-look' && stay.loadId === load.id && stay.twinId === null
  const key = backupCardKey(
    { ...held, isFirstStay },
    {
      readerId: load.readerId ?? '',
      volumeUid: load.volumeUid ?? undefined,
      heldNow: heldNow && own.putAwayAt === null,
    },
    known,
  )
  if (key === undefined) return undefined
  return (await putBackupCard(db, { loadId: load.id, key, name: held.name, exact: times === 'equal' })).id
}

/** The load whose content lies on a card that is not its own, by listing and samples. */
export async function backupCardAmong(
  db: Db,
  held: Held,
  files: readonly ListedFile[],
  known: readonly KnownLoad[],
): Promise<{ readonly id: string; readonly load: OwnLoad } | undefined> {
  const alike = new Map(
    known.flatMap((one) => {
      const times = backupCardListing(files, one.files)
      return times ? [[one.id, times] as const] : []
    }),
  )
  for (const load of await loadsById(db, [...alike.keys()])) {
    if (!load.lookDone || !(await samplesEqual(held.medium, await samplesOf(db, load.id), CARD_ROOT))) continue
    const id = await backupCardOf(db, held, load, alike.get(load.id) ?? 'times')
    if (id !== undefined) return { id, load }
  }
  return undefined
}

/** Loads that a card may hold itself: what was read of another file system is on another card. */
export async function sameCards(db: Db, held: Held, known: readonly KnownLoad[]): Promise<KnownLoad[]> {
  const { volumeUid } = held
  if (volumeUid === undefined) return [...known]
  const loads = await loadsById(
    db,
    known.map((one) => one.id),
  )
  const others = new Set(
    loads.filter((load) => load.volumeUid !== null && load.volumeUid !== volumeUid).map((load) => load.id),
  )
  return known.filter((one) => !others.has(one.id))
}
