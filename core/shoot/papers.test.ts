import { describe, expect, it } from 'vitest'
import { guidesOf, guidesSvg, lineWidth, paintGuides, strokesOf, type Guide } from './guides'
import { likelyGear } from './loadGear'
import { differenceWords, differsFromPlan, outlying } from './measured'
import { bitsPerSecondOf } from './mode'
import { shotPage } from './shotPage'
import { passes, shotRows, shotsFromRows, shotsNotOn, shotsSentence, type NewShot, type Shot } from './shots'
import { camera, card, coded } from './testGear'

const shot = (name: string, more: Partial<Shot> = {}): Shot => ({
  ...{ id: name, name, cameraId: null, deliverables: [], notes: '', filmedAt: null },
  ...more,
})
const NAMES = {
  cameras: [
    { id: 'p', name: 'Plover' },
    { id: 'c', name: 'Curlew' },
  ],
  destinations: [
    { id: 'w', name: 'Wide watch' },
    { id: 't', name: 'Tall short' },
  ],
}
const FILMED = '2026-11-26T09:30:00Z'

describe('guides as strokes', () => {
  const frame = { widthPx: 300, heightPx: 120 }
  const guide = (more: Partial<Guide>): Guide => ({
    ...{ name: 'G', colour: '#102030', box: { x: 10, y: 20, widthPx: 100, heightPx: 50 }, dash: undefined },
    ...{ sides: 'frame', ...more },
  })
  const drawn = (more: Partial<Guide>) =>
    strokesOf(frame, guide(more)).map((one) => [one.x, one.y, one.widthPx, one.heightPx])

  it('are whole lines along the four sides, two pixels wide at least', () => {
    expect([frame, { widthPx: 3840, heightPx: 2160 }, { widthPx: 1620, heightPx: 5000 }].map(lineWidth)).toEqual([
      2, 4, 3,
    ])
    expect(drawn({})).toEqual([
      [10, 20, 2, 50],
      [108, 20, 2, 50],
      [10, 20, 100, 2],
      [10, 68, 100, 2],
    ])
    expect(drawn({ sides: 'upright' })).toEqual(drawn({}).slice(0, 2))
  })

  it('are dashed from the beginning, the last piece as long as there is room', () => {
    expect(drawn({ dash: [20, 10], sides: 'upright' })).toEqual([
      [10, 20, 2, 20],
      [10, 50, 2, 20],
      [108, 20, 2, 20],
      [108, 50, 2, 20],
    ])
    expect(drawn({ dash: [30, 15], sides: 'upright' }).slice(0, 2)).toEqual([
      [10, 20, 2, 30],
      [10, 65, 2, 5],
    ])
    expect(drawn({ dash: [40, 20] }).slice(-2)).toEqual([
      [10, 68, 40, 2],
      [70, 68, 40, 2],
    ])
  })

  it('are told apart by colour and dash, and the ninth begins with the first colour again', () => {
    const answer = (name: string) => ({ to: { name }, window: guide({}).box }) as unknown as Parameters<typeof guidesOf>[1][number] // prettier-ignore
    const all = guidesOf(
      frame,
      Array.from({ length: 9 }, (_, at) => answer(`n${at}`)),
    )
    expect(all.map((one) => one.dash)).toEqual([
      undefined,
      ...Array.from({ length: 8 }, (_, at) => [12 * (at + 2), 12]),
      [6, 12],
    ])
    expect(new Set(all.slice(0, 8).map((one) => one.colour)).size).toBe(8)
    expect(all[8]?.colour).toBe(all[0]?.colour)
    expect(all.every((one) => /^#[0-9a-f]{6}$/.test(one.colour))).toBe(true)
    expect(all.at(-1)).toMatchObject({ name: 'Middle third', sides: 'upright', box: { x: 100, widthPx: 100 } })
  })

  it('are drawn with their names one below the other, and painted in their colours', () => {
    const svg = guidesSvg(frame, [guide({}), guide({ name: 'H' })])
    expect(svg).toContain('<rect x="108" y="20" width="2" height="50"/>')
    expect(svg.match(/<rect /g)).toHaveLength(8)
    expect(svg).toContain('<text x="18" y="44" font-size="18" font-family="sans-serif">G</text>')
    expect(svg).toContain('<text x="18" y="68" font-size="18" font-family="sans-serif">H</text>')
    const pixels = paintGuides(frame, [guide({})])
    expect([...pixels.subarray((20 * 300 + 10) * 4, (20 * 300 + 10) * 4 + 4)]).toEqual([0x10, 0x20, 0x30, 255])
    expect([...pixels.subarray((25 * 300 + 50) * 4, (25 * 300 + 50) * 4 + 4)]).toEqual([0, 0, 0, 0])
  })
})

describe('what is still to film', () => {
  it('is said in one sentence', () => {
    const filmed = { filmedAt: FILMED }
    expect(shotsSentence([])).toBe('Write down what must be filmed.')
    expect(shotsSentence([shot('Hull')])).toBe('1 shot to film, first “Hull”.')
    expect(shotsSentence([shot('Hull'), shot('Mast')])).toBe('2 shots to film, first “Hull”.')
    expect(shotsSentence([shot('Hull', filmed), shot('Mast')])).toBe('1 of 2 filmed; next “Mast”.')
    expect(shotsSentence([shot('Hull', filmed)])).toBe('The one shot is filmed.')
    expect(shotsSentence([shot('Hull', filmed), shot('Mast', filmed)])).toBe('All 2 shots are filmed.')
  })

  it('is one performance several times over', () => {
    const verse = shot('Verse', { notes: 'slow' })
    expect([0, 1].map((count) => passes(verse, count))).toEqual([[verse], [verse]])
    expect(passes(verse, 2)).toEqual([
      { ...verse, name: 'Verse, pass 1 of 2' },
      { ...verse, name: 'Verse, pass 2 of 2' },
    ])
  })
})

describe('a table of shots', () => {
  const HEAD = ['Shot', 'Camera', 'For', 'Notes', 'Filmed']
  const read = (...rows: string[][]) => shotsFromRows(rows, NAMES)

  it('is written with names, and without what is not known any more', () => {
    const full = shot('Hull', { cameraId: 'c', deliverables: ['t', 'gone', 'w'], notes: 'low', filmedAt: FILMED })
    expect(shotRows([full, shot('Mast', { cameraId: 'gone' })], NAMES)).toEqual([
      HEAD,
      ['Hull', 'Curlew', 'Tall short; Wide watch', 'low', FILMED],
      ['Mast', '', '', '', ''],
    ])
  })

  it('is read in the usual order without a head, blanks and case left aside', () => {
    expect(read([' Hull ', ' curlew', 'TALL SHORT ;wide watch,', ' low ', FILMED], ['', ' ', '']).shots).toEqual([
      { name: 'Hull', cameraId: 'c', deliverables: ['t', 'w'], notes: 'low', filmedAt: FILMED },
    ])
    expect(read([' notes', 'SHOT '], ['low', 'Hull']).shots).toMatchObject([
      { name: 'Hull', notes: 'low', cameraId: null },
    ])
    expect(read().shots).toEqual([])
    expect(read(HEAD, ['Hull']).faults).toEqual([])
  })

  it('loses the apostrophe before a formula, and no other', () => {
    const names = ["'=1", "'+1", "'-1", "'@a", "'tis", "a'=1", "''=1"]
    expect(read(...names.map((name) => [name])).shots.map((one) => one.name)).toEqual([
      ...['=1', '+1', '-1', '@a', "'tis", "a'=1", "''=1"],
    ])
  })

  it('says what it does not know, by line', () => {
    const { shots, faults } = read(HEAD, ['Hull', 'Heron', 'Tall short; radio', '', 'yesterday'], ['', 'Curlew'])
    expect(shots).toEqual([{ name: 'Hull', cameraId: null, deliverables: ['t'], notes: '', filmedAt: null }])
    expect(faults).toEqual([
      'Line 2: no camera is called “Heron”.',
      'Line 2: no destination is called “radio”.',
      'Line 2: “yesterday” is no time such as 2026-11-26T09:30:00Z.',
      'Line 3 names no shot and was left out.',
    ])
  })

  it('takes a moment as ISO 8601 in UTC alone', () => {
    const filmedAt = (text: string) => read(HEAD, ['Hull', '', '', '', text]).shots[0]?.filmedAt
    for (const good of [FILMED, '2026-11-26T09:30:00.1Z', '2026-11-26T09:30:00.123Z']) expect(filmedAt(good)).toBe(good)
    for (const bad of [
      '2026-11-26T09:30:00',
      `${FILMED} or so`,
      `on ${FILMED}`,
      '2026-11-26',
      '2026-13-26T09:30:00Z',
      '2026-11-26T09:30:00.1234Z',
      '2026-11-26T09:30:00+01:00',
    ])
      // prettier-ignore
      expect(filmedAt(bad), bad).toBeNull()
  })

  it('adds what is not on the list, as often as it is not', () => {
    const list: NewShot[] = [shot('Hull', { deliverables: ['w', 't'] }), shot('Mast'), shot('Mast')]
    const again = shot('Hull', { deliverables: ['t', 'w'], filmedAt: FILMED })
    expect(shotsNotOn(list, [again, shot('Mast'), shot('Mast'), shot('Mast')])).toEqual([shot('Mast')])
    for (const other of [{ notes: 'low' }, { cameraId: 'c' }, { deliverables: ['w'] }])
      expect(shotsNotOn([shot('Mast')], [shot('Mast', other)])).toHaveLength(1)
    expect(list[0]?.deliverables).toEqual(['w', 't'])
  })
})

describe('the page of shots for a phone', () => {
  const page = (shots: readonly Shot[], more: Partial<Parameters<typeof shotPage>[0]> = {}) =>
    shotPage({ ...NAMES, productionId: 'x', title: 'Tide', when: 'Tuesday', file: 'tide.json', shots, ...more })
  const listOf = (html: string) => JSON.parse(/const list=(\{.*?\});\n/.exec(html)?.[1] ?? '') as object
  const items = (html: string) => [...html.matchAll(/<li>[^]*?<\/li>/g)].map(([item]) => item)

  it('names each shot with its number, and what is known of it', () => {
    const html = page([
      shot('Hull', { cameraId: 'c', deliverables: ['t', 'gone', 'w'], notes: 'low', filmedAt: FILMED }),
      shot('Mast', { cameraId: 'gone' }),
    ])
    expect(items(html)).toEqual([
      '<li><label><input type="checkbox" data-shot="Hull"><span><b>1. Hull</b>' +
        '<small>Curlew · Tall short, Wide watch · low</small></span></label></li>',
      '<li><label><input type="checkbox" data-shot="Mast"><span><b>2. Mast</b></span></label></li>',
    ])
    expect(listOf(html)).toEqual({ productionId: 'x', file: 'tide.json', shots: { Hull: FILMED, Mast: null } })
    expect(html).toContain('<p>Tide, Tuesday</p>')
    expect(page([], { when: '' })).toContain('<p>Tide</p>')
  })

  it('is broken by no name', () => {
    const odd = '</script><b>"&\u2028'
    const html = page([shot('a', { id: odd, name: odd, notes: odd })], { title: odd, when: odd, file: odd })
    expect(html.match(/<script>/g)).toHaveLength(1)
    expect(html.match(/<\/script>/g)).toHaveLength(1)
    expect(html.slice(html.indexOf('<script>'))).not.toContain('\u2028')
    expect(listOf(html)).toEqual({ productionId: 'x', file: odd, shots: { [odd]: null } })
    expect(items(html)[0]).toContain('data-shot="&lt;/script&gt;&lt;b&gt;&quot;&amp;')
  })
})

describe('figures of the day', () => {
  it('of a mode are picture, sound and proxy, or every sample of each frame', () => {
    const raw = coded('raw', 1, { picture: { ...(coded('m', 1).picture ?? fail()), coding: { kind: 'raw', bitsPerSample: 8, headerBytes: 4 } } }) // prettier-ignore
    // (3840 × 2160 + 4) bytes, 25 times a second.
    expect(bitsPerSecondOf(raw)).toBe((3840 * 2160 + 4) * 25 * 8)
    expect(bitsPerSecondOf(coded('sound', 0, { picture: undefined, audioBitsPerSecond: 1_536_000 }))).toBe(1_536_000)
  })

  it('are doubted from three on, and differ from half a percent on', () => {
    expect([outlying([]), outlying([1, 1, 9]), outlying([1, 9])]).toEqual([[], [false, false, true], [false, false]])
    const learned = (value: number) => differsFromPlan({ inUse: 1000, learned: { value, guessed: false } })
    expect([1004.9, 1005.1, 995.1, 994.9].map(learned)).toEqual([false, true, false, true])
    expect([differenceWords(1005.1, 1000), differenceWords(994.9, 1000)]).toEqual(['0.5 % more', '0.5 % less'])
  })

  it('of a load are guessed by its whole name without its number', () => {
    const clues = { cards: [card('Curlew A', 1, 1)], cameras: [camera('Curlew', [])], plan: undefined }
    const cardOf = (label: string) => likelyGear({ ...clues, label }).cardId
    expect(['Curlew A (12)', ' curlew a ', 'Curlew A (2) b', 'Curlew A(2)'].map(cardOf)).toEqual([
      ...['Curlew A', 'Curlew A', undefined, undefined],
    ])
    const planned = { cameras: [{ ...clues.cameras[0], cameraId: 'Plover', cardIds: ['other'] }] } as never
    expect(likelyGear({ ...clues, plan: planned, label: 'Curlew A' })).toEqual({
      cardId: 'Curlew A',
      cameraId: 'Curlew',
    })
    expect(likelyGear({ ...clues, plan: planned, label: 'Heron' })).toEqual({ cardId: undefined, cameraId: undefined })
  })
})

function fail(): never {
  throw new Error('no picture')
}
