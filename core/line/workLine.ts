import { counted } from '../units/quantity'

/** A task that is not over yet, as far as one line about all of them needs it. */
export interface OpenWork {
  readonly state: 'queued' | 'running' | 'paused'
  /** Units done of all, and in a second; `null` before the first is known. */
  readonly progress: { readonly done: number; readonly total: number; readonly perSecond: number } | null
}

/**
 * All work under way in a few words: how much of it, how far together, and when the last will be ready where each says
 * it. `clock` gives the time of day after so many seconds. `2 tasks, 43 %, ready at 21:14`.
 */
export function workLine(works: readonly OpenWork[], clock: (seconds: number) => string): string {
  const running = works.filter((work) => work.state === 'running')
  if (running.length === 0) {
    const paused = works.filter((work) => work.state === 'paused').length
    return `${counted(works.length, 'task')} ${paused === works.length ? 'paused' : 'waiting'}`
  }
  const shares = works.map(({ progress }) => (progress && progress.total > 0 ? progress.done / progress.total : 0))
  const percent = Math.floor((100 * shares.reduce((sum, share) => sum + share, 0)) / works.length)
  const ends = works.map(({ state, progress }) =>
    state === 'running' && progress && progress.total > 0 && progress.perSecond > 0
      ? (progress.total - progress.done) / progress.perSecond
      : undefined,
  )
  const ready = ends.every((end) => end !== undefined) ? `, ready at ${clock(Math.max(...ends))}` : ''
  return `${counted(works.length, 'task')}, ${percent} %${ready}`
}
