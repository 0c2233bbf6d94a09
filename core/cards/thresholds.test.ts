import { describe, expect, it } from 'vitest'
import { belongsTo } from './files/belongs'
import { clipsOf } from './files/clips'
import { frameRuns, isOneSize } from './files/frameRuns'
import { cameraByHabits } from './files/habit'
import { unknownKindFinding } from './files/unknownKind'
import { clockShift } from './load/clock'
import { recogniseLoads } from './load/load'
import { likelyRig, type LensCard } from './load/rig'
import { comparedPlace } from './load/stay'
import { UNSEEN } from './review/review'
import { takeReview } from './review/takeReview'

const upTo = (count: number) => Array.from({ length: count }, (_, at) => at)

// Each threshold just below and just above it; the thresholds themselves are common practice, no source.
describe('at its threshold', () => {
  it('a card belongs to what was filmed twelve hours from it', () => {
    const noon = Date.UTC(2026, 10, 14, 12)
    const belongs = (hours: number) => {
      const taken = [{ cameraId: null, from: noon - 60_000, to: noon }]
      const production = { id: 'p', shootOn: null, timeZone: 'UTC', cameraIds: [], cardIds: [], taken }
      const filmed = { from: noon + hours * 3_600_000, to: noon + hours * 3_600_000 }
      return belongsTo({ cardId: undefined, cameraId: undefined, filmed }, [production, { ...production, id: 'q', taken: [] }])?.why // prettier-ignore
    }
    expect([12, 12.001, -12.01, -12.02].map(belongs)).toEqual([
      ...['filmed together with 1 card of it', undefined, 'filmed together with 1 card of it', undefined],
    ])
  })

  it('a proxy without a time of recording is as long to a twentieth of a second', () => {
    const film = (path: string, seconds: number, framePx: number) => ({
      ...{ path, sizeBytes: framePx * 50, hasVideo: true, hasSound: true, seconds, framePx, rate: 25, codec: 'h264' },
      ...{ recordedMs: undefined, isWrong: false },
    })
    const clips = (off: number) => clipsOf([film('CLIP/C0041.MP4', 30, 8e6), film('SUB/C0041.MP4', 30 + off, 1e6)], [], new Map()).length // prettier-ignore
    expect([0.0499, 0.0501, -0.0499, -0.0501].map(clips)).toEqual([1, 2, 1, 2])
  })

  it('three frames are a clip, of stills twenty-four', () => {
    const runs = (ending: string, numbers: readonly number[]) =>
      frameRuns(numbers.map((at) => ({ path: `pole_${at + 100}.${ending}`, sizeBytes: 9, modifiedMs: 0 }))).length
    expect([2, 3].map((count) => runs('dng', upTo(count)))).toEqual([0, 1])
    expect([23, 24].map((count) => runs('jpg', upTo(count)))).toEqual([0, 1])
    const hole = (frames: number) => runs('dng', [...upTo(5), ...upTo(5).map((at) => at + 5 + frames)])
    expect([hole(23), hole(24)]).toEqual([1, 2])
  })

  it('frames are of one size where nine of ten are', () => {
    const sizes = (same: number, of: number) => isOneSize(upTo(of).map((at) => (at < same ? 100 : at)))
    expect([sizes(9, 10), sizes(89, 100), sizes(90, 100)]).toEqual([true, false, true])
  })

  it('a file of 1 MiB that nothing here opens is asked about, a smaller one is a list', () => {
    const found = (sizeBytes: number) => unknownKindFinding([{ path: 'A001.RAW', sizeBytes, modifiedMs: 0 }], 0).length
    expect([1_048_575, 1_048_576].map(found)).toEqual([0, 1])
  })

  it('half of its habits tell a camera', () => {
    const camera = (shared: number, of: number) =>
      cameraByHabits(
        upTo(of).map((at) => `A${'BCDEFGHIJKLMNOPQRSTUVWXYZ'[at]}#.MP#`),
        [{ cameraId: 'c', habits: upTo(shared).map((at) => `A${'BCDEFGHIJKLMNOPQRSTUVWXYZ'[at]}#.MP#`) }],
      )
    expect([camera(10, 20), camera(10, 21), camera(9, 18)]).toEqual(['c', undefined, 'c'])
  })

  it('six of ten starts tell a clock', () => {
    const starts = (count: number) => upTo(count).map((at) => at * 17 * 60_000 * (1 + at / 7))
    const shift = (matched: number, of: number) => {
      const mine = starts(of)
      return clockShift(mine, mine.slice(0, matched).map((at) => at + 4 * 3_600_000))?.shiftMs // prettier-ignore
    }
    expect([shift(6, 10), shift(7, 12)]).toEqual([4 * 3_600_000, undefined])
  })

  it('half of a load, or of its bytes, tells a card', () => {
    const files = (count: number) => upTo(count).map((at) => ({ path: `a${at}.MP4`, sizeBytes: 9, modifiedMs: 0 }))
    const known = (there: number, of: number) => recogniseLoads(files(there), [{ id: 'l', files: files(of) }]).length
    expect([known(10, 20), known(10, 21)]).toEqual([1, 0])
    const lists = (bytes: number) => [{ path: 'a.XML', sizeBytes: bytes, modifiedMs: 0 }]
    const byBytes = (bytes: number) => recogniseLoads(lists(bytes), [{ id: 'l', files: [...lists(bytes), { path: 'b.XML', sizeBytes: 100, modifiedMs: 0 }] }]).length // prettier-ignore
    expect([byBytes(100), byBytes(99)]).toEqual([1, 0])
  })

  it('six of ten takes make a rig', () => {
    const card = (label: string, lengths: readonly number[]): LensCard => ({
      ...{ loadId: label, label },
      clips: lengths.map((seconds, at) => ({
        id: `${label}${at}`,
        name: `POLE000${at}.MP4`,
        seconds,
        startMs: undefined,
      })),
    })
    const rig = (equal: number, of: number) => {
      const odd = (lens: number) => card(`${lens}`, upTo(of).map((at) => (at < equal ? at * 10 : at * 10 + lens * 3))) // prettier-ignore
      return likelyRig([odd(0), odd(1), odd(2)])?.length
    }
    expect([rig(6, 10), rig(4, 7)]).toEqual([3, undefined])
  })

  it('a place that is compared is 64 KiB, on a grid of 4 KiB, and reaches the end', () => {
    const last = (sizeBytes: number) => comparedPlace(sizeBytes, 0.999)
    expect([65_536, 65_537, 69_632, 69_633].map(last)).toEqual([0, 4096, 4096, 8192])
  })

  it('notes of a take are kept to two thousand characters', () => {
    const note = (length: number) =>
      takeReview([{ review: { ...UNSEEN, note: 'n'.repeat(length) }, length: 9 }]).note.length
    expect([1999, 2000, 2001].map(note)).toEqual([1999, 2000, 2000])
  })
})
