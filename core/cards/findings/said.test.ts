import { expect, it } from 'vitest'
import { unknownKindFinding } from '../files/unknownKind'
import { cardSentence } from '../load/cardSentence'
import { changeWords, differenceSentence } from '../load/load'
import { comparedSentence, forgottenSentence, isSameStay, lastSeenSentence, type Compared } from '../load/stay'
import { clipFindings } from './clipFindings'
import {
  cardFindings,
  findingKeyOf,
  openQuestions,
  openStops,
  withAnswers,
  type CountedKind,
  type Finding,
  type ScannedClip,
} from './findings'

const clip = (name: string, more: Partial<ScannedClip> = {}): ScannedClip => ({
  ...{ path: `DCIM/${name}.MP4`, sizeBytes: 1000, seconds: 10, recordedAt: '2026-11-14T09:00:00Z' },
  ...{ pictureMade: true, trouble: undefined, hasPicture: true, cut: undefined },
  ...more,
})
const sentences = (findings: readonly Finding[]) => findings.map(({ weight, sentence }) => `${weight}: ${sentence}`)

it('says of one clip, and of two, what is odd about them', () => {
  const frames = { first: 1, last: 50, missing: [], short: 0 }
  const odd = { variable: false, interlaced: false, curve: undefined }
  const oddities: Partial<ScannedClip>[] = [
    { sizeBytes: 0 },
    { trouble: 'no index' },
    { trouble: 'no index', cut: 'its end is missing' },
    { cut: 'its end is missing' },
    { pictureMade: false },
    {
      frames: {
        ...frames,
        missing: [
          { from: 17, to: 17 },
          { from: 30, to: 31 },
        ],
      },
    },
    { frames: { ...frames, short: 1 } },
    { frames: { ...frames, short: 2 } },
    { frames, hasPicture: false },
    { sameAs: 'DCIM/CURL0001.MP4' },
    { recordedAt: '2015-01-01T00:00:00Z' },
    { odd: { ...odd, variable: true } },
    { odd: { ...odd, interlaced: true } },
    { odd: { ...odd, curve: 'PQ' } },
    { odd },
  ]
  const said = (names: string[]) =>
    oddities.flatMap((more) =>
      sentences(
        clipFindings(
          names.map((name) => clip(name, more)),
          '2026-11-14',
        ),
      ).filter((line) => !line.includes('counter')),
    )
  expect(said(['CURL0041'])).toMatchInlineSnapshot(`
    [
      "stop: 1 clip is empty: 0 bytes were written. Keep the card; do not format it before you know why.",
      "stop: 1 clip cannot be read: no index. Copy it as it is and keep the card for a rescue.",
      "stop: 1 clip cannot be read: no index, and its end is missing. Copy it as it is and keep the card for a rescue.",
      "stop: 1 clip is not whole: its end is missing. Play the end in the camera, and keep the card.",
      "stop: No picture can be decoded from 1 clip. Play it in the camera before anything else.",
      "stop: 1 clip of frames lacks some: 17, 30–31 of 1–50. Keep the card: what the camera did not write, or lost, is not elsewhere.",
      "stop: 1 frame of CURL0041.MP4… is empty, cut off or shorter than all the others. Look at it in the camera, and keep the card.",
      "stop: 2 frames of CURL0041.MP4… are empty, cut off or shorter than all the others. Look at them in the camera, and keep the card.",
      "note: 1 clip of raw frames that nothing here can develop: copied and proved like all others, looked at in your own program.",
      "ask: 1 clip has the content of another one on this card, as its length and samples of both tell: CURL0041.MP4 that of CURL0001.MP4. All are copied.",
      "ask: 1 clip recorded more than three days from the shoot of 2026-11-14. Was the camera’s clock reset?",
      "note: 1 clip recorded at a variable rate. Proxies keep every frame’s time; a deliverable is put on one rate, and says which.",
      "note: 1 clip interlaced: proxies and deliverables are made of whole frames.",
      "note: 1 clip recorded in PQ (BT.2100): to be tone-mapped while editing, before anything goes out in BT.709.",
    ]
  `)
  expect(said(['CURL0041', 'CURL0042'])).toMatchInlineSnapshot(`
    [
      "stop: 2 clips are empty: 0 bytes were written. Keep the card; do not format it before you know why.",
      "stop: 2 clips cannot be read: no index. Copy them as they are and keep the card for a rescue.",
      "stop: 2 clips cannot be read: no index, and its end is missing. Copy them as they are and keep the card for a rescue.",
      "stop: 2 clips are not whole: its end is missing. Play the end in the camera, and keep the card.",
      "stop: No picture can be decoded from 2 clips. Play them in the camera before anything else.",
      "stop: 2 clips of frames lack some: 17, 30–31 of 1–50. Keep the card: what the camera did not write, or lost, is not elsewhere.",
      "stop: 1 frame of CURL0041.MP4… is empty, cut off or shorter than all the others; 1 frame of CURL0042.MP4… is empty, cut off or shorter than all the others. Look at them in the camera, and keep the card.",
      "stop: 2 frames of CURL0041.MP4… are empty, cut off or shorter than all the others; 2 frames of CURL0042.MP4… are empty, cut off or shorter than all the others. Look at them in the camera, and keep the card.",
      "note: 2 clips of raw frames that nothing here can develop: copied and proved like all others, looked at in your own program.",
      "ask: 2 clips have the content of another one on this card, as its length and samples of both tell: CURL0041.MP4 that of CURL0001.MP4; CURL0042.MP4 that of CURL0001.MP4. All are copied.",
      "ask: 2 clips recorded more than three days from the shoot of 2026-11-14. Was the camera’s clock reset?",
      "note: 2 clips recorded at a variable rate. Proxies keep every frame’s time; a deliverable is put on one rate, and says which.",
      "note: 2 clips interlaced: proxies and deliverables are made of whole frames.",
      "note: 2 clips recorded in PQ (BT.2100): to be tone-mapped while editing, before anything goes out in BT.709.",
    ]
  `)
})

