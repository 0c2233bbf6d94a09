import { counted, inWords, upperFirst } from '../units/quantity'
import { relationOf } from './apart'
import { timeOf } from './age'
import type { ClearQuestion } from './clearQuestion'
import { markOf, type CopyFacts } from './mark'
import { mostApart, offCard, sitesOf, spreadReasons } from './ruleReasons'

/** How soon every file of a copy is to be read again where nobody says otherwise, in days. Common practice, no source. */
export const USUAL_CYCLE_DAYS = 180

const DAY_MS = 86_400_000

/**
 * What a load is in danger of, the worst last: all copies at one site; a copy that was not read whole for longer than
 * its volume's cycle; fewer copies than its rule asks; something found wrong and not settled; the same once the card
 * is formatted; and then no whole copy at all.
 */
export const DANGERS = ['none', 'one-site', 'not-read', 'few', 'wrong', 'few-and-formatted', 'lost'] as const

/** The same in a few words, by rank. */
export const DANGER_WORDS: readonly string[] = [
  '',
  'all at one site',
  'not read for too long',
  'too few copies',
  'something is wrong',
  'too few copies',
  'no copy is left',
]

export interface Danger {
  /** The worst of what stands against it, as a place in `DANGERS`; 0 where nothing does. */
  readonly rank: number
  /** Every one of them in a sentence, the worst first. */
  readonly sentences: readonly string[]
  /** When its oldest proof that stands was made, as an ISO time. */
  readonly oldestProofAt: string | undefined
  /** When a copy will have been unread for its volume's cycle, where none is yet; as an ISO time. */
  readonly dueAt: string | undefined
}

/** What the question is about: the name of the load, and how many files it has. */
export interface DangerOf {
  readonly label: string
  readonly files: number
}

type DangerQuestion = Pick<
  ClearQuestion,
  'copies' | 'cardStanding' | 'saidDifferent' | 'rule' | 'formattedAt' | 'thingsWrong' | 'now'
>

const list = (words: readonly string[]) => new Intl.ListFormat('en-GB').format(words)
const namesOf = (copies: readonly CopyFacts[]) => list(copies.map((copy) => copy.volumeName))

/** Whether a load is in danger, by what is known of it without a look at any drive. Common practice, no source. */
export function dangerOf(question: DangerQuestion, about: DangerOf): Danger {
  const proved = question.copies.flatMap((copy) =>
    copy.filesCopied > 0 && copy.firstVerifiedAt !== undefined ? [{ copy, at: timeOf(copy.firstVerifiedAt) }] : [],
  )
  const readBy = ({ copy, at }: (typeof proved)[number]) => at + copy.cycleDays * DAY_MS
  const due = proved.map(readBy).filter((at) => at > question.now)
  const found =
    about.files === 0
      ? []
      : [
          ...fewOf(question, about),
          ...wrongOf(question, about),
          ...proved
            .filter((one) => readBy(one) <= question.now)
            .map(({ copy, at }) => ({
              danger: 'not-read' as const,
              sentence:
                `“${about.label}” on ${copy.volumeName} has files that were last read ` +
                `${counted(Math.floor((question.now - at) / DAY_MS), 'day')} ago; every ${copy.cycleDays} they are to be.`,
            })),
          ...oneSiteOf(question, about),
        ].sort((a, b) => DANGERS.indexOf(b.danger) - DANGERS.indexOf(a.danger))
  const iso = (times: readonly number[]) =>
    times.length === 0 ? undefined : new Date(Math.min(...times)).toISOString()
  return {
    rank: DANGERS.indexOf(found[0]?.danger ?? 'none'),
    sentences: found.map((one) => one.sentence),
    oldestProofAt: iso(proved.map(({ at }) => at)),
    dueAt: iso(due),
  }
}

interface Found {
  readonly danger: (typeof DANGERS)[number]
  readonly sentence: string
}

const wholeOf = ({ copies, rule }: DangerQuestion) => copies.filter((copy) => markOf(copy, rule) >= 2)

/** Fewer whole copies, or nearer to each other, than the rule asks. */
function fewOf(question: DangerQuestion, { label }: DangerOf): Found[] {
  const { rule, formattedAt, saidDifferent } = question
  const whole = wholeOf(question)
  const [only] = whole
  const card = formattedAt ? `The card of “${label}” is formatted, and ` : ''
  const danger = formattedAt ? (only ? 'few-and-formatted' : 'lost') : 'few'
  const say = (sentence: string): Found[] => [{ danger, sentence: upperFirst(`${card}${sentence}`) }]
  const it = formattedAt ? 'it' : `“${label}”`
  if (only === undefined)
    return say(formattedAt ? 'no whole proved copy is left.' : `${it} has no whole proved copy yet.`)
  const asked = `${inWords(rule.copies)} are asked`
  if (whole.length === 1) return say(`${it} has one whole proved copy, on ${only.volumeName}; ${asked}.`)
  if (whole.length < rule.copies)
    return say(`${it} has ${inWords(whole.length)} whole proved copies, on ${namesOf(whole)}; ${asked}.`)
  const away = formattedAt ? whole : offCard(question, whole)
  // Nobody is asked about a drive that this computer never saw.
  const isApart = (a: CopyFacts, b: CopyFacts) =>
    !a.device || !b.device || relationOf(a, b, saidDifferent) === 'different'
  const apart = mostApart(question, away, isApart)
  if (apart < rule.devices)
    return say(
      `the proved copies of ${it}, on ${namesOf(whole)}, lie on ${apart < 2 ? 'one drive' : `${inWords(apart)} drives`} ` +
        `as far as is known; ${inWords(rule.devices)} are asked.`,
    )
  return spreadReasons(question, away)
    .filter((reason) => !reason.met)
    .map(({ sentence }) => ({ danger, sentence: `“${label}”: ${sentence}` }))
}

/** What was found wrong with a copy or on the card, and is not settled. */
function wrongOf({ copies, thingsWrong }: DangerQuestion, { label }: DangerOf): Found[] {
  const told = copies.flatMap((copy) => {
    const wrong = (files: number, what: string) => (files > 0 ? [`${counted(files, 'file')} ${what}`] : [])
    const parts = copy.mirrorLost
      ? ['its folder is gone']
      : [
          ...wrong(copy.foundWrong.length, 'in which you found something wrong'),
          ...wrong(copy.filesMismatched + copy.filesInConflict, 'with other content than the card'),
          ...wrong(copy.filesMissing, 'gone or changed'),
          ...wrong(copy.filesDoubted - copy.foundWrong.length, 'to be read again'),
        ]
    return parts.length === 0 ? [] : [`${copy.volumeName}: ${list(parts)}`]
  })
  const all = [...told, ...(thingsWrong > 0 ? [`the card: ${counted(thingsWrong, 'finding')} not settled`] : [])]
  return all.map((one) => ({ danger: 'wrong', sentence: `“${label}” on ${one}.` }))
}

function oneSiteOf(question: DangerQuestion, { label }: DangerOf): Found[] {
  const whole = wholeOf(question)
  const sites = sitesOf(whole)
  if (whole.length === 0 || sites.length > 1) return []
  const [site] = sites
  return [
    {
      danger: 'one-site',
      sentence: site
        ? `Every whole copy of “${label}” is at one site: ${site}.`
        : `Nobody has said what kind of place the copies of “${label}” are kept at.`,
    },
  ]
}
