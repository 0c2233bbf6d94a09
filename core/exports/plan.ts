import { gridChange, nearestStandard, STANDARD_RATES, type GridChange } from '../media/cadence'
import { fieldsOf, isInterlaced, isVariable, type MediaFacts, type VideoTrack } from '../media/facts'
import { frameRate, frameRateLabel, framesInSeconds, sameRate, type FrameRate } from '../units/frameRate'
import { counted } from '../units/quantity'
import { colourFault, isConverted, masterColours, type ColourChoice, type MasterColours } from './colours'
import { deliveryBitRate, predictedBytes, type Destination } from './destination'
import { neededLevel } from './level'
import { cutOf, scaleOf, type CropWindow, type StoredCut } from './reframe'
import { soundPlan, type SoundPlan } from './sound'

/** One frame of each pair of fields, or one of each field. */
export const FIELD_CHOICES = ['frame', 'field'] as const
export type FieldChoice = (typeof FIELD_CHOICES)[number]

/** What a person may choose of a deliverable beside its window. */
export interface DeliveryChoice {
  readonly fields: FieldChoice
  readonly colours: ColourChoice
  /** Number of the sound track in the file; `null` takes the default one. */
  readonly soundTrack: number | null
}

export const USUAL_CHOICE: DeliveryChoice = { fields: 'frame', colours: 'stated', soundTrack: null }

/** Everything that a render does, worked out before it: shown, then run, then what the file is checked against. */
export interface DeliveryPlan {
  readonly destination: Destination
  readonly video: VideoTrack
  readonly window: CropWindow
  /** What is cut of the stored picture, clean aperture and rotation counted. */
  readonly cut: StoredCut
  /** Delivered pixels for each real one; above 1 pixels are invented. */
  readonly scale: number
  readonly rate: FrameRate
  readonly frames: number
  /** As long as the picture. */
  readonly seconds: number
  /** Frames that are doubled or dropped to come to one rate. */
  readonly grid: GridChange | undefined
  readonly deinterlace: FieldChoice | undefined
  readonly colours: MasterColours
  readonly sound: SoundPlan | undefined
  readonly videoBitsPerSecond: number
  readonly audioBitsPerSecond: number
  readonly level: number | undefined
  readonly sizeBytes: number
  /** What is changed or taken for granted, each a sentence. */
  readonly says: readonly string[]
  /** Tracks of the master that do not go along, in words. */
  readonly leftOut: string | undefined
  /** Why it cannot be rendered, in a sentence. */
  readonly fault: string | undefined
}

/** The one rate of a deliverable: the master's where it is constant and known, else the nearest that is. */
export function deliveryRate(video: VideoTrack): FrameRate {
  return STANDARD_RATES.some((rate) => sameRate(rate, video.rate))
    ? video.rate
    : nearestStandard(video.rate.num / video.rate.den)
}

/** Works a deliverable out; `undefined` for a master without a picture. */
export function deliveryPlan(
  master: MediaFacts,
  destination: Destination,
  window: CropWindow,
  choice: DeliveryChoice = USUAL_CHOICE,
): DeliveryPlan | undefined {
  const { video } = master
  if (!video) return undefined
  const deinterlace = isInterlaced(video) ? choice.fields : undefined
  const base = deliveryRate(video)
  const rate = deinterlace === 'field' ? frameRate(base.num * 2, base.den) : base
  const framesPerSecond = rate.num / rate.den
  const videoBitsPerSecond = deliveryBitRate(destination, framesPerSecond)
  const sound = soundPlan(master, choice.soundTrack)
  const audioBitsPerSecond = sound ? destination.audioBitsPerSecond : 0
  const colours = masterColours(video, choice.colours)
  const level = neededLevel({ ...destination, framesPerSecond, bitsPerSecond: videoBitsPerSecond })
  const grid = isVariable(video) || !sameRate(base, video.rate) ? gridChange(video, base) : undefined
  const leftOut = leftOutOf(master, sound)
  return {
    destination,
    video,
    window,
    cut: cutOf(video, window),
    scale: scaleOf(video, window, destination),
    rate,
    frames: framesInSeconds(video.seconds, rate),
    seconds: video.seconds,
    grid,
    deinterlace,
    colours,
    sound,
    videoBitsPerSecond,
    audioBitsPerSecond,
    level,
    sizeBytes: predictedBytes(videoBitsPerSecond, audioBitsPerSecond, video.seconds),
    says: [
      ...(grid ? [rateSentence(video, base, grid)] : []),
      ...(deinterlace ? [fieldSentence(video, deinterlace)] : []),
      ...colourSentences(colours),
      ...(sound?.says ?? []),
    ],
    leftOut,
    fault:
      colourFault(video) ??
      (deinterlace && Math.abs(video.rotationDegrees) % 180 === 90 ? TURNED_FIELDS : undefined) ??
      (level === undefined
        ? `No H.264 level allows ${destination.name} at ${frameRateLabel(rate)} frames a second.`
        : undefined),
  }
}

const TURNED_FIELDS =
  'It is interlaced and turned by a quarter, so that its lines stand upright. Deinterlace it in ' +
  'the editing program and use that file as the master.'

function rateSentence(video: VideoTrack, rate: FrameRate, { doubled, dropped }: GridChange): string {
  const recorded = isVariable(video)
    ? `Recorded at a variable rate: ${video.cadence.average.toFixed(1)} on average.`
    : `Recorded at ${frameRateLabel(video.rate)} frames a second, which no destination knows.`
  return (
    `${recorded} It will be put on ${frameRateLabel(rate)}: ${counted(doubled, 'frame')} doubled, ` +
    `${dropped} dropped.`
  )
}

const fieldSentence = (video: VideoTrack, choice: FieldChoice) =>
  `Interlaced, ${fieldsOf(video)}${video.fieldOrder ? '' : ' as measured'}: deinterlaced to one ` +
  `frame ${choice === 'frame' ? 'a frame, as many as there are' : 'a field, twice as many'}.`

function colourSentences(colours: MasterColours): string[] {
  const converted = isConverted(colours) ? ['Colours are converted to BT.709 in limited range.'] : []
  return [...(colours.assumed ? [colours.assumed] : []), ...converted]
}

function leftOutOf({ videos, sounds, others }: MediaFacts, sound: SoundPlan | undefined): string | undefined {
  const subtitles = others.filter((track) => track.kind === 'subtitle').length
  const left = [
    videos.length > 1 ? counted(videos.length - 1, 'picture') : '',
    sounds.length > (sound ? 1 : 0) ? counted(sounds.length - (sound ? 1 : 0), 'sound track') : '',
    subtitles > 0 ? counted(subtitles, 'subtitle track') : '',
  ].filter(Boolean)
  return left.length > 0 ? left.join(', ') : undefined
}
