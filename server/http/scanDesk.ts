import { randomUUID } from 'node:crypto'
import type { Db } from '../db/connection'
import { notify } from '../db/queries/tasks'

/** The observer’s answer to one question. */
export interface Scanned {
  readonly id: string
  readonly done: boolean
}

const PATIENCE_MS = 20_000

/** Asks the observer, in the worker, to scan now, and waits until it did. Pages themselves never touch a disk. */
export class ScanDesk {
  readonly #waiting = new Map<string, (done: boolean) => void>()

  constructor(readonly db: Db) {}

  /** Scans all devices, the cards of these loads and their mirrors; false when nobody could. */
  async ask(loadIds: readonly string[] = []): Promise<boolean> {
    const id = randomUUID()
    return new Promise<boolean>((resolve) => {
      const answer = (done: boolean) => {
        clearTimeout(timer)
        this.#waiting.delete(id)
        resolve(done)
      }
      const timer = setTimeout(() => answer(false), PATIENCE_MS)
      this.#waiting.set(id, answer)
      notify(this.db, 'look', { id, loadIds }).catch(() => answer(false))
    })
  }

  /** The observer’s answer. */
  hear({ id, done }: Scanned): void {
    this.#waiting.get(id)?.(done)
  }
}
