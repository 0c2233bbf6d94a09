import { boolean, number, object, string } from 'yup'
import type { ClearAnswer } from '../core/copies/clear'
import type { CopyFacts, Mark } from '../core/copies/mark'
import type { Night } from '../core/copies/night'
import type { CopyPlan } from '../core/copies/plan'
import type { Piece, WhyDrawn } from '../core/copies/playSample'
import type { ClearRule } from '../core/copies/rule'
import { isUuid } from '../core/units/uuid'
import { id, idOrNothing, ids } from './id'
import { ask, order, stream, type Ordered } from './endpoint'
import { pageQuery, type Page } from './page'
import { text } from './text'

/** To which volumes a load is copied. */
export const copyOrder = object({
  volumeIds: ids('That is no volume.').min(1, 'Choose at least one volume.').required('Choose at least one volume.'),
  /** Files of ours or others that stand in the way are moved aside on the volume first; nothing is deleted. */
  setAside: boolean().default(false),
  /** The volume whose proved copy is read instead of the card. */
  from: id('That is no volume.').nullable().default(null),
  /** The decisions of the plan that the person saw; without them nobody saw one. */
  decisions: string().max(20_000, 'That is no plan that was shown.').nullable().default(null),
}).noUnknown()

/** To which volumes every card in a reader is copied. */
export const nightOrder = copyOrder.pick(['volumeIds'])

/** Reading again: every file, or files that are drawn by risk. */
export const CHECK_WAYS = ['whole', 'sample'] as const

/** Reading copies again: whole, or files drawn by risk. */
export const checkOrder = object({
  volumeIds: ids('That is no volume.').min(1, 'Choose at least one volume.').required('Choose at least one volume.'),
  how: string().oneOf(CHECK_WAYS, 'Read the whole copy or a sample.').required('Read the whole copy or a sample.'),
}).noUnknown()

/** That the card was formatted; `anyway` when the answer was not yes, which is written down as well. */
export const formattedOrder = object({
  anyway: boolean().default(false),
  /** Why it was formatted all the same; asked where the answer is not yes. */
  reason: text().max(300, 'Keep the reason under 300 characters.').default(''),
  /** The backup card that is meant, where the answer is about one. */
  twinId: id('That is no backup card.').nullable().default(null),
}).noUnknown()

/** That two volumes are different drives, where the system cannot know. */
export const differentDrives = object({
  volumeId: id('Say which volume.').required('Say which volume.'),
  otherVolumeId: id('Say which other volume.').required('Say which other volume.'),
}).noUnknown()

/** That somebody played a clip from a copy for some seconds. */
export const spotPlay = object({
  volumeId: id('Say which volume was played.').required('Say which volume was played.'),
  /**
   * Without one: the person opened a file of the copy in a program of their own, since nothing on the card can be
   * played here.
   */
  clipId: id('That is no clip.').nullable().default(null),
  seconds: number()
    .min(1, 'Play at least one second.')
    .max(86_400, 'Nobody plays for more than a day.')
    .required('Say how long it was played.'),
  /** A preview of it was shown, since the browser could not play the file itself. */
  asPreview: boolean().default(false),
}).noUnknown()

/** Which piece of a clip is made into a preview, in seconds; without one the clip is played as it is. */
export const pieceQuery = object({
  fromSeconds: number().min(0, 'Begin at the beginning.').max(1e6, 'No clip is that long.').nullable().default(null),
  seconds: number().min(0.1, 'Play a tenth of a second.').max(60, 'Play at most a minute.').default(3),
}).noUnknown()

/** The seed of a sample; the same draws the same. */
export const sampleQuery = object({
  seed: text().max(60, 'Keep the seed under 60 characters.').default(''),
}).noUnknown()

/** Clips of one copy that are worth a look. */
export interface PlaySample {
  readonly clips: readonly {
    readonly clipId: string
    readonly name: string
    readonly why: WhyDrawn
    /** No browser plays the file itself: a preview is made from the copy. */
    readonly asPreview: boolean
    readonly pieces: readonly Piece[]
  }[]
}

