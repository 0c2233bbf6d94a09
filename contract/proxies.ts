import { array, object, string } from 'yup'
import type { FileCheck } from '../core/media/check'

export const proxyOrder = object({
  clipIds: array()
    .of(string().uuid().required())
    .min(1, 'Choose at least one clip.')
    .max(500, 'Choose at most 500 clips at once.')
    .required('Choose at least one clip.'),
  volumeId: string().uuid().required('Choose the volume for the proxies.'),
}).noUnknown()

export interface ProxyView {
  readonly clipId: string
  readonly clipName: string
  readonly loadLabel: string
  readonly frame: string
  readonly rate: string
  readonly seconds: number
  readonly sizeBytes: number
  readonly wanted: { readonly frame: string; readonly bitsPerSecond: number }
  readonly made: {
    readonly volumeName: string
    readonly path: string
    readonly sizeBytes: number
    readonly checks: readonly FileCheck[]
    readonly pass: boolean
  } | null
}
