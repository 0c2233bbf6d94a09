import { closeSync, constants, fstatSync, openSync, readSync } from 'node:fs'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { programFolder } from '../../home'
import { EndsHash } from '../copy/sample'
import { RunningHash } from '../copy/hash'
import { fitted } from './blocks'
import { identityOf, kindOf } from './fileStats'
import { errorCode, type SmallRead } from './medium'
import { mountIdOf } from './mounts'
import { liesAt } from './openHere'

/** What a thread is asked: files of one mount, by their absolute paths. */
export interface SmallQuestion {
  readonly files: readonly AskedFile[]
  readonly mountId: number | undefined
}

/** As a path comes through to a thread. */
export interface AskedFile {
  readonly path: Uint8Array
  readonly sizeBytes: number
}

/** Nothing is waited for where no writer holds the other end of what is no file. */
const FLAGS = constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_DIRECT | constants.O_NONBLOCK

/**
 * Reads a file past the cache in one go and at once: for threads, which have nothing else to do. Whatever is unusual is
 * left to the usual way.
 */
export function readSmall({ path, sizeBytes }: AskedFile, mountId: number | undefined, memory: Uint8Array): SmallRead {
  const name = Buffer.from(path)
  let fd: number | undefined
  try {
    fd = openSync(name, FLAGS)
    const stats = fstatSync(fd)
    if (kindOf(stats) !== 'file' || mountIdOf(fd) !== mountId || !liesAt(fd, name)) return { code: 'EINVAL' }
    const block = fitted(memory, sizeBytes)
    const bytes = readSync(fd, block, 0, block.length, 0)
    // It goes on behind what was read.
    if (bytes === block.length) return { code: 'EFBIG' }
    const [hash, ends] = [new RunningHash(), new EndsHash(sizeBytes)]
    hash.update(block.subarray(0, bytes))
    ends.update(block.subarray(0, bytes))
    return { hash: hash.digest(), ends: ends.digest() ?? null, sizeBytes: bytes, identity: identityOf(stats) }
  } catch (error) {
    return { code: errorCode(error) }
  } finally {
    if (fd !== undefined) closeSync(fd)
  }
}

/** As many as keep a drive busy; more of them only take turns. */
const THREADS = 4

/** Threads of one program, started when the first of them is asked. */
export class SmallReaders {
  readonly #idle = new Set<Worker>()
  readonly #waiting: ((thread: Worker) => void)[] = []
  #started = 0

  constructor(readonly program: string) {}

  async read(question: SmallQuestion): Promise<readonly SmallRead[]> {
    const thread = await this.#take()
    // Only what is under way keeps the program from ending.
    thread.ref()
    return new Promise((done) => {
      // Whatever became of the thread, its files are read by the usual way.
      const lost = () => {
        thread.off('message', answered)
        done(question.files.map(() => ({ code: 'ERESTART' })))
      }
      const answered = (reads: readonly SmallRead[]) => {
        thread.off('exit', lost)
        thread.unref()
        this.#give(thread)
        done(reads)
      }
      thread.once('message', answered)
      thread.once('exit', lost)
      thread.postMessage(question)
    })
  }

  #take(): Worker | Promise<Worker> {
    const [idle] = this.#idle
    if (idle) {
      this.#idle.delete(idle)
      return idle
    }
    if (this.#started >= THREADS) return new Promise((resolve) => this.#waiting.push(resolve))
    return this.#start()
  }

  #start(): Worker {
    this.#started += 1
    const thread = new Worker(this.program)
    // It ends after an error, and nothing more is asked of it then.
    thread.on('error', () => undefined)
    thread.once('exit', () => {
      this.#idle.delete(thread)
      this.#started -= 1
      this.#waiting.shift()?.(this.#start())
    })
    return thread
  }

  #give(thread: Worker): void {
    const next = this.#waiting.shift()
    if (next) next(thread)
    else this.#idle.add(thread)
  }
}

export const smallReaders = new SmallReaders(join(programFolder(), 'dist/server/smallReader.js'))
