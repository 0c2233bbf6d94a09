import { describe, expect, it } from 'vitest'
import { Stopped } from '../engine/tool/stopped'
import { TaskControl } from './control'

/** Whether a promise has come to its end by now. */
async function isSettled(promise: Promise<unknown>): Promise<boolean> {
  const open = Symbol('open')
  const first = await Promise.race([
    promise.catch(() => undefined),
    new Promise((resolve) => setTimeout(() => resolve(open), 5)),
  ])
  return first !== open
}

describe('a task under the person’s hand', () => {
  it('goes through its gate until it is paused, and on when it is resumed', async () => {
    const control = new TaskControl()
    expect(await isSettled(control.gate())).toBe(true)
    control.obey('pause')
    const waiting = control.gate()
    expect(await isSettled(waiting)).toBe(false)
    control.obey('pause')
    control.obey('resume')
    await expect(waiting).resolves.toBeUndefined()
  })

  it('stops at its gate, also when it was paused', async () => {
    const running = new TaskControl()
    running.obey('stop')
    await expect(running.gate()).rejects.toBeInstanceOf(Stopped)
    const paused = new TaskControl()
    paused.obey('pause')
    const waiting = paused.gate()
    paused.obey('stop')
    await expect(waiting).rejects.toBeInstanceOf(Stopped)
    expect(paused.signal.aborted).toBe(true)
  })

  it('pauses outside programs too, even those that start while it is paused', () => {
    const control = new TaskControl()
    const told: boolean[] = []
    const forget = control.onPause((paused) => told.push(paused))
    control.obey('pause')
    control.obey('resume')
    expect(told).toEqual([true, false])
    forget()
    control.obey('pause')
    expect(told).toEqual([true, false])
    const late: boolean[] = []
    control.onPause((paused) => late.push(paused))
    expect(late).toEqual([true])
  })
})
