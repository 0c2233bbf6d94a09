import { describe, expect, it } from 'vitest'
import { ageOf, isFresh } from './age'
import type { ClearQuestion } from './clearQuestion'
import type { CopyFacts } from './mark'
import { AT_HOME_ONLY } from './rule'
import { riskSample, SAMPLE_BOUNDS, type SampledFile } from './riskSample'

const NOW = Date.parse('2026-11-15T22:00:00Z')
const HOUR = 3_600_000
const provedAgo = (ms: number): CopyFacts => ({ firstVerifiedAt: new Date(NOW - ms).toISOString() }) as CopyFacts

describe('the age of a proof', () => {
  const fresh = (ms: number, proofHours = 24) =>
    isFresh(provedAgo(ms), { now: NOW, rule: { ...AT_HOME_ONLY, proofHours } } as ClearQuestion)

  it('counts to the end of the hours that the rule gives, and not a millisecond more', () => {
    expect([fresh(24 * HOUR), fresh(24 * HOUR + 1)]).toEqual([true, false])
    expect([fresh(HOUR, 1), fresh(HOUR + 1, 1)]).toEqual([true, false])
  })

  it('is said in hours for two days, then in days', () => {
    expect([HOUR - 1, HOUR, 48 * HOUR - 1, 48 * HOUR, 72 * HOUR - 1].map((ms) => ageOf(provedAgo(ms), NOW))).toEqual([
      ...['less than an hour ago', '1 hour ago', '47 hours ago', '2 days ago', '2 days ago'],
    ])
  })
})

describe('a risk sample', () => {
  const file = (id: number, more: Partial<SampledFile> = {}): SampledFile => ({
    ...{ id, sizeBytes: 0, provedAt: NOW, memory: false },
    ...more,
  })
  /** How often the first of two is drawn where one is drawn of the two; its share of both weights. */
  const share = (first: Partial<SampledFile>) => {
    const turns = 4000
    const drawn = Array.from({ length: turns }, (_, turn) =>
      riskSample([file(1, first), file(2)], `turn ${turn}`, NOW, { files: 1, bytes: 1e15 }),
    )
    return drawn.filter(([id]) => id === 1).length / turns
  }

  it('draws by the weights of size, age and memory, each against one file of weight 1', () => {
    // Efraimidis and Spirakis, 2006: of two the one of weight w is drawn in w of w + 1 cases.
    // By the rule of this project: 7 MB weigh 1 + log2(8) = 4, two days 3, memory 4.
    expect(share({})).toBeCloseTo(1 / 2, 1)
    expect(share({ sizeBytes: 7e6 })).toBeCloseTo(4 / 5, 1)
    expect(share({ provedAt: NOW - 48 * HOUR })).toBeCloseTo(3 / 4, 1)
    expect(share({ memory: true })).toBeCloseTo(4 / 5, 1)
    expect(share({ sizeBytes: 7e6, provedAt: NOW - 48 * HOUR, memory: true })).toBeGreaterThan(0.96)
    // A clock that was set back makes no file safer than new.
    expect(share({ provedAt: NOW + 480 * HOUR })).toBeCloseTo(1 / 2, 1)
  })

  it('holds 48 files and 4 GB, the last byte included, and one file whatever its size', () => {
    expect(SAMPLE_BOUNDS).toEqual({ files: 48, bytes: 4e9 })
    const many = (count: number, sizeBytes: number) => Array.from({ length: count }, (_, id) => file(id, { sizeBytes }))
    expect(riskSample(many(48, 1), 'a', NOW)).toHaveLength(48)
    expect(riskSample(many(49, 1), 'a', NOW)).toHaveLength(48)
    expect(riskSample(many(2, 2e9), 'a', NOW)).toHaveLength(2)
    expect(riskSample(many(2, 2e9 + 1), 'a', NOW)).toHaveLength(1)
    expect(riskSample(many(1, 9e12), 'a', NOW)).toEqual([0])
  })
})
