import { describe, expect, it } from 'vitest'
import {
  cycleSentence,
  dueBefore,
  dueFiles,
  hoursAt,
  nightSeconds,
  slowSentence,
  tellsSpeed,
  USUAL_HOURS,
} from './cycle'

const hours = { ...USUAL_HOURS, mostBytes: 500e9 }
const at = (day: number, hour: number, minute = 0) => new Date(2026, 10, day, hour, minute)

describe('the hours of reading by night', () => {
  it('begin and end as they were set, also over midnight and all day', () => {
    expect(hoursAt(hours, at(3, 0, 59))).toBeUndefined()
    expect(hoursAt(hours, at(3, 1))).toEqual({ from: at(3, 1), to: at(3, 6) })
    expect(hoursAt(hours, at(3, 6))).toBeUndefined()
    const late = { ...hours, fromMinute: 22 * 60 + 30, toMinute: 300 }
    expect(hoursAt(late, at(3, 2))).toEqual({ from: at(2, 22, 30), to: at(3, 5) })
    expect(hoursAt(late, at(3, 23))).toEqual({ from: at(3, 22, 30), to: at(4, 5) })
    expect(hoursAt(late, at(3, 12))).toBeUndefined()
    const always = { ...hours, fromMinute: 60, toMinute: 60 }
    expect(hoursAt(always, at(3, 0, 30))).toEqual({ from: at(2, 1), to: at(3, 1) })
    expect([hours, late, always].map(nightSeconds)).toEqual([5 * 3600, 6.5 * 3600, 24 * 3600])
  })
})

describe('what is read by night', () => {
  it('is what is due, the oldest first, as much as is allowed and at least one', () => {
    const now = Date.UTC(2026, 10, 3)
    const file = (days: number, sizeBytes = 10) => ({ provedAt: now - days * 86_400_000, sizeBytes })
    // A tenth of 180 days before they are over: 162.
    const before = dueBefore(now, 180)
    const files = [file(161), file(163), file(200), file(170)]
    expect(dueFiles(files, before, 1e9)).toEqual([files[2], files[3], files[1]])
    expect(dueFiles(files, before, 25)).toEqual([files[2], files[3]])
    expect(dueFiles(files, before, 0)).toEqual([files[2]])
    expect(dueFiles([file(3)], before, 1e9)).toEqual([])
  })
})

describe('where it stands', () => {
  const tide = {
    name: 'Tide 1',
    connected: true,
    copies: 3,
    bytes: 412e9,
    late: 0,
    cycleDays: 180,
    readBytesPerSecond: 137e6,
  }
  const say = (more: object = {}, volumes = [tide]) =>
    cycleSentence({ hours, volumes, readBytes: 0, isNight: false, proved: true, ...more })
  it('is one sentence: what was read, and what comes tonight', () => {
    // 412 GB at 137 MB/s are 3 007 s.
    expect(say()).toBe('All was read within 180 days. Tonight from 01:00: Tide 1, 412 GB, about 51 min.')
    expect(say({}, [{ ...tide, copies: 0, bytes: 0 }])).toBe('All was read within 180 days.')
    expect(say({ proved: false })).toBe('')
    expect(say({ hours: { ...hours, on: false } })).toBe('All was read within 180 days. Nothing is read by night.')
  })
  it('says no number of days that is not that of each volume, and promises nothing where nothing is read', () => {
    const neap = { ...tide, name: 'Neap', cycleDays: 30 }
    expect(
      say({}, [
        { ...tide, late: 1 },
        { ...neap, late: 1 },
      ]),
    ).toContain('1 copy on Tide 1 and 1 copy on Neap were not read within the cycle of each volume.')
    expect(
      say({}, [
        { ...tide, copies: 0, bytes: 0 },
        { ...neap, copies: 0, bytes: 0 },
      ]),
    ).toBe('All was read within the cycle of each volume.')
    const off = { hours: { ...hours, on: false } }
    expect(say(off, [{ ...tide, connected: false }])).toBe('All was read within 180 days. Nothing is read by night.')
  })

  it('names what is late, what is away, and what one night cannot hold', () => {
    expect(say({}, [{ ...tide, late: 2, connected: false }])).toBe(
      '2 copies on Tide 1 were not read within 180 days. Connect Tide 1, then it is read.',
    )
    expect(say({ hours: { ...hours, mostBytes: 103e9 } })).toContain(
      '412 GB, of which 103 GB in one night, about 13 min',
    )
    expect(say({ isNight: true, readBytes: 500e9 })).toContain('500 GB were read tonight, as much as you allow.')
    expect(say({ isNight: true, readBytes: 100e9 })).toContain('Now: Tide 1, 412 GB, of which 400 GB')
    expect(say({}, [{ ...tide, readBytesPerSecond: 1e6 }])).toContain('of which 18.0 GB in one night')
  })
})

describe('a drive that becomes slow', () => {
  it('is told from small files and from one that others use', () => {
    const read = { files: 10, bytes: 1e9, othersBytes: 0 }
    expect(tellsSpeed(read)).toBe(true)
    expect(tellsSpeed({ ...read, othersBytes: 1e8 })).toBe(true)
    expect(tellsSpeed({ ...read, othersBytes: 1.01e8 })).toBe(false)
    expect(tellsSpeed({ ...read, files: 100 })).toBe(false)
    expect(tellsSpeed({ ...read, othersBytes: undefined })).toBe(false)
    expect(tellsSpeed({ ...read, files: 0, bytes: 0 })).toBe(false)
  })

  it('is named at less than half of what it usually reads, once that is known', () => {
    expect(slowSentence('Tide 1', 40e6, [100e6, 96e6, 90e6])).toMatch(
      /^Tide 1 reads 40.0 MB a second, less than half of the 96.0 MB/,
    )
    expect(slowSentence('Tide 1', 48e6, [100e6, 96e6, 90e6])).toBeUndefined()
    expect(slowSentence('Tide 1', 1e6, [100e6, 96e6])).toBeUndefined()
    expect(slowSentence('Tide 1', undefined, [100e6, 96e6, 90e6])).toBeUndefined()
  })
})
