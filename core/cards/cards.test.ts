import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clipFindings } from './findings/clipFindings'
import { cardSentence } from './load/cardSentence'
import { counterGaps } from './files/counters'
import { parseDcfName } from './files/dcf'
import {
  cardFindings,
  openQuestions,
  openStops,
  withAnswers,
  type EntryCount,
  type ScannedClip,
} from './findings/findings'
import { cardChanges, differenceSentence, filesToSample, recogniseLoads } from './load/load'

const clip = (path: string, more: Partial<ScannedClip> = {}): ScannedClip => ({
  path,
  sizeBytes: 1000,
  seconds: 10,
  recordedAt: '2026-11-14T09:00:00Z',
  pictureMade: true,
  trouble: undefined,
  hasPicture: true,
  cut: undefined,
  ...more,
})

const looked = (clips: readonly ScannedClip[]) => ({ clips: clips.length, seconds: 10 * clips.length, lookDone: true })
const findingsOf = (counts: readonly EntryCount[], clips: readonly ScannedClip[], shootDay: string | undefined) =>
  cardFindings(counts, clipFindings(clips, shootDay), looked(clips))

describe('camera file names', () => {
  it('reads folder, prefix and counter', () => {
    // Source: CIPA DC-009 (DCF 2.0): directory names three digits 100–999 and five characters, file names four
    // characters and 0001–9999.
    expect(parseDcfName('DCIM/100CURLW/CURL0041.MP4')).toEqual({ folder: 100, prefix: 'CURL', counter: 41 })
    expect(parseDcfName('DCIM/099CURLW/CURL0041.MP4')?.folder).toBeUndefined()
    expect(parseDcfName('DCIM/100CURLW/CURL0000.MP4')).toBeUndefined()
    expect(parseDcfName('notes.txt')).toBeUndefined()
  })

  it('finds the hole and lets the counter wrap', () => {
    const names = (...counters: number[]) =>
      counters.map((counter) => `DCIM/100CURLW/CURL${String(counter).padStart(4, '0')}.MP4`)
    expect(counterGaps(names(41, 42, 44))).toEqual([{ after: 'CURL0042', before: 'CURL0044', missing: 1 }])
    expect(counterGaps(names(9998, 9999, 1, 2))).toEqual([])
    expect(counterGaps(names(7))).toEqual([])
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), fc.integer({ min: 1, max: 400 }), (start, length) => {
        const run = Array.from({ length }, (_, at) => ((start - 1 + at) % 9999) + 1)
        expect(counterGaps(names(...run))).toEqual([])
      }),
    )
  })
})