it('says of entries what is counted of them, the heaviest first', () => {
  const kinds: CountedKind[] = ['link', 'special', 'odd-name', 'gone', 'lost']
  const said = (files: number) =>
    sentences(
      cardFindings(
        kinds.map((kind) => ({ kind, files, key: kind, paths: [] })),
        [],
        { clips: 1, lookDone: true },
      ),
    )
  expect(said(0)).toEqual([])
  expect(said(1)).toMatchInlineSnapshot(`
    [
      "stop: 1 entry that is neither file nor folder, or cannot be opened: not copied.",
      "stop: 1 file seen at an earlier scan is no longer on the card, and no volume holds a copy. Did you delete it? If not, leave the card as it is: what was deleted can often be rescued until something is recorded over it.",
      "ask: 1 symbolic link on the card: reported, not followed and not copied.",
      "note: 1 name with bytes that cannot be printed, shown escaped. The bytes are kept as they are.",
      "note: 1 file copied earlier is no longer on the card. The copies are kept.",
    ]
  `)
  expect(said(2)).toMatchInlineSnapshot(`
    [
      "stop: 2 entries that are neither file nor folder, or cannot be opened: not copied.",
      "stop: 2 files seen at an earlier scan are no longer on the card, and no volume holds a copy. Did you delete them? If not, leave the card as it is: what was deleted can often be rescued until something is recorded over it.",
      "ask: 2 symbolic links on the card: reported, not followed and not copied.",
      "note: 2 names with bytes that cannot be printed, shown escaped. The bytes are kept as they are.",
      "note: 2 files copied earlier are no longer on the card. The copies are kept.",
    ]
  `)
})

