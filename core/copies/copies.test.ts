import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatChecksumList, isPlainName, parseChecksumList } from './lists/format'
import { copy, home, played } from './testCopy'
import { beforeScan, clearToFormat, type ClearQuestion } from './clear'
import { deviceRelation } from './device'
import { riskSample, SAMPLE_BOUNDS } from './riskSample'
import { markOf, type CopyFacts } from './mark'
import { AT_HOME_ONLY, REUSE_ON_THE_JOB } from './rule'
import { printablePath, withoutEscapes } from './pathText'
import { commonShift, listedAs, copyStateOf, type ListedFile } from './copyState'

describe('the mark', () => {
  it('is held back by a single file', () => {
    expect(markOf(copy('Slipway', { filesCopied: 8 }))).toBe(0)
    expect(markOf(copy('Slipway', { filesVerified: 8 }))).toBe(1)
    expect(markOf(copy('Slipway', { filesVerified: 0, filesVerifiedFromCache: 9 }))).toBe(1)
    expect(markOf(copy('Slipway', { filesMismatched: 1 }))).toBe(0)
    expect(markOf(copy('Slipway'))).toBe(2)
    expect(markOf(copy('Slipway', played))).toBe(3)
    expect(markOf(copy('Slipway', { ...played, mirrorLost: true }))).toBe(0)
    expect(markOf(copy('Slipway', { filesWanted: 0, filesCopied: 0, filesVerified: 0 }))).toBe(0)
  })
})

