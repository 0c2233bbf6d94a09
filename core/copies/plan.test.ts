import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { copyPlan, fewerKept, moreInTheWay, planFault, planWords, type CopyQuestion, type CopyTarget } from './plan'

const none = { files: 0, sizeBytes: 0 }
const target = (name: string, more: Partial<CopyTarget> = {}): CopyTarget => ({
  id: name,
  name,
  freeBytes: 1e12,
  device: { fileSystem: name, disks: [name], known: true, pastCache: true },
  proved: none,
  inTheWay: none,
  thereBytes: 0,
  readBytesPerSecond: 100e6,
  writeBytesPerSecond: 100e6,
  ...more,
})
const question = (...targets: CopyTarget[]): CopyQuestion => ({
  wanted: { files: 100, sizeBytes: 10e9 },
  card: { name: 'the card', readBytesPerSecond: 90e6, writeBytesPerSecond: undefined, device: undefined },
  hashBytesPerSecond: undefined,
  targets,
})

describe('the plan of a copy', () => {
  it('takes as long as its slowest place', () => {
    // Worked example: 10 GB ÷ 100 MB/s written + 10 GB ÷ 100 MB/s read back = 200 s; the card needs 10 GB ÷ 90 MB/s =
    // 111 s.
    const plan = copyPlan(question(target('Slipway'), target('Tide', { writeBytesPerSecond: 400e6 })))
    expect(plan).toMatchObject({ seconds: 200, bottleneck: 'Slipway' })
    expect(planWords(plan)).toBe(
      'Slipway gets 100 files, 10.0 GB; Tide gets 100 files, 10.0 GB: about 3 min 20 s, waiting mostly for Slipway.',
    )
    const fast = target('Fast', { writeBytesPerSecond: 1e9, readBytesPerSecond: 1e9 })
    expect(copyPlan(question(fast)).bottleneck).toBe('the card')
  })

  it('names the cable, a bus that two share, and the checksums', () => {
    const on = (...bus: { port: string; bitsPerSecond: number }[]) => ({
      ...{ fileSystem: 'x', disks: [], known: true, pastCache: true, bus },
    })
    // Worked example: 480 Mb/s carry 45 MB/s at three quarters; 10 GB written and read back are 20 GB, 444 s.
    const slow = { port: '1-2', bitsPerSecond: 480e6 }
    const cable = target('Tide', { device: on(slow), readBytesPerSecond: 46e6, writeBytesPerSecond: 46e6 })
    const plan = copyPlan(question(cable))
    expect(plan.bottleneck).toBe('the cable of Tide (USB, 480 Mb/s)')
    expect(plan.seconds).toBeCloseTo(20e9 / 45e6, 0)
    // A disk that is slower than its cable is the slow one itself.
    const own = target('Tide', { device: on({ ...slow, bitsPerSecond: 5e9 }), writeBytesPerSecond: 46e6 })
    expect(copyPlan(question(own)).bottleneck).toBe('Tide')
    // Both on one hub of 5 Gb/s: 10 GB from the card, 20 GB each: 50 GB at 469 MB/s, 107 s.
    const hub = { port: 'usb2', bitsPerSecond: 5e9 }
    const fast = { readBytesPerSecond: 450e6, writeBytesPerSecond: 450e6 }
    const pair = question(
      target('One', { ...fast, device: on({ port: '2-1', bitsPerSecond: 5e9 }, hub) }),
      target('Two', { ...fast, device: on({ port: '2-2', bitsPerSecond: 5e9 }, hub) }),
    )
    const shared = copyPlan({
      ...pair,
      card: { ...pair.card, readBytesPerSecond: 300e6, device: on({ port: '2-3', bitsPerSecond: 5e9 }, hub) },
    })
    expect(shared.bottleneck).toBe('the bus that the card and One and Two share (USB, 5 Gb/s)')
    expect(shared.seconds).toBeCloseTo(107, 0)
    // 30 GB are hashed, once from the card and once from each volume: 300 s at 100 MB/s.
    const hashed = copyPlan({ ...question(target('One'), target('Two')), hashBytesPerSecond: 100e6 })
    expect(hashed).toMatchObject({ bottleneck: 'the checksums', seconds: 300 })
    expect(copyPlan({ ...question(target('One')), hashBytesPerSecond: 5e9 }).bottleneck).toBe('One')
  })

  it('keeps what is proved, reads it again, and needs no card for it', () => {
    const whole = { files: 100, sizeBytes: 10e9 }
    const plan = copyPlan(question(target('Tide', { proved: whole, thereBytes: 10e9 })))
    expect(plan.volumes[0]).toMatchObject({ keep: whole, copy: none, missingBytes: 0 })
    expect(plan).toMatchObject({ seconds: 100, bottleneck: 'Tide' })
  })

  it('says no time while a place was never measured, but says what it will do', () => {
    const plan = copyPlan(question(target('New', { writeBytesPerSecond: undefined })))
    expect(plan.seconds).toBeUndefined()
    expect(planWords(plan)).toContain('known after the first copy')
  })

  it('counts the room of one drive once, and names what is lacking to the byte', () => {
    const device = { fileSystem: 'x', disks: ['x'], known: true, pastCache: true }
    const plan = copyPlan(
      question(target('One', { device, freeBytes: 15e9 }), target('Two', { device, freeBytes: 15e9 })),
    )
    expect(plan.volumes.map((volume) => volume.missingBytes)).toEqual([0, 5e9])
    expect(plan.volumes.map(planFault)[1]).toContain('5.00 GB (5000000000 bytes) are missing, together with One')
    expect(
      planFault(copyPlan(question(target('Gone', { freeBytes: undefined }))).volumes[0] ?? neverPlanned()),
    ).toContain('Gone is not connected')
  })

  it('says what became different since it was ordered', () => {
    const seen = copyPlan(question(target('Tide', { proved: { files: 100, sizeBytes: 10e9 } })))
    const now = copyPlan(
      question(target('Tide', { proved: { files: 97, sizeBytes: 9e9 }, inTheWay: { files: 1, sizeBytes: 1 } })),
    )
    expect(fewerKept(seen, now)).toEqual(['Tide: 3 files fewer lie there as proved than when this was ordered.'])
    expect(moreInTheWay(seen, now)).toEqual(['Tide: 1 more file in the way than when this was ordered.'])
    expect([...fewerKept(seen, seen), ...moreInTheWay(seen, seen)]).toEqual([])
  })

  it('never counts a file twice, and never plans more than is wanted', () => {
    const count = (most: number) => fc.integer({ min: 0, max: most })
    fc.assert(
      fc.property(count(50), count(50), count(20e9), (kept, way, freeBytes) => {
        const of = (files: number) => ({ files, sizeBytes: files * 1e8 })
        const [volume] = copyPlan(
          question(target('Tide', { proved: of(kept), inTheWay: of(way), thereBytes: (kept + way) * 1e8, freeBytes })),
        ).volumes
        expect((volume?.keep.files ?? 0) + (volume?.copy.files ?? 0) + (volume?.conflict.files ?? 0)).toBe(100)
        expect(volume?.missingBytes).toBe(Math.max(0, 10e9 - (kept + way) * 1e8 - freeBytes))
      }),
    )
  })
})

const neverPlanned = (): never => {
  throw new Error('nothing was planned')
}
