import { cardState } from '../../core/shoot/gear'
import { counted } from '../../core/units/quantity'
import { dayIn } from '../../core/units/day'
import {
  modeBodyOf,
  type CameraView,
  type CardLoadView,
  type CardView,
  type GearView,
  type LockerView,
  type NamedView,
} from '../../contract/gear'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import * as gear from '../db/queries/gear'
import * as locker from '../db/queries/locker'
import { readPlanRules } from '../db/queries/settings'
import { rulesVersion } from '../db/queries/versions'
import type { Asked } from './asked'
import { loadStates, type LoadState } from './loadStates'

/** The gear book: cameras with their modes, and cards with what is true of them. */
export async function gearView(db: Db, asked: Asked): Promise<GearView> {
  const rows = await gearRowsOf(db, asked)
  return gearOf(rows, await loadStates(db, rows.loads, asked))
}

/** What the gear book is made of, but for what is true of the loads that its cards hold. */
export async function gearRowsOf(db: Db, asked: Asked) {
  const today = dayIn('UTC', asked.now - DAY_MS)
  const [cameras, modes, cards, promises, rules, version] = await Promise.all([
    gear.cameras(db),
    gear.modes(db),
    gear.cards(db),
    gear.cardPromises(db, today),
    readPlanRules(db),
    rulesVersion(db),
  ])
  const namesakes = await gear.namesakeLoads(
    db,
    cards.map((card) => plainName(card.name)),
  )
  const loads = await loadsById(db, [
    ...cards.flatMap((card) => card.loadId ?? []),
    ...namesakes.map((load) => load.id),
  ])
  return { cameras, modes, cards, promises, rules, rulesVersion: version, namesakes, loads }
}

/** The gear book from its rows, and from what is true of their loads. */
export function gearOf(
  { cameras, modes, cards, promises, rules, rulesVersion: version, namesakes }: Awaited<ReturnType<typeof gearRowsOf>>,
  states: readonly LoadState[],
): GearView {
  const unformatted = (id: string | null | undefined): CardLoadView | null => {
    const state = states.find((one) => one.load.id === id)
    if (!state || isFormatted(state)) return null
    const { productionId, label, sizeBytes } = state.load
    return { id: state.load.id, productionId, label, sizeBytes }
  }
  return {
    rules,
    rulesVersion: version,
    cameras: cameras.map((camera): CameraView => {
      const { id, version, name, kind, media, internalBytes, slots, spans, batteryMinutes, putAwayAt } = camera
      const held = (camera.loads ?? 0) + (camera.booked ?? 0)
      return {
        ...{ id, version, name, kind, media, internalBytes, slots, spans, batteryMinutes },
        away: putAwayAt !== null,
        holds: held > 0 ? `${counted(held, 'load')} filmed with it` : '',
        modes: modes
          .filter((mode) => mode.cameraId === id)
          .map((mode) => ({
            ...modeBodyOf({ ...mode.figures, picture: mode.figures.picture, name: mode.name }),
            id: mode.id,
            version: mode.version,
            away: mode.putAwayAt !== null,
          })),
      }
    }),
    cards: cards.map(({ putAwayAt, loadId, loadedAt, loads: had, ...card }): CardView => {
      const state = states.find((one) => one.load.id === loadId)
      const load = state && {
        sizeBytes: state.load.sizeBytes,
        formatted: isFormatted(state),
        clear: state.clear.clear,
      }
      const { id, version, name, capacityBytes, bytesPerSecond } = card
      return {
        ...{ id, version, name, capacityBytes, bytesPerSecond },
        state: cardState(card.capacityBytes, load, rules.fillLimit),
        away: putAwayAt !== null,
        holds: (had ?? 0) > 0 ? `${counted(had ?? 0, 'load')} on it so far` : '',
        load: unformatted(loadId),
        perhaps: unformatted(
          namesakes.find((one) => one.name === plainName(name) && (!loadedAt || one.createdAt > loadedAt))?.id,
        ),
        plannedFor: promises
          .filter((one) => one.cardId === card.id)
          .map(({ productionId, title, shootOn, cameraId }) => ({ productionId, title, shootOn, cameraId })),
      }
    }),
  }
}

const plainName = (name: string): string => name.trim().toLowerCase()

const isFormatted = ({ formattedAt, returned }: LoadState): boolean => formattedAt !== undefined && !returned

/** A day is over only when it is over everywhere. */
const DAY_MS = 86_400_000

const named = (
  row: { id: string; version: string; name: string; putAwayAt: Date | null },
  holds: string,
): NamedView => ({
  id: row.id,
  version: row.version,
  name: row.name,
  away: row.putAwayAt !== null,
  holds,
})

/** Everything else that belongs to no single production, put away or not. */
export async function lockerView(db: Db, host: string): Promise<LockerView> {
  const [clients, sites, volumes, readers, productions] = await Promise.all([
    locker.clients(db),
    locker.sites(db),
    locker.heldVolumes(db, host),
    locker.heldReaders(db),
    locker.awayProductions(db),
  ])
  const holds = (count: number, one: string) => (count > 0 ? counted(count, one) : '')
  return {
    clients: clients.map((row) => ({
      ...named(row, holds(row.productions, 'production')),
      ...{ ruleId: row.ruleId, raw: row.raw },
    })),
    sites: sites.map((row) => ({ ...named(row, holds(row.volumes, 'volume')), kind: row.kind })),
    volumes: volumes.map((row) => ({
      ...named(row, row.loads > 0 ? `${counted(row.loads, 'load')} copied to it` : ''),
      kind: row.kind,
      site: row.site,
      capacityBytes: row.capacityBytes,
      ...{ medium: row.medium, mediumSeen: row.device?.medium ?? null, cycleDays: row.cycleDays },
    })),
    readers: readers.map((row) => ({
      ...named(row, row.loads > 0 ? `${counted(row.loads, 'load')} scanned in it` : ''),
      path: row.rootPath ?? '',
    })),
    productions: productions.map((row) => named({ ...row, name: row.title }, holds(row.loads, 'load'))),
  }
}
