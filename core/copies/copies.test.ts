import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatChecksumList, parseChecksumList } from './checksumList'
import { clearToFormat, type ClearQuestion } from './clear'
import { markOf, type CopyFacts } from './mark'
import { printablePath } from './pathText'

const copy = (volumeName: string, more: Partial<CopyFacts> = {}): CopyFacts => ({
  volumeId: volumeName,
  volumeName,
  site: 'workshop',
  connected: true,
  filesWanted: 9,
  filesCopied: 9,
  filesVerified: 9,
  filesVerifiedFromCache: 0,
  filesMismatched: 0,
  filesInConflict: 0,
  mirrorLost: false,
  sizeBytes: 1e9,
  lastVerifiedAt: '2026-11-14T22:00:00Z',
  spotPlayedAt: undefined,
  ...more,
})
const played = { spotPlayedAt: '2026-11-14T22:10:00Z' }
const home: ClearQuestion = {
  copies: [copy('Slipway', played), copy('Tide 1')],
  policy: 'at-home-only',
  atHome: true,
  cardInReader: false,
  filesLeftOut: 0,
  thingsWrong: 0,
  formattedAt: undefined,
}

describe('the mark', () => {
  it('is held back by a single file', () => {
    expect(markOf(copy('Slipway', { filesCopied: 8 }))).toBe(0)
    expect(markOf(copy('Slipway', { filesVerified: 8 }))).toBe(1)
    expect(markOf(copy('Slipway', { filesVerified: 0, filesVerifiedFromCache: 9 }))).toBe(1)
    expect(markOf(copy('Slipway', { filesMismatched: 1 }))).toBe(0)
    expect(markOf(copy('Slipway'))).toBe(2)
    expect(markOf(copy('Slipway', played))).toBe(3)
    expect(markOf(copy('Slipway', { ...played, mirrorLost: true }))).toBe(0)
    expect(markOf(copy('Slipway', { filesWanted: 0, filesCopied: 0, filesVerified: 0 }))).toBe(0)
  })
})

describe('clear to format', () => {
  it('needs two verified copies, one played, and the own desk', () => {
    // Common practice, no source.
    expect(clearToFormat(home).clear).toBe(true)
    expect(clearToFormat({ ...home, copies: [copy('Slipway', played)] }).clear).toBe(false)
    expect(clearToFormat({ ...home, copies: [copy('Slipway'), copy('Tide 1')] }).clear).toBe(false)
    expect(clearToFormat({ ...home, atHome: false }).sentence).toContain('away')
    expect(clearToFormat({ ...home, copies: [...home.copies, copy('Tide 2', { filesMismatched: 1 })] }).clear).toBe(
      false,
    )
    expect(clearToFormat({ ...home, formattedAt: '2026-11-15T08:00:00Z' }).clear).toBe(false)
    expect(clearToFormat({ ...home, thingsWrong: 1 })).toMatchObject({
      clear: false,
      sentence: expect.stringContaining('1 thing on the card is wrong'),
    })
  })

  it('counts no copy whose folder is gone, and says so', () => {
    const answer = clearToFormat({ ...home, copies: [copy('Slipway', played), copy('Tide 1', { mirrorLost: true })] })
    expect(answer.clear).toBe(false)
    expect(answer.reasons.map((reason) => reason.sentence)).toContainEqual(
      expect.stringContaining('Tide 1: the copy was there and is gone'),
    )
    expect(clearToFormat({ ...home, copies: [...home.copies, copy('Tide 2', { mirrorLost: true })] }).clear).toBe(true)
  })

  it('may be asked for on the job, with the card out of the reader', () => {
    const away: ClearQuestion = { ...home, policy: 'reuse-on-the-job', atHome: false }
    expect(clearToFormat(away).clear).toBe(true)
    expect(clearToFormat({ ...away, cardInReader: true }).clear).toBe(false)
  })

  it('never says yes when fewer than two volumes are verified', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            copied: fc.integer({ min: 0, max: 9 }),
            verified: fc.integer({ min: 0, max: 9 }),
            bad: fc.integer({ min: 0, max: 1 }),
            seen: fc.boolean(),
          }),
          { maxLength: 5 },
        ),
        fc.boolean(),
        (volumes, atHome) => {
          const copies = volumes.map((one, at) =>
            copy(`V${at}`, {
              filesCopied: one.copied,
              filesVerified: Math.min(one.copied, one.verified),
              filesMismatched: one.bad,
              spotPlayedAt: one.seen ? 'x' : undefined,
            }),
          )
          const answer = clearToFormat({ ...home, copies, atHome })
          if (copies.filter((one) => markOf(one) >= 2).length < 2 || !atHome) expect(answer.clear).toBe(false)
        },
      ),
    )
  })
})

describe('checksum lists', () => {
  it('come back as they were written, whatever the path', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ hash: fc.stringMatching(/^[0-9a-f]{16}$/), path: fc.stringMatching(/^[\x01-\xff]{1,40}$/) }),
          { maxLength: 20 },
        ),
        (sums) => {
          expect(parseChecksumList(formatChecksumList(sums))).toEqual(sums)
        },
      ),
    )
    expect(() => parseChecksumList('hello')).toThrow('Line 1')
  })
})

describe('paths as text', () => {
  it('prints what can be printed and escapes the rest', () => {
    expect(printablePath(new TextEncoder().encode('DCIM/Möwe.MP4'))).toBe('DCIM/Möwe.MP4')
    expect(printablePath(new TextEncoder().encode('a\nb\\'))).toBe('a\\nb\\\\')
    expect(printablePath(Uint8Array.of(0x61, 0xff, 0xc3, 0xb6))).toBe('a\\xffö')
  })

  it('never prints two different paths alike', () => {
    const bytes = fc.uint8Array({ minLength: 1, maxLength: 6 })
    fc.assert(fc.property(bytes, bytes, (a, b) => (printablePath(a) === printablePath(b)) === (a.join() === b.join())))
  })
})
