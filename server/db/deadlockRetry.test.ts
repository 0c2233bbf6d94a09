import { describe, expect, it } from 'vitest'
import { retryDeadlocks } from './deadlockRetry'

const failure = (code: string) => Object.assign(new Error(code), { code })

describe('work on the database', () => {
  it('is done again when it waited for others in a circle, a few times, and for no other reason', async () => {
    let turns = 0
    const failing = (times: number, code: string) => () =>
      (turns += 1) > times ? Promise.resolve(turns) : Promise.reject(failure(code))
    await expect(retryDeadlocks(failing(2, '40P01'))).resolves.toBe(3)
    turns = 0
    await expect(retryDeadlocks(failing(99, '40P01'))).rejects.toThrow('40P01')
    expect(turns).toBe(5)
    turns = 0
    await expect(retryDeadlocks(failing(99, '23505'))).rejects.toThrow('23505')
    expect(turns).toBe(1)
  })
})
