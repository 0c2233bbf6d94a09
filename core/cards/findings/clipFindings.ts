import { fileNameOf } from '../../units/filePath'
import { counted } from '../../units/quantity'
import { counterGaps } from '../files/counters'
import { rangeWords, type MissingFrames } from '../files/frameRuns'
import { findingKeyOf, SHOWN_PATHS, type Finding, type FindingWeight, type ScannedClip } from './findings'

const DAY_MS = 86_400_000
/** Gaps of a counter that are asked about one by one; the others are one question. */
const SINGLE_GAPS = 8
const SHOWN_WORDS = 4

/** One thing that may be odd about clips: which clips it is true of, and what is said of them. */
interface Oddity {
  readonly kind: Finding['kind']
  readonly weight: FindingWeight
  readonly isTrueOf: (clip: ScannedClip, shootDay: string | undefined) => boolean
  readonly say: (clips: readonly ScannedClip[], shootDay: string | undefined) => string
}

const words = (clips: readonly ScannedClip[], of: (clip: ScannedClip) => string | undefined) =>
  [...new Set(clips.flatMap((clip) => of(clip) ?? []))].slice(0, SHOWN_WORDS).join('; ')
const clipsAre = (clips: readonly ScannedClip[], one: string, many: string) =>
  `${counted(clips.length, 'clip')} ${clips.length === 1 ? one : many}`
const missingWords = ({ first, last, missing }: MissingFrames): string => `${rangeWords(missing)} of ${first}–${last}`

function shortFrames({ frames, path }: ScannedClip): string | undefined {
  if (!frames) return undefined
  const are = frames.short === 1 ? 'is' : 'are'
  return (
    `${counted(frames.short, 'frame')} of ${fileNameOf(path)}… ${are} empty, cut off or shorter than ` +
    'all the others'
  )
}

const OF_FILES: readonly Oddity[] = [
  {
    kind: 'empty',
    weight: 'stop',
    isTrueOf: (clip) => clip.sizeBytes === 0,
    say: (clips) =>
      `${clipsAre(clips, 'is', 'are')} empty: 0 bytes were written. Keep the card; do not format it ` +
      'before you know why.',
  },
  {
    kind: 'unreadable',
    weight: 'stop',
    isTrueOf: (clip) => clip.sizeBytes > 0 && Boolean(clip.trouble),
    say: (clips) =>
      `${counted(clips.length, 'clip')} cannot be read: ` +
      `${words(clips, (clip) => (clip.cut ? `${clip.trouble}, and ${clip.cut}` : clip.trouble))}. ` +
      `Copy ${clips.length === 1 ? 'it as it is' : 'them as they are'} and keep the card for a rescue.`,
  },
  {
    kind: 'cut',
    weight: 'stop',
    isTrueOf: (clip) => clip.cut !== undefined && !clip.trouble,
    say: (clips) =>
      `${clipsAre(clips, 'is', 'are')} not whole: ${words(clips, (clip) => clip.cut)}. Play the end in ` +
      'the camera, and keep the card.',
  },
  {
    kind: 'no-picture',
    weight: 'stop',
    isTrueOf: (clip) => !clip.trouble && clip.hasPicture && !clip.pictureMade,
    say: (clips) =>
      `No picture can be decoded from ${counted(clips.length, 'clip')}. ` +
      `Play ${clips.length === 1 ? 'it' : 'them'} in the camera before anything else.`,
  },
  {
    kind: 'frames-missing',
    weight: 'stop',
    isTrueOf: (clip) => clip.frames !== undefined && clip.frames.missing.length > 0,
    say: (clips) =>
      `${counted(clips.length, 'clip')} of frames ${clips.length === 1 ? 'lacks' : 'lack'} some: ` +
      `${words(clips, (clip) => clip.frames && missingWords(clip.frames))}. Keep the card: what the ` +
      'camera did not write, or lost, is not elsewhere.',
  },
  {
    kind: 'frames-short',
    weight: 'stop',
    isTrueOf: (clip) => clip.frames !== undefined && clip.frames.short > 0,
    say: (clips) => {
      const short = clips.reduce((sum, clip) => sum + (clip.frames?.short ?? 0), 0)
      return `${words(clips, shortFrames)}. Look at ${short === 1 ? 'it' : 'them'} in the camera, and keep the card.`
    },
  },
  {
    kind: 'raw',
    weight: 'note',
    isTrueOf: (clip) => clip.frames !== undefined && !clip.hasPicture && !clip.trouble,
    say: (clips) =>
      `${counted(clips.length, 'clip')} of raw frames that nothing here can develop: copied and proved ` +
      'like all others, looked at in your own program.',
  },
]

