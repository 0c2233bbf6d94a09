import { counted } from '../../units/quantity'
import { digestOf } from '../../units/digest'
import type { MissingFrames } from '../files/frameRuns'

/**
 * What is counted of a card's entries at the scan: links, special entries, odd names, and files gone since an earlier
 * scan.
 */
export type CountedKind = 'link' | 'special' | 'odd-name' | 'gone' | 'lost'

/** How many entries one finding is about, the key of exactly these, and the first few as printable paths. */
export interface EntryCount {
  readonly kind: CountedKind
  readonly files: number
  readonly key: string
  readonly paths: readonly string[]
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
  /** What is missing of its end, in words. */
  readonly cut: string | undefined
  /** Of a clip that is numbered frames: those that are not there, and how many are too short. */
  readonly frames?: MissingFrames
  /** The path of another clip whose content it seems to have. */
  readonly sameAs?: string
  /** What its picture has that decides something later. */
  readonly odd?: { readonly variable: boolean; readonly interlaced: boolean; readonly curve: 'PQ' | 'HLG' | undefined }
}

export type FindingWeight = 'stop' | 'ask' | 'note'

/** One thing to say about a card: how heavy, in one sentence, about which paths. */
export interface Finding {
  readonly kind:
    | 'empty'
    | 'cut'
    | 'frames-missing'
    | 'frames-short'
    | 'raw'
    | 'unreadable'
    | 'no-picture'
    | 'gap'
    | 'link'
    | 'special'
    | 'clock'
    | 'twice'
    | 'goes-on'
    | 'rig'
    | 'clock-off'
    | 'clock-moved'
    | 'no-clips'
    | 'unknown-kind'
    | 'odd-name'
    | 'gone'
    | 'lost'
    | 'returned'
    | 'variable'
    | 'interlaced'
    | 'high-range'
  readonly weight: FindingWeight
  readonly sentence: string
  /** The first few of what it is about; `files` counts all. */
  readonly paths: readonly string[]
  readonly files: number
  /** Tells it from other findings of the load: another set of paths has another key. */
  readonly key: string
  /** Of a clock: what the times of the clips can be moved by, in milliseconds; 0 moves them back. */
  readonly shiftMs?: number
  /** What the person answered to a question, once they did. */
  readonly answer?: string
}

/** What people usually answer to a question, or say when they have settled what is wrong. */
export const USUAL_ANSWERS: Partial<Record<Finding['kind'], readonly string[]>> = {
  empty: ['A false start', 'I can do without it'],
  cut: ['I can do without the end', 'Rescued from the copy'],
  'frames-missing': ['I can do without them', 'The camera dropped them', 'Rescued'],
  'frames-short': ['I can do without them', 'They open in my program'],
  unreadable: ['I can do without it', 'Rescued from the copy'],
  'no-picture': ['It plays in the camera', 'I can do without it'],
  gap: ['Deleted in the camera', 'On another card', 'Another mode'],
  clock: ['The clock was wrong', 'Filmed on another day'],
  'clock-off': ['The clock is right'],
  rig: ['This lens did not run', 'On another card', 'It is no part of the rig'],
  twice: ['Keep both', 'One of them is a copy'],
  link: ['Not needed'],
  special: ['Not needed'],
  lost: ['I deleted it', 'Rescued'],
  'no-clips': ['Raw frames or other files', 'Just formatted', 'Wrong card'],
  'unknown-kind': ['The camera writes them', 'Wrong card'],
}

/** Tells findings of one load apart, so that an answer is found again at the next scan. */
export const findingKeyOf = (kind: string, paths: readonly string[]): string => `${kind} ${digestOf(paths)}`

/** Puts the answers given so far beside their questions; `null` is an answer that was taken back. */
export const withAnswers = (findings: readonly Finding[], answers: ReadonlyMap<string, string | null>): Finding[] =>
  findings.map((finding) => {
    const answer = finding.weight === 'note' ? undefined : answers.get(finding.key)
    return answer === undefined || answer === null ? finding : { ...finding, answer }
  })

/** Wrong things that nobody has settled yet. */
export const openStops = (findings: readonly Finding[]): number =>
  findings.filter((finding) => finding.weight === 'stop' && finding.answer === undefined).length

/** Questions that nobody has answered yet. */
export const openQuestions = (findings: readonly Finding[]): number =>
  findings.filter((finding) => finding.weight === 'ask' && finding.answer === undefined).length

/** Paths that a finding shows; it counts all. */
export const SHOWN_PATHS = 20

/**
 * Everything worth saying of a card before it is copied, heaviest first: what was found of its clips, and of its other
 * entries.
 */
export function cardFindings(
  counts: readonly EntryCount[],
  ofClips: readonly Finding[],
  { clips, lookDone }: Pick<CardCounts, 'clips' | 'lookDone'>,
): Finding[] {
  const found = [...ofClips, ...counts.flatMap(entryFinding)]
  // While it is being scanned, clips may still come.
  if (clips === 0 && lookDone && !ofClips.some(({ kind }) => kind === 'unknown-kind'))
    found.push({
      kind: 'no-clips',
      weight: 'ask',
      paths: [],
      files: 0,
      key: findingKeyOf('no-clips', []),
      sentence: 'There is no clip on this card. Is it the right one, or was it just formatted?',
    })
  const order: Record<FindingWeight, number> = { stop: 0, ask: 1, note: 2 }
  return found.sort((a, b) => order[a.weight] - order[b.weight])
}

const ENTRY_WORDS: Record<CountedKind, { readonly weight: FindingWeight; readonly say: (files: number) => string }> = {
  link: {
    weight: 'ask',
    say: (files) => `${counted(files, 'symbolic link')} on the card: reported, not followed and not copied.`,
  },
  special: {
    weight: 'stop',
    say: (files) =>
      `${counted(files, 'entry', 'entries')} that ${files === 1 ? 'is' : 'are'} neither file nor ` +
      'folder, or cannot be opened: not copied.',
  },
  'odd-name': {
    weight: 'note',
    say: (files) =>
      `${counted(files, 'name')} with bytes that cannot be printed, shown escaped. The bytes are kept as they are.`,
  },
  lost: {
    weight: 'stop',
    say: (files) =>
      `${counted(files, 'file')} seen at an earlier scan ${files === 1 ? 'is' : 'are'} no longer on ` +
      `the card, and no volume holds a copy. Did you delete ${files === 1 ? 'it' : 'them'}? If not, ` +
      'leave the card as it is: what was deleted can often be rescued until something is recorded over it.',
  },
  gone: {
    weight: 'note',
    say: (files) =>
      `${counted(files, 'file')} copied earlier ${files === 1 ? 'is' : 'are'} no longer on the card. ` +
      'The copies are kept.',
  },
}

function entryFinding({ kind, files, key, paths }: EntryCount): Finding[] {
  if (files === 0) return []
  const { weight, say } = ENTRY_WORDS[kind]
  return [{ kind, weight, sentence: say(files), files, key, paths }]
}

/** What is counted of a load's clips. */
export interface CardCounts {
  readonly clips: number
  readonly seconds: number
  /** False while a scan is under way, or after one that did not come to its end. */
  readonly lookDone: boolean
}