describe('what is said of a card', () => {
  it('stops at empty, unreadable and undecodable clips, and asks about the gap', () => {
    const clips = [
      clip('DCIM/100CURLW/CURL0041.MP4'),
      clip('DCIM/100CURLW/CURL0042.MP4', { sizeBytes: 0, trouble: 'empty' }),
      clip('DCIM/100CURLW/CURL0044.MP4', { trouble: 'no index' }),
      clip('DCIM/100CURLW/CURL0045.MP4', { pictureMade: false }),
    ]
    const findings = findingsOf([], clips, '2026-11-14')
    expect(findings.map((finding) => [finding.kind, finding.weight])).toEqual([
      ['empty', 'stop'],
      ['unreadable', 'stop'],
      ['no-picture', 'stop'],
      ['gap', 'ask'],
    ])
    expect(cardSentence(looked(clips), findings)).toContain('3 things wrong')
    const settled = withAnswers(findings, new Map([[findings[0]?.key ?? '', 'A false start']]))
    expect(openStops(settled)).toBe(2)
  })

  it('asks when the clock strayed and reports links without following them', () => {
    const findings = findingsOf(
      [{ kind: 'link', files: 1, key: 'link 1', paths: ['DCIM/away'] }],
      [clip('A', { recordedAt: '2015-01-01T00:00:00Z' })],
      '2026-11-14',
    )
    expect(findings.map((finding) => finding.kind)).toEqual(['clock', 'link'])
  })

  it('stops at what is gone without a copy, and only notes what is gone and copied', () => {
    const counts = [
      { kind: 'lost', files: 1, key: 'lost 1', paths: ['CURL0007.MP4'] },
      { kind: 'gone', files: 9000, key: 'gone 1', paths: ['CURL0008.MP4', 'a\\xff'] },
    ] as const
    const findings = findingsOf(counts, [clip('CURL0009.MP4')], undefined)
    expect(findings.map((finding) => [finding.kind, finding.weight, finding.files])).toEqual([
      ['lost', 'stop', 1],
      ['gone', 'note', 9000],
    ])
    expect(findings[1]?.sentence).toContain('9000 files')
    expect(findings[0]?.sentence).toContain('no volume holds a copy')
    expect(openStops(findings)).toBe(1)
  })

  it('asks no more once a question is answered, and asks again when the card shows another gap', () => {
    const clips = [clip('DCIM/100CURLW/CURL0041.MP4'), clip('DCIM/100CURLW/CURL0043.MP4')]
    const asked = findingsOf([], clips, undefined)
    const answers = new Map(asked.map((finding) => [finding.key, 'Deleted in the camera']))
    const answered = withAnswers(asked, answers)
    expect(answered[0]?.answer).toBe('Deleted in the camera')
    expect(openQuestions(answered)).toBe(0)
    expect(cardSentence(looked(clips), answered)).toContain('1 problem settled by you, nothing else wrong')
    expect(openQuestions(withAnswers(asked, new Map(asked.map((finding) => [finding.key, null]))))).toBe(1)
    expect(
      openQuestions(withAnswers(findingsOf([], [...clips, clip('DCIM/100CURLW/CURL0046.MP4')], undefined), answers)),
    ).toBe(1)
  })

  it('asks about many gaps of a counter as one, and says of an unfinished scan that it is none', () => {
    const clips = Array.from({ length: 3000 }, (_, at) =>
      clip(`DCIM/100CURLW/CURL${String(at * 3 + 1).padStart(4, '0')}.MP4`),
    )
    const findings = findingsOf([], clips, undefined)
    expect(findings).toHaveLength(9)
    expect(findings.reduce((sum, finding) => sum + finding.files, 0)).toBe(2999 * 2)
    expect(findings.at(-1)?.sentence).toMatch(/in 2991 more places, from CURL0025 on: 5982 numbers missing/)
    const one = [clip('DCIM/100CURLW/CURL0041.MP4')]
    expect(cardSentence({ ...looked(one), lookDone: false }, findingsOf([], one, undefined))).toContain('not finished')
    expect(cardSentence({ ...looked(one), lookDone: false }, findingsOf([], one, undefined), true)).toBe(
      '1 clip so far: it is being scanned.',
    )
  })

  it('notes variable rates, fields and high range, which ask nothing and stop nothing', () => {
    const odd = { variable: false, interlaced: false, curve: undefined }
    const clips = [
      clip('DCIM/100CURLW/CURL0001.MP4', { odd: { ...odd, variable: true } }),
      clip('DCIM/100CURLW/CURL0002.MP4', { odd: { ...odd, interlaced: true } }),
      clip('DCIM/100CURLW/CURL0003.MP4', { odd: { ...odd, curve: 'HLG' } }),
      clip('DCIM/100CURLW/CURL0004.MP4', { odd }),
    ]
    const found = findingsOf([], clips, undefined)
    expect(found.map(({ kind, weight, files }) => [kind, weight, files])).toEqual([
      ['variable', 'note', 1],
      ['interlaced', 'note', 1],
      ['high-range', 'note', 1],
    ])
    expect(found[2]?.sentence).toContain('HLG (BT.2100)')
    expect(cardSentence(looked(clips), found)).toContain('nothing wrong found')
  })

  it('has nothing to say of a sound recorder’s good files', () => {
    expect(findingsOf([], [clip('FIELD1/TAKE_01.WAV', { hasPicture: false, pictureMade: false })], undefined)).toEqual(
      [],
    )
  })
})

