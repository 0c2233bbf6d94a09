import { counted, formatLength } from '../units/quantity'
import { counterGaps, parseDcfName } from './dcf'

export type EntryKind = 'file' | 'link' | 'special'

/** One thing found on a card. `path` is printable; bytes that are no UTF-8 and control characters are escaped. */
export interface CardEntry {
  readonly path: string
  readonly kind: EntryKind
  readonly sizeBytes: number
  /** Seen at an earlier look and no longer there: whether a volume holds a proved copy of it. */
  readonly gone?: 'copied' | 'lost'
}

/** One clip as it was probed. */
export interface ScannedClip {
  readonly path: string
  readonly sizeBytes: number
  readonly seconds: number | undefined
  readonly recordedAt: string | undefined
  readonly pictureMade: boolean
  /** Why the file could not be read as media, in words. */
  readonly trouble: string | undefined
  /** Sound recordings have no picture to make. */
  readonly hasPicture: boolean
}

export type FindingWeight = 'stop' | 'ask' | 'note'

/** One thing to say about a card: how heavy, in one sentence, about which paths. */
export interface Finding {
  readonly kind:
    | 'empty'
    | 'unreadable'
    | 'no-picture'
    | 'gap'
    | 'link'
    | 'special'
    | 'clock'
    | 'no-clips'
    | 'odd-name'
    | 'gone'
    | 'lost'
    | 'returned'
  readonly weight: FindingWeight
  readonly sentence: string
  readonly paths: readonly string[]
  /** What the person answered to a question, once they did. */
  readonly answer?: string
}

/** What people usually answer to a question, or say when they have settled what is wrong. */
export const USUAL_ANSWERS: Partial<Record<Finding['kind'], readonly string[]>> = {
  empty: ['A false start', 'I can do without it'],
  unreadable: ['I can do without it', 'Rescued from the copy'],
  'no-picture': ['It plays in the camera', 'I can do without it'],
  gap: ['Deleted in the camera', 'On another card', 'Another mode'],
  clock: ['The clock was wrong', 'Filmed on another day'],
  link: ['Not needed'],
  special: ['Not needed'],
  lost: ['I deleted it', 'Rescued'],
  'no-clips': ['Raw frames or other files', 'Just formatted', 'Wrong card'],
}

/** Tells findings of one load apart, so that an answer is found again at the next look. */
export const findingKey = (finding: Pick<Finding, 'kind' | 'paths'>): string =>
  [finding.kind, ...finding.paths].join('\n')

/** Puts the answers given so far beside their questions; `null` is an answer that was taken back. */
export const withAnswers = (findings: readonly Finding[], answers: ReadonlyMap<string, string | null>): Finding[] =>
  findings.map((finding) => {
    const answer = finding.weight === 'note' ? undefined : answers.get(findingKey(finding))
    return answer === undefined || answer === null ? finding : { ...finding, answer }
  })

/** Wrong things that nobody has settled yet. */
export const openStops = (findings: readonly Finding[]): number =>
  findings.filter((finding) => finding.weight === 'stop' && finding.answer === undefined).length

/** Questions that nobody has answered yet. */
export const openQuestions = (findings: readonly Finding[]): number =>
  findings.filter((finding) => finding.weight === 'ask' && finding.answer === undefined).length

const DAY_MS = 86_400_000

