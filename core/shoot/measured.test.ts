import { describe, expect, it } from 'vitest'
import { differenceWords, differsFromPlan, measuredSentence, type ModeMeasured } from './measured'

const mode = (name: string, value: number, inUse: number, guessed = false): ModeMeasured => ({
  ...{ camera: 'Curlew', mode: name, inUse },
  learned: { value, guessed },
})

describe('what was learned of a mode', () => {
  it.each([
    [100.49, false, 'as stated'],
    [100.51, true, '0.5 % more'],
    [99.51, false, 'as stated'],
    [99.49, true, '0.5 % less'],
  ])('%f where 100 is planned differs: %s, and the words say the same', (value, differs, words) => {
    expect(differsFromPlan(mode('UHD', value, 100))).toBe(differs)
    expect(differenceWords(value, 100)).toBe(words)
  })

  it('is no difference while it is a guess', () => {
    expect(differsFromPlan(mode('UHD', 200, 100, true))).toBe(false)
  })

  it('is said in one sentence of all modes', () => {
    expect(measuredSentence([mode('UHD', 200, 100, true)])).toBe('Nothing of this plan was measured yet.')
    expect(measuredSentence([mode('UHD', 100, 100)])).toBe('The gear book uses the measured figures.')
    expect(measuredSentence([mode('HD', 100, 100), mode('UHD', 109, 100)])).toBe(
      'UHD of Curlew takes 9.0 % more than it is planned with.',
    )
    expect(measuredSentence([mode('UHD', 91, 100), mode('HD', 120, 100)])).toBe(
      'UHD of Curlew takes 9.0 % less than it is planned with, and 1 other mode differs.',
    )
  })
})
