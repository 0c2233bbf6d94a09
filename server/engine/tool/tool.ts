import { spawn } from 'node:child_process'
import { constants, readFileSync } from 'node:fs'
import type { PassThrough } from 'node:stream'
import { reasonSentence, toolReason } from '../../../core/media/toolReason'
import { loadedFirst } from './loadedFirst'
import { openHere } from '../medium/openHere'
import { Stopped } from './stopped'

/** A program that was started, told from any other that gets its number later by the time it began. */
export interface ToolProcess {
  readonly pid: number
  /** Clock ticks after the start of the system, field 22 of proc(5) `stat`. */
  readonly startedTicks: string
}

/** Lets a long program be paused and ended by the person. */
export interface ToolControl {
  readonly signal: AbortSignal
  /** Called with a function that pauses and resumes the program; returns one that forgets it. */
  readonly onPause: (apply: (paused: boolean) => void) => () => void
  /** Told of each program that starts, so that one left behind by a killed worker can be ended. */
  readonly onStarted?: (process: ToolProcess) => void
}

export interface ToolRun {
  readonly program: 'ffmpeg' | 'ffprobe'
  readonly args: readonly string[]
  /**
   * Opened read-only and given to the program as `/dev/fd/3`, so that no name on a card is ever parsed as an option or
   * protocol.
   */
  readonly input?: Buffer
  /** Running time at most; time spent paused does not count. */
  readonly seconds: number
  /** Address space at most; 2 GiB, unless the work is known to need more. */
  readonly memoryBytes?: number
  readonly control?: ToolControl
  readonly onLine?: (line: string) => void
  /** Takes what the program says as fast as it is read, however much it is; nothing of it is kept. */
  readonly sink?: PassThrough
}

export interface ToolResult {
  readonly out: Buffer
  readonly messages: string
}

/** Why the program failed, for a person, with its own lines beside it. */
export class ToolFailed extends Error {
  /** Part of a sentence: `the drive is full`. */
  readonly reason: string
  readonly lines: readonly string[]

  constructor(
    readonly program: string,
    readonly messages: string,
  ) {
    const { reason, lines } = toolReason(program, messages)
    super(reasonSentence(reason))
    this.reason = reason
    this.lines = lines
  }
}

export const INPUT = '/dev/fd/3'
const KEPT_BYTES = 64 * 1024 * 1024
const CARD_MEMORY_BYTES = 2 * 1024 ** 3

/**
 * A program that dies with its parent (setpriv of Debian) and cannot take more memory than it is given (ulimit of the
 * shell).
 */
export async function boundedCommand(program: string, memoryBytes = CARD_MEMORY_BYTES): Promise<[string, ...string[]]> {
  const bounds = `ulimit -v ${Math.floor(memoryBytes / 1024)} && LD_PRELOAD="$0" exec "$@"`
  return ['setpriv', '--pdeathsig', 'KILL', 'sh', '-c', bounds, await loadedFirst(program), program]
}

/** Runs one of the media programs without a shell; ends it after a time limit, and with its parent. */
export async function runTool(run: ToolRun): Promise<ToolResult> {
  const command = await boundedCommand(run.program, run.memoryBytes)
  const handle = run.input && (await openHere(run.input, constants.O_RDONLY))
  try {
    if (run.control?.signal.aborted) throw new Stopped()
    return await follow(run, command, handle?.fd)
  } finally {
    await handle?.close()
  }
}

