import { counted } from '../../units/quantity'
import { digestOf } from '../../units/digest'
import { fileNameOf } from '../../units/filePath'
import { counterGaps } from '../files/counters'
import { rangeWords, type MissingFrames } from '../files/frameRuns'

/** What is counted of a card's entries at the look: links, special entries, odd names, and files gone since an earlier look. */
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

/** Tells findings of one load apart, so that an answer is found again at the next look. */
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

const missingWords = ({ first, last, missing }: MissingFrames): string => `${rangeWords(missing)} of ${first}–${last}`

const DAY_MS = 86_400_000

/** Paths that a finding shows; it counts all. */
export const SHOWN_PATHS = 20

/** Everything worth saying of a card before it is copied, heaviest first: what was found of its clips, and of its other entries. */
export function cardFindings(
  counts: readonly EntryCount[],
  ofClips: readonly Finding[],
  { clips, lookDone }: Pick<CardCounts, 'clips' | 'lookDone'>,
): Finding[] {
  const found = [...ofClips, ...counts.flatMap(entryFinding)]
  // While it is being looked at, clips may still come.
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

/** Gaps of a counter that are asked about one by one; the others are one question. */
const SINGLE_GAPS = 8

/**
 * What is odd about the clips of a card, each thing once. `shootDay` is an ISO date; `others` are paths of files that
 * may share a counter with the clips. Worked out when a look ends, and kept.
 */
export function clipFindings(
  clips: readonly ScannedClip[],
  shootDay: string | undefined,
  others: readonly string[] = [],
): Finding[] {
  const found: Finding[] = []
  const say = (kind: Finding['kind'], weight: FindingWeight, about: readonly ScannedClip[], sentence: string) => {
    const paths = about.map((clip) => clip.path)
    if (paths.length === 0) return
    const key = findingKeyOf(kind, paths)
    found.push({ kind, weight, sentence, key, files: paths.length, paths: paths.slice(0, SHOWN_PATHS) })
  }
  const words = (about: readonly ScannedClip[], of: (clip: ScannedClip) => string | undefined) =>
    [...new Set(about.flatMap((clip) => of(clip) ?? []))].slice(0, 4).join('; ')

  const empty = clips.filter((clip) => clip.sizeBytes === 0)
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
    unreadable,
    `${counted(unreadable.length, 'clip')} cannot be read: ${words(unreadable, (clip) => (clip.cut ? `${clip.trouble}, and ${clip.cut}` : clip.trouble))}. Copy it as it is and keep the card for a rescue.`,
  )
  const cut = clips.filter((clip) => clip.cut !== undefined && !clip.trouble)
  say(
    'cut',
    'stop',
    cut,
    `${counted(cut.length, 'clip')} ${cut.length === 1 ? 'is' : 'are'} not whole: ${words(cut, (clip) => clip.cut)}. Play the end in the camera, and keep the card.`,
  )
  const blind = clips.filter((clip) => !clip.trouble && clip.hasPicture && !clip.pictureMade)
  say(
    'no-picture',
    'stop',
    blind,
    `No picture can be decoded from ${counted(blind.length, 'clip')}. Play it in the camera before anything else.`,
  )
  const holed = clips.filter((clip) => clip.frames && clip.frames.missing.length > 0)
  say(
    'frames-missing',
    'stop',
    holed,
    `${counted(holed.length, 'clip')} of frames ${holed.length === 1 ? 'lacks' : 'lack'} some: ${words(holed, (clip) => clip.frames && missingWords(clip.frames))}. Keep the card: what the camera did not write, or lost, is not elsewhere.`,
  )
  const uneven = clips.filter((clip) => clip.frames && clip.frames.short > 0)
  say(
    'frames-short',
    'stop',
    uneven,
    `${words(uneven, (clip) => clip.frames && `${counted(clip.frames.short, 'frame')} of ${clip.path.split('/').at(-1)}… ${clip.frames.short === 1 ? 'is' : 'are'} empty, cut off or shorter than all the others`)}. Look at them in the camera, and keep the card.`,
  )
  const raw = clips.filter((clip) => clip.frames && !clip.hasPicture && !clip.trouble)
  say(
    'raw',
    'note',
    raw,
    `${counted(raw.length, 'clip')} of raw frames that nothing here can develop: copied and proved like all others, looked at in your own program.`,
  )
  const frames = new Set(clips.filter((clip) => clip.frames).map((clip) => clip.path))
  const gaps = counterGaps(
    clips.filter((clip) => !frames.has(clip.path)).map((clip) => clip.path),
    others,
  ).map(({ after: from, before: to, missing }) => ({ from, to, missing }))
  for (const { from, to, ...gap } of gaps.slice(0, SINGLE_GAPS)) {
    found.push({
      kind: 'gap',
      weight: 'ask',
      paths: [from, to],
      files: gap.missing,
      key: findingKeyOf('gap', [from, to]),
      sentence: `The counter jumps from ${from} to ${to}: ${counted(gap.missing, 'number')} missing. Deleted in the camera, on another card, or another mode?`,
    })
  }
  const more = gaps.slice(SINGLE_GAPS)
  if (more.length > 0) {
    const paths = more.map(({ from, to }) => `${from} to ${to}`)
    const missing = more.reduce((sum, gap) => sum + gap.missing, 0)
    found.push({
      kind: 'gap',
      weight: 'ask',
      paths: paths.slice(0, SHOWN_PATHS),
      files: missing,
      key: findingKeyOf('gap', paths),
      sentence: `The counter jumps in ${counted(more.length, 'more place')}, from ${more[0]?.from} on: ${counted(missing, 'number')} missing. Deleted in the camera, on another card, or another mode?`,
    })
  }
  const twice = clips.filter((clip) => clip.sameAs !== undefined)
  say(
    'twice',
    'ask',
    twice,
    `${counted(twice.length, 'clip')} ${twice.length === 1 ? 'has' : 'have'} the content of another one on this card, as its length and samples of both tell: ${words(twice, (clip) => `${fileNameOf(clip.path)} that of ${fileNameOf(clip.sameAs ?? '')}`)}. All are copied.`,
  )
  const strayed = shootDay
    ? clips.filter(
        (clip) => clip.recordedAt && Math.abs(Date.parse(clip.recordedAt) - Date.parse(shootDay)) > 3 * DAY_MS,
      )
    : []
  say(
    'clock',
    'ask',
    strayed,
    `${counted(strayed.length, 'clip')} recorded more than three days from the shoot of ${shootDay}. Was the camera’s clock reset?`,
  )
  const variable = clips.filter((clip) => clip.odd?.variable)
  say(
    'variable',
    'note',
    variable,
    `${counted(variable.length, 'clip')} recorded at a variable rate. Proxies keep every frame’s time; a deliverable is put on one rate, and says which.`,
  )
  const interlaced = clips.filter((clip) => clip.odd?.interlaced)
  say(
    'interlaced',
    'note',
    interlaced,
    `${counted(interlaced.length, 'clip')} interlaced: proxies and deliverables are made of whole frames.`,
  )
  const ranged = clips.filter((clip) => clip.odd?.curve)
  say(
    'high-range',
    'note',
    ranged,
    `${counted(ranged.length, 'clip')} recorded in ${words(ranged, (clip) => clip.odd?.curve)} (BT.2100): to be tone-mapped while editing, before anything goes out in BT.709.`,
  )
  return found
}

