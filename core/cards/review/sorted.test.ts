import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  sortedFolder,
  sortedFiles,
  sortPlan,
  sortSentence,
  USUAL_TEMPLATE,
  type Placed,
  type SortClip,
  type SortSettings,
} from './sorted'

let entries = 0
const clip = (fileName: string, more: Partial<SortClip> = {}): SortClip => ({
  ...{ id: fileName, name: null, load: 'Curlew A', loadId: 'load', cameraId: null, verdict: 'keep', shotId: null },
  ...{ isSound: false, pictureMade: true, folder: null, isRun: false },
  files: [{ entryId: (entries += 1), fileName, sizeBytes: 100, isHere: true }],
  ...more,
})
const usual: SortSettings = { template: USUAL_TEMPLATE, aRoll: [], which: 'keep', links: 'reflink', editBegun: false }
const paths = (clips: readonly SortClip[], settings = usual) => sortedFiles(clips, settings).map(({ path }) => path)

describe('the folder of a clip', () => {
  it('follows its kind and the rules, and a hand before both', () => {
    const rules = { ...usual, aRoll: [{ by: 'camera', is: 'curlew' } as const, { by: 'shot', is: 's1' } as const] }
    expect(sortedFolder(clip('a.MP4'), usual)).toBe('Video/B-roll')
    expect(sortedFolder(clip('a.WAV', { isSound: true }), usual)).toBe('Audio/Recorded')
    expect(sortedFolder(clip('a.MP4', { cameraId: 'curlew' }), rules)).toBe('Video/A-roll')
    expect(sortedFolder(clip('a.MP4', { shotId: 's1' }), rules)).toBe('Video/A-roll')
    // Of a camera that nobody knows, its load.
    expect(sortedFolder(clip('a.MP4'), { ...usual, aRoll: [{ by: 'camera', is: 'load' }] })).toBe('Video/A-roll')
    expect(sortedFolder(clip('a.MP4', { cameraId: 'curlew', folder: 'Assets' }), rules)).toBe('Assets')
    // A folder that is no longer in the template is nobody’s.
    expect(sortedFolder(clip('a.MP4', { folder: 'gone' }), usual)).toBe('Video/B-roll')
  })
})

describe('names in the view', () => {
  it('say nothing of how a line end is printed', () => {
    expect(paths([clip('two\\nlines.MP4')])).toEqual(['Video/B-roll/two lines.MP4'])
  })

  it('keep two cards’ equal names apart, and a take’s files together', () => {
    expect(
      paths([
        clip('C0001.MP4', { id: '1' }),
        clip('C0001.MP4', { id: '2', load: 'Plover A' }),
        clip('x.MP4', { name: 'Rib into the stem' }),
        clip('GX01.MP4', {
          files: [1, 2].map((part) => ({
            entryId: 900 + part,
            fileName: `GX0${part}.MP4`,
            sizeBytes: 1,
            isHere: true,
          })),
        }),
        clip('0001.dng', {
          name: 'Pole',
          isRun: true,
          files: [1, 2].map((frame) => ({
            entryId: 910 + frame,
            fileName: `000${frame}.dng`,
            sizeBytes: 1,
            isHere: true,
          })),
        }),
      ]),
    ).toEqual([
      'Video/B-roll/C0001.MP4',
      'Video/B-roll/C0001 Plover A.MP4',
      'Video/B-roll/Rib into the stem.MP4',
      'Video/B-roll/GX01.MP4',
      'Video/B-roll/GX01 part 2.MP4',
      'Video/B-roll/Pole/0001.dng',
      'Video/B-roll/Pole/0002.dng',
    ])
  })

  it('are never two alike, whatever clips are called', () => {
    const names = fc.array(
      fc.record({
        file: fc.constantFrom('a.MP4', 'A.mp4', 'b.mov', '..', 'a', 'é.MP4'),
        load: fc.constantFrom('x', 'X', ''),
        name: fc.option(fc.constantFrom('a', 'A', 'a x', '/', '%'), { nil: null }),
      }),
      { maxLength: 12 },
    )
    fc.assert(
      fc.property(names, (all) => {
        const found = paths(all.map(({ file, load, name }, at) => clip(file, { id: String(at), load, name })))
        expect(found).toHaveLength(all.length)
        expect(new Set(found.map((path) => path.toLowerCase())).size).toBe(found.length)
        for (const path of found) expect(path).toMatch(/^Video\/B-roll\/[^/]+$/)
      }),
    )
  })
})

describe('what brings a view up to date', () => {
  const [one, two] = [clip('one.MP4'), clip('two.MP4')]
  const wanted = sortedFiles([one, two], usual)
  const placed: Placed[] = wanted.map(({ path, entryId, sizeBytes }) => ({ path, entryId, sizeBytes }))

  it('adds, moves and takes away, and then has nothing more to do', () => {
    const first = sortPlan(wanted, [], usual)
    expect(sortSentence(first)).toBe('2 files to add, without a second copy of the bytes.')
    expect(sortPlan(wanted, placed, usual).steps).toEqual([])
    const renamed = sortedFiles([{ ...one, name: 'Launch' }], usual)
    expect(sortPlan(renamed, placed, usual).steps.map(({ kind, path }) => `${kind} ${path}`)).toEqual([
      'remove Video/B-roll/two.MP4',
      'move Video/B-roll/Launch.MP4',
    ])
  })

  it('moves nothing and takes nothing away once the edit has begun, and gives no name away that is held', () => {
    const begun = { ...usual, editBegun: true }
    const three = { ...clip('three.MP4'), name: 'one' }
    const plan = sortPlan(sortedFiles([{ ...one, name: 'Launch' }, three], usual), placed, begun)
    expect(plan.steps.map(({ kind, path }) => `${kind} ${path}`)).toEqual(['add Video/B-roll/one 2.MP4'])
    expect(plan.held).toEqual([
      { path: 'Video/B-roll/one.MP4', to: 'Video/B-roll/Launch.MP4' },
      { path: 'Video/B-roll/two.MP4', to: null },
    ])
  })

  it('says what copies double, also of what lies on another volume', () => {
    expect(sortPlan(wanted, [], { ...usual, links: 'copy' }).doubledBytes).toBe(200)
    const away = sortedFiles([{ ...one, files: one.files.map((file) => ({ ...file, isHere: false })) }], usual)
    expect(sortPlan(away, [], usual).doubledBytes).toBe(100)
  })
})
