import { setTimeout as sleep } from 'node:timers/promises'
import type { DeviceIdentity } from '../../core/copies/device'
import { FolderMedium } from '../engine/medium/folder'
import {
  deviceError,
  type Medium,
  type MediumEntry,
  type ReadableFile,
  type Stamps,
  type WritableFile,
} from '../engine/medium/medium'
import { walk } from '../engine/medium/walk'
import type { Fault } from '../../contract/bench'
import type { BenchDevice } from './benchDevice'

/** Spreads bytes over time so that a device is never faster than its rate. */
class Pace {
  #free = 0
  constructor(readonly bytesPerSecond: number) {}

  async spend(bytes: number): Promise<void> {
    const now = performance.now()
    this.#free = Math.max(now, this.#free) + (bytes / this.bytesPerSecond) * 1000
    if (this.#free - now > 4) await sleep(this.#free - now)
  }
}

/** Which device a folder plays, and how it behaves. */
export interface BenchPlace {
  /** Of the device; with a card in it, of that card’s stay in it. */
  readonly id: string
  readonly settings: BenchDevice
  readonly onStruck: (fault: Fault) => void
  /** Whether it is still plugged in, with the same card in it. */
  readonly isThere?: () => boolean
}

/** A folder that behaves like a device: with a capacity, a speed, and a fault when one is switched on. */
export class BenchMedium implements Medium {
  readonly #folder: FolderMedium
  readonly #reading: Pace
  readonly #writing: Pace
  #fault: Fault | undefined
  #passed = 0
  #unplugged: boolean
  #counting: Promise<void> | undefined
  #usedBytes = 0

  constructor(
    readonly root: string,
    readonly bench: BenchPlace,
  ) {
    this.#folder = new FolderMedium(root)
    this.#reading = new Pace(bench.settings.readBytesPerSecond)
    this.#writing = new Pace(bench.settings.writeBytesPerSecond)
    this.#fault = bench.settings.fault
    this.#unplugged = !bench.settings.plugged
  }

  #plugged(): FolderMedium {
    if (this.#unplugged || this.bench.isThere?.() === false) throw deviceError('ENODEV', 'The device was unplugged.')
    return this.#folder
  }

  /** Whether the armed fault of one of these kinds strikes within the next `bytes`; counts them either way. */
  #strikes(kinds: readonly Fault['kind'][], bytes: number): Fault['kind'] | undefined {
    this.#passed += bytes
    const fault = this.#fault
    if (!fault || !kinds.includes(fault.kind) || this.#passed <= fault.afterBytes) return undefined
    // A full device stays full until somebody makes room; the others strike once.
    if (fault.kind !== 'full') this.#fault = undefined
    if (fault.kind === 'unplug') this.#unplugged = true
    if (fault.kind !== 'full') this.bench.onStruck(fault)
    return fault.kind
  }

  /** Counts what lies there once; from then on every write is added as it happens. */
  async #used(): Promise<number> {
    this.#counting ??= walk(this.#folder).then((entries) => {
      this.#usedBytes = entries.reduce((sum, entry) => sum + (entry.kind === 'file' ? entry.sizeBytes : 0), 0)
    })
    await this.#counting
    return this.#usedBytes
  }

  async list(folder: Buffer): Promise<MediumEntry[]> {
    return this.#plugged().list(folder)
  }

  async entry(path: Buffer): Promise<MediumEntry | undefined> {
    return this.#plugged().entry(path)
  }

  async open(path: Buffer, how?: 'settled'): Promise<ReadableFile> {
    const file = await this.#plugged().open(path, how)
    return {
      // A simulated drive answers for itself, wherever its folder lies.
      fromMedium: true,
      identity: () => file.identity(),
      close: () => file.close(),
      read: async (block, position) => {
        this.#plugged()
        const bytes = await file.read(block, position)
        const struck = this.#strikes(['read-error', 'unplug'], bytes)
        if (struck === 'read-error') throw deviceError('EIO', `The device cannot read at byte ${position}.`)
        if (struck === 'unplug') throw deviceError('ENODEV', 'The device was unplugged.')
        await this.#reading.spend(bytes)
        return bytes
      },
    }
  }

  async create(path: Buffer): Promise<WritableFile> {
    const file = await this.#plugged().create(path)
    let written = 0
    return {
      write: async (block, position) => {
        this.#plugged()
        const struck = this.#strikes(['flip-bit', 'truncate-write', 'unplug', 'full'], block.length)
        if (struck === 'unplug') throw deviceError('ENODEV', 'The device was unplugged.')
        await this.#used()
        // Nothing is awaited between the check and the sum: several files are written at once.
        if (struck === 'full' || this.#usedBytes + block.length > this.bench.settings.capacityBytes)
          throw deviceError('ENOSPC', 'The device is full.')
        this.#usedBytes += block.length
        written += block.length
        await this.#writing.spend(block.length)
        await file.write(
          struck === 'flip-bit'
            ? withFlippedBit(block)
            : struck === 'truncate-write'
              ? block.subarray(0, block.length >> 1)
              : block,
          position,
        )
      },
      close: (modifiedMs, durability) => {
        written = 0
        return file.close(modifiedMs, durability)
      },
      abandon: async () => {
        this.#usedBytes -= written
        written = 0
        await file.abandon()
      },
    }
  }

  async makeFolder(path: Buffer): Promise<boolean> {
    return this.#plugged().makeFolder(path)
  }

  async publish(part: Buffer, path: Buffer): Promise<'named' | 'taken'> {
    return this.#plugged().publish(part, path)
  }

  async replace(part: Buffer, path: Buffer): Promise<void> {
    await this.#plugged().replace(part, path)
    this.#counting = undefined
  }

  async linkFile(from: Buffer, to: Buffer): Promise<void> {
    await this.#plugged().linkFile(from, to)
  }

  async cloneFile(from: Buffer, to: Buffer): Promise<void> {
    await this.#plugged().cloneFile(from, to)
  }

  async move(from: Buffer, to: Buffer): Promise<void> {
    await this.#plugged().move(from, to)
  }

  async remove(path: Buffer): Promise<void> {
    await this.#plugged().remove(path)
    this.#counting = undefined
  }

  async settle(): Promise<void> {
    await this.#plugged().settle()
  }

  async settleFile(path: Buffer): Promise<void> {
    await this.#plugged().settleFile(path)
  }

  async settleFolders(folders: readonly Buffer[]): Promise<void> {
    await this.#plugged().settleFolders(folders)
  }

  async room(): Promise<{ capacityBytes: number; freeBytes: number }> {
    this.#plugged()
    const { capacityBytes } = this.bench.settings
    if (this.#fault?.kind === 'full' && this.#passed > this.#fault.afterBytes) return { capacityBytes, freeBytes: 0 }
    return { capacityBytes, freeBytes: Math.max(0, capacityBytes - (await this.#used())) }
  }

  async place(): Promise<string> {
    this.#plugged()
    return Promise.resolve(this.bench.id)
  }

  stamps(): Promise<Stamps> {
    return this.#folder.stamps()
  }

  mounted(): readonly string[] {
    return this.#folder.mounted()
  }

  async device(): Promise<DeviceIdentity> {
    this.#plugged()
    const id = `bench:${this.bench.id}`
    return Promise.resolve({ fileSystem: id, disks: [id], known: true, pastCache: true })
  }
}

function withFlippedBit(block: Uint8Array): Uint8Array {
  const copy = Uint8Array.from(block)
  copy[copy.length >> 1] = (copy[copy.length >> 1] ?? 0) ^ 1
  return copy
}
