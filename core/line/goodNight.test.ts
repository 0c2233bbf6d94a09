import { describe, expect, it } from 'vitest'
import { goodNight, type NightWork } from './goodNight'

const clock = (seconds: number) => `01:${String(Math.round(seconds / 60)).padStart(2, '0')}`
const work = (more: Partial<NightWork> = {}): NightWork => ({
  ...{ label: 'Curlew A', kind: 'copy', endsInSeconds: 600, paused: false },
  ...more,
})

describe('what is said before one goes to bed', () => {
  it('is nothing where nothing is under way', () => {
    expect(goodNight([], ['“Plover” is not scanned'], clock)).toBeUndefined()
  })

  it('is when everything is proved, by what ends last, and that nothing waits', () => {
    expect(goodNight([work(), work({ label: 'Plover B', endsInSeconds: 2400 })], [], clock)).toBe(
      '“Curlew A” and “Plover B” will be proved at 01:40; nothing waits for you.',
    )
    expect(goodNight([work(), work({ kind: 'other', label: 'a proxy', endsInSeconds: 900 })], [], clock)).toBe(
      '“Curlew A” will be proved at 01:15 and 1 other task will be done by then; nothing waits for you.',
    )
  })

  it('names what waits, and what is paused, and promises no time that is not known', () => {
    expect(goodNight([work({ endsInSeconds: undefined })], [], clock)).toBe(
      '“Curlew A” will be proved; how long it takes is known in a moment; nothing waits for you.',
    )
    expect(goodNight([work({ paused: true })], ['Tide is full'], clock)).toBe(
      'Nothing goes on; 2 things wait for you: “Curlew A” is paused and Tide is full.',
    )
  })
})
