import { array, object, string } from 'yup'
import type { FileCheck } from '../core/media/check'
import { ask, order } from './endpoint'

/** Proxies of single clips, or of every clip of a production that has none that passes. */
export const proxyOrder = object({
  clipIds: array()
    .of(string().uuid().required())
    .min(1, 'Choose at least one clip.')
    .max(2000, 'Choose at most 2000 clips at once, or the whole production.'),
  productionId: string().uuid(),
  volumeId: string().uuid('That is no volume.').required('Choose the volume for the proxies.'),
})
  .noUnknown()
  .test('one-of', 'Choose the clips or the production.', (order, context) =>
    (order.clipIds === undefined) === (order.productionId === undefined)
      ? context.createError({ path: 'clipIds', message: 'Choose at least one clip, or the whole production.' })
      : true,
  )

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

export const proxiesApi = {
  /** Every clip that can have a proxy, with the one it has and its checks. */
  all: ask<readonly ProxyView[]>()('proxies', '/productions/:id/proxies'),
  make: order<{ readonly taskIds: readonly string[] }>()('POST', '/proxies', {
    status: 202,
    changes: ['proxies', 'tasks'],
    body: proxyOrder,
  }),
}
