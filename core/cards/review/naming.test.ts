import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { namesBy, patternFault, USUAL_PATTERN, type NamedClip } from './naming'

const clip = (file: string, more: Partial<NamedClip> = {}): NamedClip => ({
  ...{ id: file, file, name: null, date: '2026-11-14', production: 'Steam-bending ribs', load: 'Curlew A' },
  ...{ camera: 'Curlew', shot: '', ...more },
})

describe('names by a pattern', () => {
  it('count the takes of one shot, and fall back to what is known', () => {
    const names = namesBy(USUAL_PATTERN, [
      clip('CURL0041.MP4', { shot: 'Third rib' }),
      clip('CURL0042.MP4', { shot: 'Third rib' }),
      clip('CURL0044.MP4', { camera: '' }),
    ])
    expect(names.map(({ to }) => to)).toEqual([
      '2026-11-14_Steam-bending ribs_Curlew_Third rib_01',
      '2026-11-14_Steam-bending ribs_Curlew_Third rib_02',
      '2026-11-14_Steam-bending ribs_Curlew A_CURL0044_01',
    ])
    // A day that nobody knows leaves no line at the beginning.
    expect(namesBy(USUAL_PATTERN, [clip('a.MP4', { date: '', shot: 'Rib' })])[0]?.to).toBe(
      'Steam-bending ribs_Curlew_Rib_01',
    )
    // As a name with a line end is printed.
    expect(namesBy('{clip}', [clip('two\\nlines.mp4')])[0]?.to).toBe('two lines')
  })

  it('are no two alike, nor like one that is taken, also not by capital letters', () => {
    expect(
      namesBy('{shot}', [clip('a.MP4', { shot: 'Rib' }), clip('b.MP4', { shot: 'RIB' })], ['rib_2']).map(
        ({ to }) => to,
      ),
    ).toEqual(['Rib', 'RIB_3'])
    const text = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.string({ minLength: 100, maxLength: 300 }),
      fc.constant('Gezeiten 🌊'.repeat(20)),
    )
    const clips = fc.array(fc.record({ shot: text, camera: text, file: text }), { maxLength: 20 })
    const pattern = fc.constantFrom('{shot}', '{shot}_{take}', '{camera} {clip}', USUAL_PATTERN, 'x{take}')
    fc.assert(
      fc.property(clips, pattern, fc.array(text, { maxLength: 5 }), (all, by, taken) => {
        const names = namesBy(
          by,
          all.map(({ file, ...more }) => clip(file, more)),
          taken,
        ).map(({ to }) => to.toLowerCase())
        expect(new Set(names).size).toBe(all.length)
        for (const name of names) {
          expect(taken.map((one) => one.toLowerCase())).not.toContain(name)
          expect(name).toMatch(/^[^/\\:*?"<>|\u0000-\u001f]+$/)
        }
      }),
    )
  })

  it('are refused where the pattern says nothing or something unknown', () => {
    expect(patternFault(USUAL_PATTERN)).toBeUndefined()
    expect(patternFault('rib')).toMatch(/one name/)
    expect(patternFault('{scene}_{take}')).toMatch(/\{scene\} means nothing/)
    expect(patternFault('{shot')).toBeDefined()
    expect(patternFault('{shot}}')).toMatch(/partner/)
  })
})
