import { clockSentence, shiftWords, type ClockShift } from '../load/clock'
import { findingKeyOf, type Finding } from './findings'

/** What is to be said of the clock of a load: that it seems to be off, or that its times are shown moved. */
export function clockFinding(load: {
  readonly label: string
  readonly clock: ClockShift | null
  readonly clockShiftMs: number
}): Finding[] {
  const about = { paths: [], files: 0 }
  if (load.clockShiftMs !== 0)
    return [
      {
        kind: 'clock-moved',
        weight: 'note',
        ...about,
        key: 'clock-moved',
        shiftMs: 0,
        sentence:
          `The times of its clips are shown ${shiftWords(load.clockShiftMs)} than its camera wrote them. ` +
          'The files keep what they say.',
      },
    ]
  if (!load.clock) return []
  return [
    {
      kind: 'clock-off',
      weight: 'ask',
      ...about,
      key: findingKeyOf('clock-off', [String(load.clock.shiftMs)]),
      shiftMs: load.clock.shiftMs,
      sentence: clockSentence(load.label, load.clock),
    },
  ]
}
