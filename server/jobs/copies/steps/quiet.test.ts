import { setTimeout as sleep } from 'node:timers/promises'
import { describe, expect, it } from 'vitest'
import { QuietGate, TimeOver } from './quiet'

const WINDOW = 40

/** A drive that others move so many bytes a second on, while they do; what we read of it counts as well. */
function busyDrive() {
  const drive = { perSecond: 0, others: 0, own: 0, at: performance.now() }
  const moved = () => {
    const now = performance.now()
    drive.others += (drive.perSecond * (now - drive.at)) / 1000
    drive.at = now
    return Promise.resolve(drive.others + drive.own)
  }
  return { drive, moved }
}

const open = () => Promise.resolve()

describe('a gate for what can wait', () => {
  it('holds while others use the drive, and lets go when they are done', async () => {
    const { drive, moved } = busyDrive()
    const waits: boolean[] = []
    const gate = new QuietGate({
      moved,
      own: () => drive.own,
      gate: open,
      windowMs: WINDOW,
      onWait: (on) => waits.push(on),
    })
    await gate.pass()
    drive.perSecond = 1e12
    await sleep(2 * WINDOW)
    let isThrough = false
    const passing = gate.pass().then(() => (isThrough = true))
    await sleep(6 * WINDOW)
    expect([isThrough, waits]).toEqual([false, [true]])
    await moved()
    drive.perSecond = 0
    await passing
    expect(waits).toEqual([true, false])
  })

  it('is not held by what we read ourselves, nor where nobody can tell', async () => {
    const { drive, moved } = busyDrive()
    const waits: boolean[] = []
    const onWait = (on: boolean) => waits.push(on)
    const gate = new QuietGate({ moved, own: () => drive.own, gate: open, windowMs: WINDOW, onWait })
    for (let turn = 0; turn < 8; turn += 1) {
      await gate.pass()
      drive.own += 5e9
      await sleep(WINDOW / 2)
    }
    const blind = new QuietGate({
      moved: () => Promise.resolve(undefined),
      own: () => 0,
      gate: open,
      windowMs: WINDOW,
      onWait,
    })
    for (let turn = 0; turn < 4; turn += 1) {
      await blind.pass()
      await sleep(WINDOW)
    }
    expect(waits).toEqual([])
  })

  it('ends when its time is over, also while it holds, and when it is stopped', async () => {
    const { drive, moved } = busyDrive()
    drive.perSecond = 1e12
    const until = new Date(Date.now() + 5 * WINDOW)
    const gate = new QuietGate({ moved, own: () => 0, gate: open, windowMs: WINDOW, until })
    await expect(
      (async () => {
        for (;;) await gate.pass()
      })(),
    ).rejects.toThrow(TimeOver)
    const stopped = new QuietGate({ moved, own: () => 0, gate: () => Promise.reject(new Error('stopped')) })
    await expect(stopped.pass()).rejects.toThrow('stopped')
  })
})
