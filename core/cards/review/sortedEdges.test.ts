import { describe, expect, it } from 'vitest'
import { frameRate } from '../../units/frameRate'
import { reviewFigures, reviewSentence, tidyRanges, unmatchedSentence, withHandles, type ReviewSum } from './review'
import {
  sortedFiles,
  sortedFolder,
  sortPlan,
  sortSentence,
  USUAL_TEMPLATE,
  type SortClip,
  type SortPlan,
  type TemplateFolder,
} from './sorted'

const file = (fileName: string, entryId = 1) => ({ entryId, fileName, sizeBytes: 100, isHere: true })
const clip = (more: Partial<SortClip> = {}): SortClip => ({
  ...{ id: '1', name: null, load: 'Curlew A', loadId: 'load', cameraId: null, verdict: 'keep', shotId: null },
  ...{ isSound: false, pictureMade: true, folder: null, isRun: false, files: [file('C0001.MP4')] },
  ...more,
})
const usual = { template: USUAL_TEMPLATE, aRoll: [] }

describe('the template', () => {
  it('has a folder for what the edit makes and gets, which nothing goes into by itself', () => {
    expect(USUAL_TEMPLATE.map(({ path, takes }) => `${path} ${takes}`)).toEqual([
      ...['Video/A-roll a-roll', 'Video/B-roll b-roll', 'Audio/Music none', 'Audio/Effects none'],
      ...['Audio/Recorded sound', 'Assets none', 'Library none', 'Output none'],
    ])
  })

  it('gives a clip the folder of its kind, else the nearest that there is', () => {
    const only = (...takes: TemplateFolder['takes'][]) => ({
      aRoll: [],
      template: takes.map((one) => ({ path: one, takes: one })),
    })
    expect(sortedFolder(clip({ isSound: true }), only('b-roll'))).toBe('b-roll')
    expect(sortedFolder(clip({ isSound: true }), only('a-roll'))).toBeUndefined()
    expect(sortedFolder(clip(), only('a-roll'))).toBe('a-roll')
    expect(sortedFolder(clip(), only('none'))).toBeUndefined()
    const ruled = (by: 'camera' | 'verdict' | 'shot', is: string, more: Partial<SortClip>) =>
      sortedFolder(clip(more), { ...usual, aRoll: [{ by, is }] })
    expect(ruled('verdict', 'keep', {})).toBe('Video/A-roll')
    expect(ruled('verdict', 'maybe', {})).toBe('Video/B-roll')
    expect(ruled('shot', 'keep', {})).toBe('Video/B-roll')
    expect(ruled('shot', 's', { shotId: 's' })).toBe('Video/A-roll')
    expect(ruled('camera', 'c', { cameraId: 'c' })).toBe('Video/A-roll')
    expect(ruled('camera', 'load', { cameraId: 'c' })).toBe('Video/B-roll')
    expect(sortedFolder(clip(), { ...only('b-roll'), aRoll: [{ by: 'verdict', is: 'keep' }] })).toBe('b-roll')
    expect(sortedFiles([clip()], only('none'))).toEqual([])
    expect(sortedFiles([clip({ files: [] })], usual)).toEqual([])
  })
})

