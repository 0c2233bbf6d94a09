import { uptime } from 'node:os'
import { setTimeout as wait } from 'node:timers/promises'

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 30_000
/** Who has run for so long begins with a short pause again. */
const SETTLED_MS = 60_000
/** What could never be started at all is given up after so many tries. */
const MOST_TRIES = 3

const PING_MS = Number(process.env.YENDRA_PING_MS ?? 15_000)
const MOST_MISSED = 2

/** How long this computer has slept: one clock goes on while it sleeps, the other stands. */
const sleptSeconds = () => uptime() - performance.now() / 1000

/**
 * Keeps one part of the application alive: it is started again whenever it ends, with a growing pause, for as long as
 * nobody stops it. `start` gives a promise of `{ ended }`, a promise of why it ended. Settles when it runs for the
 * first time; rejects only when it cannot be started at all.
 */
export async function keep({ name, start, isStopping, onStarted }) {
  let pauseMs = FIRST_PAUSE_MS
  const pause = async () => {
    await wait(pauseMs)
    pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS)
  }
  let running
  for (let turn = 1; running === undefined; turn += 1) {
    try {
      running = await start()
    } catch (error) {
      if (isStopping()) return
      if (turn === MOST_TRIES) throw error
      await pause()
    }
  }
  onStarted(running)
  const goOn = async () => {
    for (;;) {
      const begun = performance.now()
      const why = await running.ended
      if (isStopping()) return
      if (performance.now() - begun > SETTLED_MS) pauseMs = FIRST_PAUSE_MS
      console.error(`${name} ended (${why}) and is started again.`)
      running = undefined
      while (running === undefined) {
        await pause()
        if (isStopping()) return
        running = await start().catch((error) => {
          if (!isStopping()) console.error(`${name} could not be started again: ${error.message}`)
        })
      }
      if (isStopping()) return
      onStarted(running)
    }
  }
  void goOn()
}

/**
 * Ends a program that does not answer any more; not one that only slept with its computer, or while this one was held.
 */
export function watchPings(child, name) {
  let [answered, missed, slept, due] = [true, 0, sleptSeconds(), performance.now() + PING_MS]
  child.on('message', (message) => {
    if (message === 'pong') answered = true
  })
  const timer = setInterval(() => {
    const [now, sleptNow] = [performance.now(), sleptSeconds()]
    const wasAway = sleptNow - slept > 1 || now - due > PING_MS / 2
    slept = sleptNow
    due = now + PING_MS
    missed = answered || wasAway ? 0 : missed + 1
    if (missed >= MOST_MISSED) {
      console.error(`${name} has not answered for ${Math.round((missed * PING_MS) / 1000)} s and is ended.`)
      child.kill('SIGKILL')
    }
    answered = false
    // It may have ended in this moment.
    child.send('ping', () => undefined)
  }, PING_MS)
  child.once('exit', () => clearInterval(timer))
}
