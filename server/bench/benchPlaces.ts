import type { Fault } from '../../contract/bench'
import type { Db } from '../db/connection'
import { benchCard, benchDevice, benchDevices, clearFault } from '../db/queries/bench'
import type { Medium } from '../engine/medium/medium'
import type { PlaceFactory, ReaderContent, ReaderPlace, VolumePlace } from '../media/mediumOf'
import { BenchMedium } from './benchMedium'

type Device = NonNullable<Awaited<ReturnType<typeof benchDevice>>>

/** Tells one stay of a card in a reader from the next. */
const stayOf = (device: Pick<Device, 'plugged' | 'card' | 'insertedAt'>) =>
  device.plugged ? `${device.card ?? ''} ${device.insertedAt?.toISOString() ?? ''}` : 'unplugged'

/** The simulated devices. What a person does to one on the bench reaches work that is under way on it. */
export class BenchPlaces implements PlaceFactory {
  readonly #stays = new Map<string, string>()

  /** Reads anew which device is plugged in and which card lies where. */
  async refresh(db: Db): Promise<void> {
    for (const device of await benchDevices(db)) this.#stays.set(device.id, stayOf(device))
  }

  async volumeMedium(db: Db, volume: VolumePlace): Promise<Medium | undefined> {
    const device = await this.#device(db, volume.id)
    return device?.plugged && volume.rootPath ? this.#medium(db, volume.rootPath, volume.id, device) : undefined
  }

  async readerContent(db: Db, reader: ReaderPlace): Promise<ReaderContent | 'empty' | 'unreachable'> {
    const device = await this.#device(db, reader.id)
    if (!device?.plugged) return 'unreachable'
    const card = device.card ? await benchCard(db, device.card) : undefined
    if (!card) return 'empty'
    const medium = this.#medium(db, card.folder, `${reader.id} ${stayOf(device)}`, device)
    return { medium, cardName: card.name, volumeUid: () => Promise.resolve(`bench ${card.name}`) }
  }

  async #device(db: Db, id: string): Promise<Device | undefined> {
    const device = await benchDevice(db, id)
    if (device) this.#stays.set(id, stayOf(device))
    return device
  }

  #medium(db: Db, root: string, id: string, device: Device): BenchMedium {
    const stay = stayOf(device)
    const onStruck = (fault: Fault) => void clearFault(db, device.id, fault.kind).catch(() => undefined)
    return new BenchMedium(root, { id, settings: device, onStruck, isThere: () => this.#stays.get(device.id) === stay })
  }
}