describe('clear to format', () => {
  it('needs two verified copies, one played, and the own desk', () => {
    // Common practice, no source.
    expect(clearToFormat(home).clear).toBe(true)
    expect(clearToFormat({ ...home, copies: [copy('Slipway', played)] }).clear).toBe(false)
    expect(clearToFormat({ ...home, copies: [copy('Slipway'), copy('Tide 1')] }).clear).toBe(false)
    expect(clearToFormat({ ...home, atHome: false }).sentence).toContain('away')
    expect(clearToFormat({ ...home, copies: [...home.copies, copy('Tide 2', { filesMismatched: 1 })] }).clear).toBe(
      false,
    )
    expect(clearToFormat({ ...home, formattedAt: '2026-11-15T08:00:00Z' }).clear).toBe(false)
    expect(clearToFormat({ ...home, thingsWrong: 1 })).toMatchObject({
      clear: false,
      sentence: expect.stringContaining('1 thing on the card is wrong'),
    })
  })

  it('is never a yes before its scan, and the same no', () => {
    const waits = beforeScan(clearToFormat(home), ['the card', 'Slipway', 'Tide 1'])
    expect(waits.checking).toBe('Checking the card, Slipway and Tide 1 now …')
    expect(waits.clear).toMatchObject({ clear: false, sentence: waits.checking, reasons: [] })
    expect(beforeScan(clearToFormat(home), []).checking).toBe('Checking what is connected now …')
    const no = clearToFormat({ ...home, atHome: false })
    expect(beforeScan(no, ['the card'])).toEqual({ clear: no })
  })

  it('says after the format when fewer than two proved copies are left', () => {
    const after = (copies: readonly CopyFacts[], more = {}) =>
      clearToFormat({ ...home, formattedAt: '2026-11-15T08:00:00Z', copies, ...more })
    expect(after(home.copies).sentence).toContain('The next scan starts a new load')
    const lost = copy('Tide 1', { mirrorLost: true })
    expect(after([copy('Slipway', { connected: false }), lost])).toMatchObject({
      sentence: expect.stringContaining('one proved copy is all there is: on Slipway'),
      caution: 'Copy from Slipway to another drive, once it is connected.',
    })
    expect(after([copy('Slipway'), lost], { backupCards: [copy('the backup card')] }).sentence).toContain(
      'The next scan',
    )
    expect(after([lost]).sentence).toContain('no whole proved copy is left')
  })

  it('counts one backup card that was read whole and lies in a reader, and no more than one', () => {
    // Common practice, no source: a second card is a copy until it is written over.
    const backup = copy('the backup card “Curlew B”')
    const once = { ...home, copies: [copy('Slipway', played)] }
    const yes = clearToFormat({ ...once, backupCards: [backup] })
    expect(yes.clear).toBe(true)
    expect(yes.caution).toContain('Keep the backup card “Curlew B” as it is')
    for (const [less, words] of [
      [{ filesCopied: 0, filesVerified: 0 }, /read it whole/],
      [{ filesVerified: 8, filesCopied: 8, filesMismatched: 1 }, /not what was copied: 1 file/],
      [{ connected: false }, /in no reader now/],
      [{ firstVerifiedAt: '2026-11-13T22:00:00Z' }, /read it again/],
      [{ filesVerified: 0, filesVerifiedFromCache: 9 }, /through memory/],
      [{ device: copy('Slipway').device }, /same drive/],
    ] as const) {
      const no = clearToFormat({ ...once, backupCards: [{ ...backup, ...less }] })
      expect(no.clear, no.sentence).toBe(false)
      expect(no.reasons.map((reason) => reason.sentence).join(' ')).toMatch(words)
    }
    const two = clearToFormat({ ...once, copies: [], backupCards: [backup, copy('the backup card “Curlew C”')] })
    expect(two.clear).toBe(false)
    // What was copied was read from the other card: this one is cleared only when it was read too.
    expect(clearToFormat({ ...home, askedBackupCard: backup }).clear).toBe(true)
    for (const less of [{ filesCopied: 0, filesVerified: 0 }, { filesMismatched: 1 }])
      expect(clearToFormat({ ...home, askedBackupCard: { ...backup, ...less } }).sentence).toMatch(
        /^Not yet: (what was copied was read from its backup card|this card is not what was copied)/i,
      )
    expect(clearToFormat({ ...home, readFromBackupCard: true }).sentence).toContain('of this card only samples were')
    expect(clearToFormat({ ...home, askedBackupCard: backup, readFromBackupCard: true }).clear).toBe(true)
    // Two volumes need no backup card, and say nothing of it.
    expect(clearToFormat({ ...home, backupCards: [backup] }).caution).not.toContain('backup card')
  })

  it('counts no copy whose folder is gone, and says so', () => {
    const answer = clearToFormat({ ...home, copies: [copy('Slipway', played), copy('Tide 1', { mirrorLost: true })] })
    expect(answer.clear).toBe(false)
    expect(answer.reasons.map((reason) => reason.sentence)).toContainEqual(
      expect.stringContaining('Tide 1: the copy was there and is gone'),
    )
    expect(clearToFormat({ ...home, copies: [...home.copies, copy('Tide 2', { mirrorLost: true })] }).clear).toBe(true)
  })

  it('may be asked for on the job, with the card out of the reader', () => {
    const away: ClearQuestion = { ...home, rule: REUSE_ON_THE_JOB, atHome: false }
    expect(clearToFormat(away).clear).toBe(true)
    expect(clearToFormat({ ...away, cardInReader: true }).clear).toBe(false)
  })

  it('never says yes when fewer than two volumes are verified', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            copied: fc.integer({ min: 0, max: 9 }),
            verified: fc.integer({ min: 0, max: 9 }),
            bad: fc.integer({ min: 0, max: 1 }),
            seen: fc.boolean(),
          }),
          { maxLength: 5 },
        ),
        fc.boolean(),
        (volumes, atHome) => {
          const copies = volumes.map((one, at) =>
            copy(`V${at}`, {
              filesCopied: one.copied,
              filesVerified: Math.min(one.copied, one.verified),
              filesMismatched: one.bad,
              spotPlayedAt: one.seen ? 'x' : undefined,
            }),
          )
          const answer = clearToFormat({ ...home, copies, atHome })
          if (copies.filter((one) => markOf(one) >= 2).length < 2 || !atHome) expect(answer.clear).toBe(false)
        },
      ),
    )
  })
})