/** What somebody found wrong with a clip of a copy; without a clip the largest file is meant, as it was opened. */
export const foundWrongOrder = spotPlay.pick(['volumeId', 'clipId']).shape({
  note: text().max(300, 'Keep it under 300 characters.').default(''),
})

/** That nothing is wrong with a file after all, by its id, as it was told. */
export const foundWholeOrder = object({
  volumeId: id('Say which volume.').required('Say which volume.'),
  entryId: number().integer('That is no file.').min(1, 'That is no file.').required('Say which file.'),
}).noUnknown()

/**
 * One copy: its mark, where it lies, and what is wrong with it. The first hundred troubles are named, all are counted.
 */
export interface CopyView extends CopyFacts {
  readonly mark: Mark
  /** Folder of the mirror on the volume. */
  readonly folder: string
  /** Volumes that lie on the same drive as this one, and those of which the system cannot tell. */
  readonly sharesDriveWith: readonly string[]
  readonly mayShareDriveWith: readonly { readonly volumeId: string; readonly volumeName: string }[]
  /** Names of volumes of which the person said that they are other drives. */
  readonly saidDifferentFrom: readonly string[]
  /** Files with names that only the second checksum list can hold. */
  readonly hasOddNames: boolean
  /** Files that differ or collide, with what is wrong. */
  readonly troubles: readonly { readonly path: string; readonly sentence: string }[]
}

/** A second card with the content of a load, as a camera with two slots writes it. */
export interface BackupCardView {
  readonly id: string
  readonly name: string
  /** Where it lies now. */
  readonly readerName: string | null
  /** When it was last read whole, as an ISO time, and how much of it was as it should be. */
  readonly readAt: string | null
  readonly filesEqual: number
  readonly filesWrong: number
  /** It was said to be formatted, and was not seen since. */
  readonly formattedAt: string | null
}

/** A load with its copies and the answer whether its card may be formatted. */
export interface LoadCopies {
  readonly loadId: string
  readonly label: string
  readonly sizeBytes: number
  readonly fileCount: number
  readonly copies: readonly CopyView[]
  readonly clear: ClearAnswer
  /** What is being scanned before the answer can be a yes, in a sentence. */
  readonly checking: string | null
  readonly formattedAt: string | null
  /** What stood against it when it was said to be formatted, and why it was all the same. */
  readonly formattedAgainst: string | null
  readonly formattedBecause: string | null
  /** What a yes asks of it: the strictest of the rules of all productions with clips of it. */
  readonly rule: ClearRule
  /** Clips that can be played from a copy. */
  readonly playable: number
  readonly twins: readonly BackupCardView[]
  /** The backup card that the answer is about, where only that one lies in a reader. */
  readonly asked: string | null
  /** It was said to be formatted, and lies in a reader with all that was on it. */
  readonly saidButThere: boolean
  /** The reader in which its card lies now, and whether it is known to be that card. */
  readonly card: { readonly readerName: string; readonly isKnown: boolean } | null
  /** Volumes with a proved copy that another one can be made from. */
  readonly sources: readonly { readonly volumeId: string; readonly volumeName: string; readonly files: number }[]
}

/** A night of copies as it is planned, and what of it waits already. */
export interface NightView extends Night {
  /** Cards in readers that nobody has scanned, or that have changed since. */
  readonly unlooked: readonly string[]
  /** Labels of loads that wait, the next one first. */
  readonly queue: readonly string[]
}

/** For which volumes a copy is planned, their ids with commas between. */
export const planQuery = object({
  volumeIds: string()
    .max(2000, 'Choose fewer volumes.')
    .test('ids', 'That is no volume.', (list) => (list ?? '').split(',').every((one) => one === '' || isUuid(one)))
    .transform((list: string) => [...new Set(list.toLowerCase().split(','))].join())
    .default(''),
  /** The volume whose proved copy would be read instead of the card. */
  from: idOrNothing('That is no volume.'),
}).noUnknown()

