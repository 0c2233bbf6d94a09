import type { Db } from '../db/connection'
import { areOlder, knowsMark, latestFacts, markedVolumes, newMark, ownRecords } from '../db/queries/records'
import { tellChanged } from '../db/queries/tasks'
import { log } from '../log'
import { readRecordsFile, writeRecordsFile } from '../media/recordsFile'
import type { Medium } from '../media/mediumOf'

/** Drives are not written on all the time while a long copy proves file after file. Tests wait less. */
const LEAST_PAUSE_MS = Number(process.env.YENDRA_BOOKS_PAUSE_MS ?? 20_000)

/**
 * Keeps on every volume how far these records had come, so that a database that comes back from an older copy of it knows
 * that it is older: then nothing counts before it was read again.
 */
export class RecordsOnDrives {
  #written = ''
  #again = 0

  constructor(
    readonly db: Db,
    readonly host: string,
  ) {}

  /** A volume was connected: does it know more than these records do? */
  async appeared(medium: Medium): Promise<void> {
    const { id } = await ownRecords(this.db)
    for (const state of await readRecordsFile(medium)) {
      if (state.books !== id || (await knowsMark(this.db, state.token))) continue
      log.warn({ number: state.number }, 'these records are older than what was written of them on a drive')
      await areOlder(this.db)
      await tellChanged(this.db, 'copies', 'productions', 'storage')
      // From now on the drive has a state that is known.
      this.#written = ''
      return
    }
  }

  /** Writes down how far the records have come, where that has changed. */
  async turn(connected: ReadonlyMap<string, Medium>): Promise<void> {
    const state = `${await latestFacts(this.db)} ${[...connected.keys()].sort().join()}`
    if (state === this.#written || connected.size === 0 || performance.now() < this.#again) return
    this.#again = performance.now() + LEAST_PAUSE_MS
    const [{ id }, { token, number }] = [await ownRecords(this.db), await newMark(this.db)]
    const done: string[] = []
    for (const [volumeId, medium] of connected)
      await writeRecordsFile(medium, { books: id, number, token }).then(
        () => done.push(volumeId),
        (error: unknown) => log.info(error, 'the state of the records could not be written on a drive'),
      )
    await markedVolumes(this.db, this.host, done, number)
    this.#written = state
  }
}
