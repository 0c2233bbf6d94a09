import type { Hole } from './cadence'
import { colourTags } from './colour'
import { fieldsOf, isInterlaced, isVariable, soundOver, type MediaFacts, type VideoTrack } from './facts'
import { orientationText } from './orientation'
import { frameRateLabel } from '../units/frameRate'

/** One thing about a clip that decides something later: in two words for a table, and in a sentence. */
export interface Remark {
  readonly short: string
  readonly sentence: string
}

/** Sound that ends with its picture to within this is as long. */
const SAME_SECONDS = 0.05
/** Starts later than this are worth a word; sound coders begin a few milliseconds before or after. */
const LATE_SECONDS = 0.1
/** With key frames further apart scrubbing stutters. Common practice, no source. */
const FAR_KEYS_SECONDS = 10

/** What is out of the ordinary about a clip, what decides most first; empty for most clips. */
export function remarksOf(facts: MediaFacts): Remark[] {
  const { video } = facts
  return [
    ...(video ? pictureRemarks(video) : []),
    ...trackRemarks(facts),
    ...sidecarRemarks(facts),
    ...facts.bounds.map((sentence) => ({ short: facts.sequence ? 'rate not stated' : 'measured in part', sentence })),
  ]
}

function pictureRemarks(video: VideoTrack): Remark[] {
  const { cadence, rate, transfer } = video
  const remarks: Remark[] = []
  const say = (short: string, sentence: string) => remarks.push({ short, sentence })
  const curve = { smpte2084: 'PQ', 'arib-std-b67': 'HLG' }[transfer ?? '']
  const holes = cadence.holes ?? []
  if (holes.length > 0)
    say(
      holeWords(holes),
      `${holeSentence(holes)}${onGridBesides(video) ? ` Besides, its frames keep to ${frameRateLabel(rate)} a second.` : ''}`,
    )
  if (cadence.pulldown)
    say(
      'pull-down',
      `Film with pull-down: ${frameRateLabel(rate)} frames a second, each shown for two or three ` +
        'fields by a flag. A program that does not know the flag plays it at another rate.',
    )
  if (isVariable(video) && !onGridBesides(video))
    say(
      'variable rate',
      `Recorded at a variable rate: ${cadence.average.toFixed(1)} on average, ` +
        `${(cadence.offGrid * 100).toFixed(0)} % of its frames off the grid of ${frameRateLabel(rate)}.`,
    )
  if (isInterlaced(video))
    say('interlaced', `Interlaced, ${fieldsOf(video)}${video.fieldOrder ? '' : ', as its frames show'}.`)
  if (video.fieldOrder === undefined && video.measuredFields?.order === 'undecided')
    say('scan unclear', 'Whether it is interlaced is not stated, and its frames do not show it.')
  if (curve) say(curve, `Recorded in ${curve} (BT.2100): it has to be tone-mapped before it can go out in BT.709.`)
  if (video.mirrored)
    say(
      'mirrored',
      `It is to be shown ${orientationText(video)}: a player that does not know mirrors shows it as it was stored.`,
    )
  if (video.frames < video.storedFrames)
    say('trimmed', `Trimmed by its edit list: ${video.frames} of ${video.storedFrames} frames are presented.`)
  if (video.displayWidthPx !== video.widthPx || video.displayHeightPx !== video.heightPx)
    say(
      `shown ${video.displayWidthPx}×${video.displayHeightPx}`,
      `Stored as ${video.widthPx}×${video.heightPx}, shown as ` +
        `${video.displayWidthPx}×${video.displayHeightPx}${video.sampleAspect === '1:1' ? '' : `: samples of ${video.sampleAspect}`}.`,
    )
  const keySeconds = ((video.keyDistance ?? 1) * rate.den) / rate.num
  if (keySeconds > FAR_KEYS_SECONDS)
    say('few key frames', `Key frames are up to ${keySeconds.toFixed(0)} s apart: scrubbing stutters, a proxy helps.`)
  return remarks
}

const holeSeconds = (seconds: number) => `${seconds.toFixed(seconds < 10 ? 2 : 1)} s`

