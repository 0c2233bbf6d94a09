import { boolean, number, object, string, type InferType } from 'yup'
import type { Finding } from '../core/cards/findings/findings'
import type { Whereabouts } from '../core/cards/load/whereabouts'
import type { MediaFacts } from '../core/media/facts'
import { id, ids } from './id'
import { folderPath, text } from './text'
import { ask, order, stream, type Ordered } from './endpoint'
import { pageQuery, typedFilter, type Page } from './page'
import type { Registered } from './storage'

/** For which production a card is scanned, and what it is to be called; the name of a card that is known stays. */
export const scanOrder = object({
  productionId: id('Choose a production.').required('Choose a production.'),
  /** Without one it gets the name that was proposed. */
  label: text().max(80, 'Keep the label under 80 characters.').default(''),
  /** It is copied to two drives and proved, too. */
  copy: boolean().default(false),
  /** The stay of the card that was asked about: another one that lies there by now is not taken for it. */
  stay: id('That is no stay of a card.').nullable().default(null),
}).noUnknown()

export type ScanOrder = InferType<typeof scanOrder>

/** A folder in which cards appear. */
export const newReader = object({
  name: text().required('Name the reader.').max(60, 'Keep the name under 60 characters.'),
  path: folderPath('Give the folder where the card appears.'),
  /** An ordinary folder with things in it is meant. */
  sure: boolean().default(false),
}).noUnknown()

/** What a person answered to one finding, which its key names. */
export const findingAnswer = object({
  key: string().required('Say which question is answered.').max(20_000),
  /** `null` takes an answer back. */
  answer: text()
    .max(200, 'Keep the answer under 200 characters.')
    .nullable()
    .defined('Write an answer.')
    .test('not-empty', 'Write an answer.', (answer) => answer !== ''),
}).noUnknown()

/** A reader with what lies in it now, as the observer last saw it. */
export interface ReaderView {
  readonly id: string
  readonly name: string
  readonly path: string
  readonly simulated: boolean
  /** What lies in it: nothing, a card, or a folder that cannot be reached. */
  readonly state: 'empty' | 'card' | 'unreachable'
  readonly cardName: string | null
  /** From when it was put in until it is taken out. */
  readonly stay: string | null
  /** The load that this card is known to hold, when it was scanned since it was inserted. */
  readonly loadId: string | null
  /** The production that the load belongs to. */
  readonly productionId: string | null
  /** It is not the card that was scanned, but its backup card: another one with the same content. */
  readonly isTwin: boolean
  /** How it differs from what was scanned, in words. */
  readonly difference: string | null
  /** Nothing can write on it here: its switch is on. */
  readonly writeProtected: boolean
  /** A scan of it is under way. */
  readonly looking: boolean
  /** Of a card that nobody has scanned: what it would be called, and the production that it is most likely for. */
  readonly proposed: {
    readonly label: string
    readonly production: { readonly id: string; readonly title: string; readonly why: string } | null
  } | null
  /** Of the card that lies there, in bytes. */
  readonly room: { readonly capacityBytes: number; readonly freeBytes: number } | null
}

/** One clip of a card: pixels, frames, seconds, bytes; `null` where the file does not say. */
export interface ClipView {
  readonly id: string
  readonly path: string
  readonly name: string
  readonly widthPx: number | null
  readonly heightPx: number | null
  readonly rate: string | null
  readonly frames: number | null
  readonly seconds: number | null
  readonly codec: string | null
  readonly sizeBytes: number
  readonly withSound: boolean
  /** Its files beside the one it is known by: `camera proxy, thumbnail and 2 sidecars`; empty when it is alone. */
  readonly beside: string
  /** Files of a take that the camera split; bytes and seconds are those of all of them. */
  readonly parts: number
  /** Numbered frames, a file each. */
  readonly isRun: boolean
  readonly recordedAt: string | null
  /** `10 bit 4:2:2`, or the channels of a sound recording. */
  readonly coding: string | null
  /** What is out of the ordinary, in a few words each. */
  readonly remarks: readonly string[]
  readonly trouble: string | null
  /** What is missing of its end, in words. */
  readonly cut: string | null
  /** False when it was deleted in the camera since; copies of it are kept. */
  readonly onCard: boolean
  readonly hasPicture: boolean
  readonly pictureMade: boolean
  /** The production that it was given to, where that is not the one that is asked. */
  readonly givenTo: string | null
}

/** Everything that was read of one clip; `null` when it could not be read. */
export interface ClipDetail extends ClipView {
  readonly loadLabel: string
  readonly facts: MediaFacts | null
  /** What the reading program itself said, where it cannot be read. */
  readonly toolLines: readonly string[]
}