it('asks of a card without a clip, once it is scanned and nothing else tells why', () => {
  const said = (clips: number, lookDone: boolean, ofClips: Finding[] = []) =>
    sentences(cardFindings([], ofClips, { clips, lookDone }))
  const none = ['ask: There is no clip on this card. Is it the right one, or was it just formatted?']
  expect(said(0, true)).toEqual(none)
  expect(said(0, false)).toEqual([])
  expect(said(1, true)).toEqual([])
  const listed = (path: string) => ({ path, sizeBytes: 2e6, modifiedMs: 0 })
  expect(said(0, true, unknownKindFinding([listed('A.xyz')], 0))).toHaveLength(1)
  const kinds = [
    unknownKindFinding([], 0),
    unknownKindFinding([listed('A.xyz')], 0),
    unknownKindFinding([listed('b/A.xyz'), listed('B')], 3),
    unknownKindFinding(
      ['a', 'b', 'c', 'd', 'e'].map((ending) => listed(`X.${ending}`)),
      3,
    ),
  ]
  expect(kinds.map(sentences)).toMatchInlineSnapshot(`
    [
      [],
      [
        "ask: No clip, but 1 file of a kind that cannot be opened here (.xyz, 2.00 MB). Is that what the camera should have written? It is copied and proved like all others; look at it in your own program.",
      ],
      [
        "note: 2 files of a kind that cannot be opened here (without an ending, .xyz, 4.00 MB). They are copied and proved like all others; look at them in your own program.",
      ],
      [
        "note: 5 files of a kind that cannot be opened here (.a, .b, .c, .d …, 10.0 MB). They are copied and proved like all others; look at them in your own program.",
      ],
    ]
  `)
})

it('counts what is open, and takes answers and takes them back', () => {
  const of = (weight: Finding['weight'], key: string): Finding => ({
    ...{ kind: 'link', weight, sentence: key, paths: [], files: 1, key },
  })
  const all = [of('stop', 'a'), of('stop', 'b'), of('ask', 'c'), of('note', 'd')]
  expect([openStops(all), openQuestions(all)]).toEqual([2, 1])
  const answered = withAnswers(
    all,
    new Map([
      ['a', 'fine'],
      ['b', null],
      ['c', 'yes'],
      ['d', 'no'],
    ]),
  )
  expect(answered.map((finding) => finding.answer)).toEqual(['fine', undefined, 'yes', undefined])
  expect([openStops(answered), openQuestions(answered)]).toEqual([1, 0])
  expect(findingKeyOf('link', ['a'])).not.toBe(findingKeyOf('link', ['b']))
  expect(findingKeyOf('link', ['a'])).not.toBe(findingKeyOf('gone', ['a']))
})

it('says the card in one sentence', () => {
  const of = (weight: Finding['weight'], answer?: string): Finding => ({
    ...{ kind: 'link', weight, sentence: '', paths: [], files: 1, key: '' },
    ...(answer === undefined ? {} : { answer }),
  })
  const card = { clips: 6, seconds: 250, lookDone: true }
  expect([
    cardSentence(card, []),
    cardSentence({ ...card, clips: 1 }, [of('note')]),
    cardSentence(card, [of('stop'), of('ask')]),
    cardSentence(card, [of('stop'), of('stop', 'x')]),
    cardSentence(card, [of('ask')]),
    cardSentence(card, [of('ask', 'x'), of('note')]),
    cardSentence(card, [of('stop', 'x'), of('ask', 'x')]),
    cardSentence({ ...card, lookDone: false }, [of('ask')]),
    cardSentence({ ...card, lookDone: false }, [of('stop')]),
    cardSentence({ ...card, lookDone: false }, [of('stop')], true),
    cardSentence(card, [], true),
  ]).toMatchInlineSnapshot(`
    [
      "6 clips, 4 min 10 s: nothing wrong found.",
      "1 clip, 4 min 10 s: nothing wrong found.",
      "6 clips, 4 min 10 s: 1 thing wrong.",
      "6 clips, 4 min 10 s: 1 thing wrong.",
      "6 clips, 4 min 10 s: 1 question to answer.",
      "6 clips, 4 min 10 s: 1 problem settled by you, nothing else wrong.",
      "6 clips, 4 min 10 s: 2 problems settled by you, nothing else wrong.",
      "6 clips, 4 min 10 s: the scan has not finished.",
      "6 clips, 4 min 10 s: 1 thing wrong.",
      "6 clips so far: it is being scanned.",
      "6 clips, 4 min 10 s: nothing wrong found.",
    ]
  `)
})

