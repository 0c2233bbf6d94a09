import { expect, it } from 'vitest'
import { workLine, type OpenWork } from './workLine'

const work = (done: number, total: number, perSecond: number, state: OpenWork['state'] = 'running'): OpenWork => ({
  state,
  progress: { done, total, perSecond },
})
const said = (...works: OpenWork[]) => workLine(works, (seconds) => `+${seconds}`)

it('all work is said in one line: how much, how far, and when the last is ready', () => {
  expect(said(work(50, 100, 5))).toBe('1 task, 50 %, ready at +10')
  expect(said(work(50, 100, 5), work(0, 10, 0.5))).toBe('2 tasks, 25 %, ready at +20')
  expect(said(work(199, 200, 1))).toBe('1 task, 99 %, ready at +1')
  // Where one does not know when, nobody knows.
  expect(said(work(50, 100, 0))).toBe('1 task, 50 %')
  expect(said(work(50, 100, 5), { state: 'running', progress: null })).toBe('2 tasks, 25 %')
  expect(said(work(50, 100, 5), work(0, 0, 0))).toBe('2 tasks, 25 %')
  expect(said(work(50, 100, 5), work(0, 100, 5, 'queued'))).toBe('2 tasks, 25 %')
  expect(said(work(50, 100, 5), work(50, 100, 5, 'paused'))).toBe('2 tasks, 50 %')
  expect(said(work(5, 10, 1, 'paused'))).toBe('1 task paused')
  expect(said({ state: 'queued', progress: null }, work(5, 10, 1, 'paused'))).toBe('2 tasks waiting')
})