/** What a copy would do, with what an order names of it. */
export interface CopyPlanView extends CopyPlan {
  readonly decisions: string
}

/** Station 3. 404 for what is not known; 409 where the same work is under way, or the answer is no. */
export const copiesApi = {
  /** What is known of loads and their copies without a scan, and so at once. Never a yes: `checking` says what it waits for. */
  known: ask<Page<LoadCopies>>()(
    'copies',
    '/productions/:id/copies/known',
    pageQuery(['made'], {}, { rows: 20, down: true }),
  ),
  /** What is true of loads and their copies, the newest first; what comes near a yes is scanned first. */
  all: ask<Page<LoadCopies>>()('copies', '/productions/:id/copies', pageQuery(['made'], {}, { rows: 20, down: true })),
  /** What a copy to these volumes would do, and how long it would take. */
  plan: ask<CopyPlanView>()('copies', '/loads/:id/plan', planQuery),
  /**
   * Copies a load. 409 with what is otherwise, when the plan that was seen no longer holds; nothing is written then.
   */
  copy: order<Ordered>()('POST', '/loads/:id/copies', { status: 202, changes: ['copies', 'tasks'], body: copyOrder }),
  /** What copying every card that lies in a reader would do, the most endangered first, and what waits in the queue. */
  night: ask<NightView>()('copies', '/productions/:id/night', planQuery),
  /**
   * Puts all of them into the queue, one after the other, the most endangered first. 409 where there is nothing to
   * copy.
   */
  copyAll: order()('POST', '/productions/:id/night', { changes: ['copies', 'tasks'], body: nightOrder }),
  /** Takes out of the queue what has not begun. */
  emptyQueue: order()('DELETE', '/productions/:id/night', { changes: ['copies', 'tasks'] }),
  /** Reads a backup card that lies in a reader, whole, and compares it with what was proved of the load. */
  readTwin: order<Ordered>()('POST', '/loads/:id/twins/:twinId/read', { status: 202, changes: ['copies', 'tasks'] }),
  check: order<Ordered>()('POST', '/loads/:id/checks', { status: 202, changes: ['copies', 'tasks'], body: checkOrder }),
  /** A clip of one copy: the file itself in pieces, or a quick film of it where no browser can play it. */
  play: stream('/loads/:id/play/:volumeId/:clipId', pieceQuery),
  /** Clips to be watched from a copy, drawn by risk. */
  sample: ask<PlaySample>()('copies', '/loads/:id/play-sample/:volumeId', sampleQuery),
  /** Writes down that somebody played a copy. */
  played: order()('POST', '/loads/:id/spot-plays', { changes: ['copies', 'productions'], body: spotPlay }),
  /** Writes down that something is wrong with a file of a copy, which is read again then; it counts for nothing. */
  foundWrong: order()('POST', '/loads/:id/found-wrong', { changes: ['copies', 'productions'], body: foundWrongOrder }),
  /** Writes down that nothing is wrong with it after all. */
  foundWhole: order()('POST', '/loads/:id/found-whole', {
    changes: ['copies', 'productions'],
    body: foundWholeOrder,
  }),
  /** Writes down that the card was formatted; 409 with the reason when the answer is no, unless `anyway`. */
  formatted: order()('POST', '/loads/:id/formatted', {
    changes: ['copies', 'productions', 'cards'],
    body: formattedOrder,
  }),
  /** Takes back what was said by mistake: the card is not formatted. */
  unformatted: order()('POST', '/loads/:id/unformatted', {
    changes: ['copies', 'productions', 'cards'],
    body: formattedOrder.pick(['twinId']),
  }),
  /** Reads the card of a load that lies in a reader, whole, and compares it with what was proved. */
  readCard: order<Ordered>()('POST', '/loads/:id/card/read', { status: 202, changes: ['copies', 'tasks'] }),
  /** Writes down that two volumes are different drives. */
  differentDrives: order()('POST', '/volumes/different', {
    changes: ['copies', 'storage', 'productions'],
    body: differentDrives,
  }),
}
