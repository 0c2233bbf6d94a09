import { array, boolean, number, object, string, type InferType } from 'yup'
import type { ClearAnswer } from '../core/copies/clear'
import type { CopyFacts, Mark } from '../core/copies/mark'

export const copyOrder = object({
  volumeIds: array()
    .of(string().uuid('That is no volume.').required())
    .min(1, 'Choose at least one volume.')
    .required('Choose at least one volume.'),
  /** Files of ours or others that stand in the way are moved aside on the volume first; nothing is deleted. */
  setAside: boolean().default(false),
}).noUnknown()

export const spotPlay = object({
  volumeId: string().uuid().required('Say which volume was played.'),
  /** Without one: the person opened a file of the copy in a program of their own, since nothing on the card can be played here. */
  clipId: string().uuid().nullable().default(null),
  seconds: number().min(1, 'Play at least one second.').required('Say how long it was played.'),
}).noUnknown()

export const settings = object({
  policy: string()
    .oneOf(['at-home-only', 'reuse-on-the-job'] as const, 'Choose one of the two policies.')
    .required(),
  atHome: boolean().required(),
}).noUnknown()
export type Settings = InferType<typeof settings>

export interface CopyView extends CopyFacts {
  readonly mark: Mark
  /** Folder of the mirror on the volume. */
  readonly folder: string
  /** Files that differ or collide, with what is wrong. */
  readonly troubles: readonly { readonly path: string; readonly sentence: string }[]
}

export interface LoadCopies {
  readonly loadId: string
  readonly label: string
  readonly sizeBytes: number
  readonly fileCount: number
  readonly copies: readonly CopyView[]
  readonly clear: ClearAnswer
  readonly formattedAt: string | null
  readonly playableClips: readonly { readonly id: string; readonly name: string; readonly seconds: number }[]
}
