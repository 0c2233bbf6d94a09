import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clearToFormat, type ClearQuestion } from './clear'
import type { CopyFacts } from './mark'
import { MEDIA } from './medium'
import { effectSentence, isWeaker } from './ruleEffect'
import { AT_HOME_ONLY, LEAST, REUSE_ON_THE_JOB, ruleSentence, strictest, type ClearRule } from './rule'
import { copy, home, played, said } from './testCopy'

const HOUR = 3_600_000
const ago = (hours: number) => new Date(home.now - hours * HOUR).toISOString()
const often = fc.integer({ min: 0, max: 3 }).map((at) => at > 0)

const rules: fc.Arbitrary<ClearRule> = fc
  .record({
    ...{ copies: fc.integer({ min: 2, max: 4 }), devices: fc.integer({ min: 2, max: 4 }) },
    ...{ media: fc.integer({ min: 1, max: 3 }), sites: fc.integer({ min: 1, max: 3 }) },
    ...{ played: fc.integer({ min: 1, max: 3 }), cardOut: fc.boolean(), atDesk: fc.boolean() },
    ...{ proofHours: fc.constantFrom(1, 24, 168), acceptMemory: fc.boolean() },
  })
  .map((rule) => ({ ...rule, devices: Math.min(rule.devices, rule.copies) }))

const someCopy = (name: string): fc.Arbitrary<CopyFacts> =>
  fc
    .record({
      ...{ connected: often, isWhole: often, fromMemory: fc.boolean(), hours: fc.constantFrom(0.5, 12, 90) },
      ...{ drive: fc.constantFrom(1, 2, 3, 4, 5, 6), site: fc.constantFrom('house', 'bag', 'wallet', 'shed', '') },
      ...{ medium: fc.constantFrom(undefined, ...MEDIA), files: fc.subarray([1, 2, 3]) },
    })
    .map(({ connected, isWhole, fromMemory, hours, drive, site, medium, files }) => {
      const device = { fileSystem: name, disks: [`serial:${drive}`], known: true, pastCache: true }
      const verified = { filesVerified: fromMemory ? 0 : 9, filesVerifiedFromCache: fromMemory ? 9 : 0 }
      return copy(name, {
        ...{ connected, device, site, medium, ...verified, firstVerifiedAt: ago(hours), filesPlayed: files },
        ...{
          filesMissing: isWhole ? 0 : 1,
          siteKind:
            site === '' ? undefined : site === 'bag' || site === 'wallet' ? ('carried' as const) : ('stays' as const),
        },
        spotPlayedAt: files.length > 0 ? ago(0.4) : undefined,
      })
    })

const questions: fc.Arbitrary<ClearQuestion> = fc
  .record({
    copies: fc.tuple(...['Slipway', 'Tide 1', 'Tide 2', 'Ebb', 'Lantern'].map(someCopy)),
    backupCards: fc.oneof(fc.constant([]), fc.tuple(someCopy('the backup card'))),
    ...{ atHome: often, cardInReader: fc.boolean(), clipsPlayable: fc.integer({ min: 0, max: 4 }) },
    cardStanding: fc.constantFrom(1, 7).map((drive) => ({
      device: { fileSystem: 'card', disks: [`serial:${drive}`], known: true, pastCache: true },
      connected: true,
    })),
  })
  .map((facts) => ({ ...home, ...facts }))

