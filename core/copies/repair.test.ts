import { describe, expect, it } from 'vitest'
import { chanceOf } from '../units/digest'
import { repairPlan, repairSentence, rightHash, type AmissFile, type RepairQuestion } from './repair'

const volume = (name: string, more: object = {}) => ({
  ...{ id: name, name, connected: true, freeBytes: 1e12 },
  device: { fileSystem: `fs:${name}`, disks: [`serial:${name}`], known: true, pastCache: true },
  ...{ readBytesPerSecond: 100e6, writeBytesPerSecond: 50e6 },
  ...more,
})
const bad = (entryId: number, more: Partial<AmissFile> = {}): AmissFile => ({
  ...{ entryId, loadId: 'load', label: 'Curlew A', path: `DCIM/C${entryId}.MP4`, sizeBytes: 1e9, volumeId: 'Tide 1' },
  ...{ standing: 'differs', difference: 'rot', hash: `h${entryId}`, isCovered: false },
  ...more,
})
const good = (entryId: number, volumeId: string, hash = `h${entryId}`) => ({ entryId, volumeId, hash })
const plan = (more: Partial<RepairQuestion>) =>
  repairPlan({
    ...{ files: [], goods: [], volumes: [volume('Tide 1'), volume('Tide 2'), volume('Neap')] },
    ...{ cards: new Set(), formatted: new Set(['load']) },
    ...more,
  })

