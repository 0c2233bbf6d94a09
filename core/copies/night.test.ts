import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { nightPlan, nightSentence, type NightCard, type NightRoom } from './night'
import { copyPlan } from './plan'
import { proposeVolumes, type Candidate } from './proposal'

const card = (label: string, more: Partial<NightCard> = {}): NightCard => ({
  loadId: label,
  label,
  readerName: 'reader',
  verified: 0,
  wrong: 0,
  clips: 1,
  sizeBytes: 10e9,
  filmedSeconds: 60,
  ...more,
})
const device = (name: string) => ({ fileSystem: name, disks: [name], known: true, pastCache: true })
const none = { files: 0, sizeBytes: 0 }

/** 100 MB/s in every direction, nothing copied yet. */
function night(cards: readonly NightCard[], freeBytes: number) {
  const rooms: NightRoom[] = ['Slipway', 'Tide'].map((name) => ({ volumeId: name, name, connected: true, freeBytes }))
  return nightPlan(cards, rooms, (one, taken) =>
    copyPlan({
      wanted: { files: 10, sizeBytes: one.sizeBytes },
      card: { name: 'reader', readBytesPerSecond: 90e6, writeBytesPerSecond: undefined, device: undefined },
      hashBytesPerSecond: undefined,
      targets: rooms.map(({ name }) => ({
        id: name,
        name,
        freeBytes: freeBytes - (taken.get(name) ?? 0),
        device: device(name),
        proved: one.verified >= 2 ? { files: 10, sizeBytes: one.sizeBytes } : none,
        inTheWay: none,
        thereBytes: one.verified >= 2 ? one.sizeBytes : 0,
        readBytesPerSecond: 100e6,
        writeBytesPerSecond: 100e6,
      })),
    }),
  )
}

describe('a night of several cards', () => {
  it('begins with the card that is most in danger, and leaves out what is safe', () => {
    const { steps } = night(
      [
        card('short', { filmedSeconds: 30 }),
        card('once', { verified: 1, filmedSeconds: 9000 }),
        card('failing', { wrong: 1, filmedSeconds: 10 }),
        card('long', { filmedSeconds: 3600 }),
        card('safe', { verified: 2 }),
      ],
      1e12,
    )
    expect(steps.map((step) => step.label)).toEqual(['failing', 'long', 'short', 'once'])
    expect(steps[0]?.why).toBe('no proved copy of it, and 1 thing wrong with it')
  })

  it('adds up what it takes, and says when it is done', () => {
    // Worked example: 10 GB written and read back at 100 MB/s are 200 s a card.
    const plan = night([card('a'), card('b')], 1e12)
    expect(plan).toMatchObject({ seconds: 400, copyBytes: 40e9, bottleneck: 'Slipway' })
    expect(plan.steps.map((step) => step.endsAfterSeconds)).toEqual([200, 400])
    expect(plan.volumes[0]).toMatchObject({ beforeBytes: 1e12, afterBytes: 1e12 - 20e9, missingBytes: 0 })
    expect(nightSentence(plan, (seconds) => `+${seconds}`)).toBe(
      '2 cards, 40.0 GB to write: about 6 min 40 s, done at +400.',
    )
    expect(nightSentence(night([], 1e12), String)).toContain('that lies in a reader needs a copy')
    expect(nightSentence(night([], 1e12), String, ['Teal'])).toBe('Scan “Teal” first: nothing is known of it yet.')
  })

  it('sees that the second card does not fit after the first', () => {
    const plan = night([card('a'), card('b')], 15e9)
    expect(plan.steps.map((step) => step.plan.volumes[0]?.missingBytes)).toEqual([0, 5e9])
    expect(nightSentence(plan, String)).toContain('Slipway lacks 5.00 GB')
  })

  it('never writes more than there is room, nor loses a card, whatever they are', () => {
    const cards = fc.uniqueArray(
      fc.record({
        label: fc.string({ minLength: 1, maxLength: 4 }),
        verified: fc.integer({ min: 0, max: 3 }),
        wrong: fc.integer({ min: 0, max: 2 }),
        sizeBytes: fc.integer({ min: 1, max: 5e9 }),
        filmedSeconds: fc.integer({ min: 0, max: 9000 }),
      }),
      { selector: (one) => one.label, maxLength: 8 },
    )
    fc.assert(
      fc.property(cards, fc.integer({ min: 0, max: 2e10 }), (some, freeBytes) => {
        const plan = night(
          some.map(({ label, ...more }) => card(label, more)),
          freeBytes,
        )
        expect(plan.steps.map((step) => step.label).sort()).toEqual(
          some.flatMap((one) => (one.verified < 2 ? one.label : [])).sort(),
        )
        for (const volume of plan.volumes) expect(volume.afterBytes).toBeGreaterThanOrEqual(0)
        plan.steps.reduce((before, step) => {
          expect(step.verified).toBeGreaterThanOrEqual(before)
          return step.verified
        }, 0)
      }),
    )
  })
})

describe('volumes that are proposed', () => {
  const volume = (name: string, more: Partial<Candidate> = {}): Candidate => ({
    ...{ id: name, name, kind: 'archive', connected: true, away: false },
    ...{ budget: { freeBytes: 1e12 }, sharesDriveWith: [] },
    ...more,
  })

  it('are two on two drives with room, the edit drive first, and never a cloud', () => {
    const slipway = volume('Slipway', { kind: 'edit' })
    const all = [volume('bucket', { kind: 'cloud' }), volume('Tide 1'), volume('Tide 2'), slipway]
    expect(proposeVolumes(all, 1e9)).toEqual(['Slipway', 'Tide 1'])
    expect(proposeVolumes(all, 1e9, [{ volumeId: 'Tide 1', sharesDriveWith: ['Slipway'] }])).toEqual(['Tide 2'])
    expect(proposeVolumes(all, 2e12)).toEqual([])
    expect(
      proposeVolumes([volume('a', { sharesDriveWith: ['b'] }), volume('b', { sharesDriveWith: ['a'] })], 1),
    ).toEqual(['a'])
  })
})