const ENTRY_WORDS: Record<CountedKind, { readonly weight: FindingWeight; readonly say: (files: number) => string }> = {
  link: {
    weight: 'ask',
    say: (files) => `${counted(files, 'symbolic link')} on the card: reported, not followed and not copied.`,
  },
  special: {
    weight: 'stop',
    say: (files) =>
      `${counted(files, 'entry', 'entries')} that ${files === 1 ? 'is' : 'are'} neither file nor folder, or cannot be opened: not copied.`,
  },
  'odd-name': {
    weight: 'note',
    say: (files) =>
      `${counted(files, 'name')} with bytes that cannot be printed, shown escaped. The bytes are kept as they are.`,
  },
  lost: {
    weight: 'stop',
    say: (files) =>
      `${counted(files, 'file')} seen at an earlier scan ${files === 1 ? 'is' : 'are'} no longer on the card, and no volume holds a copy. Did you delete ${files === 1 ? 'it' : 'them'}? If not, leave the card as it is: what was deleted can often be rescued until something is recorded over it.`,
  },
  gone: {
    weight: 'note',
    say: (files) =>
      `${counted(files, 'file')} copied earlier ${files === 1 ? 'is' : 'are'} no longer on the card. The copies are kept.`,
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
  /** False while a look is under way, or after one that did not come to its end. */
  readonly lookDone: boolean
}