describe('which load a card holds', () => {
  const files = [
    { path: 'A', sizeBytes: 1, modifiedMs: 1000 },
    { path: 'B', sizeBytes: 2, modifiedMs: 2000 },
  ]
  const first = (here: typeof files, known: { id: string; files: typeof files }[]) => recogniseLoads(here, known)[0]

  it('knows a load that has grown, and takes a formatted card for new', () => {
    const monday = [{ id: 'monday', files }]
    expect(first([...files, { path: 'C', sizeBytes: 3, modifiedMs: 3000 }], monday)).toEqual({
      id: 'monday',
      shiftMs: 0,
    })
    expect(first([{ path: 'A', sizeBytes: 1, modifiedMs: 9000 }], monday)).toBeUndefined()
    expect(first([], [{ id: 'empty', files: [] }])).toBeUndefined()
  })

  it('is not misled by the few files that a camera writes after every format', () => {
    const clips = Array.from({ length: 9 }, (_, at) => ({ path: `CURL000${at}.MP4`, sizeBytes: 1, modifiedMs: at }))
    const version = { path: 'MISC/VERSION.TXT', sizeBytes: 22, modifiedMs: 0 }
    const monday = [{ id: 'monday', files: [...clips, version] }]
    expect(first([version, { path: 'CURL0010.MP4', sizeBytes: 1, modifiedMs: 10 }], monday)).toBeUndefined()
    expect(first([version, ...clips.slice(0, 4)], monday)?.id).toBe('monday')
    // One clip, and a file larger than it that every format leaves behind.
    const single = { path: 'CURL0001.MP4', sizeBytes: 10, modifiedMs: 5 }
    expect(first([version, { ...single, modifiedMs: 9 }], [{ id: 'one', files: [single, version] }])).toBeUndefined()
  })

  it('knows it by half of its clips or files, and by no less', () => {
    const clips = Array.from({ length: 10 }, (_, at) => ({ path: `CURL000${at}.MP4`, sizeBytes: 1, modifiedMs: at }))
    const monday = [{ id: 'monday', files: clips }]
    expect([first(clips.slice(0, 5), monday)?.id, first(clips.slice(0, 4), monday)]).toEqual(['monday', undefined])
    // Without clips half of the files must be there, and half of the bytes.
    const notes = [1, 1, 1, 1].map((sizeBytes, at) => ({ path: `NOTES/${at}.TXT`, sizeBytes, modifiedMs: at }))
    expect(first(notes.slice(0, 2), [{ id: 'notes', files: notes }])?.id).toBe('notes')
    expect(first(notes.slice(0, 1), [{ id: 'notes', files: notes }])).toBeUndefined()
    const heavy = notes.map((file, at) => ({ ...file, sizeBytes: at === 3 ? 4 : 1 }))
    expect(first(heavy.slice(0, 3), [{ id: 'heavy', files: heavy }])).toBeUndefined()
  })

  it('knows it after a shift of 26 hours at most, which no zone exceeds with summer time', () => {
    const moved = (hours: number) => files.map((file) => ({ ...file, modifiedMs: file.modifiedMs + hours * 3_600_000 }))
    const monday = [{ id: 'monday', files }]
    expect([26, -26, 27, -27].map((hours) => first(moved(hours), monday)?.id)).toEqual([
      ...['monday', 'monday', undefined, undefined],
    ])
  })

  it('knows it after the clock moved by whole hours, and not by anything else', () => {
    const moved = (byMs: number) => files.map((file) => ({ ...file, modifiedMs: file.modifiedMs + byMs }))
    const monday = [{ id: 'monday', files }]
    expect(first(moved(-7_200_000), monday)).toEqual({ id: 'monday', shiftMs: -7_200_000 })
    expect(first(moved(7_200_001), monday)).toBeUndefined()
    expect(first(moved(72 * 3_600_000), monday)).toBeUndefined()
  })

  it('samples the largest files and a few that a seed draws, the same ones every time', () => {
    const many = Array.from({ length: 100 }, (_, at) => ({ path: `F${at}`, sizeBytes: at, modifiedMs: 0 }))
    const drawn = filesToSample(many, 'seed')
    expect(drawn).toHaveLength(12)
    expect(drawn.slice(0, 6).map((file) => file.sizeBytes)).toEqual([99, 98, 97, 96, 95, 94])
    expect(filesToSample(many, 'seed')).toEqual(drawn)
    expect(filesToSample(many, 'other')).not.toEqual(drawn)
    expect(filesToSample(many.slice(0, 5), 'seed')).toHaveLength(4)
  })
})

describe('a card that was scanned before', () => {
  const file = (path: string, sizeBytes: number, modifiedMs: number) => ({ path, sizeBytes, modifiedMs })
  const before = [file('A', 1, 1000.2), file('B', 2, 2000), file('C', 3, 3000)]

  it('stays, loses, changes and gains files', () => {
    expect(
      cardChanges(
        before,
        before.map((one) => ({ ...one, modifiedMs: Math.trunc(one.modifiedMs) })),
      ),
    ).toEqual({ stayed: 3, gone: 0, changed: 0, added: 0, addedClips: 0 })
    expect(cardChanges(before, [file('A', 1, 1000), file('B', 2, 2500), file('D', 4, 4000)])).toEqual({
      stayed: 1,
      gone: 1,
      changed: 1,
      added: 1,
      addedClips: 0,
    })
  })

  it('went on when it only grew, and says by how many clips', () => {
    const clips = [1, 2, 3].map((number) => file(`DCIM/100CURLW/CURL000${number}.MP4`, number, number))
    const grown = differenceSentence('Curlew A', cardChanges(clips.slice(0, 1), [...clips, file('SUB.XML', 1, 1)]))
    expect(grown).toBe('The load “Curlew A” has 2 new clips. Scan it again.')
    expect(differenceSentence('Curlew A', cardChanges(clips, clips.slice(0, 2)))).toContain('has changed (1 file gone)')
    expect(differenceSentence('Curlew A', cardChanges(clips, clips), 3_600_000)).toContain('all its times')
  })

  it('is counted so that no file is left out, whatever it lists', () => {
    const listing = fc.uniqueArray(
      fc.record({
        path: fc.constantFrom('A', 'B', 'C', 'D', 'E'),
        sizeBytes: fc.integer({ min: 0, max: 2 }),
        modifiedMs: fc.integer({ min: 0, max: 2 }),
      }),
      { selector: (one) => one.path },
    )
    fc.assert(
      fc.property(listing, listing, (earlier, now) => {
        const { stayed, gone, changed, added } = cardChanges(earlier, now)
        expect(stayed + gone + changed).toBe(earlier.length)
        expect(stayed + changed + added).toBe(now.length)
        expect(cardChanges(now, earlier)).toEqual({ stayed, gone: added, changed, added: gone, addedClips: 0 })
      }),
    )
  })
})