describe('names of the view', () => {
  const paths = (...clips: SortClip[]) => sortedFiles(clips, usual).map(({ path }) => path.replace('Video/B-roll/', ''))

  it('are the chosen one or the camera’s, and never twice', () => {
    expect(sortedFiles([clip()], usual)).toEqual([
      { path: 'Video/B-roll/C0001.MP4', entryId: 1, sizeBytes: 100, isHere: true, clipId: '1' },
    ])
    expect(paths(clip({ name: 'Ribs' }), clip({ name: 'ribs' }), clip({ name: 'RIBS' }))).toEqual([
      ...['Ribs.MP4', 'ribs Curlew A.MP4', 'RIBS Curlew A 2.MP4'],
    ])
    // One of its files is taken: then the whole clip has the other name.
    const pair = { files: [file('A.MP4'), file('A.WAV')] }
    expect(paths(clip({ files: [file('A.WAV')] }), clip(pair))).toEqual(['A.WAV', 'A Curlew A.MP4', 'A Curlew A.WAV'])
    expect(paths(clip({ files: [file('A.MP4'), file('B.MP4'), file('C.WAV')] }))).toEqual([
      'A.MP4',
      'A part 2.MP4',
      'A.WAV',
    ])
  })

  it('of frames stay, in a folder of their own, with their numbers however long they are', () => {
    const run = (...names: string[]) =>
      paths(clip({ name: 'Pole', isRun: true, files: names.map((name) => file(name)) }))
    expect(run('f_001.dng', 'f_002.dng')).toEqual(['Pole/f_001.dng', 'Pole/f_002.dng'])
    const long = 'x'.repeat(200)
    const [first, second] = run(`${long}0001.dng`, `${long}0002.dng`)
    expect([first?.endsWith('0001.dng'), second?.endsWith('0002.dng')]).toEqual([true, true])
    expect(new TextEncoder().encode(first ?? '').length).toBeLessThan(140)
    expect(run('frame 7')).toEqual(['Pole/frame 7'])
  })
})

describe('what brings the view up to date', () => {
  const wanted = (path: string, entryId: number, more: object = {}) => ({
    path,
    entryId,
    sizeBytes: 10,
    isHere: true,
    clipId: '1',
    ...more,
  })
  const placed = (path: string, entryId: number) => ({ path, entryId, sizeBytes: 10 })
  const plan = (
    files: ReturnType<typeof wanted>[],
    there: ReturnType<typeof placed>[],
    editBegun = false,
    links: 'reflink' | 'copy' = 'reflink',
  ) => sortPlan(files, there, { editBegun, links })

  it('removes, moves and adds, in this order, and once the edit began only adds', () => {
    const files = [wanted('a', 1), wanted('b', 2), wanted('c', 3)]
    const there = [placed('a', 1), placed('x', 2), placed('gone', 9)]
    expect(plan(files, there)).toEqual({
      ...{ kept: 1, held: [], doubledBytes: 0 },
      steps: [
        { kind: 'remove', path: 'gone', entryId: 9, sizeBytes: 10 },
        { kind: 'move', path: 'b', entryId: 2, from: 'x', sizeBytes: 10 },
        { kind: 'add', path: 'c', entryId: 3, sizeBytes: 10 },
      ],
    })
    expect(plan(files, there, true)).toEqual({
      ...{ kept: 1, doubledBytes: 0, steps: [{ kind: 'add', path: 'c', entryId: 3, sizeBytes: 10 }] },
      held: [
        { path: 'x', to: 'b' },
        { path: 'gone', to: null },
      ],
    })
    // What stays keeps its name, also against capital letters.
    expect(plan([wanted('A.MP4', 3)], [placed('a.mp4', 9)], true).steps).toMatchObject([{ path: 'A 2.MP4' }])
    expect(
      plan([wanted('A.MP4', 3), wanted('a.MP4', 4)], [placed('a.mp4', 9), placed('A 2.MP4', 8)], true).steps,
    ).toMatchObject([{ path: 'A 3.MP4' }, { path: 'a 4.MP4' }])
  })

  it('counts the bytes that are written a second time', () => {
    const files = [wanted('a', 1), wanted('b', 2, { isHere: false })]
    expect([
      plan(files, []).doubledBytes,
      plan(files, [], false, 'copy').doubledBytes,
      plan(files, [placed('b', 2)]).doubledBytes,
    ]).toEqual([10, 20, 0])
  })

  it('is said in one sentence', () => {
    const step = (kind: 'add' | 'move' | 'remove') =>
      ({ kind, path: 'a', entryId: 1, sizeBytes: 1, from: 'b' }) as SortPlan['steps'][number]
    const say = (more: Partial<SortPlan>, unproved?: number) =>
      sortSentence({ steps: [], kept: 0, held: [], doubledBytes: 0, ...more }, unproved)
    const held = (count: number) => Array.from({ length: count }, () => ({ path: 'a', to: null }))
    expect([
      say({}),
      say({ kept: 1 }),
      say({ kept: 3 }, 1),
      say({ kept: 3, held: held(1) }, 2),
      say({ held: held(2) }),
      say({ steps: [step('add')] }),
      say({ steps: [step('add'), step('add'), step('move')], doubledBytes: 5e6 }),
      say({ steps: [step('move'), step('remove')], doubledBytes: 5e6 }),
      say({ steps: [step('add')], held: held(1) }),
    ]).toMatchInlineSnapshot(`
      [
        "No kept clip has a proved copy on this volume yet.",
        "The sorted view is up to date: 1 file.",
        "The sorted view is up to date: 3 files; 1 clip waits for a proved copy that is connected.",
        "The sorted view is up to date: 3 files; 1 file stays where the edit knows it; 2 clips wait for a proved copy that is connected.",
        "The sorted view is up to date: 0 files; 2 files stay where the edit knows them.",
        "1 file to add, without a second copy of the bytes.",
        "2 files to add and 1 file to move, 5.00 MB a second time.",
        "1 file to move and 1 file to remove.",
        "1 file to add, without a second copy of the bytes; 1 file stays where the edit knows it.",
      ]
    `)
  })
})