const holeWords = (holes: readonly Hole[]) =>
  holes.length === 1 ? `hole of ${holeSeconds(holes[0]?.seconds ?? 0)}` : `${holes.length} holes`

function holeSentence(holes: readonly Hole[]): string {
  const named = holes
    .slice(0, 3)
    .map(({ atSeconds, seconds }) => `at ${holeSeconds(atSeconds)} for ${holeSeconds(seconds)}`)
  const more = holes.length > named.length ? `, and ${holes.length - named.length} more` : ''
  return `No picture was recorded ${named.join(', ')}${more}.`
}

/** Whether its holes are all that takes it off its grid. */
const onGridBesides = ({ cadence }: VideoTrack): boolean =>
  cadence.holes !== undefined && Math.round(cadence.offGrid * (cadence.measuredFrames - 1)) <= cadence.holes.length

function trackRemarks(facts: MediaFacts): Remark[] {
  const { video, videos, sounds, others, startSeconds } = facts
  const over = soundOver(facts)
  const remarks: Remark[] = []
  const say = (short: string, sentence: string) => remarks.push({ short, sentence })
  if (videos.length > 1)
    say(
      `${videos.length} pictures`,
      `It has ${videos.length} pictures; ${video?.widthPx}×${video?.heightPx} is worked with.`,
    )
  if (sounds.length > 1) say(`${sounds.length} sounds`, `It has ${sounds.length} sound tracks.`)
  if (others.some((track) => track.kind === 'empty sound'))
    say('empty sound', 'A sound track was begun, and there is nothing in it.')
  if (over > SAME_SECONDS) say('longer sound', `The sound goes on ${over.toFixed(2)} s after the picture.`)
  if (over < -SAME_SECONDS) say('shorter sound', `The sound ends ${(-over).toFixed(2)} s before the picture.`)
  if (startSeconds > LATE_SECONDS) say('late start', `Its clock begins at ${startSeconds.toFixed(2)} s.`)
  return remarks
}

/**
 * Lengths that a number or a time beside a film may mean, each with how far it may be off, in seconds. Common practice,
 * no source.
 */
function toldLengths(value: string, rate: number): { seconds: number; slack: number }[] {
  // A frame more or less is how they count, and whole seconds are rounded.
  const frame = 1.5 / rate
  if (/^\d{1,9}$/.test(value)) {
    const number = Number(value)
    return [
      { seconds: number / rate, slack: frame },
      { seconds: number, slack: 1 },
      { seconds: number / 1000, slack: frame },
    ]
  }
  const time = /^(\d+):(\d\d):(\d\d)(?:[:;](\d\d)|([.]\d+))?$/.exec(value)
  if (!time) return []
  const [hours = 0, minutes = 0, whole = 0, frames = 0, part = 0] = time.slice(1).map((digits) => Number(digits ?? 0))
  const isExact = time[4] !== undefined || time[5] !== undefined
  return [{ seconds: hours * 3600 + minutes * 60 + whole + frames / rate + part, slack: isExact ? frame : 1 }]
}

/**
 * A sidecar that tells another length than the film has, however it counts: one of the two is cut, or belongs
 * elsewhere.
 */
function sidecarRemarks({ video, sidecar }: MediaFacts): Remark[] {
  const field = sidecar.find(({ name }) => /(^|\/)duration(\/value)?$/i.test(name))
  if (!video || !field) return []
  const told = toldLengths(field.value, video.rate.num / video.rate.den)
  if (told.length === 0 || told.some(({ seconds, slack }) => Math.abs(seconds - video.seconds) <= slack)) return []
  return [
    {
      short: 'other length beside it',
      sentence:
        `The file beside it gives its length as ${field.value}; the film has ${video.frames} frames, ` +
        `${video.seconds.toFixed(2)} s. Perhaps one of the two is not whole.`,
    },
  ]
}

/** What the colours of a picture are, or that they are not stated. */
export const colourRemark = (video: VideoTrack): string | undefined =>
  colourTags(video) === 'not stated' ? 'The colours are not stated.' : undefined
