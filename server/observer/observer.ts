import type { Db } from '../db/connection'
import { mirrorsOf, mirrorsOn } from '../db/queries/copies'
import { addNote } from '../db/queries/journal'
import { putSeenReader, readers } from '../db/queries/readers'
import { putSeenVolume, volumes, type VolumeRow } from '../db/queries/volumes'
import { tellChanged } from '../db/queries/tasks'
import { log } from '../log'
import { MountNews } from '../media/mountNews'
import { Sleep } from '../media/sleep'
import { linksOf, volumeMedium, type Medium } from '../media/mediumOf'
import { RecordsOnDrives } from './recordsOnDrives'
import { scanMirror } from './mirrorScan'
import { findMounts } from './mountWatch'
import { ReaderScan } from './readerScan'
import { Stays } from './stays'

const EVERY_MS = 3_000
/** Idle scans of mirrors take at most this share of the time. */
const IDLE_SHARE = 0.1

/**
 * Watches readers, mounts and mirrors of one computer and writes down what it sees; pages only ever read that. One
 * runs inside each worker process.
 */
export class Observer {
  readonly #readers: ReaderScan
  readonly #stays: Stays
  readonly #news = new MountNews()
  readonly #sleep = new Sleep()
  readonly #records: RecordsOnDrives
  readonly #connected = new Map<string, Medium>()
  #timer: NodeJS.Timeout | undefined
  #looking: Promise<void> = Promise.resolve()
  /** The scan that begins when the one that is under way has ended. */
  #next: { readonly loadIds: Set<string>; readonly done: Promise<void> } | undefined
  #idleFrom = 0
  #afterwards: (() => Promise<void>) | undefined

  constructor(
    readonly db: Db,
    readonly host: string,
  ) {
    this.#stays = new Stays(db, host, this.#news)
    this.#records = new RecordsOnDrives(db, host)
    this.#readers = new ReaderScan(db, host, this.#stays)
  }

  /** What is done after each scan of everything that is connected. */
  afterEach(act: () => Promise<void>): void {
    this.#afterwards = act
  }

  async start(): Promise<void> {
    this.#news.start()
    await this.#stays.begin()
    const turn = () => {
      void this.#turn().finally(() => {
        if (this.#timer) this.#timer = setTimeout(turn, EVERY_MS)
      })
    }
    this.#timer = setTimeout(turn, 0)
  }

  stop(): void {
    clearTimeout(this.#timer)
    this.#timer = undefined
    this.#news.stop()
    this.#readers.end()
  }

  async #turn(): Promise<void> {
    try {
      await this.#inTurn(async () => {
        await findMounts(this.db, this.host)
        const appeared = await this.#devices(false)
        for (const volumeId of appeared) await this.#mirrorsOf(volumeId)
        await this.#records.turn(this.#connected)
        await this.#oneMirrorInIdleTime()
      })
      await this.#afterwards?.()
    } catch (error) {
      log.warn(error, 'the observer could not look')
    }
  }

  /** Scans do not overlap: each writes what it saw before the next begins. */
  #inTurn(work: () => Promise<void>): Promise<void> {
    const mine = this.#looking.then(work)
    this.#looking = mine.catch(() => undefined)
    return mine
  }

  /**
   * Scans devices now, and the mirrors of some loads: what a yes is answered from. Who asks meanwhile shares the next
   * scan.
   */
  look(loadIds: readonly string[]): Promise<void> {
    if (this.#next) {
      for (const loadId of loadIds) this.#next.loadIds.add(loadId)
      return this.#next.done
    }
    const wanted = new Set(loadIds)
    const done = this.#inTurn(async () => {
      this.#next = undefined
      await this.#scanNow([...wanted])
    })
    this.#next = { loadIds: wanted, done }
    return done
  }

  async #scanNow(loadIds: readonly string[]): Promise<void> {
    await findMounts(this.db, this.host)
    await this.#devices(true)
    let changed = false
    for (const mirror of await mirrorsOf(this.db, loadIds)) changed = (await this.#mirror(mirror)) || changed
    if (changed) await tellChanged(this.db, 'copies', 'productions')
  }

  /** Scans everything that is connected; returns the volumes that have appeared. */
  async #devices(afresh: boolean): Promise<string[]> {
    const { db, host } = this
    const sleptMs = this.#sleep.since()
    if (sleptMs > 0) {
      await this.#stays.slept()
      await addNote(db, { kind: 'slept', detail: { ms: Math.round(sleptMs) } })
    }
    let changed = false
    const appeared: string[] = []
    for (const row of await volumes(db, host)) {
      if (row.rootPath === null) continue
      const before = this.#connected.has(row.id)
      changed = (await this.#volume(row)) || changed
      const medium = this.#connected.get(row.id)
      if (before || !medium) continue
      appeared.push(row.id)
      await this.#records.appeared(medium)
    }
    if (changed) await tellChanged(db, 'copies', 'storage', 'productions')
    for (const row of await readers(db)) {
      if (row.host !== host || row.putAwayAt !== null) continue
      const seen = await this.#readers.look(row, afresh)
      if (await putSeenReader(db, row.id, seen)) await tellChanged(db, 'cards', 'copies', 'productions')
    }
    return appeared
  }

  async #volume(row: VolumeRow): Promise<boolean> {
    const medium = await volumeMedium(this.db, row).catch(() => undefined)
    const figures =
      medium && (await Promise.all([medium.room(), medium.device(), linksOf(medium.root)]).catch(() => undefined))
    if (medium && figures) this.#connected.set(row.id, medium)
    else this.#connected.delete(row.id)
    const [room, device, links] = figures ?? []
    return putSeenVolume(this.db, row.id, this.host, {
      connected: figures !== undefined,
      capacityBytes: room?.capacityBytes,
      freeBytes: room?.freeBytes,
      device,
      links,
    })
  }

  async #mirror(mirror: { loadId: string; volumeId: string; folder: string }): Promise<boolean> {
    const medium = this.#connected.get(mirror.volumeId)
    if (!medium) return false
    try {
      return (await scanMirror(this.db, mirror, medium)).isNew
    } catch (error) {
      // A volume that is pulled out just now is no proof of anything.
      log.warn(error, 'a mirror could not be listed')
      return false
    }
  }

  async #mirrorsOf(volumeId: string): Promise<void> {
    let changed = false
    for (const mirror of await mirrorsOn(this.db, volumeId)) changed = (await this.#mirror(mirror)) || changed
    if (changed) await tellChanged(this.db, 'copies', 'productions')
  }

  /** The mirror that was not listed for longest, when there is time. */
  async #oneMirrorInIdleTime(): Promise<void> {
    const begun = performance.now()
    if (begun < this.#idleFrom) return
    const lists = await Promise.all([...this.#connected.keys()].map((id) => mirrorsOn(this.db, id)))
    const [oldest] = lists.flat().sort((a, b) => (a.seenAt?.getTime() ?? 0) - (b.seenAt?.getTime() ?? 0))
    if (!oldest) return
    if (await this.#mirror(oldest)) await tellChanged(this.db, 'copies', 'productions')
    this.#idleFrom = begun + (performance.now() - begun) / IDLE_SHARE
  }
}
