import { inWords } from '../units/quantity'
import { relationOf } from './apart'
import type { ClearQuestion, Reason } from './clearQuestion'
import { deviceRelation, type DeviceRelation } from './device'
import { markOf, type CopyFacts } from './mark'
import { MEDIUM_WORDS } from './medium'

type Copies = readonly CopyFacts[]

const list = (words: readonly string[]) => new Intl.ListFormat('en-GB').format(words)

/** Copies that do not lie on the card’s own drive. */
export const offCard = ({ cardStanding }: Pick<ClearQuestion, 'cardStanding'>, copies: Copies): Copies =>
  copies.filter((copy) => deviceRelation(copy, cardStanding) !== 'same')

interface Pair {
  readonly a: CopyFacts
  readonly b: CopyFacts
  readonly relation: DeviceRelation
}

/** Every two copies, with how their drives are related. */
export const pairsOf = ({ saidDifferent }: Pick<ClearQuestion, 'saidDifferent'>, copies: Copies): readonly Pair[] =>
  copies.flatMap((a, at) => copies.slice(at + 1).map((b) => ({ a, b, relation: relationOf(a, b, saidDifferent) })))

/**
 * How many of the copies lie on drives of which each is another one than every other: as is known, or as `isOther`
 * judges.
 */
export function mostApart(
  question: Pick<ClearQuestion, 'rule' | 'saidDifferent'>,
  copies: Copies,
  isOther = (a: CopyFacts, b: CopyFacts) => relationOf(a, b, question.saidDifferent) === 'different',
): number {
  const isApart = new Set(
    pairsOf(question, copies).flatMap(({ a, b }) =>
      isOther(a, b) ? [`${a.volumeId} ${b.volumeId}`, `${b.volumeId} ${a.volumeId}`] : [],
    ),
  )
  // Volumes are few, and no rule asks for more than a handful: trying all is quick.
  const most = (chosen: Copies, rest: Copies): number =>
    rest.reduce((best, next, at) => {
      if (best >= question.rule.devices) return best
      const fits = chosen.every((one) => isApart.has(`${one.volumeId} ${next.volumeId}`))
      return fits ? Math.max(best, most([...chosen, next], rest.slice(at + 1))) : best
    }, chosen.length)
  return most([], copies)
}

/** What a person carries is one site: a bag is lost with everything in it. */
const CARRIED = 'what you carry'
/** Sites of copies, where somebody has said what kind of place they are. */
export const sitesOf = (copies: Copies): readonly string[] => [
  ...new Set(copies.flatMap(({ siteKind, site }) => (siteKind === 'carried' ? [CARRIED] : siteKind ? [site] : []))),
]
const mediaOf = (copies: Copies) => [...new Set(copies.flatMap(({ medium }) => medium ?? []))]

/** Whether copies are all that the rule asks of copies. */
export function suffices(question: ClearQuestion, copies: Copies): boolean {
  const { rule } = question
  const away = offCard(question, copies)
  return (
    copies.length >= rule.copies &&
    copies.some((copy) => copy.connected) &&
    mostApart(question, away) >= rule.devices &&
    (rule.media === 1 || mediaOf(away).length >= rule.media) &&
    (rule.sites === 1 || sitesOf(away).length >= rule.sites)
  )
}

/** On how many kinds of media and at how many sites the copies lie, where the rule asks for more than one. */
export function spreadReasons({ rule }: Pick<ClearQuestion, 'rule'>, copies: Copies): Reason[] {
  const reasons: Reason[] = []
  if (rule.media > 1) {
    const media = mediaOf(copies).map((medium) => MEDIUM_WORDS[medium])
    const unknown = copies.flatMap(({ medium, volumeName }) => (medium === undefined ? [volumeName] : []))
    const met = media.length >= rule.media
    reasons.push({
      met,
      sentence:
        `Copies on ${inWords(rule.media)} kinds of media are asked; ${lie(media, 'on')}.` +
        (met || unknown.length === 0
          ? ''
          : ` What ${list(unknown)} keep${unknown.length === 1 ? 's' : ''} bytes on is not known: say so under Drives.`),
    })
  }
  if (rule.sites > 1) {
    const sites = sitesOf(copies)
    const unsaid = [...new Set(copies.flatMap(({ siteKind, site }) => (siteKind || site === '' ? [] : [site])))]
    const met = sites.length >= rule.sites
    reasons.push({
      met,
      sentence:
        `Copies at ${inWords(rule.sites)} sites are asked; ${lie(sites, 'at')}.` +
        (met || unsaid.length === 0
          ? ''
          : ` Nobody has said what kind of place ${list(unsaid)} ${unsaid.length === 1 ? 'is' : 'are'}: choose it under Sites.`),
    })
  }
  return reasons
}

const lie = (places: readonly string[], at: 'on' | 'at') =>
  places.length === 0
    ? 'none is known yet'
    : `they lie ${at} ${places.length === 1 ? 'one' : inWords(places.length)}: ${list(places)}`

/** How many clips were played from copies that are whole. */
export function playedReasons({ copies, rule, clipsPlayable }: ClearQuestion): Reason[] {
  const played = copies.filter((copy) => markOf(copy, rule) === 3)
  const clips = new Set(played.flatMap((copy) => copy.filesPlayed)).size
  const wanted = Math.min(rule.played, Math.max(1, clipsPlayable))
  const from = list(played.map((copy) => copy.volumeName))
  const asPreview =
    played.length > 0 && played.every((copy) => copy.playedAsPreview) ? ', as a preview that was made from it' : ''
  if (wanted === 1)
    return [
      played.length > 0
        ? { met: true, sentence: `A clip was played from ${from}${asPreview}.` }
        : { met: false, sentence: 'No clip has been played from a copy yet.' },
    ]
  return [
    {
      met: clips >= wanted,
      sentence:
        clips === 0
          ? `No clip has been played from a copy yet; ${inWords(wanted)} are asked.`
          : `Played from a copy: ${clips} of ${wanted} clips, from ${from}${asPreview}.`,
    },
  ]
}

/** Where the person and the card have to be. */
export function placeReasons({ rule, atHome, cardInReader }: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  if (rule.atDesk)
    reasons.push({
      met: atHome,
      sentence: atHome
        ? 'You are at your own desk.'
        : 'You are away. Your rule lets cards be formatted at your own desk only; choose another one if you must.',
    })
  if (rule.cardOut)
    reasons.push({
      met: !cardInReader,
      sentence: cardInReader
        ? 'The card is still in the reader: take it out and play a clip from a copy.'
        : 'The card is out of the reader.',
    })
  return reasons
}

/** Files that are read again for what somebody said of them, and for nothing else. */
export const toRead = ({ foundWrong }: CopyFacts): number => foundWrong.filter((one) => !one.readSince).length

/** Whatever else is whole: what somebody saw or heard is settled first, since it may be in every copy. */
export const foundWrongReasons = (copies: Copies): Reason[] =>
  copies.flatMap(({ volumeName, connected, foundWrong }) =>
    foundWrong.map(({ path, note, readSince }) => ({
      met: false,
      sentence:
        `${volumeName}: you found something wrong with “${path.split('/').at(-1) ?? path}”` +
        `${note === '' ? '' : ` (${note})`}.${readSince || connected ? '' : ' Connect the drive: then it is read again.'}`,
    })),
  )