/** A card as it was scanned, with what is odd about it, heaviest first. Its clips are a list of their own. */
export interface LoadView {
  readonly id: string
  /** The production that the card was read for; clips of it may belong to others. */
  readonly productionId: string
  readonly productionTitle: string
  readonly label: string
  readonly scannedAt: string
  readonly fileCount: number
  readonly sizeBytes: number
  readonly sentence: string
  /** On which volumes it is already. */
  readonly whereabouts: Whereabouts
  readonly findings: readonly Finding[]
  /** How many clips it has, and how many of them belong to the production that is asked. */
  readonly clips: number
  readonly clipsHere: number
  /** Card and camera of the gear book, as a person said; `null` where nobody has. */
  readonly cardId: string | null
  /** The card is known by what the system calls its file system; nobody said so. */
  readonly cardByUid: boolean
  readonly cameraId: string | null
}

/** What clips can be sorted by; the ones with many values each have an index. */
export const CLIP_SORTS = ['name', 'frame', 'rate', 'length', 'codec', 'size', 'recorded'] as const
export type ClipSort = (typeof CLIP_SORTS)[number]

/** All clips, those with a picture, those that can be played, or those in trouble. */
export const CLIPS_SHOWN = ['all', 'film', 'playable', 'wrong'] as const

const MOST_REASSIGNED = 10_000

/** Which clips are reassigned to a production. */
export const reassignedClips = object({
  clipIds: ids('That is no clip.')
    .min(1, 'Choose at least one clip.')
    .max(MOST_REASSIGNED, `Reassign ${MOST_REASSIGNED} clips at most at once.`)
    .required('Choose at least one clip.'),
}).noUnknown()

const CENTURY_MS = 100 * 366 * 86_400_000

/** By how much the times of a load’s clips are shown moved, in milliseconds; 0 shows what the files say. */
export const clockBody = object({
  shiftMs: number()
    .integer('Give whole milliseconds.')
    .min(-CENTURY_MS, 'That is more than a century.')
    .max(CENTURY_MS, 'That is more than a century.')
    .required('Give the shift in milliseconds.'),
}).noUnknown()

/** Which clips of a production are asked for. */
export const clipsQuery = pageQuery(CLIP_SORTS, {
  /** Only those of one load. */
  loadId: id('That is no load.').nullable().default(null),
  show: string()
    .oneOf(CLIPS_SHOWN, `Show ${CLIPS_SHOWN.join(', ')}.`)
    .default('all'),
  q: typedFilter,
})
export type ClipsAsked = InferType<typeof clipsQuery>

/** Which frame of a clip, in seconds from its start; past its end is the last one. */
export const frameTime = object({
  at: number()
    .typeError('Give the time of the frame in seconds.')
    .min(0, 'Give the time of the frame in seconds.')
    .default(0),
}).noUnknown()

/** Station 2. 404 for what is not known; 409 where a card is just being scanned. */
export const cardsApi = {
  readers: ask<readonly ReaderView[]>()('cards', '/readers'),
  /** Registers a folder where cards appear. 422 on `path` or `name`. */
  addReader: order<Registered>()('POST', '/readers', { status: 201, changes: ['cards'], body: newReader }),
  /** Scans the card in a reader. 409 while it is being scanned. */
  look: order<Ordered>()('POST', '/readers/:id/scan', {
    status: 202,
    changes: ['cards', 'tasks', 'productions'],
    body: scanOrder,
  }),
  /** Loads of a production, the newest first. */
  loads: ask<Page<LoadView>>()('cards', '/productions/:id/loads', pageQuery(['made'], {}, { rows: 20, down: true })),
  /** Clips of a production or of one load. */
  clips: ask<Page<ClipView>>()('cards', '/productions/:id/clips', clipsQuery),
  /** One clip with everything that was read of it. */
  clip: ask<ClipDetail>()('cards', '/clips/:id'),
  /**
   * Counts the frames of a clip one by one, from any connected copy. 409 while it is being counted or without a copy.
   */
  count: order<Ordered>()('POST', '/clips/:id/count', { status: 202, changes: ['cards', 'tasks'] }),
  /** Writes down what a person answered to a finding, or takes it back. */
  answerFinding: order()('POST', '/loads/:id/answers', {
    changes: ['cards', 'productions', 'copies'],
    body: findingAnswer,
  }),
  /** Shows the times of a load’s clips moved, or as the files say them; no file is changed. */
  moveClock: order()('PUT', '/loads/:id/clock', { changes: ['cards', 'review', 'productions'], body: clockBody }),
  /**
   * Reassigns clips to a production, whole, wherever their card was read; nothing on any disk moves. 404 where one is
   * no clip.
   */
  reassign: order()('POST', '/productions/:id/given', {
    changes: ['cards', 'review', 'productions', 'proxies', 'copies', 'storage'],
    body: reassignedClips,
  }),
  /** The picture that was taken at the scan, JPEG. */
  picture: stream('/clips/:id/picture'),
  /** One frame of the original, JPEG, from any connected copy, else from its card in a reader. */
  frame: stream('/clips/:id/frame', frameTime),
}
