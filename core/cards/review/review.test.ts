import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { STANDARD_RATES } from '../../media/cadence'
import { frameRate } from '../../units/frameRate'
import { urlPath } from '../../units/urlPath'
import {
  rangesOf,
  reviewSentence,
  reviewSum,
  tidyRanges,
  TIME_TICKS,
  timesOf,
  usedRanges,
  withHandles,
  type ClipRange,
  type Verdict,
} from './review'
import { piecesOf, selectRows, selectsTimeline, type Select } from './selects'

const RATE = frameRate(25)
const clip = (verdict: Verdict | null, ranges: readonly ClipRange[] = [], frames = 250) => ({
  review: { verdict, ranges },
  frames,
  rate: RATE,
  sizeBytes: 1000,
})

describe('ranges', () => {
  it('are in order, inside the clip, and one where they overlap or touch', () => {
    expect(
      tidyRanges(
        [
          { from: 90, to: 130 },
          { from: 10, to: 20 },
          { from: 20, to: 25 },
          { from: 60, to: 60 },
        ],
        100,
      ),
    ).toEqual([
      { from: 10, to: 25 },
      { from: 90, to: 100 },
    ])
  })

  it('hold just the frames that some range holds, whatever is given', () => {
    const frame = fc.integer({ min: 0, max: 60 })
    fc.assert(
      fc.property(
        fc.array(fc.record({ from: frame, to: frame })),
        fc.integer({ min: 1, max: 50 }),
        (ranges, frames) => {
          const tidy = tidyRanges(ranges, frames)
          const isIn = (list: readonly ClipRange[], at: number) => list.some(({ from, to }) => from <= at && at < to)
          for (let at = 0; at < frames; at += 1) expect(isIn(tidy, at)).toBe(isIn(ranges, at))
          expect(tidyRanges(tidy, frames)).toEqual(tidy)
          for (const [place, { from, to }] of tidy.entries()) {
            expect(from).toBeLessThan(to)
            expect(from).toBeGreaterThan(tidy[place - 1]?.to ?? -1)
            expect(to).toBeLessThanOrEqual(frames)
          }
        },
      ),
    )
  })

  it('keep a handle of a second on either side, as far as the clip goes', () => {
    // Common practice, no source: one second.
    expect(withHandles([{ from: 50, to: 100 }], 250, RATE)).toEqual([{ from: 25, to: 125 }])
    expect(
      withHandles(
        [
          { from: 10, to: 40 },
          { from: 60, to: 90 },
        ],
        100,
        RATE,
      ),
    ).toEqual([{ from: 0, to: 100 }])
    expect(usedRanges(clip('keep'))).toEqual([{ from: 0, to: 250 }])
  })
})

describe('what a review comes to', () => {
  it('counts what is kept, and only the seconds that are used', () => {
    const sum = reviewSum([clip('keep'), clip('keep', [{ from: 50, to: 100 }]), clip('maybe'), clip('reject')], 7)
    expect(sum).toEqual({
      ...{ clips: 7, keep: 2, maybe: 1, reject: 1, seconds: 12, secondsWithHandles: 14 },
      sizeBytes: 2000,
    })
    expect(reviewSentence(sum)).toBe('2 of 7 clips kept, 12 s used, 1 maybe; 3 are still to be looked at.')
    expect(reviewSentence(reviewSum([clip('keep')], 1))).toContain('Every clip has been looked at.')
    expect(reviewSentence(reviewSum([], 3))).toBe('3 clips, none of them looked at.')
    expect(reviewSentence(reviewSum([], 0))).toContain('nothing to look at yet')
  })
})

const select = (more: Partial<Select> = {}): Select => ({
  clipId: 'c1',
  name: 'CURL0041.MP4',
  path: 'DCIM/100CURLW/CURL0041.MP4',
  load: 'Curlew A',
  note: '',
  rate: RATE,
  length: 100,
  ranges: [],
  timecode: '09:12:00:00',
  hasPicture: true,
  hasSound: true,
  verdict: 'keep',
  shot: 'Ribs into the steam',
  sizeBytes: 5000,
  url: 'file:///media/slipway/CURL0041.MP4',
  ...more,
})

describe('ranges as times', () => {
  it('come back as the frames they were, at every rate that cameras know', () => {
    const rate = fc.constantFrom(...STANDARD_RATES, TIME_TICKS, { num: 2997, den: 100 })
    fc.assert(
      fc.property(rate, fc.nat(2_000_000), fc.integer({ min: 1, max: 2_000_000 }), (one, from, length) => {
        const range = { from, to: from + length }
        expect(rangesOf(timesOf([range], one), one)).toEqual([range])
      }),
    )
  })

  it('stay where they are when the clip is found to have another rate', () => {
    const times = timesOf([{ from: 25, to: 50 }], frameRate(25))
    expect(times).toEqual([{ from: 1_000_000, to: 2_000_000 }])
    expect(rangesOf(times, frameRate(50))).toEqual([{ from: 50, to: 100 }])
    // A piece shorter than a frame is one frame.
    expect(rangesOf([{ from: 100, to: 200 }], frameRate(25))).toEqual([{ from: 0, to: 1 }])
  })
})

