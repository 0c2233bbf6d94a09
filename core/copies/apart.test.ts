import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { copy, home, played } from './testCopy'
import { marksApart } from './apart'
import { clearToFormat } from './clear'
import { markOf } from './mark'

const on = (name: string, disk: string, more = {}) =>
  copy(name, { device: { fileSystem: name, disks: [disk], known: true, pastCache: true }, ...more })
const apart = (copies: ReturnType<typeof copy>[], cardStanding = home.cardStanding) =>
  marksApart({ ...home, copies, cardStanding })

describe('copies by the drives that they lie on', () => {
  it('count once for each drive, and never on that of the card', () => {
    expect(apart([on('A', 'x', played), on('B', 'x')])).toEqual({ marks: [3], oneDrive: true, perhapsOneDrive: false })
    expect(apart([on('A', 'x', played), on('B', 'x'), on('C', 'y')]).marks).toEqual([3, 2])
    // One copy alone is no two on one drive.
    expect(apart([on('A', 'x')])).toEqual({ marks: [2], oneDrive: false, perhapsOneDrive: false })
    const cardStanding = { device: on('card', 'x').device, connected: true }
    expect(apart([on('A', 'x'), on('B', 'y')], cardStanding)).toMatchObject({ marks: [2], oneDrive: true })
    const share = { device: { fileSystem: 'share', disks: [], known: false, pastCache: false } }
    expect(apart([on('A', 'x'), copy('B', share)])).toMatchObject({ marks: [2, 2], perhapsOneDrive: true })
    expect(apart([on('A', 'x'), copy('B', { device: undefined })])).toMatchObject({
      marks: [2, 2],
      perhapsOneDrive: false,
    })
    const saidDifferent = [['B', 'A']] as const
    expect(marksApart({ ...home, copies: [on('A', 'x'), copy('B', share)], saidDifferent })).toEqual({
      marks: [2, 2],
      oneDrive: false,
      perhapsOneDrive: false,
    })
  })

  it('are the best of each drive, the two best of them', () => {
    const some = fc.array(fc.record({ disk: fc.constantFrom('x', 'y', 'z'), mark: fc.integer({ min: 0, max: 3 }) }))
    fc.assert(
      fc.property(some, (drawn) => {
        const copies = drawn.map(({ disk, mark }, at) =>
          on(String(at), disk, {
            ...(mark < 2 && { filesVerified: 8 }),
            ...(mark < 1 && { filesCopied: 8 }),
            ...(mark === 3 && played),
          }),
        )
        const best = new Map<string, number>()
        for (const { disk, mark } of drawn) best.set(disk, Math.max(mark, best.get(disk) ?? 0))
        expect(apart(copies).marks).toEqual([...best.values()].sort((a, b) => b - a).slice(0, 2))
      }),
    )
  })

  it('are two wherever a card may be formatted, and asked about wherever that alone keeps it from being', () => {
    const device = fc.record({
      fileSystem: fc.constantFrom('1', '2', '3'),
      disks: fc.subarray(['x', 'y', 'name:sda'], { maxLength: 2 }),
      known: fc.boolean(),
      pastCache: fc.constant(true),
    })
    const any = fc.record({
      device: fc.option(device, { nil: undefined }),
      connected: fc.boolean(),
      isPlayed: fc.boolean(),
    })
    let clear = 0
    fc.assert(
      fc.property(fc.array(any, { maxLength: 4 }), device, fc.boolean(), (drawn, card, connected) => {
        const copies = drawn.map(({ isPlayed, ...more }, at) => copy(String(at), { ...more, ...(isPlayed && played) }))
        const question = { ...home, copies, cardStanding: { device: card, connected } }
        const { marks, oneDrive, perhapsOneDrive } = marksApart(question)
        const isTwice = (marks[1] ?? 0) >= 2 && !perhapsOneDrive
        expect(oneDrive).toBe(copies.filter((one) => markOf(one) >= 2).length >= 2 && (marks[1] ?? 0) < 2)
        // Of a drive that was never seen nobody is asked, and no card is formatted on its word.
        if (copies.some((one) => one.device === undefined)) return
        if (!copies.some((one) => one.connected) || !copies.some((one) => one.spotPlayedAt)) return
        expect(clearToFormat(question).clear).toBe(isTwice)
        clear += Number(isTwice)
        const after = { ...question, formattedAt: '2026-11-14T22:30:00Z' }
        expect(/one drive|one proved copy/.test(clearToFormat(after).sentence)).toBe(
          (marksApart(after).marks[1] ?? 0) < 2,
        )
      }),
      { numRuns: 3000 },
    )
    // About 160 of 3 000, give or take 12.
    expect(clear).toBeGreaterThan(50)
  })
})