describe('a repair', () => {
  it('takes good files from another drive, and says what, how much and how long', () => {
    const planned = plan({ files: [bad(1), bad(2)], goods: [good(1, 'Tide 2'), good(2, 'Tide 2')] })
    expect(planned.steps).toMatchObject([
      { volumeId: 'Tide 1', from: { name: 'Tide 2' }, entryIds: [1, 2], sizeBytes: 2e9, aside: 2, unread: 0 },
    ])
    // 2 GB written at 50 MB/s take 40 s, and read back at 100 MB/s 20 s.
    expect(planned.seconds).toBeCloseTo(60)
    expect(repairSentence(planned)).toBe('2 files on Tide 1 can be mended from Tide 2: 2.00 GB, about 1 min.')
    expect(planned.steps[0]?.names[0]).toMatch(/^C1\.MP4 has rotted: .*nobody wrote to it/)
  })

  it('says first what has no good copy left, and does what it can of the rest', () => {
    const planned = plan({ files: [bad(1), bad(2)], goods: [good(2, 'Neap')] })
    expect(planned).toMatchObject({
      lost: [{ label: 'Curlew A', volumeName: 'Tide 1', files: 1 }],
      steps: [{ entryIds: [2] }],
    })
    expect(repairSentence(planned)).toMatch(/^1 file has no good copy left anywhere: 1 of “Curlew A”\. 1 file on/)
  })

  it('waits for a drive that is away, and for a card that was not formatted', () => {
    const away = [volume('Tide 1'), volume('Tide 2', { connected: false })]
    expect(plan({ files: [bad(1)], goods: [good(1, 'Tide 2')], volumes: away }).waiting).toMatchObject([
      { wants: 'you connect Tide 2' },
    ])
    const card = plan({ files: [bad(1)], formatted: new Set() })
    expect([card.lost, card.waiting[0]?.wants]).toEqual([[], 'you connect the card of “Curlew A”'])
    expect(plan({ files: [bad(1)], cards: new Set(['load']) }).steps).toMatchObject([{ from: 'card' }])
    const off = [volume('Tide 1', { connected: false }), volume('Tide 2')]
    expect(plan({ files: [bad(1)], goods: [good(1, 'Tide 2')], volumes: off })).toMatchObject({
      ...{ steps: [], waiting: [{ wants: 'you connect Tide 1' }] },
    })
    const covered = plan({ files: [bad(1, { standing: 'missing', isCovered: true })], goods: [good(1, 'Tide 2')] })
    expect(repairSentence(covered)).toBe(
      '1 file on Tide 1 can be mended once you unmount what is mounted inside the copy on Tide 1.',
    )
  })

  it('is refused where room is short, for all on one drive together', () => {
    const shared = volume('Tide 1').device
    const volumes = [
      volume('Tide 1', { freeBytes: 1.5e9 }),
      volume('Tide 1 b', { freeBytes: 1.5e9, device: shared }),
      volume('Tide 2'),
    ]
    const files = [bad(1), bad(1, { volumeId: 'Tide 1 b' })]
    const planned = plan({ files, goods: [good(1, 'Tide 2')], volumes })
    expect(planned.steps.map((step) => step.missingBytes)).toEqual([0.5e9, 0.5e9])
    expect(repairSentence(planned)).toContain('Tide 1 lacks 500 MB: nothing is mended there.')
    expect(plan({ files: [bad(1)], goods: [good(1, 'Tide 2')], volumes }).steps[0]?.missingBytes).toBe(0)
  })

  it('guesses nothing where two copies differ, and follows two of three', () => {
    const two = plan({ files: [bad(1)], goods: [good(1, 'Tide 2', 'other')] })
    expect([two.steps, two.unsettled.length, two.lost]).toEqual([[], 1, []])
    const three = plan({ files: [bad(1)], goods: [good(1, 'Tide 2', 'other'), good(1, 'Neap', 'other')] })
    expect(three.steps).toMatchObject([{ from: { name: 'Tide 2' } }])
    const odd = plan({ files: [bad(1)], goods: [good(1, 'Tide 2'), good(1, 'Neap', 'other')] })
    expect(odd.steps).toMatchObject([{ from: { name: 'Tide 2' } }])
    expect([rightHash([]), rightHash(['a']), rightHash(['a', 'b']), rightHash(['a', 'b', 'c'])]).toEqual([
      ...[undefined, 'a', undefined, undefined],
    ])
    expect([rightHash(['a', 'b', 'a']), rightHash(['a', 'a', 'b', 'b'])]).toEqual(['a', undefined])
  })

  it('reads again what nobody has read since it was changed, also without another copy', () => {
    const changed = bad(1, { standing: 'changed', difference: null })
    expect(plan({ files: [changed] })).toMatchObject({ lost: [], steps: [{ from: 'nothing', unread: 1 }], seconds: 30 })
    expect(plan({ files: [changed], goods: [good(1, 'Neap')] }).steps).toMatchObject([
      { from: { name: 'Neap' }, unread: 1 },
    ])
    expect(plan({ files: [bad(1, { standing: 'missing' })], goods: [good(1, 'Neap')] }).steps[0]?.aside).toBe(0)
  })

  it('is another decision when anything of it is otherwise', () => {
    const files = [bad(1), bad(2)]
    const goods = [good(1, 'Tide 2'), good(2, 'Tide 2')]
    const one = plan({ files, goods }).decisions
    expect(plan({ files, goods }).decisions).toBe(one)
    expect(plan({ files: files.slice(1), goods }).decisions).not.toBe(one)
    expect(plan({ files, goods: [good(1, 'Neap'), good(2, 'Neap')] }).decisions).not.toBe(one)
    expect(plan({ files, goods, volumes: [volume('Tide 1', { freeBytes: 5 }), volume('Tide 2')] }).decisions).not.toBe(
      one,
    )
  })

  it('mends each file once, from a copy that has the right content, in any mixture', () => {
    for (let seed = 0; seed < 300; seed += 1) {
      const chance = (what: string) => chanceOf(String(seed), what)
      const volumes = ['Tide 1', 'Tide 2', 'Neap', 'Spring'].map((name) =>
        volume(name, { connected: chance(`here ${name}`) < 0.8 }),
      )
      const files: AmissFile[] = []
      const goods: ReturnType<typeof good>[] = []
      for (let entry = 0; entry < 8; entry += 1)
        for (const { id } of volumes) {
          const kind = chance(`${entry} ${id}`)
          const hash = chance(`hash ${entry} ${id}`) < 0.15 ? 'other' : `h${entry}`
          if (kind < 0.3) files.push(bad(entry, { volumeId: id, hash }))
          else if (kind < 0.7) goods.push(good(entry, id, hash))
        }
      const planned = plan({ files, goods, volumes })
      const told = [...planned.lost, ...planned.unsettled, ...planned.waiting].reduce((sum, one) => sum + one.files, 0)
      const mended = planned.steps.flatMap((step) => step.entryIds.map((id) => ({ step, id })))
      expect(mended.length + told).toBe(files.length)
      for (const { step, id } of mended) {
        const from = typeof step.from === 'string' ? undefined : step.from.volumeId
        const source = goods.find((one) => one.entryId === id && one.volumeId === from)
        const votes = [
          ...files.filter((one) => one.entryId === id && one.volumeId === step.volumeId),
          ...goods.filter((one) => one.entryId === id),
        ]
        expect(source?.hash).toBe(rightHash(votes.map((one) => one.hash)))
        expect(volumes.find((one) => one.id === from)?.connected).toBe(true)
      }
    }
  })
})