describe('a review', () => {
  it('is said in one sentence, with figures beside it', () => {
    const sum: ReviewSum = {
      ...{ clips: 9, keep: 2, maybe: 1, reject: 1, seconds: 48, secondsWithHandles: 52, sizeBytes: 5e9 },
    }
    const say = (more: Partial<ReviewSum>) => reviewSentence({ ...sum, ...more })
    expect([
      say({ clips: 0 }),
      say({ keep: 0, maybe: 0, reject: 0 }),
      say({ clips: 1, keep: 0, maybe: 0, reject: 0 }),
      say({}),
      say({ clips: 5 }),
      say({ clips: 4 }),
      say({ maybe: 0 }),
      say({ keep: 0 }),
      reviewFigures(sum),
      reviewFigures({ ...sum, keep: 0 }),
      unmatchedSentence([]) ?? 'nothing',
      unmatchedSentence(['Keel']),
      unmatchedSentence(['Keel', 'Rib']),
      unmatchedSentence(['a', 'b', 'c', 'd', 'e']),
      unmatchedSentence(['a', 'b', 'c', 'd', 'e', 'f', 'g']),
    ]).toMatchInlineSnapshot(`
      [
        "There is nothing to look at yet: no clip of this production is known.",
        "9 clips, none of them looked at.",
        "1 clip, still to be looked at.",
        "2 of 9 clips kept, 48 s used, 1 maybe; 5 are still to be looked at.",
        "2 of 5 clips kept, 48 s used, 1 maybe; 1 is still to be looked at.",
        "2 of 4 clips kept, 48 s used, 1 maybe. Every clip has been looked at.",
        "2 of 9 clips kept, 48 s used; 6 are still to be looked at.",
        "None kept so far, 1 maybe; 7 are still to be looked at.",
        "5.00 GB as whole files; 52 s with a second on either side. In and out never cut an original.",
        "In and out never cut an original: its file is copied whole, the points say what later steps work on.",
        "nothing",
        "Ticked as filmed, and no clip is matched to it: “Keel”. Match it here, or look for the card.",
        "Ticked as filmed, and no clip is matched to them: “Keel”, “Rib”. Match them here, or look for the card.",
        "Ticked as filmed, and no clip is matched to them: “a”, “b”, “c”, “d”, “e”. Match them here, or look for the card.",
        "Ticked as filmed, and no clip is matched to them: “a”, “b”, “c”, “d”, “e” and 2 more. Match them here, or look for the card.",
      ]
    `)
  })

  it('has handles of a second, inside the clip', () => {
    expect(withHandles([{ from: 50, to: 100 }], 250, frameRate(25))).toEqual([{ from: 25, to: 125 }])
    expect(withHandles([{ from: 5, to: 240 }], 250, frameRate(25))).toEqual([{ from: 0, to: 250 }])
    expect(withHandles([{ from: 100, to: 101 }], 250, frameRate(30_000, 1001))).toEqual([{ from: 70, to: 131 }])
    expect(
      tidyRanges(
        [
          { from: 5, to: 5 },
          { from: 9, to: 3 },
        ],
        10,
      ),
    ).toEqual([])
  })
})