it('says how a card differs from its latest scan', () => {
  const none = { stayed: 9, gone: 0, changed: 0, added: 0, addedClips: 0 }
  const said = (more: object, shiftMs?: number) => differenceSentence('Curlew A', { ...none, ...more }, shiftMs)
  expect([
    said({ added: 1, addedClips: 1 }),
    said({ added: 3, addedClips: 2 }),
    said({ added: 1, addedClips: 1, gone: 1 }),
    said({ added: 1, addedClips: 1, changed: 2 }),
    said({ added: 2 }),
    said({}),
    said({}, 3_600_000),
  ]).toMatchInlineSnapshot(`
    [
      "The load “Curlew A” has 1 new clip. Scan it again.",
      "The load “Curlew A” has 2 new clips. Scan it again.",
      "The card of “Curlew A” has changed (1 file gone, 1 file new): scan it again.",
      "The card of “Curlew A” has changed (2 files changed, 1 file new): scan it again.",
      "The card of “Curlew A” has changed (2 files new): scan it again.",
      "The card of “Curlew A” has changed (its folders): scan it again.",
      "The card of “Curlew A” has changed (all its times): scan it again.",
    ]
  `)
  expect(changeWords(none)).toBe('')
})

it('says what a comparison of the card came to, and what was last seen of it', () => {
  const all: Compared = {
    ...{ how: 'places', clips: 9, compared: 9, withCopies: 9, unreadable: 0, differing: 0, volumeNames: ['Tide'] },
  }
  expect([
    comparedSentence(all),
    comparedSentence({ ...all, clips: 1, compared: 1, withCopies: 1 }),
    comparedSentence({ ...all, withCopies: 7, volumeNames: ['Tide', 'Slipway'] }),
    comparedSentence({ ...all, withCopies: 0, volumeNames: [] }),
    comparedSentence({ ...all, compared: 8, unreadable: 1 }),
    comparedSentence({ ...all, how: 'whole', withCopies: 0 }),
    comparedSentence({ ...all, how: 'whole', clips: 1, compared: 1 }),
    lastSeenSentence('Curlew A', null, false) ?? 'nothing',
    lastSeenSentence('Curlew A', null, true),
    lastSeenSentence('Curlew A', 'It lists 3 files more.', false),
    lastSeenSentence('Curlew A', 'It lists 3 files more.', true),
    forgottenSentence('Curlew A'),
  ]).toMatchInlineSnapshot(`
    [
      "9 of 9 clips were compared at one place with Tide.",
      "1 of 1 clip was compared at one place with Tide.",
      "9 of 9 clips were compared at one place with Tide and Slipway, 2 of them with their first and last 64 KiB at the first scan.",
      "9 of 9 clips were compared at one place with their first and last 64 KiB at the first scan.",
      "8 of 9 clips were compared at one place with Tide; 1 could not be read.",
      "9 of 9 files were read whole and compared with Tide.",
      "1 of 1 file was read whole and compared with Tide.",
      "nothing",
      "Files of “Curlew A” were rewritten on its card, with the same size and time, or are not what was copied: read the card whole. Its card is in no reader: put it in first.",
      "It lists 3 files more. Its card is in no reader: put it in first.",
      "Files of “Curlew A” were rewritten on its card, with the same size and time, or are not what was copied: read the card whole. Its card is in no reader: put it in first.",
      "Yendra’s records were restored from an older backup: what was last seen of the card of “Curlew A” is forgotten. Put it in first.",
    ]
  `)
  const stay = { place: '8:1 2', source: '/dev/sdb1', volumeUid: 'A' }
  expect(isSameStay(stay, { ...stay })).toBe(true)
  for (const other of [{ place: '8:1 3' }, { source: '/dev/sdc1' }, { volumeUid: null }])
    expect(isSameStay(stay, { ...stay, ...other })).toBe(false)
})
