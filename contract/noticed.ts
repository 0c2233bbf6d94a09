import { array, object, type InferType } from 'yup'
import type { Offer } from '../core/cards/load/appeared'
import { ask, order, type Made, type Ordered } from './endpoint'
import { scanOrder } from './cards'
import { folderPath } from './text'

/** A file system that appeared and is not registered: what is asked about it. */
export interface AppearedView {
  readonly id: string
  readonly name: string
  readonly path: string
  readonly offer: Offer
  readonly appearedAt: string
}

/** Folders, beside the usual ones, in which whatever is mounted is noticed. */
export const noticedFolders = object({
  folders: array()
    .of(folderPath('Give the folder.').required('Give the folder.'))
    .max(20, 'Twenty folders at most.')
    .required('Give the folders.'),
}).noUnknown()
export type NoticedFolders = InferType<typeof noticedFolders>

/** Cards and drives that appear by themselves. 404 for what was taken out meanwhile. */
export const noticedApi = {
  all: ask<readonly AppearedView[]>()('cards', '/appeared'),
  /** Adds it as a reader and scans its card, in one. 422 where it cannot be a reader. */
  look: order<Ordered>()('POST', '/appeared/:id/look', { status: 202, changes: ['cards', 'tasks'], body: scanOrder }),
  /** Adds it as a reader, so that it is read for which production its card may be. 422 where it cannot be a reader. */
  read: order<Made>()('POST', '/appeared/:id/reader', { status: 201, changes: ['cards'] }),
  /** Asks no more about it until it is taken out. */
  leave: order()('POST', '/appeared/:id/leave', { changes: ['cards'] }),
  folders: ask<NoticedFolders>()('gear', '/noticed'),
  setFolders: order()('PUT', '/noticed', { changes: ['gear', 'cards'], body: noticedFolders }),
}
