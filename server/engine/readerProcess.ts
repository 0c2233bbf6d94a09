import { fork, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { MEMORY_FLAGS } from '../../scripts/lib/memory.mjs'
import { programFolder } from '../home'
import { deviceError, type FileIdentity, type Medium, type ReadableFile } from './medium'
import { noAnswer, patienceMs } from './patient'

/** One question to the program that reads, and its answer. */
export interface ReaderQuestion {
  readonly id: number
  readonly ask: 'list' | 'tree' | 'entry' | 'place' | 'room' | 'device' | 'stamps' | 'open' | 'read' | 'identity' | 'close'
  readonly path?: Uint8Array
  readonly file?: number
  readonly length?: number
  readonly position?: number
}

export interface ReaderAnswer {
  readonly id: number
  readonly answer?: unknown
  readonly error?: { readonly code: string; readonly message: string }
}

/** After so many answers in a row that never came, the card itself is given up. */
const MOST_SILENT = 3

/**
 * A card that is read in a program of its own, which is ended when it gives no answer: the next question starts another one.
 * Slower than reading it here, and never stuck.
 */
export class ReaderProcess {
  #child: ChildProcess | undefined
  #next = 0
  #silent = 0
  readonly #waiting = new Map<number, (answer: ReaderAnswer) => void>()
  readonly medium: Medium

  constructor(local: Medium) {
    const { root } = local
    const ask = <T>(ask: ReaderQuestion['ask'], more: Partial<ReaderQuestion> = {}) => this.#ask<T>(root, { ask, ...more })
    const own: Partial<Medium> = {
      list: (path) => ask('list', { path }),
      tree: (path) => ask('tree', { path }),
      entry: (path) => ask('entry', { path }),
      place: () => ask('place'),
      room: () => ask('room'),
      device: () => ask('device'),
      stamps: () => ask('stamps'),
      open: (path) => this.#open(root, path),
    }
    this.medium = new Proxy(local, {
      get: (target, name) => {
        if (Object.hasOwn(own, name)) return own[name as keyof Medium]
        const value: unknown = Reflect.get(target, name, target)
        return typeof value === 'function' ? (value.bind(target) as unknown) : value
      },
    })
  }

  /** Ends the program. */
  end(): void {
    this.#child?.kill('SIGKILL')
    this.#child = undefined
  }

  async #open(root: string, path: Buffer): Promise<ReadableFile> {
    const { file, fromMedium } = await this.#ask<{ file: number; fromMedium: boolean }>(root, { ask: 'open', path })
    // A file of a program that was ended is closed with it.
    const child = this.#child
    const still = () => {
      if (this.#child !== child) throw noAnswer()
    }
    return {
      fromMedium,
      read: async (block, position) => {
        still()
        const bytes = await this.#ask<Uint8Array>(root, { ask: 'read', file, length: block.length, position })
        block.set(bytes)
        return bytes.length
      },
      identity: async () => {
        still()
        return this.#ask<FileIdentity>(root, { ask: 'identity', file })
      },
      close: async () => {
        if (this.#child === child) await this.#ask(root, { ask: 'close', file }).catch(() => undefined)
      },
    }
  }

  #ask<T>(root: string, question: Omit<ReaderQuestion, 'id'>): Promise<T> {
    if (this.#silent >= MOST_SILENT) return Promise.reject(deviceError('ENODEV', 'The card gives no answer any more.'))
    const child = this.#running(root)
    const id = this.#next
    this.#next += 1
    return new Promise<T>((resolve, reject) => {
      const timer = setTimeout(() => {
        this.#silent += 1
        this.#waiting.delete(id)
        if (this.#child === child) this.end()
        reject(noAnswer())
      }, patienceMs())
      this.#waiting.set(id, ({ answer, error }) => {
        clearTimeout(timer)
        this.#waiting.delete(id)
        this.#silent = 0
        if (error) reject(deviceError(error.code, error.message))
        else resolve(answer as T)
      })
      child.send({ ...question, id } satisfies ReaderQuestion, (error) => {
        if (error) this.#waiting.get(id)?.({ id, error: { code: 'ETIMEDOUT', message: error.message } })
      })
    })
  }

  #running(root: string): ChildProcess {
    if (this.#child) return this.#child
    const child = fork(join(programFolder(), 'dist/server/reader.js'), [root], {
      execArgv: [...MEMORY_FLAGS],
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    })
    child.on('message', (answer) => this.#waiting.get((answer as ReaderAnswer).id)?.(answer as ReaderAnswer))
    child.on('exit', () => {
      if (this.#child === child) this.#child = undefined
    })
    this.#child = child
    return child
  }
}
