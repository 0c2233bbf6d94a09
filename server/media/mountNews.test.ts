import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { MountNews } from './mountNews'

const AGAIN_MS = 5_000
const UNTIL = { timeout: 60_000 }
const CARD = '/media/ada/CURLEW'
let news: MountNews
let bin: string
const path = process.env.PATH

/** The program that tells of mounts, as a shell script. */
function findmnt(script: string): void {
  writeFileSync(join(bin, 'findmnt'), `#!/bin/sh\n${script}\n`)
  chmodSync(join(bin, 'findmnt'), 0o755)
}

/** Lets so many tries pass: each begins when its time has come, and ends when the system says so. */
async function tries(count: number): Promise<void> {
  for (let turn = 0; turn < count; turn += 1) {
    await vi.waitFor(() => expect(vi.getTimerCount()).toBe(1), UNTIL)
    await vi.waitUntil(() => !news.hears, UNTIL)
    vi.advanceTimersByTime(AGAIN_MS)
    // Its end is told by the system, not by a clock.
    for (let wait = 0; wait < 200 && vi.getTimerCount() === 0; wait += 1) await new Promise(setImmediate)
  }
}

beforeEach(() => {
  bin = mkdtempSync(join(tmpdir(), 'findmnt-'))
  process.env.PATH = bin
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  news = new MountNews()
})
afterEach(() => {
  news.stop()
  vi.useRealTimers()
  process.env.PATH = path
  rmSync(bin, { recursive: true, force: true })
})

describe('news of mounts', () => {
  it('end no stay of a card again and again where the system has no such program', async () => {
    news.start()
    const first = news.now
    await vi.waitUntil(() => !news.hears, UNTIL)
    // Whoever relied on it in the first moment is told.
    expect(news.changedSince(first, CARD)).toBe(true)
    const moment = news.now
    await tries(3)
    expect(news.hears).toBe(false)
    expect(news.changedSince(moment, CARD)).toBe(false)
  })

  it('are not relied on where the program ends as soon as it was started', async () => {
    findmnt('exit 1')
    news.start()
    await vi.waitUntil(() => !news.hears, UNTIL)
    const moment = news.now
    await tries(3)
    expect(news.changedSince(moment, CARD)).toBe(false)
  })
})