describe('a yes', () => {
  const answer = (more: Partial<ClearQuestion>) => clearToFormat({ ...home, ...more })
  const words = (more: Partial<ClearQuestion>) =>
    answer(more)
      .reasons.map((reason) => reason.sentence)
      .join('\n')
  const two = (first: Partial<CopyFacts>, second: Partial<CopyFacts>) => ({
    copies: [copy('Slipway', { ...played, ...first }), copy('Tide 1', second)],
  })

  it('is given of what the card and the copies list now, or not at all', () => {
    expect(answer({ cardDifference: 'The card of “Curlew A” has changed (1 file new): scan it again.' }).clear).toBe(
      false,
    )
    expect(answer({ looked: false }).clear).toBe(false)
    expect(answer(two({}, { filesMissing: 1 })).clear).toBe(false)
    expect(words(two({}, { filesMissing: 1 }))).toContain('Tide 1: 1 file is gone')
  })

  it('counts a drive that cannot be seen for a day, and needs one that can', () => {
    const away = answer(two({}, { connected: false }))
    expect(away.clear).toBe(true)
    expect(away.reasons[0]?.sentence).toContain('Tide 1, not seen now, proved 1 hour ago')
    expect(answer(two({ connected: false }, { connected: false })).sentence).toContain('no copy can be seen now')
    const old = { connected: false, firstVerifiedAt: '2026-11-13T22:00:00Z' }
    expect(words(two({}, old))).toContain('Tide 1 cannot be seen and was proved more than 24 hours ago')
    expect(answer(two({}, old)).clear).toBe(false)
  })

  it('of proofs older than a day reads a sample first', () => {
    const old = { firstVerifiedAt: '2026-11-11T22:00:00Z' }
    const asked = answer(two(old, old))
    expect(asked).toMatchObject({ clear: false, sampleFirst: ['Slipway', 'Tide 1'] })
    expect(asked.sentence).toBe('Not yet: Slipway and Tide 1 were proved 3 days ago: read a sample of them first.')
    const read = { ...old, readAgainAt: '2026-11-14T22:30:00Z' }
    expect(answer(two(read, read)).clear).toBe(true)
    expect(answer({ ...two(old, old), rule: { ...AT_HOME_ONLY, proofHours: 96 } }).clear).toBe(true)
  })

  it('takes two copies on one device for one, and none on the card’s own', () => {
    const [one, other] = [home.copies[0]?.device, home.copies[1]?.device]
    expect(words(two({}, { device: one }))).toContain(
      'Slipway and Tide 1 lie on the same drive: they count as one copy.',
    )
    expect(answer(two({}, { device: one })).clear).toBe(false)
    const cardStanding = { device: other, connected: true }
    expect(answer({ cardStanding }).clear).toBe(false)
    expect(words({ cardStanding })).toContain('Tide 1 lies on the same drive as the card')
    // A third copy elsewhere makes two again.
    expect(answer({ copies: [...two({}, { device: one }).copies, copy('Tide 2')] }).clear).toBe(true)
  })

  it('asks the person where the system cannot know, and keeps to what they say', () => {
    const share = (name: string) => ({ fileSystem: name, disks: [], known: false, pastCache: true })
    const shares = two({ device: share('a') }, { device: share('b') })
    expect(answer(shares).clear).toBe(false)
    expect(words(shares)).toContain('cannot tell whether Slipway and Tide 1 are different drives')
    expect(answer({ ...shares, saidDifferent: [['Tide 1', 'Slipway']] }).clear).toBe(true)
  })

  it('does not count what may have been read from memory, unless the rule accepts it', () => {
    const memory = two({}, { filesVerified: 0, filesVerifiedFromCache: 9 })
    expect(answer(memory).clear).toBe(false)
    expect(words(memory)).toContain('perhaps not from the medium')
    const accepted = answer({ ...memory, rule: { ...AT_HOME_ONLY, acceptMemory: true } })
    expect(accepted.clear).toBe(true)
    expect(accepted.reasons[0]?.sentence).toContain('perhaps from memory, which your rule accepts')
  })
})