describe('selects', () => {
  const two = select({
    ranges: [
      { from: 10, to: 35 },
      { from: 50, to: 100 },
    ],
    note: 'the good one',
  })

  it('are one piece a range, or the whole clip', () => {
    expect(piecesOf([two, select({ name: 'B' })]).map(({ name, seconds }) => [name, seconds])).toEqual([
      ['CURL0041.MP4 1', 1],
      ['CURL0041.MP4 2', 2],
      ['B', 4],
    ])
  })

  it('stand in a table with first and last frame, and the addresses of both', () => {
    const [header, first] = selectRows([two])
    const row = Object.fromEntries((header ?? []).map((name, at) => [name, first?.[at]]))
    expect(row).toMatchObject({ 'first frame': '10', 'last frame': '34', rate: '25/1', seconds: '1.000' })
    // Source: SMPTE ST 12-1, 25 frames a second: 10 frames after 09:12:00:00, and 34.
    expect(row).toMatchObject({ 'timecode in': '09:12:00:10', 'timecode out': '09:12:01:09', note: 'the good one' })
    expect(row).toMatchObject({ verdict: 'keep', shot: 'Ribs into the steam' })
  })

  // From memory: the published description of OpenTimelineIO’s schemas, object by object.
  const FIELDS: Record<string, readonly string[]> = {
    'Timeline.1': ['metadata', 'name', 'global_start_time', 'tracks'],
    'Stack.1': ['metadata', 'name', 'source_range', 'effects', 'markers', 'enabled', 'children'],
    'Track.1': ['metadata', 'name', 'source_range', 'effects', 'markers', 'enabled', 'children', 'kind'],
    'Clip.2': [
      ...['metadata', 'name', 'source_range', 'effects', 'markers', 'enabled'],
      ...['media_references', 'active_media_reference_key'],
    ],
    'ExternalReference.1': ['metadata', 'name', 'available_range', 'available_image_bounds', 'target_url'],
    'TimeRange.1': ['duration', 'start_time'],
    'Gap.1': ['metadata', 'name', 'source_range', 'effects', 'markers', 'enabled'],
    'RationalTime.1': ['rate', 'value'],
  }

  it('leave as a timeline whose every object is as the format describes it', () => {
    const counts = new Map<string, number>()
    const walk = (value: unknown): void => {
      if (Array.isArray(value)) return value.forEach(walk)
      if (typeof value !== 'object' || value === null) return
      const { OTIO_SCHEMA: schema, ...rest } = value as Record<string, unknown>
      if (typeof schema === 'string') {
        counts.set(schema, (counts.get(schema) ?? 0) + 1)
        expect(Object.keys(rest).sort(), schema).toEqual([...(FIELDS[schema] ?? [])].sort())
      }
      Object.values(rest).forEach(walk)
    }
    const recording = select({ hasPicture: false, rate: frameRate(1000), timecode: undefined, length: 20_000 })
    walk(JSON.parse(selectsTimeline('Steam-bending ribs', [two, select({ hasSound: false }), recording])))
    expect(Object.fromEntries(counts)).toEqual({
      ...{ 'Timeline.1': 1, 'Stack.1': 1, 'Track.1': 3, 'Clip.2': 6, 'Gap.1': 1, 'ExternalReference.1': 6 },
      ...{ 'TimeRange.1': 13, 'RationalTime.1': 26 },
    })
  })

  it('lay the sound of every film beside its picture, and nothing beside a silent one', () => {
    interface Child {
      OTIO_SCHEMA: string
      source_range: { duration: { value: number; rate: number } }
    }
    const { tracks } = JSON.parse(selectsTimeline('x', [two, select({ hasSound: false }), select()])) as {
      tracks: { children: { kind: string; children: Child[] }[] }
    }
    const [films, sound, ...more] = tracks.children
    expect([films?.kind, sound?.kind, more]).toEqual(['Video', 'Audio', []])
    const lengths = (children: Child[] = []) => children.map((one) => one.source_range.duration)
    expect(lengths(sound?.children)).toEqual(lengths(films?.children))
    expect(sound?.children.map((one) => one.OTIO_SCHEMA)).toEqual(['Clip.2', 'Clip.2', 'Gap.1', 'Clip.2'])
    const silent = JSON.parse(selectsTimeline('x', [select({ hasSound: false })])) as typeof tracks & {
      tracks: { children: unknown[] }
    }
    expect(silent.tracks.children).toHaveLength(1)
  })

  it('begin at their timecode inside what the file has', () => {
    interface Clip2 {
      source_range: { start_time: { value: number; rate: number }; duration: { value: number } }
      media_references: { DEFAULT_MEDIA: { available_range: Clip2['source_range'] } }
    }
    const ntsc = select({ rate: frameRate(30_000, 1001), timecode: '01:00:00;00', ranges: [{ from: 5, to: 8 }] })
    const { tracks } = JSON.parse(selectsTimeline('x', [ntsc])) as { tracks: { children: { children: Clip2[] }[] } }
    const own = tracks.children[0]?.children[0]
    // Source: SMPTE ST 12-1: one hour of drop-frame is 107 892 frames.
    expect(own?.media_references.DEFAULT_MEDIA.available_range.start_time.value).toBe(107_892)
    expect(own?.source_range).toMatchObject({ start_time: { value: 107_897 }, duration: { value: 3 } })
    expect(own?.source_range.start_time.rate).toBeCloseTo(29.97002997, 6)
  })

  it('point at files of any name', () => {
    // Source: RFC 3986, section 3.3 (pchar) and 2.1 (percent-encoding).
    expect(urlPath(Buffer.from('/tide/caf\xe9 #1?.MP4', 'latin1'))).toBe('/tide/caf%E9%20%231%3F.MP4')
    fc.assert(
      fc.property(fc.uint8Array({ min: 1, maxLength: 40 }), (bytes) => {
        const url = new URL(`file:///${urlPath(bytes)}`)
        expect(url.hash + url.search).toBe('')
      }),
    )
  })
})
