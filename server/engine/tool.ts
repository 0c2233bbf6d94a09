import { spawn } from 'node:child_process'
import { constants } from 'node:fs'
import { open } from 'node:fs/promises'
import { Stopped } from './stopped'

/** Lets a long program be paused and ended by the person. */
export interface ToolControl {
  readonly signal: AbortSignal
  /** Called with a function that pauses and resumes the program; returns one that forgets it. */
  readonly onPause: (apply: (paused: boolean) => void) => () => void
}

export interface ToolRun {
  readonly program: 'ffmpeg' | 'ffprobe'
  readonly args: readonly string[]
  /** Opened read-only and given to the program as `/dev/fd/3`, so that no name on a card is ever parsed as an option or protocol. */
  readonly input?: Buffer
  readonly seconds: number
  readonly control?: ToolControl
  readonly onLine?: (line: string) => void
}

export interface ToolResult {
  readonly out: Buffer
  readonly messages: string
}

/** What the program said when it failed, for a person: its last line. */
export class ToolFailed extends Error {
  constructor(
    program: string,
    readonly messages: string,
  ) {
    super(
      messages
        .trim()
        .split('\n')
        .at(-1)
        ?.replace(/^\[[^\]]*\]\s*/, '')
        .replace('/dev/fd/3: ', '') || `${program} gave up without a word`,
    )
  }
}

export const INPUT = '/dev/fd/3'
const KEPT_BYTES = 64 * 1024 * 1024

/** Runs one of the media programs without a shell; ends it after a time limit. */
export async function runTool({ program, args, input, seconds, control, onLine }: ToolRun): Promise<ToolResult> {
  const handle = input && (await open(input, constants.O_RDONLY | constants.O_NOFOLLOW))
  try {
    return await new Promise<ToolResult>((resolve, reject) => {
      const child = spawn(program, args, { stdio: ['ignore', 'pipe', 'pipe', handle ? handle.fd : 'ignore'] })
      const out: Buffer[] = []
      let messages = ''
      let bytes = 0
      let timedOut = false
      const end = () => child.kill('SIGKILL')
      const timer = setTimeout(() => {
        timedOut = true
        end()
      }, seconds * 1000)
      const forget = control?.onPause((paused) => child.kill(paused ? 'SIGSTOP' : 'SIGCONT'))
      control?.signal.addEventListener('abort', end, { once: true })
      child.stdout?.on('data', (chunk: Buffer) => {
        bytes += chunk.length
        if (bytes <= KEPT_BYTES) out.push(chunk)
        if (onLine) chunk.toString().split('\n').forEach(onLine)
      })
      child.stderr?.on('data', (chunk: Buffer) => {
        messages = (messages + chunk.toString()).slice(-200_000)
      })
      child.on('error', reject)
      child.on('close', (code) => {
        clearTimeout(timer)
        forget?.()
        control?.signal.removeEventListener('abort', end)
        if (control?.signal.aborted) reject(new Stopped())
        else if (timedOut) reject(new ToolFailed(program, `It took longer than ${seconds} s and was ended.`))
        else if (code !== 0) reject(new ToolFailed(program, messages))
        else resolve({ out: Buffer.concat(out), messages })
      })
    })
  } finally {
    await handle?.close()
  }
}

/** Options every ffmpeg call gets: no questions, only local files, quiet. */
export const FFMPEG_BASE = [
  '-nostdin',
  '-hide_banner',
  '-loglevel',
  'error',
  '-protocol_whitelist',
  'file,pipe',
] as const