describe('devices', () => {
  const on = (fileSystem: string, disks: string[], { known = true, connected = true } = {}) => ({
    device: { fileSystem, disks, known, pastCache: true },
    connected,
  })
  it('are one by file system or by disk while both are seen, and unknown where nobody can say', () => {
    expect(deviceRelation(on('a', ['x']), on('a', ['x']))).toBe('same')
    expect(deviceRelation(on('a', ['x']), on('b', ['x', 'y']))).toBe('same')
    expect(deviceRelation(on('a', ['name:sdb']), on('b', ['name:sdb']))).toBe('same')
    expect(deviceRelation(on('a', ['x']), on('b', ['y']))).toBe('different')
    expect(deviceRelation(on('a', [], { known: false }), on('b', ['y']))).toBe('unknown')
    expect(deviceRelation({ device: undefined, connected: true }, on('b', ['y']))).toBe('unknown')
  })

  it('that had one port after the other are not taken for one', () => {
    const away = { connected: false }
    // Two drives with serial numbers, both sdb1 when they were plugged in.
    expect(deviceRelation(on('fs:2065', ['serial 1'], away), on('fs:2065', ['serial 2']))).toBe('different')
    expect(deviceRelation(on('fs:2065', ['serial 1'], away), on('fs:2081', ['serial 1']))).toBe('same')
    // Without a lasting mark, the same name says nothing, and another name another drive.
    expect(deviceRelation(on('fs:2065', ['name:sdb'], away), on('fs:2065', ['name:sdb']))).toBe('unknown')
    expect(deviceRelation(on('fs:2065', ['name:sdb'], away), on('fs:2081', ['name:sdc']))).toBe('different')
  })
})

describe('a listing against a proof', () => {
  const file = (sizeBytes: number, modifiedMs: number, more: Partial<ListedFile> = {}): ListedFile => ({
    ...{ sizeBytes, modifiedMs, inode: null, changedMs: null },
    ...more,
  })
  it('stands while size and time are the same', () => {
    expect(listedAs(file(5, 1000.7), 'as-proved', file(5, 1000.2))).toBe('as-proved')
    expect(listedAs(file(5, 1000), 'as-proved', file(4, 1000))).toBe('changed')
    expect(listedAs(file(5, 1000), 'as-proved', file(5, 2000))).toBe('changed')
    expect(listedAs(file(5, 1000), 'as-proved', undefined)).toBe('absent')
    expect(listedAs(file(5, 1000), 'absent', file(5, 1000))).toBe('changed')
    expect(listedAs(file(5, 1000), 'changed', undefined)).toBe('absent')
  })

  it('is doubted with another number or a later touch, where the file system keeps them, until it is read again', () => {
    const proved = file(5, 1000, { inode: '17', changedMs: 2000.5 })
    expect(listedAs(proved, 'as-proved', { ...proved })).toBe('as-proved')
    expect(listedAs(proved, 'as-proved', { ...proved, inode: '18' })).toBe('doubted')
    expect(listedAs(proved, 'as-proved', { ...proved, changedMs: 2000.6 })).toBe('doubted')
    // Equal again, it stays doubted: nothing says what it was meanwhile.
    expect(listedAs(proved, 'doubted', { ...proved })).toBe('doubted')
    // Older proofs have neither, and some file systems keep neither.
    expect(listedAs(file(5, 1000), 'as-proved', proved)).toBe('as-proved')
    expect(listedAs(proved, 'as-proved', file(5, 1000))).toBe('as-proved')
    expect(copyStateOf({ outcome: 'equal', pastCache: true }, 'doubted')).toBe('doubted')
  })

  it('a shift of the clock is believed by the ends of the file, doubted without them, and no shift where they differ', () => {
    const [then, now] = [file(5, 1000), file(5, 3_601_000)]
    const shift = (ends: 'equal' | 'differ' | 'unknown', shiftMs = 3_600_000) => ({ shiftMs, ends })
    expect(listedAs(then, 'as-proved', now, shift('equal'))).toBe('as-proved')
    expect(listedAs(then, 'as-proved', now, shift('unknown'))).toBe('doubted')
    expect(listedAs(then, 'as-proved', now, shift('differ'))).toBe('changed')
    expect(listedAs(then, 'as-proved', now, shift('equal', 7_200_000))).toBe('changed')
    expect(listedAs(then, 'as-proved', now)).toBe('changed')
  })

  it('stands for what it proved', () => {
    expect(copyStateOf({ outcome: 'equal', pastCache: false }, 'as-proved')).toBe('memory')
    expect(copyStateOf({ outcome: 'equal', pastCache: true }, 'absent')).toBe('missing')
    expect(copyStateOf({ outcome: 'differs', pastCache: true }, 'as-proved')).toBe('differs')
  })

  it('has a common shift only when all files moved by the same whole hours', () => {
    const pairs = (...shifts: number[]) => shifts.map((shift) => [file(5, 1000), file(5, 1000 + shift)] as const)
    expect(commonShift(pairs(3_600_000, 3_600_000))).toBe(3_600_000)
    expect(commonShift(pairs(3_600_000, 7_200_000))).toBe(0)
    expect(commonShift(pairs(1000, 1000))).toBe(0)
    expect(commonShift([[file(5, 0), file(6, 3_600_000)]])).toBe(0)
    expect(commonShift([])).toBe(0)
  })
})