const OF_CONTENT: readonly Oddity[] = [
  {
    kind: 'twice',
    weight: 'ask',
    isTrueOf: (clip) => clip.sameAs !== undefined,
    say: (clips) =>
      `${clipsAre(clips, 'has', 'have')} the content of another one on this card, as its length and ` +
      'samples of both tell: ' +
      `${words(clips, (clip) => `${fileNameOf(clip.path)} that of ${fileNameOf(clip.sameAs ?? '')}`)}. ` +
      'All are copied.',
  },
  {
    kind: 'clock',
    weight: 'ask',
    isTrueOf: ({ recordedAt }, shootDay) =>
      Boolean(shootDay && recordedAt) &&
      Math.abs(Date.parse(recordedAt ?? '') - Date.parse(shootDay ?? '')) > 3 * DAY_MS,
    say: (clips, shootDay) =>
      `${counted(clips.length, 'clip')} recorded more than three days from the shoot of ${shootDay}. ` +
      'Was the camera’s clock reset?',
  },
  {
    kind: 'variable',
    weight: 'note',
    isTrueOf: (clip) => Boolean(clip.odd?.variable),
    say: (clips) =>
      `${counted(clips.length, 'clip')} recorded at a variable rate. Proxies keep every frame’s time; ` +
      'a deliverable is put on one rate, and says which.',
  },
  {
    kind: 'interlaced',
    weight: 'note',
    isTrueOf: (clip) => Boolean(clip.odd?.interlaced),
    say: (clips) => `${counted(clips.length, 'clip')} interlaced: proxies and deliverables are made of whole frames.`,
  },
  {
    kind: 'high-range',
    weight: 'note',
    isTrueOf: (clip) => Boolean(clip.odd?.curve),
    say: (clips) =>
      `${counted(clips.length, 'clip')} recorded in ${words(clips, (clip) => clip.odd?.curve)} ` +
      '(BT.2100): to be tone-mapped while editing, before anything goes out in BT.709.',
  },
]

/**
 * What is odd about the clips of a card, each thing once. `shootDay` is an ISO date; `others` are paths of files that
 * may share a counter with the clips. Worked out when a scan ends, and kept.
 */
export function clipFindings(
  clips: readonly ScannedClip[],
  shootDay: string | undefined,
  others: readonly string[] = [],
): Finding[] {
  const found = (oddities: readonly Oddity[]) =>
    oddities.flatMap(({ kind, weight, isTrueOf, say }): Finding[] => {
      const about = clips.filter((clip) => isTrueOf(clip, shootDay))
      const paths = about.map((clip) => clip.path)
      return paths.length === 0 ? [] : [finding(kind, weight, paths, paths.length, say(about, shootDay))]
    })
  return [...found(OF_FILES), ...gapFindings(clips, others), ...found(OF_CONTENT)]
}

const finding = (
  kind: Finding['kind'],
  weight: FindingWeight,
  paths: readonly string[],
  files: number,
  sentence: string,
): Finding => ({ kind, weight, sentence, key: findingKeyOf(kind, paths), files, paths: paths.slice(0, SHOWN_PATHS) })

/** Holes in the counter of a camera: the first ones each a question, all others one together. */
function gapFindings(clips: readonly ScannedClip[], others: readonly string[]): Finding[] {
  const counting = clips.filter((clip) => !clip.frames).map((clip) => clip.path)
  const gaps = counterGaps(counting, others)
  const single = gaps
    .slice(0, SINGLE_GAPS)
    .map(({ after: from, before: to, missing }) =>
      finding(
        'gap',
        'ask',
        [from, to],
        missing,
        `The counter jumps from ${from} to ${to}: ${counted(missing, 'number')} missing. Deleted in the ` +
          'camera, on another card, or another mode?',
      ),
    )
  const more = gaps.slice(SINGLE_GAPS)
  if (more.length === 0) return single
  const missing = more.reduce((sum, gap) => sum + gap.missing, 0)
  const all = finding(
    'gap',
    'ask',
    more.map(({ after: from, before: to }) => `${from} to ${to}`),
    missing,
    `The counter jumps in ${counted(more.length, 'more place')}, from ${more[0]?.after} on: ` +
      `${counted(missing, 'number')} missing. Deleted in the camera, on another card, or another mode?`,
  )
  return [...single, all]
}
