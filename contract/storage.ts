import { boolean, object, string, type InferType } from 'yup'
import type { ClassBytes, VolumeBudget } from '../core/storage/budget'
import { folderPath, text } from './text'
import { ask, order } from './endpoint'

/** What a volume is used for; more is kept free on an edit drive. */
export const VOLUME_KINDS = ['edit', 'archive', 'phone', 'cloud', 'stick'] as const
export type VolumeKind = (typeof VOLUME_KINDS)[number]

/** Whether it can be pulled out. */
export const hasPlug = (kind: VolumeKind): boolean => kind !== 'cloud'

/** A folder that is to be known as a volume, and where it is kept. */
export const newVolume = object({
  name: text().required('Name the volume.').max(60, 'Keep the name under 60 characters.'),
  kind: string().oneOf(VOLUME_KINDS, 'Choose what kind of volume it is.').required('Choose what kind of volume it is.'),
  site: text().required('Say where it is kept.').max(60, 'Keep the place under 60 characters.'),
  path: folderPath('Give the folder of the volume.'),
  /** An ordinary folder with things in it is meant. */
  sure: boolean().default(false),
}).noUnknown()
export type NewVolume = InferType<typeof newVolume>

/** A volume with its room in bytes: as it was last measured where it is connected, from the records where it is not. */
export interface VolumeView {
  readonly id: string
  readonly name: string
  readonly kind: VolumeKind
  readonly site: string
  readonly path: string | null
  readonly simulated: boolean
  readonly connected: boolean
  /** Put away: no longer offered for new work, though its copies count. */
  readonly away: boolean
  readonly capacityBytes: number
  readonly usedBytes: number
  readonly budget: VolumeBudget
  /** Bytes that Yendra knows on it, by class; `usedBytes` may be more. */
  readonly classes: readonly ClassBytes[]
  /** Names of other volumes on the same drive: copies on both count as one. */
  /** It was away when the state of the records was last written on drives: an older database would not be known by it. */
  readonly booksBehind: boolean
  readonly sharesDriveWith: readonly string[]
}

/** What registering a folder came to. */
export interface Registered {
  readonly id: string
  /** Volumes and readers on the same drive, by name. */
  readonly sharesDriveWith: readonly string[]
}

/** All volumes, and what this production’s bytes are. */
export interface StorageView {
  readonly volumes: readonly VolumeView[]
  readonly productionClasses: readonly ClassBytes[]
}

/** Station 5. 409 `not-sure` for an ordinary folder with things in it; 422 names the field. */
export const storageApi = {
  all: ask<StorageView>()('storage', '/productions/:id/storage'),
  /** All volumes, whatever lies on them. */
  volumes: ask<readonly VolumeView[]>()('storage', '/volumes'),
  /** Registers a folder as a volume; one that is known by its marker is only found again. */
  addVolume: order<Registered>()('POST', '/volumes', {
    status: 201,
    changes: ['storage', 'copies', 'productions'],
    body: newVolume,
  }),
}
