import { object } from 'yup'
import { ask } from './endpoint'
import { folderPath } from './text'

/** Where one stands while choosing. */
export const placeQuery = object({ path: folderPath('Give a folder.') }).noUnknown()

/** Why a folder cannot be registered, though what lies in it perhaps can. */
export interface PlaceRefusal {
  readonly kind: 'system' | 'program' | 'known'
  readonly sentence: string
}

/** A folder that may be chosen, or walked into. */
export interface PlaceView {
  readonly name: string
  readonly path: string
  /** Of a mounted file system; `null` for a plain folder. */
  readonly room: { readonly capacityBytes: number; readonly freeBytes: number } | null
  readonly refusal: PlaceRefusal | null
}

/** Folders of one level, with the reason for each that cannot be registered. */
export interface FoldersView {
  readonly path: string
  /** The folder above; `null` at the top. */
  readonly above: string | null
  readonly refusal: PlaceRefusal | null
  readonly folders: readonly PlaceView[]
  /** Folders that are not shown, since there are too many. */
  readonly more: number
}

/**
 * Choosing a folder: mounted file systems first, then one level at a time. 422 with the reason where none can be
 * listed.
 */
export const foldersApi = {
  /** Mounted file systems that may hold a drive or a card, and the person's own folder. */
  mounted: ask<readonly PlaceView[]>()('storage', '/places'),
  /** The folders in one folder, by name. Nothing but names is read. 422 on `path` when it cannot be listed. */
  inside: ask<FoldersView>()('storage', '/places/folders', placeQuery),
}