/** What a rule asks of copies, counted anew from the facts: drives are numbers here, and so need no comparing. */
function isKept(rule: ClearRule, question: ClearQuestion): boolean {
  const counts = (one: CopyFacts) =>
    one.filesMissing === 0 &&
    (one.filesVerified === 9 || rule.acceptMemory) &&
    home.now - Date.parse(one.firstVerifiedAt ?? '') <= rule.proofHours * HOUR
  const whole = question.copies.filter(
    (one) => one.filesMissing === 0 && (one.filesVerified === 9 || rule.acceptMemory),
  )
  const isFaulty = question.copies.some(
    (one) => one.filesMissing > 0 || (one.filesVerified === 0 && !rule.acceptMemory),
  )
  const good = [
    ...question.copies.filter(counts),
    ...question.backupCards.filter((one) => one.connected && counts(one)),
  ]
  const off = good.filter((one) => one.device?.disks[0] !== question.cardStanding.device?.disks[0])
  const kinds = (of: (one: CopyFacts) => string | undefined) =>
    new Set(off.map(of).filter((one) => one !== undefined && one !== '')).size
  return (
    good.length >= rule.copies &&
    good.some((one) => one.connected) &&
    // A copy that was whole and is no more is settled first, unless volumes alone are as many as the rule asks.
    (whole.length >= rule.copies || !isFaulty) &&
    kinds((one) => one.device?.disks[0]) >= rule.devices &&
    (rule.media === 1 || kinds((one) => one.medium) >= rule.media) &&
    (rule.sites === 1 || kinds((one) => (one.siteKind === 'carried' ? 'carried' : one.site)) >= rule.sites) &&
    new Set(whole.flatMap((one) => one.filesPlayed)).size >=
      Math.min(rule.played, Math.max(1, question.clipsPlayable)) &&
    (question.atHome || !rule.atDesk) &&
    !(question.cardInReader && rule.cardOut)
  )
}

