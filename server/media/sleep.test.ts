import { describe, expect, it } from 'vitest'
import { Sleep } from './sleep'

describe('a computer that sleeps', () => {
  it('is told by two clocks, once, and not by their jitter', () => {
    let slept = 5_000_000
    const sleep = new Sleep(() => slept)
    expect(sleep.since()).toBe(0)
    slept += 1500
    expect(sleep.since()).toBe(0)
    slept += 3 * 3_600_000
    expect(sleep.since()).toBe(3 * 3_600_000 + 1500)
    expect(sleep.since()).toBe(0)
  })

  it('has slept for nothing while this test runs', () => {
    expect(new Sleep().since()).toBe(0)
  })
})