describe('a sample', () => {
  const files = Array.from({ length: 500 }, (_, id) => ({
    id,
    sizeBytes: id < 10 ? 4e8 : 1000,
    provedAt: 0,
    memory: false,
  }))
  it('is the same for the same seed, within its bounds, and prefers what is at risk', () => {
    const drawn = riskSample(files, 'seed', 0)
    expect(riskSample(files, 'seed', 0)).toEqual(drawn)
    expect(drawn.length).toBeLessThanOrEqual(SAMPLE_BOUNDS.files)
    const often = Array.from({ length: 200 }, (_, turn) => riskSample(files, `seed ${turn}`, 0))
    const share = (id: number) => often.filter((one) => one.includes(id)).length / often.length
    // Ten large files weigh 9.6 each against 1 of the small ones: they are drawn far more often than 48 in 500.
    expect(share(3)).toBeGreaterThan(0.4)
    expect(share(300)).toBeLessThan(0.2)
    expect(riskSample([{ id: 7, sizeBytes: 9e12, provedAt: 0, memory: false }], 'seed', 0)).toEqual([7])
    expect(riskSample([], 'seed', 0)).toEqual([])
  })
})

describe('checksum lists', () => {
  it('come back as they were written, whatever the path', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ hash: fc.stringMatching(/^[0-9a-f]{16}$/), path: fc.stringMatching(/^[\x01-\xff]{1,40}$/) }),
          { maxLength: 20 },
        ),
        (sums) => {
          expect(parseChecksumList(formatChecksumList(sums))).toEqual(sums)
        },
      ),
    )
    expect(() => parseChecksumList('hello')).toThrow('Line 1')
    expect(['plain name.MP4', 'caf\xe9'].map(isPlainName)).toEqual([true, true])
    expect(['two\nlines', 'back\\slash', 'tab\there'].map(isPlainName)).toEqual([false, false, false])
  })
})

describe('paths as text', () => {
  it('prints what can be printed and escapes the rest', () => {
    expect(printablePath(new TextEncoder().encode('DCIM/Möwe.MP4'))).toBe('DCIM/Möwe.MP4')
    expect(printablePath(new TextEncoder().encode('a\nb\\'))).toBe('a\\nb\\\\')
    expect(printablePath(Uint8Array.of(0x61, 0xff, 0xc3, 0xb6))).toBe('a\\xffö')
    const title = (name: string) => withoutEscapes(printablePath(new TextEncoder().encode(name)))
    expect(['two\nlines', 'back\\nest', 'bell\u0007'].map(title)).toEqual(['two lines', 'back nest', 'bell '])
  })

  it('never prints two different paths alike', () => {
    const bytes = fc.uint8Array({ minLength: 1, maxLength: 6 })
    fc.assert(fc.property(bytes, bytes, (a, b) => (printablePath(a) === printablePath(b)) === (a.join() === b.join())))
  })
})