describe('a rule of a yes', () => {
  it('never turns a no into a yes by being stricter', () => {
    let yes = 0
    fc.assert(
      fc.property(questions, rules, rules, (facts, a, b) => {
        const isClear = (rule: ClearRule) => clearToFormat({ ...facts, rule }).clear
        if (!isClear(strictest([a, b]))) return
        yes += 1
        expect([isClear(a), isClear(b)]).toEqual([true, true])
      }),
      { numRuns: 6000 },
    )
    expect(yes).toBeGreaterThan(30)
  })

  it('says yes to just what it asks, as the facts are counted otherwise', () => {
    const seen = new Map<boolean, number>()
    fc.assert(
      fc.property(questions, rules, (facts, rule) => {
        const { clear, reasons } = clearToFormat({ ...facts, rule })
        seen.set(clear, (seen.get(clear) ?? 0) + 1)
        expect(clear, JSON.stringify([facts, rule, reasons])).toBe(isKept(rule, facts))
      }),
      { numRuns: 6000 },
    )
    expect(seen.get(true)).toBeGreaterThan(200)
  })

  it('of several productions is the strictest, point by point', () => {
    fc.assert(
      fc.property(rules, rules, rules, (a, b, c) => {
        expect(strictest([a, b, c])).toEqual(strictest([strictest([c, b]), a]))
        expect(strictest([a, a])).toEqual(a)
      }),
    )
    expect(strictest([AT_HOME_ONLY, REUSE_ON_THE_JOB])).toEqual({ ...AT_HOME_ONLY, cardOut: true })
    expect(LEAST).toMatchObject({ copies: 2, devices: 2, played: 1 })
  })

  it('is told in a sentence', () => {
    expect(ruleSentence(AT_HOME_ONLY)).toBe(
      'Two verified copies on two drives; one clip played, at your own desk, proved within 24 hours.',
    )
    expect(
      ruleSentence({
        ...{ copies: 3, devices: 2, media: 2, sites: 2, played: 8, cardOut: true, atDesk: false },
        ...{ proofHours: 1, acceptMemory: true },
      }),
    ).toBe(
      'Three verified copies on two drives, on two kinds of media, at two sites; eight clips played, ' +
        'with the card out of the reader, anywhere, proved within 1 hour, read back from memory passes.',
    )
  })

  it('says what a change would do to cards, and whether it asks for less', () => {
    const card = (label: string, before: boolean, after: boolean) => ({ label, before, after })
    const toNo = ['A', 'B', 'C', 'D', 'E', 'F', 'G'].map((label) => card(label, true, false))
    const said = [
      [],
      [card('A', true, true), card('B', false, false)],
      toNo,
      [...toNo.slice(6), card('H', false, true)],
    ]
    expect(said.map((cards) => [effectSentence(cards), isWeaker(cards)])).toEqual([
      ['No card that is not formatted would be asked anything else.', false],
      ['With it the answer of none of 2 cards would change.', false],
      ['With it 7 of 7 cards would turn to no: “A”, “B”, “C”, “D”, “E” and 2 others.', false],
      ['With it 1 of 2 cards would turn to no: “G”; 1 of 2 cards would turn to yes: “H”.', true],
    ])
    expect(effectSentence([], 500)).toMatch(/anything else\. Only the newest 500 cards were looked at\.$/)
  })

  it('waits for what somebody found wrong, however many copies are whole', () => {
    const found = { entryId: 3, clipId: null, path: 'CURL0041.MP4', note: 'crackles' }
    const three = (more: Partial<CopyFacts>) => said({ copies: [...home.copies, copy('Tide 2', more)] })
    expect(three({}).startsWith('Yes')).toBe(true)
    expect(three({ foundWrong: [{ ...found, readSince: false }], filesDoubted: 1 })).toMatchInlineSnapshot(`
      "Not yet: Tide 2: you found something wrong with “CURL0041.MP4” (crackles).
      - Tide 2: you found something wrong with “CURL0041.MP4” (crackles).
      + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
      + A clip was played from Slipway.
      + You are at your own desk.
      Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
    `)
    expect(three({ foundWrong: [{ ...found, note: '', readSince: true }] })).toMatchInlineSnapshot(`
      "Not yet: Tide 2: you found something wrong with “CURL0041.MP4”.
      - Tide 2: you found something wrong with “CURL0041.MP4”.
      + 2 verified copies (Slipway; Tide 1), read back from the medium; two are needed.
      + A clip was played from Slipway.
      + You are at your own desk.
      Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
    `)
  })

  it('names what is missing', () => {
    const rule: ClearRule = { ...AT_HOME_ONLY, copies: 3, devices: 3, media: 2, sites: 2, played: 3 }
    const bag = copy('Tide 2', { site: 'bag', siteKind: 'carried', medium: undefined })
    expect(said({ rule, copies: [...home.copies, bag] })).toMatchInlineSnapshot(`
      "Not yet: copies on two kinds of media are asked; they lie on one: hard disk. What Tide 2 keeps bytes on is not known: say so under Drives.
      + 3 verified copies (Slipway; Tide 1; Tide 2), read back from the medium; three are needed.
      - Copies on two kinds of media are asked; they lie on one: hard disk. What Tide 2 keeps bytes on is not known: say so under Drives.
      + Copies at two sites are asked; they lie at two: workshop and what you carry.
      - Played from a copy: 1 of 3 clips, from Slipway.
      + You are at your own desk.
      Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
    `)
    expect(
      said({ rule, copies: [copy('Slipway', played), bag, copy('Lantern', { site: 'wallet', siteKind: undefined })] }),
    ).toMatchInlineSnapshot(`
      "Not yet: copies on two kinds of media are asked; they lie on one: hard disk. What Tide 2 keeps bytes on is not known: say so under Drives.
      + 3 verified copies (Slipway; Tide 2; Lantern), read back from the medium; three are needed.
      - Copies on two kinds of media are asked; they lie on one: hard disk. What Tide 2 keeps bytes on is not known: say so under Drives.
      + Copies at two sites are asked; they lie at two: workshop and what you carry.
      - Played from a copy: 1 of 3 clips, from Slipway.
      + You are at your own desk.
      Do not format, delete or rewrite when you are very tired: this list is still here in the morning."
    `)
    const cloud = copy('the bucket', { site: 'cloud', medium: 'cloud', filesPlayed: [2, 3], spotPlayedAt: ago(1) })
    expect(said({ rule, copies: [...home.copies, cloud] })).toMatchInlineSnapshot(`
      "Yes: this card may be formatted, in the camera.
      + 3 verified copies (Slipway; Tide 1; the bucket), read back from the medium; three are needed.
      + Copies on two kinds of media are asked; they lie on two: hard disk and cloud.
      + Copies at two sites are asked; they lie at two: workshop and cloud.
      + Played from a copy: 3 of 3 clips, from Slipway and the bucket.
      + You are at your own desk.
      Do it in the camera, rested, with this screen open. Formatting cannot be undone."
    `)
  })
})
