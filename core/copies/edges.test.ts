import { describe, expect, it } from 'vitest'
import { relationOf } from './apart'
import { parseChecksumList } from './lists/format'
import { playedStill, type CopyState } from './copyState'
import { decisionsText, decidedOtherwise, namedDecisions, type Decision } from './decisions'
import { isImage, sameDevice, type DeviceIdentity } from './device'
import { dangerWords, nightPlan, nightSentence, type NightCard } from './night'
import { printablePath } from './pathText'
import { copyPlan, fewerKept, moreInTheWay, planFault, planWords, type CopyTarget, type PlannedCopy } from './plan'
import { proposeVolumes } from './proposal'
import { copy } from './testCopy'

const cable = { port: '1-2', bitsPerSecond: 5e9 }
const hub = { port: 'usb1', bitsPerSecond: 10e9 }
const disk: DeviceIdentity = {
  ...{ fileSystem: '8:1', disks: ['serial-1', 'serial-2'], known: true, pastCache: true },
  bus: [cable, hub],
}

describe('a device', () => {
  it('is described as before only where all of it is', () => {
    expect(sameDevice(disk, { ...disk, disks: [...disk.disks], bus: [cable, hub] })).toBe(true)
    // What a link carries may be negotiated anew; where it is plugged in is another place.
    expect(sameDevice(disk, { ...disk, bus: [{ ...cable, bitsPerSecond: 480e6 }, hub] })).toBe(true)
    const { bus: _, ...noBus } = disk
    const others: (DeviceIdentity | undefined)[] = [
      { ...disk, fileSystem: '8:2' },
      { ...disk, disks: ['serial-1'] },
      { ...disk, bus: [{ port: '1-3', bitsPerSecond: 5e9 }, hub] },
      { ...disk, known: false },
      { ...disk, pastCache: false },
      noBus,
      undefined,
    ]
    for (const other of others) {
      expect(sameDevice(disk, other), JSON.stringify(other)).toBe(false)
      expect(sameDevice(other, disk), JSON.stringify(other)).toBe(false)
      expect(sameDevice(other, other), JSON.stringify(other)).toBe(true)
    }
  })

  it('is an image by the name that the system gives it', () => {
    expect(['name:loop0', 'name:sdb', 'serial-name:loop', 'loop0'].map(isImage)).toEqual([true, false, false, false])
  })

  it('is another one where the person said so of this very pair', () => {
    const unknown = { fileSystem: 'share', disks: [], known: false, pastCache: false }
    const [a, b] = [copy('Slipway', { device: unknown }), copy('Tide 1')]
    expect(relationOf(a, b, [])).toBe('unknown')
    expect(relationOf(a, b, [['Slipway', 'Tide 1']])).toBe('different')
    expect(relationOf(a, b, [['Tide 1', 'Slipway']])).toBe('different')
    expect(relationOf(a, b, [['Slipway', 'Tide 2']])).toBe('unknown')
    expect(relationOf(a, b, [['Tide 2', 'Tide 1']])).toBe('unknown')
  })
})

describe('a played mark', () => {
  const still = (more: Partial<Parameters<typeof playedStill>[0]>) =>
    playedStill({ playedAt: 10, placedAt: 5, absentAt: undefined, standing: 'verified', ...more })

  it('stands from the moment in which the file lay there until it was missing', () => {
    expect([5, 9, 10, 11].map((placedAt) => still({ placedAt }))).toEqual([true, true, true, false])
    expect([9, 10, 11].map((absentAt) => still({ absentAt }))).toEqual([true, false, false])
    const states: CopyState[] = ['verified', 'memory', 'missing', 'changed', 'doubted', 'differs', 'conflict']
    expect(states.filter((standing) => still({ standing }))).toEqual(['verified', 'memory'])
  })
})

