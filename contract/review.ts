import { array, number, object, string, type InferType } from 'yup'
import type { NamedClip } from '../core/cards/review/naming'
import { VERDICTS, type ClipReview, type ReviewSum } from '../core/cards/review/review'
import type { Select } from '../core/cards/review/selects'
import { id } from './id'
import type { ClipView } from './cards'
import { ask, order, stream, type Ordered } from './endpoint'
import { pageQuery, typedFilter, type Page } from './page'

/** A media file of a take, and how long it is in what the take is counted in. */
export interface TakePart {
  readonly clipId: string
  readonly loadId: string
  readonly name: string
  readonly trouble: string | null
  readonly length: number
}

/** A take in review: what it is, on which loads, and what was said of it. Its id is that of its first file. */
export interface ReviewClip extends ClipView {
  readonly loadId: string
  /** Of a take on several cards, all of them. */
  readonly loadLabel: string
  /** The files that go on from one another, from first to last. */
  readonly files: readonly TakePart[]
  /** As many lenses of a rig filmed it; what is said of it is said of all. */
  readonly lenses: number
  readonly review: ClipReview
  /**
   * What its ranges are counted in, `"num/den"` a second: frames of a film, thousandths of a second of sound and of a
   * film of variable rate.
   */
  readonly ticks: string
  /** Of all its files together. */
  readonly length: number
  /** So many of them are about one frame. */
  readonly step: number
}

/** Where a clip is watched from, and how. */
export interface WatchView {
  readonly from: 'copy' | 'card' | 'nowhere'
  /** `Tide 1`, or the reader the card lies in; empty when it lies nowhere. */
  readonly place: string
  /** The volume whose copy is watched: a second of it counts as played. */
  readonly volumeId: string | null
  /** The file itself, a preview that was made of it, one that has to be made first, or frames a file each. */
  readonly how: 'file' | 'preview' | 'preview-needed' | 'frames'
}

export const REVIEWS_SHOWN = ['all', 'open', ...VERDICTS] as const

export const reviewQuery = pageQuery(['recorded', 'name'], {
  loadId: id('That is no load.').nullable().default(null),
  show: string()
    .oneOf(REVIEWS_SHOWN, `Show ${REVIEWS_SHOWN.join(', ')}.`)
    .default('all'),
  q: typedFilter,
})
export type ReviewAsked = InferType<typeof reviewQuery>

const frame = (what: string) =>
  number()
    .typeError(`Give the ${what} as a number of frames.`)
    .integer(`Give the ${what} as a whole number of frames.`)
    .min(0, `The ${what} lies before the clip.`)
    .max(1e12, `The ${what} lies behind the clip.`)
    .required(`Give the ${what}.`)

const range = object({ from: frame('first frame'), to: frame('last frame') })
  .noUnknown()
  .test('order', 'The out point lies before the in point.', ({ from, to }) => from < to)

export const MOST_RANGES = 200

/** Everything that is said of a clip in review, as a whole. */
export const reviewBody = object({
  verdict: string()
    .oneOf(VERDICTS, `Say ${VERDICTS.join(', ')} or nothing.`)
    .nullable()
    .defined(),
  ranges: array().of(range).max(MOST_RANGES, `A clip has ${MOST_RANGES} ranges at most.`).required('Say which ranges.'),
  note: string().max(2000, 'Keep the note under 2 000 characters.').defined(),
  shotId: id('That is no shot.').nullable().defined(),
}).noUnknown()
export type ReviewBody = InferType<typeof reviewBody>

/** Loudest sample of each of so many equal pieces of a clip, 0–1. */
export interface Waveform {
  readonly peaks: readonly number[]
}

/** Names for clips of a production; `null` gives the camera’s back. */
export const namesBody = object({
  names: array()
    .of(
      object({
        id: id('That is no clip.').required('Say which clip.'),
        name: string()
          .trim()
          .min(1, 'A name has a letter at least.')
          .max(200, 'Keep names under 200 characters.')
          .nullable()
          .defined(),
      }).noUnknown(),
    )
    .max(10_000, 'Name 10 000 clips at a time at most.')
    .required('Say which names.'),
}).noUnknown()

/** What the task is called that makes a preview of a clip. */
export const previewTitle = (name: string): string => `Make a preview of ${name}`

/** Small films that were made to watch clips by. */
export interface PreviewsView {
  readonly files: number
  readonly sizeBytes: number
}

/** What review came to so far. */
export interface ReviewView extends ReviewSum {
  /**
   * Shots that were ticked as filmed, and that no clip is matched to: on a card that nobody looked at, or not there.
   */
  readonly unmatchedShots: readonly string[]
}

/** The desk of station 2 at which clips are looked at and chosen from. */
export const reviewApi = {
  /** Takes of a production, the oldest recording first, each with what was said of it. */
  clips: ask<Page<ReviewClip>>()('review', '/productions/:id/review', reviewQuery),
  sum: ask<ReviewView>()('review', '/productions/:id/review/sum'),
  set: order()('PUT', '/clips/:id/review', { changes: ['review', 'productions'], body: reviewBody }),
  watch: ask<WatchView>()('copies', '/clips/:id/watch'),
  /** The clip as a browser plays it. 409 when no place has it, or a preview is to be made first. */
  film: stream('/clips/:id/film'),
  /** Frames from beginning to end side by side, JPEG: as many as `STRIP_FRAMES` of core. */
  strip: stream('/clips/:id/strip'),
  wave: ask<Waveform>()('cards', '/clips/:id/wave'),
  /** Makes a preview of a clip that browsers cannot play. 409 while it is being made. */
  preview: order<Ordered>()('POST', '/clips/:id/preview', { status: 202, changes: ['tasks', 'copies'] }),
  /** Kept clips with their ranges, the oldest recording first. */
  selects: ask<readonly Select[]>()('review', '/productions/:id/selects'),
  /** Kept clips as far as names can be made of them, as they were filmed. */
  nameable: ask<readonly NamedClip[]>()('review', '/productions/:id/names'),
  /** Gives names, or takes them back. 409 when one is taken by another clip of the production. */
  setNames: order()('PUT', '/productions/:id/names', { changes: ['review', 'productions'], body: namesBody }),
  previews: ask<PreviewsView>()('review', '/previews'),
  removePreviews: order()('DELETE', '/previews', { changes: ['review', 'copies'] }),
}
