import { array, boolean, object, string, type InferType } from 'yup'
import { FOLDER_TAKES, LINK_WAYS, type SortPlan, type SortSettings } from '../core/cards/review/sorted'
import { id, ids } from './id'
import { ask, order, type Ordered } from './endpoint'
import { text } from './text'

const folderName = () =>
  text()
    .required('Name the folder.')
    .max(200, 'Keep folders under 200 characters.')
    .matches(
      /^[^/\\:*?"<>|%.\u0000-\u001f][^\\:*?"<>|%\u0000-\u001f]*$/,
      'A folder begins with a letter or figure, and has none of \\ : * ? " < > | %.',
    )
    .test('parts', 'Put one name between two slashes.', (path) =>
      (path ?? '')
        .split('/')
        .every((part) => part !== '' && part !== '..' && part.trim() === part && !part.endsWith('.')),
    )
    .test(
      'ours',
      'Copies, deliverables and bags lie in Cards, Proxies, Exports and Shelf: choose another name.',
      (path) => !['cards', 'proxies', 'exports', 'shelf'].includes((path ?? '').split('/')[0]?.toLowerCase() ?? ''),
    )

/** How a production is sorted. */
export const sortBody = object({
  volumeId: id('That is no volume.').required('Choose a volume.'),
  template: array()
    .of(
      object({
        path: folderName(),
        takes: string().oneOf(FOLDER_TAKES, 'Say what the folder takes.').required('Say what the folder takes.'),
      }).noUnknown(),
    )
    .min(1, 'Keep one folder at least.')
    .max(40, 'Forty folders at most.')
    .required('Give the folders.')
    .test('unique', 'Two folders have one name.', (folders) => {
      // Asked before each folder is looked at by itself: there may be anything in the list.
      const names = (folders ?? []).map((one) => String((one as typeof one | null)?.path).toLowerCase())
      return new Set(names).size === names.length
    }),
  aRoll: array()
    .of(
      object({
        by: string()
          .oneOf(['camera', 'verdict', 'shot'] as const, 'Choose by what.')
          .required('Choose by what.'),
        is: string().required('Choose which.').max(60, 'Choose one of the list.'),
      }).noUnknown(),
    )
    .max(200, 'Two hundred rules at most.')
    .required('Give the rules.'),
  which: string()
    .oneOf(['keep', 'not-rejected'] as const, 'Choose which clips.')
    .required('Choose which clips.'),
  links: string().oneOf(LINK_WAYS, 'Choose how bytes are shared.').required('Choose how bytes are shared.'),
  editBegun: boolean().required('Say whether the edit has begun.'),
}).noUnknown()
export type SortBody = InferType<typeof sortBody>

/** Clips that go into a folder by hand; `null` leaves them to the rules. */
export const handBody = object({
  clipIds: ids('That is no clip.')
    .min(1, 'Choose a clip.')
    .max(2000, 'Two thousand clips at a time at most.')
    .required('Say which clips.'),
  folder: text().nullable().defined('Say which folder.').max(200, 'That is no folder of the template.'),
}).noUnknown()

/** A clip in the view. */
export interface SortedClip {
  readonly id: string
  /** As it is called in the view, without its ending. */
  readonly name: string
  readonly fileName: string
  readonly load: string
  readonly folder: string
  readonly byHand: boolean
  readonly files: number
  readonly sizeBytes: number
  readonly pictureMade: boolean
}

/** The sorted view of a production as it is and as it would become. */
export interface SortedView {
  readonly volumeId: string | null
  readonly settings: SortSettings
  /** What files can do on that volume: share bytes, have a second name, or neither; `null` while it is not known. */
  readonly canLink: 'reflink' | 'hard' | 'none' | null
  /** The first of them, as they were filmed. */
  readonly clips: readonly SortedClip[]
  readonly moreClips: number
  readonly plan: Omit<SortPlan, 'steps'> & {
    readonly sentence: string
    /** The first of them. */
    readonly steps: readonly {
      readonly kind: 'add' | 'move' | 'remove'
      readonly path: string
      readonly from?: string
    }[]
    readonly changes: number
  }
  /** Clips that no connected volume has a proved copy of. */
  readonly unproved: number
  /** Cameras, and loads of unknown cameras, that filmed what may be sorted. */
  readonly cameras: readonly { readonly id: string; readonly name: string }[]
  readonly shots: readonly { readonly id: string; readonly name: string }[]
  /** What the last change did, where it can be taken back. */
  readonly last: { readonly at: string; readonly files: number } | null
}

/**
 * The sorted view: folders of a production on the edit volume, filled from its proved copies. 404 for what is not
 * known.
 */
export const sortedApi = {
  one: ask<SortedView>()('review', '/productions/:id/sorted'),
  set: order()('PUT', '/productions/:id/sorted', { changes: ['review', 'productions'], body: sortBody }),
  putByHand: order()('PUT', '/productions/:id/sorted/folders', { changes: ['review'], body: handBody }),
  /** Brings the view up to date. 409 while that is under way. */
  sort: order<Ordered>()('POST', '/productions/:id/sorted', {
    status: 202,
    changes: ['review', 'tasks', 'productions'],
  }),
  /** Takes the last change back. 409 once the edit has begun, or where nothing can be taken back. */
  undo: order<Ordered>()('POST', '/productions/:id/sorted/undo', {
    status: 202,
    changes: ['review', 'tasks', 'productions'],
  }),
}