describe('a path as text', () => {
  it('keeps characters of every length beside a stray byte, and a mark of byte order', () => {
    const path = 'a\u00e9\u20ac\u{1f6f6}'
    expect(printablePath(Buffer.from(path))).toBe(path)
    expect(printablePath(Buffer.concat([Buffer.from(path), Buffer.from([0xff])]))).toBe(`${path}\\xff`)
    expect(printablePath(Buffer.concat([Buffer.from([0xff]), Buffer.from('\ufeffx')]))).toBe('\\xff\ufeffx')
    expect(printablePath(Buffer.from('\ufeffx'))).toBe('\ufeffx')
    // The beginning of a character of four bytes, cut short.
    expect(printablePath(Buffer.from([0xf0, 0x9f, 0x9b]))).toBe('\\xf0\\x9f\\x9b')
  })

  it('is no line of a list where anything stands before or behind', () => {
    const line = `${'0'.repeat(16)}  CLIP.MP4`
    expect(parseChecksumList(line)).toHaveLength(1)
    expect(() => parseChecksumList(`x ${line}`)).toThrow('Line 1')
  })
})

const none = { files: 0, sizeBytes: 0 }
const target = (name: string, more: Partial<CopyTarget> = {}): CopyTarget => ({
  ...{ id: name, name, freeBytes: 1e12, proved: none, inTheWay: none, thereBytes: 0 },
  device: { fileSystem: name, disks: [name], known: true, pastCache: true },
  ...{ readBytesPerSecond: 100e6, writeBytesPerSecond: 100e6 },
  ...more,
})
const cardSpeed = { name: 'the card', readBytesPerSecond: 90e6, writeBytesPerSecond: undefined, device: undefined }
const plan = (targets: CopyTarget[], more: Partial<Parameters<typeof copyPlan>[0]> = {}) =>
  copyPlan({
    ...{ wanted: { files: 100, sizeBytes: 10e9 }, card: cardSpeed, hashBytesPerSecond: undefined, targets },
    ...more,
  })