function follow(
  { program, args, seconds, control, onLine, sink }: ToolRun,
  [command, ...bounds]: readonly [string, ...string[]],
  fd: number | undefined,
): Promise<ToolResult> {
  return new Promise<ToolResult>((resolve, reject) => {
    const child = spawn(command, [...bounds, ...args], { stdio: ['ignore', 'pipe', 'pipe', fd ?? 'ignore'] })
    const out: Buffer[] = []
    let messages = ''
    let bytes = 0
    let timedOut = false
    const end = () => child.kill('SIGKILL')
    const limit = new RunningTime(seconds, () => {
      timedOut = true
      end()
    })
    const forget = control?.onPause((paused) => {
      child.kill(paused ? 'SIGSTOP' : 'SIGCONT')
      limit.hold(paused)
    })
    control?.signal.addEventListener('abort', end, { once: true })
    if (child.pid !== undefined) control?.onStarted?.({ pid: child.pid, startedTicks: startedTicks(child.pid) ?? '' })
    // Its end is that of the program: what waits in the pipe is read first.
    if (sink) child.stdout?.pipe(sink)
    else
      child.stdout?.on('data', (chunk: Buffer) => {
        bytes += chunk.length
        if (bytes <= KEPT_BYTES) out.push(chunk)
        else end()
        if (onLine) chunk.toString().split('\n').forEach(onLine)
      })
    child.stderr?.on('data', (chunk: Buffer) => {
      messages = (messages + chunk.toString()).slice(-200_000)
    })
    child.on('error', (error) => {
      limit.hold(true)
      reject(error)
    })
    child.on('close', (code) => {
      limit.hold(true)
      forget?.()
      control?.signal.removeEventListener('abort', end)
      if (control?.signal.aborted) reject(new Stopped())
      else if (timedOut) reject(new ToolFailed(program, `it took longer than ${seconds} s and was ended`))
      else if (bytes > KEPT_BYTES) reject(new ToolFailed(program, 'more than 64 MB was said of it, and that was ended'))
      else if (code === 127)
        reject(
          new ToolFailed(
            program,
            `the program ${program} is not installed. Start Yendra again: it installs what is missing`,
          ),
        )
      else if (code !== 0) reject(new ToolFailed(program, messages))
      else resolve({ out: Buffer.concat(out), messages })
    })
  })
}

/** A time limit that stands still while the work does. */
class RunningTime {
  #leftMs: number
  #since = 0
  #timer: NodeJS.Timeout | undefined

  constructor(
    seconds: number,
    readonly onEnd: () => void,
  ) {
    this.#leftMs = seconds * 1000
    this.hold(false)
  }

  hold(held: boolean): void {
    clearTimeout(this.#timer)
    if (held && this.#timer) this.#leftMs -= performance.now() - this.#since
    this.#timer = undefined
    if (held) return
    this.#since = performance.now()
    // Longer waits than a timer can hold (24.8 days) do not occur.
    this.#timer = setTimeout(this.onEnd, Math.max(0, this.#leftMs))
  }
}

/** When a process began, by the system’s own count; `undefined` when there is none of that number. */
export function startedTicks(pid: number): string | undefined {
  try {
    // The name in parentheses may itself hold spaces and parentheses.
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]
  } catch {
    return undefined
  }
}

/** Ends a program that outlived its worker; a number that belongs to another program by now is left alone. */
export function endLeftover({ pid, startedTicks: ticks }: ToolProcess): boolean {
  if (ticks === '' || startedTicks(pid) !== ticks) return false
  process.kill(pid, 'SIGKILL')
  return true
}

/**
 * Containers that hold their own media and open no other file: no playlists, no lists of files, no picture patterns.
 * Names are ffmpeg’s own.
 */
export const CONTAINERS =
  'mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,mxf,mpegts,mpeg,wav,w64,aiff,caf,flac,mp3,aac,ogg,dv,flv,asf,gxf,ivf'

/** Comes before the input: only this one file, only as one of these containers. */
export const SAFE_INPUT = ['-protocol_whitelist', 'file', '-format_whitelist', CONTAINERS] as const

/** Options every ffmpeg call gets: no questions, quiet. */
export const FFMPEG_BASE = ['-nostdin', '-hide_banner', '-loglevel', 'error', ...SAFE_INPUT] as const

/**
 * Of a file that was cut the last sample is a part of one, of which some decoders make a picture: it is left out, as
 * the index counts.
 */
export const wholeSamples = ({ container }: { readonly container: string }): readonly string[] =>
  container.startsWith('mov,') ? ['-fflags', '+discardcorrupt'] : []
