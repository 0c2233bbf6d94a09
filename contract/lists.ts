import { object, string } from 'yup'
import type { Algorithm } from '../core/copies/lists/algorithm'
import { LIST_FINDINGS, type ListFinding } from '../core/copies/lists/finding'
import type { ListChecked } from '../core/copies/lists/verdict'
import { ask, order, stream, type Ordered } from './endpoint'
import { placeQuery } from './folders'
import { pageQuery, type Page } from './page'
import { folderPath } from './text'

/** With what lists are written. */
export const WRITTEN_WITH = ['sha256', 'sha512', 'md5', 'xxh64', 'xxh128'] as const satisfies readonly Algorithm[]

/** A folder, and the list that it is compared with; without one the manifests of a bag. */
export const verifyOrder = object({
  folder: folderPath('Choose a folder.'),
  list: string()
    .max(4096, 'A path has at most 4096 characters.')
    .matches(/^(\/|$)/, 'Give a path that starts with /.')
    .default(''),
}).noUnknown()

export const writeListOrder = object({
  folder: folderPath('Choose a folder.'),
  algorithm: string()
    .oneOf(WRITTEN_WITH, `Lists are written with ${WRITTEN_WITH.join(', ')}.`)
    .required('Choose what the list is made with.'),
  where: string()
    .oneOf(['beside', 'download'] as const, 'Beside the folder, or for download.')
    .required('Say where the list goes.'),
}).noUnknown()

/** A file near a folder that reads like a checksum list. */
export interface NearList {
  readonly path: string
  readonly name: string
  readonly sizeBytes: number
  readonly algorithm: Algorithm | null
  readonly where: 'inside' | 'beside'
}

/** What a folder can be compared with, and where a list of it can be put. */
export interface NearView {
  readonly path: string
  /** It is a bag, whose manifests lie in it. */
  readonly isBag: boolean
  readonly lists: readonly NearList[]
  /** The volume on which a list can be put beside it; `null` where nothing is written. */
  readonly volumeName: string | null
}

/** How a folder stood against a list, once. */
export interface ListCheckView extends ListChecked {
  readonly id: string
  readonly folder: string
  /** Path of the list; empty for the manifests of a bag. */
  readonly list: string
  readonly endedAt: string
}

export interface FindingView {
  readonly id: string
  readonly kind: ListFinding
  readonly path: string
  /** Line of the list; `null` for a file that no line names. */
  readonly line: number | null
  readonly detail: string
}

/** A list that was written. */
export interface WrittenListView {
  readonly id: string
  readonly folder: string
  readonly algorithm: Algorithm
  readonly lines: number
  /** Path beside the folder; `null` where it can be downloaded. */
  readonly path: string | null
  readonly name: string
  /** Folder from which its names go: there it is checked. */
  readonly checkedIn: string
  readonly writtenAt: string
}

/** Checksum lists of anybody: compared with a folder, and written. 404 for what is not known, 422 for what is no folder. */
export const listsApi = {
  near: ask<NearView>()('lists', '/lists/near', placeQuery),
  verify: order<Ordered>()('POST', '/lists/checks', { status: 202, changes: ['lists', 'tasks'], body: verifyOrder }),
  /** What was compared, the newest first. */
  checks: ask<Page<ListCheckView>>()('lists', '/lists/checks', pageQuery(['ended'], {}, { rows: 10, down: true })),
  /** What was found, the gravest first; the first thousand of each kind. */
  findings: ask<Page<FindingView>>()(
    'lists',
    '/lists/checks/:id/findings',
    pageQuery(['place'], {
      kind: string()
        .oneOf(['', ...LIST_FINDINGS] as const, 'No finding is of that kind.')
        .default(''),
    }),
  ),
  write: order<Ordered>()('POST', '/lists', { status: 202, changes: ['lists', 'tasks'], body: writeListOrder }),
  written: ask<Page<WrittenListView>>()('lists', '/lists', pageQuery(['written'], {}, { rows: 10, down: true })),
  /** A list that was written for download. */
  file: stream('/lists/:id/file'),
}
