import { describe, expect, it } from 'vitest'
import { inLanes } from './lanes'

describe('work in lanes', () => {
  it('has ended in every lane before its error is thrown: nothing is made behind the back of who cleans up', async () => {
    const made: string[] = []
    const blocks = [new Uint8Array(1), new Uint8Array(1)]
    const slowly = () => new Promise((resolve) => setTimeout(resolve, 20))
    const work = inLanes(['stopped', 'slow', 'never'], blocks, async (item) => {
      if (item === 'stopped') throw new Error('stopped')
      await slowly()
      made.push(item)
    })
    await expect(work).rejects.toThrow('stopped')
    expect(made).toEqual(['slow'])
    await slowly()
    expect(made).toEqual(['slow'])
  })

  it('goes through every item with as many lanes as there are blocks', async () => {
    const done: [string, number][] = []
    const blocks = [Uint8Array.of(0), Uint8Array.of(1)]
    await inLanes(['a', 'b', 'c'], blocks, (item, block) => {
      done.push([item, block[0] ?? -1])
      return Promise.resolve()
    })
    expect(done.map(([item]) => item).sort()).toEqual(['a', 'b', 'c'])
    expect(new Set(done.map(([, lane]) => lane))).toEqual(new Set([0, 1]))
  })
})