describe('a plan', () => {
  it('says of each volume what it gets, keeps, lacks, or that it is away', () => {
    const half = { files: 50, sizeBytes: 5e9 }
    const said = planWords(
      plan([
        target('One', { proved: half, thereBytes: 5e9 }),
        target('Two', { proved: { files: 100, sizeBytes: 10e9 }, thereBytes: 10e9 }),
        target('Three', { inTheWay: { files: 1, sizeBytes: 1e8 }, thereBytes: 1e8 }),
        target('Four', { freeBytes: 9e9 }),
        target('Five', { freeBytes: undefined }),
      ]),
    )
    expect(said).toBe(
      'One gets 50 files, 5.00 GB, keeps 50 and has them read again; Two keeps 100 and has them read again; ' +
        'Three gets 99 files, 9.90 GB, has 1 other file in the way; Four lacks 1.00 GB; Five is not connected: ' +
        'about 3 min 18 s, waiting mostly for Three.',
    )
    expect(planWords(plan([target('Six')], { wanted: none }))).toBe('Six has nothing to get: about 0 s.')
  })

  it('says why nothing is copied to a volume', () => {
    const volumes = plan([
      target('Four', { freeBytes: 9e9 }),
      target('Five', { freeBytes: undefined }),
      target('Six'),
    ]).volumes
    expect(volumes.map(planFault)).toEqual([
      'Four is full: 1.00 GB (1000000000 bytes) are missing. Nothing was copied there; make room or choose another volume.',
      'Five is not connected: nothing was copied there.',
      undefined,
    ])
  })

  it('reckons with what is written, read back and read again, and with those volumes alone that can be written', () => {
    // 5 GB written, and 10 GB read back or again, at 100 MB/s: 150 s.
    const half = { proved: { files: 50, sizeBytes: 5e9 }, thereBytes: 5e9 }
    expect(plan([target('One', half)]).seconds).toBe(150)
    const away = target('Five', { freeBytes: undefined, writeBytesPerSecond: 1e6 })
    const full = target('Four', { freeBytes: 9e9, writeBytesPerSecond: 1e6 })
    expect(plan([target('One', half), away, full])).toMatchObject({ seconds: 150, bottleneck: 'One' })
    expect(plan([away, full])).toMatchObject({ seconds: undefined, bottleneck: undefined })
    expect(plan([])).toMatchObject({ seconds: undefined, volumes: [] })
    // The card alone was never measured; it does not matter where nothing is read from it.
    const card = { ...cardSpeed, readBytesPerSecond: undefined }
    expect(plan([target('One')], { card }).seconds).toBeUndefined()
    expect(plan([target('One')], { card: { ...cardSpeed, readBytesPerSecond: 0 } }).seconds).toBeUndefined()
    const whole = { proved: { files: 100, sizeBytes: 10e9 }, thereBytes: 10e9 }
    expect(plan([target('One', whole)], { card }).seconds).toBe(100)
    // Nothing to move: no time, and nothing to wait for.
    expect(plan([target('One')], { wanted: none })).toMatchObject({ seconds: 0, bottleneck: undefined })
    // 5 GB kept and 5 GB copied are 5 + 10 GB of checksums.
    expect(plan([target('One', half)], { hashBytesPerSecond: 50e6 })).toMatchObject({
      seconds: 300,
      bottleneck: 'the checksums',
    })
    // As slow as the slowest place is not slower.
    expect(plan([target('One', half)], { hashBytesPerSecond: 100e6 }).bottleneck).toBe('One')
  })

  it('names a cable from 85 % of the slowest place on, and a link by what it carries', () => {
    const on = (bitsPerSecond: number) => ({
      ...{ fileSystem: 'x', disks: ['x'], known: true, pastCache: true, bus: [{ port: '1-2', bitsPerSecond }] },
    })
    // 20 GB through 1 Gb/s at three quarters are 213.3 s; the disk needs 250 s, of which that is 85.3 %, or 252 s: 84.7
    // %.
    const disk = (seconds: number) => {
      const speed = Math.floor(20e9 / seconds)
      return target('Tide', { device: on(1e9), readBytesPerSecond: speed, writeBytesPerSecond: speed })
    }
    expect(plan([disk(250)])).toMatchObject({ seconds: 250, bottleneck: 'the cable of Tide (USB, 1 Gb/s)' })
    expect(plan([disk(252)])).toMatchObject({ bottleneck: 'Tide' })
    // A volume on the same port that gets nothing shares nothing.
    const idle = target('Idle', { device: on(1e9), freeBytes: undefined })
    expect(plan([disk(250), idle]).bottleneck).toBe('the cable of Tide (USB, 1 Gb/s)')
    // What is kept goes through the cable once: 5 GB copied and 5 GB kept are 15 GB, 160 s.
    const half = { proved: { files: 50, sizeBytes: 5e9 }, thereBytes: 5e9 }
    const fast = { readBytesPerSecond: 100e6, writeBytesPerSecond: 100e6 }
    expect(plan([target('Tide', { device: on(1e9), ...half, ...fast })]).seconds).toBe(160)
    const elsewhere = target('Other', {
      device: { ...on(1e9), fileSystem: 'y', disks: ['y'], bus: [{ port: '1-3', bitsPerSecond: 1e9 }] },
    })
    expect(plan([disk(250), elsewhere]).bottleneck).toBe('the cable of Tide (USB, 1 Gb/s)')
  })

  it('counts the room of a drive for those before, and only on that drive', () => {
    const device = { fileSystem: 'x', disks: ['x'], known: true, pastCache: true }
    const [one, two] = [target('One', { device, freeBytes: 15e9 }), target('Two', { device, freeBytes: 15e9 })]
    const lacking = (...targets: CopyTarget[]) =>
      plan(targets).volumes.map(({ missingBytes, sharesRoomWith }) => [missingBytes, ...sharesRoomWith])
    expect(lacking(one, target('Other'), two)).toEqual([[0], [0], [5e9, 'One']])
    expect(lacking(two, one)).toEqual([[0], [5e9, 'Two']])
    expect(lacking({ ...one, freeBytes: undefined }, two)).toEqual([[0], [0]])
    expect(lacking({ ...one, thereBytes: 4e9 }, two)).toEqual([[0], [1e9, 'One']])
  })

  it('tells fewer and more in the right number, of volumes that were and are connected', () => {
    const volume = (name: string, keep: number, conflict: number, connected = true): PlannedCopy => ({
      ...{ volumeId: name, name, connected, missingBytes: 0, sharesRoomWith: [], copy: none },
      ...{ keep: { files: keep, sizeBytes: 0 }, conflict: { files: conflict, sizeBytes: 0 } },
    })
    const of = (...volumes: PlannedCopy[]) => ({ volumes, seconds: undefined, bottleneck: undefined })
    const before = of(volume('One', 5, 2), volume('Two', 5, 2), volume('Three', 5, 2, false))
    const now = of(volume('Two', 4, 4), volume('Three', 1, 9), volume('New', 1, 9), volume('One', 6, 1))
    expect(fewerKept(before, now)).toEqual(['Two: 1 file fewer lies there as proved than when this was ordered.'])
    expect(moreInTheWay(before, now)).toEqual(['Two: 2 more files in the way than when this was ordered.'])
    expect(fewerKept(before, of(volume('One', 3, 2, false)))).toEqual([])
    expect(moreInTheWay(before, of(volume('One', 5, 9, false)))).toEqual([])
  })
})