/** Everything worth saying of a card before it is copied, heaviest first. `shootDay` is an ISO date. */
export function cardFindings(
  listed: readonly CardEntry[],
  clips: readonly ScannedClip[],
  shootDay: string | undefined,
): Finding[] {
  const found: Finding[] = []
  const entries = listed.filter((entry) => entry.gone === undefined)
  const say = (kind: Finding['kind'], weight: FindingWeight, paths: readonly string[], sentence: string) => {
    if (paths.length > 0) found.push({ kind, weight, sentence, paths })
  }
  const empty = clips.filter((clip) => clip.sizeBytes === 0).map((clip) => clip.path)
  say(
    'empty',
    'stop',
    empty,
    `${counted(empty.length, 'clip')} ${empty.length === 1 ? 'is' : 'are'} empty: 0 bytes were written. Keep the card; do not format it before you know why.`,
  )

  const unreadable = clips.filter((clip) => clip.sizeBytes > 0 && clip.trouble)
  say(
    'unreadable',
    'stop',
    unreadable.map((clip) => clip.path),
    `${counted(unreadable.length, 'clip')} cannot be read: ${[...new Set(unreadable.map((clip) => clip.trouble))].join('; ')}. Copy it as it is and keep the card for a rescue.`,
  )

  const blind = clips.filter((clip) => !clip.trouble && clip.hasPicture && !clip.pictureMade).map((clip) => clip.path)
  say(
    'no-picture',
    'stop',
    blind,
    `No picture can be decoded from ${counted(blind.length, 'clip')}. Play it in the camera before anything else.`,
  )

  for (const gap of counterGaps(clips.flatMap((clip) => parseDcfName(clip.path) ?? []))) {
    const from = `${gap.prefix}${String(gap.after).padStart(4, '0')}`
    const to = `${gap.prefix}${String(gap.before).padStart(4, '0')}`
    found.push({
      kind: 'gap',
      weight: 'ask',
      paths: [from, to],
      sentence: `The counter jumps from ${from} to ${to}: ${counted(gap.missing, 'number')} missing. Deleted in the camera, on another card, or another mode?`,
    })
  }

  const strayed = shootDay
    ? clips.filter(
        (clip) => clip.recordedAt && Math.abs(Date.parse(clip.recordedAt) - Date.parse(shootDay)) > 3 * DAY_MS,
      )
    : []
  say(
    'clock',
    'ask',
    strayed.map((clip) => clip.path),
    `${counted(strayed.length, 'clip')} recorded more than three days from the shoot of ${shootDay}. Was the camera’s clock reset?`,
  )

  const links = entries.filter((entry) => entry.kind === 'link').map((entry) => entry.path)
  say(
    'link',
    'ask',
    links,
    `${counted(links.length, 'symbolic link')} on the card: reported, not followed and not copied.`,
  )
  const special = entries.filter((entry) => entry.kind === 'special').map((entry) => entry.path)
  say(
    'special',
    'stop',
    special,
    `${counted(special.length, 'entry', 'entries')} that ${special.length === 1 ? 'is' : 'are'} neither file nor folder, or may not be opened: not copied.`,
  )
  const odd = entries.filter((entry) => entry.path.includes('\\')).map((entry) => entry.path)
  say(
    'odd-name',
    'note',
    odd,
    `${counted(odd.length, 'name')} with bytes that cannot be printed, shown escaped. The bytes are kept as they are.`,
  )
  const gone = (fate: CardEntry['gone']) =>
    listed.filter((entry) => entry.kind === 'file' && entry.gone === fate).map((entry) => entry.path)
  const [lost, kept] = [gone('lost'), gone('copied')]
  say(
    'lost',
    'stop',
    lost,
    `${counted(lost.length, 'file')} seen at an earlier look ${lost.length === 1 ? 'is' : 'are'} no longer on the card, and no volume holds a copy. Did you delete ${lost.length === 1 ? 'it' : 'them'}? If not, leave the card as it is: what was deleted can often be rescued until something is recorded over it.`,
  )
  say(
    'gone',
    'note',
    kept,
    `${counted(kept.length, 'file')} copied earlier ${kept.length === 1 ? 'is' : 'are'} no longer on the card. The copies are kept.`,
  )
  if (clips.length === 0)
    found.push({
      kind: 'no-clips',
      weight: 'ask',
      paths: [],
      sentence: 'There is no clip on this card. Is it the right one, or was it just formatted?',
    })

  const order: Record<FindingWeight, number> = { stop: 0, ask: 1, note: 2 }
  return found.sort((a, b) => order[a.weight] - order[b.weight])
}

/** The card in one sentence: `6 clips, 4 min 10 s, nothing wrong found.` */
export function cardSentence(clips: readonly ScannedClip[], findings: readonly Finding[]): string {
  const seconds = clips.reduce((sum, clip) => sum + (clip.seconds ?? 0), 0)
  const stops = openStops(findings)
  const asks = openQuestions(findings)
  const verdict =
    stops > 0
      ? `${counted(stops, 'thing')} wrong`
      : asks > 0
        ? `${counted(asks, 'question')} to answer`
        : 'nothing wrong found'
  return `${counted(clips.length, 'clip')}, ${formatLength(seconds)}: ${verdict}.`
}
