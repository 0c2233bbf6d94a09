import { fork, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { programFolder } from '../../home'
import { deviceError, errorCode, type FileIdentity, type Medium, type ReadableFile } from '../medium/medium'
import { noAnswer, timeoutMs } from '../medium/withinTimeout'

/** One question to the program that reads, and its answer. */
export interface ReaderQuestion {
  readonly id: number
  readonly ask:
    | 'list'
    | 'tree'
    | 'entry'
    | 'place'
    | 'room'
    | 'device'
    | 'stamps'
    | 'open'
    | 'sample'
    | 'read'
    | 'identity'
    | 'close'
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

const IDLE_MS = 30_000

/** A question was lost with the program that was to answer it. */
const RESTARTED = 'ERESTART'
const MOST_TURNS = 20

/** After so many answers in a row that never came, the card itself is given up. */
const MOST_SILENT = 3

/**
 * A card that is read in a program of its own, which is ended when it gives no answer: the next question starts another
 * one. Slower than reading it here, and never stuck.
 */
export class ReaderProcess {
  #child: ChildProcess | undefined
  #next = 0
  #silent = 0
  #idle: NodeJS.Timeout | undefined
  readonly #waiting = new Map<number, (answer: ReaderAnswer) => void>()
  readonly medium: Medium

  constructor(local: Medium) {
    const { root } = local
    const ask = <T>(ask: ReaderQuestion['ask'], more: Partial<ReaderQuestion> = {}) =>
      this.#ask<T>(root, { ask, ...more })
    const own: Partial<Medium> = {
      list: (path) => ask('list', { path }),
      tree: (path) => ask('tree', { path }),
      entry: (path) => ask('entry', { path }),
      place: () => ask('place'),
      room: () => ask('room'),
      device: () => ask('device'),
      stamps: () => ask('stamps'),
      open: (path) => this.#open(root, path),
      sample: (path, length) => ask('sample', { path, length }),
    }
    this.medium = new Proxy(local, {
      get: (target, name) => {
        if (Object.hasOwn(own, name)) return own[name as keyof Medium]
        const value: unknown = Reflect.get(target, name, target)
        return typeof value === 'function' ? (value.bind(target) as unknown) : value
      },
    })
  }

  /** Nothing was asked for a while: another program is started when something is. */
  #rest(): void {
    clearTimeout(this.#idle)
    this.#idle = setTimeout(() => {
      if (this.#waiting.size === 0) this.end()
    }, IDLE_MS).unref()
  }

  /** Ends the program. */
  end(): void {
    clearTimeout(this.#idle)
    this.#child?.kill('SIGKILL')
    this.#child = undefined
    for (const [id, answer] of [...this.#waiting])
      answer({ id, error: { code: RESTARTED, message: 'The program that reads was ended.' } })
  }

  async #open(root: string, path: Buffer): Promise<ReadableFile> {
    let held = await this.#opened(root, path)
    /** Asks about the open file; in a program that was started anew it is opened anew. */
    const about = async <T>(ask: 'read' | 'identity', more: Partial<ReaderQuestion> = {}): Promise<T> => {
      if (held.child !== this.#child) held = await this.#opened(root, path)
      return this.#ask<T>(root, { ask, file: held.file, ...more }).catch(async (error: unknown) => {
        if (errorCode(error) !== RESTARTED) throw error
        held = await this.#opened(root, path)
        return this.#ask<T>(root, { ask, file: held.file, ...more })
      })
    }
    return {
      fromMedium: held.fromMedium,
      read: async (block, position) => {
        const bytes = await about<Uint8Array>('read', { length: block.length, position })
        block.set(bytes)
        return bytes.length
      },
      identity: () => about<FileIdentity>('identity'),
      close: async () => {
        if (this.#child === held.child) await this.#ask(root, { ask: 'close', file: held.file }).catch(() => undefined)
      },
    }
  }

  async #opened(root: string, path: Buffer) {
    const opened = await this.#ask<{ file: number; fromMedium: boolean }>(root, { ask: 'open', path })
    return { ...opened, child: this.#child }
  }

  /** A question that was lost with its program, since another one got no answer, is asked again. */
  async #ask<T>(root: string, question: Omit<ReaderQuestion, 'id'>): Promise<T> {
    for (let turn = 1; ; turn += 1)
      try {
        return await this.#askOnce<T>(root, question)
      } catch (error) {
        if (errorCode(error) !== RESTARTED || question.file !== undefined || turn === MOST_TURNS) throw error
      }
  }

  #askOnce<T>(root: string, question: Omit<ReaderQuestion, 'id'>): Promise<T> {
    if (this.#silent >= MOST_SILENT) return Promise.reject(deviceError('ENODEV', 'The card gives no answer any more.'))
    const child = this.#running(root)
    this.#rest()
    const id = this.#next
    this.#next += 1
    return new Promise<T>((resolve, reject) => {
      const timer = setTimeout(() => {
        this.#silent += 1
        this.#waiting.delete(id)
        if (this.#child === child) this.end()
        reject(noAnswer())
      }, timeoutMs())
      this.#waiting.set(id, ({ answer, error }) => {
        clearTimeout(timer)
        this.#waiting.delete(id)
        if (error) {
          if (error.code !== RESTARTED) this.#silent = 0
          reject(deviceError(error.code, error.message))
        } else {
          this.#silent = 0
          resolve(answer as T)
        }
      })
      child.send({ ...question, id } satisfies ReaderQuestion, (error) => {
        if (error) this.#waiting.get(id)?.({ id, error: { code: RESTARTED, message: error.message } })
      })
    })
  }

  #running(root: string): ChildProcess {
    if (this.#child) return this.#child
    const child = fork(join(programFolder(), 'dist/server/reader.js'), [root], {
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    })
    child.on('message', (answer) => this.#waiting.get((answer as ReaderAnswer).id)?.(answer as ReaderAnswer))
    child.on('exit', () => {
      if (this.#child === child) this.end()
    })
    this.#child = child
    return child
  }
}