describe('decisions', () => {
  const tide: Decision = {
    ...{ volumeId: 'tide', name: 'Tide 1', connected: true, fits: true, keep: 3, copy: 7, conflict: 1, print: '1' },
  }
  const slipway = { ...tide, volumeId: 'slipway', name: 'Slipway' }

  it('are told in the right number, also where several are otherwise', () => {
    const otherwise = (change: Partial<Decision>) => decidedOtherwise([tide], [{ ...tide, ...change }])
    expect(otherwise({ copy: 9 })).toEqual(['The card has 2 more files.'])
    expect(otherwise({ copy: 6 })).toEqual(['The card has 1 file fewer.'])
    expect(otherwise({ copy: 5 })).toEqual(['The card has 2 files fewer.'])
    expect(otherwise({ copy: 8, conflict: 0 })).toEqual(['Tide 1: 1 file fewer in the way.'])
    expect(otherwise({ keep: 4, copy: 6 })).toEqual(['Tide 1: 1 more file there as proved.'])
    expect(otherwise({ fits: false, keep: 1, copy: 7, conflict: 3 })).toEqual([
      'Tide 1 has no room for it any more.',
      'Tide 1: 2 files fewer there as proved.',
      'Tide 1: 2 more files in the way.',
    ])
    // By its own earlier plan, in whatever order they come.
    expect(decidedOtherwise([{ ...slipway, copy: 1 }, tide], [tide, { ...slipway, copy: 1 }])).toEqual([])
  })

  it('are nobody’s but ours: a text in which one value is of another kind names none', () => {
    for (const key of Object.keys(tide))
      for (const wrong of [null, 'x', 1.5, true, [], undefined]) {
        const value = tide[key as keyof Decision]
        if (typeof wrong === typeof value) continue
        expect(namedDecisions(JSON.stringify([{ ...tide, [key]: wrong }])), `${key} ${String(wrong)}`).toBeUndefined()
        expect(namedDecisions(JSON.stringify([slipway, { ...tide, [key]: wrong }]))).toBeUndefined()
      }
    expect(namedDecisions('[null]')).toBeUndefined()
    expect(namedDecisions(decisionsText([tide, slipway]))).toEqual([tide, slipway])
  })
})

