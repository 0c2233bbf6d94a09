import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { decidedOtherwise, decisionsOf, decisionsText, namedDecisions, type Decision } from './decisions'
import { copyPlan, type CopyTarget } from './plan'

const tide: Decision = {
  ...{ volumeId: 'tide', name: 'Tide 1', connected: true, fits: true },
  ...{ keep: 3, copy: 7, conflict: 0, print: '1 1' },
}
const changed = (change: Partial<Decision>) => decidedOtherwise([tide], [{ ...tide, ...change }])

describe('what a plan decides', () => {
  it('is told where it is otherwise, by what', () => {
    expect(changed({})).toEqual([])
    expect(changed({ connected: false, keep: 0 })).toEqual(['Tide 1 is not connected any more.'])
    expect(changed({ fits: false })).toEqual(['Tide 1 has no room for it any more.'])
    expect(changed({ keep: 2, copy: 8, print: '1 2' })).toEqual(['Tide 1: 1 file fewer there as proved.'])
    expect(changed({ copy: 5, conflict: 2, print: '1 2' })).toEqual(['Tide 1: 2 more files in the way.'])
    expect(changed({ copy: 8, print: '2 1' })).toEqual(['The card has 1 more file.'])
    // As many files, but not the same ones.
    expect(changed({ print: '1 2' })).toEqual(['Tide 1: other files than in the plan.'])
    const slipway = { ...tide, volumeId: 'slipway', name: 'Slipway' }
    expect(decidedOtherwise([tide, slipway], [tide])).toEqual(['Slipway is no longer part of it.'])
    expect(decidedOtherwise([tide], [tide, slipway])).toEqual(['Slipway was not part of it.'])
  })

  it('says something whenever anything of it is another, and nothing when free bytes alone are', () => {
    const decision = fc.record({
      volumeId: fc.constantFrom('a', 'b'),
      name: fc.constant('Tide'),
      connected: fc.boolean(),
      fits: fc.boolean(),
      keep: fc.nat(3),
      copy: fc.nat(3),
      conflict: fc.nat(3),
      print: fc.constantFrom('1', '2'),
    })
    const plan = fc.uniqueArray(decision, { minLength: 1, selector: ({ volumeId }) => volumeId })
    fc.assert(
      fc.property(plan, plan, (seen, now) => {
        const sorted = (some: readonly Decision[]) => [...some].sort((a, b) => a.volumeId.localeCompare(b.volumeId))
        const isSame = JSON.stringify(sorted(seen)) === JSON.stringify(sorted(now))
        expect(decidedOtherwise(seen, now).length === 0).toBe(isSame)
      }),
    )
    const target = (freeBytes: number): CopyTarget => ({
      ...{ id: 'tide', name: 'Tide 1', freeBytes, device: undefined, thereBytes: 0 },
      ...{ proved: { files: 0, sizeBytes: 0 }, inTheWay: { files: 0, sizeBytes: 0 } },
      ...{ readBytesPerSecond: undefined, writeBytesPerSecond: undefined },
    })
    const decided = (freeBytes: number) =>
      decisionsOf(
        copyPlan({
          wanted: { files: 1, sizeBytes: 100 },
          card: { name: 'left', device: undefined, readBytesPerSecond: undefined, writeBytesPerSecond: undefined },
          targets: [target(freeBytes)],
          hashBytesPerSecond: undefined,
        }).volumes,
        new Map(),
      )
    expect(decidedOtherwise(decided(1e9), decided(2e9))).toEqual([])
    expect(decidedOtherwise(decided(1e9), decided(50))).toEqual(['Tide 1 has no room for it any more.'])
  })

  it('comes back from its text, and from no other', () => {
    expect(namedDecisions(decisionsText([tide]))).toEqual([tide])
    for (const text of ['', 'null', '{}', '[1]', '[{}]', '[{"volumeId":"a"}]', decisionsText([{ ...tide, keep: 0.5 }])])
      expect(namedDecisions(text)).toBeUndefined()
  })
})