describe('a night', () => {
  const card = (label: string, more: Partial<NightCard> = {}): NightCard => ({
    ...{ loadId: label, label, readerName: 'reader', verified: 0, wrong: 0, clips: 1, sizeBytes: 1, filmedSeconds: 60 },
    ...more,
  })
  const planned = (name: string, more: Partial<PlannedCopy> = {}): PlannedCopy => ({
    ...{ volumeId: name, name, connected: true, missingBytes: 0, sharesRoomWith: [], keep: none, conflict: none },
    copy: { files: 1, sizeBytes: 4e9 },
    ...more,
  })
  const rooms = ['Slipway', 'Tide'].map((name) => ({ volumeId: name, name, connected: true, freeBytes: 10e9 }))

  it('says why a card has its place', () => {
    const said = [
      [0, 0],
      [1, 0],
      [2, 0],
      [1, 1],
      [0, 2],
    ] as const
    expect(said.map(([verified, wrong]) => dangerWords({ verified, wrong }))).toEqual([
      ...['no proved copy of it', 'one proved copy', '2 proved copies', 'one proved copy, and 1 thing wrong with it'],
      'no proved copy of it, and 2 things wrong with it',
    ])
  })

  it('waits for what takes longest over all cards, and for nothing while no time is known', () => {
    const times: Record<string, [string | undefined, number | undefined]> = {
      a: ['Tide', 100],
      b: ['Slipway', 90],
      c: ['Slipway', 20],
    }
    const night = nightPlan(
      ['a', 'b', 'c'].map((label) => card(label)),
      rooms,
      ({ label }) => ({
        volumes: [planned('Slipway', { keep: { files: 1, sizeBytes: 1e9 } })],
        seconds: times[label]?.[1],
        bottleneck: times[label]?.[0],
      }),
    )
    expect(night).toMatchObject({ bottleneck: 'Slipway', seconds: 210, copyBytes: 12e9, keepBytes: 3e9 })
    const unknown = nightPlan(
      ['a', 'b'].map((label) => card(label)),
      rooms,
      ({ label }) => ({
        volumes: [planned('Slipway')],
        seconds: label === 'a' ? undefined : 5,
        bottleneck: undefined,
      }),
    )
    expect(unknown.steps.map((step) => step.endsAfterSeconds)).toEqual([undefined, undefined])
    expect(unknown.bottleneck).toBeUndefined()
    expect(nightSentence(unknown, String)).toBe(
      '2 cards, 8.00 GB to write: how long it takes is known after the first copy.',
    )
  })

  it('counts what is lacking, leaves out what is away, and takes no part where nothing is to be done', () => {
    const volumes: Record<string, PlannedCopy[]> = {
      a: [planned('Slipway', { missingBytes: 3e9 }), planned('Tide', { connected: false })],
      b: [planned('Slipway', { missingBytes: 4e9 }), planned('Tide')],
      c: [planned('Slipway', { copy: none }), planned('Tide', { copy: none })],
      d: [planned('Slipway', { copy: none }), planned('Tide', { copy: none, conflict: { files: 1, sizeBytes: 1 } })],
    }
    const night = nightPlan(
      ['a', 'b', 'c', 'd'].map((label) => card(label)),
      rooms,
      ({ label }) => ({
        ...{ volumes: volumes[label] ?? [], seconds: 1, bottleneck: 'Tide' },
      }),
    )
    expect(night.steps.map((step) => step.label)).toEqual(['a', 'b', 'd'])
    expect(night.copyBytes).toBe(4e9)
    expect(night.volumes).toEqual([
      { volumeId: 'Slipway', name: 'Slipway', connected: true, beforeBytes: 10e9, afterBytes: 10e9, missingBytes: 7e9 },
      { volumeId: 'Tide', name: 'Tide', connected: true, beforeBytes: 10e9, afterBytes: 6e9, missingBytes: 0 },
    ])
    const away = nightPlan(
      [card('a')],
      rooms.slice(0, 1).map((room) => ({ ...room, freeBytes: undefined })),
      () => ({
        ...{ volumes: [planned('Slipway')], seconds: 1, bottleneck: undefined },
      }),
    )
    expect(away.volumes[0]).toMatchObject({ beforeBytes: undefined, afterBytes: undefined })
    expect(
      nightSentence(
        nightPlan([], rooms, () => plan([])),
        String,
        ['Teal', 'Curlew'],
      ),
    ).toBe('Scan “Teal” and “Curlew” first: nothing is known of them yet.')
  })
})

describe('proposed volumes', () => {
  const volume = (name: string, more: object = {}) => ({
    ...{
      id: name,
      name,
      kind: 'archive',
      connected: true,
      away: false,
      budget: { freeBytes: 1e12 },
      sharesDriveWith: [],
    },
    ...more,
  })

  it('are connected, not put away, and have more room than is needed', () => {
    const all = [
      volume('out', { connected: false }),
      volume('away', { away: true }),
      volume('full', { budget: { freeBytes: 1e9 } }),
    ]
    expect(proposeVolumes([...all, volume('Tide')], 1e9)).toEqual(['Tide'])
    expect(proposeVolumes([volume('exact', { budget: { freeBytes: 1e9 + 1 } })], 1e9)).toEqual(['exact'])
    const four = ['a', 'b', 'c', 'd'].map((name) => volume(name))
    expect(proposeVolumes(four, 1)).toEqual(['a', 'b'])
    expect(proposeVolumes(four, 1, [{ volumeId: 'a', sharesDriveWith: [] }])).toEqual(['b'])
    expect(proposeVolumes([volume('a', { kind: 'edit' }), volume('b')], 1)).toEqual(['a', 'b'])
    const two = [
      { volumeId: 'a', sharesDriveWith: [] },
      { volumeId: 'b', sharesDriveWith: [] },
    ]
    expect(proposeVolumes(four, 1, two)).toEqual([])
    expect(proposeVolumes(four, 1, [], 3)).toEqual(['a', 'b', 'c'])
    expect(proposeVolumes(four, 1, two, 3)).toHaveLength(1)
  })
})
