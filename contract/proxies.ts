import { boolean, object, string, type InferType, type TestContext } from 'yup'
import type { FileCheck } from '../core/media/check'
import type { ProxyState } from '../core/proxies/check'
import { id, ids } from './id'
import { ask, order, type Ordered } from './endpoint'
import { pageQuery, typedFilter, type Page } from './page'

const whichClips = {
  clipIds: ids('That is no clip.')
    .min(1, 'Choose at least one clip.')
    .max(2000, 'Choose at most 2000 clips at once, or the whole production.'),
  productionId: id('That is no production.'),
}

const isOneOf = (order: { readonly clipIds?: unknown; readonly productionId?: unknown }, context: TestContext) =>
  (order.clipIds === undefined) === (order.productionId === undefined)
    ? context.createError({ path: 'clipIds', message: 'Choose at least one clip, or the whole production.' })
    : true

/** Proxies of single clips, or of every clip of a production that has none that passes. */
export const proxyOrder = object({
  ...whichClips,
  volumeId: id('That is no volume.').required('Choose the volume for the proxies.'),
})
  .noUnknown()
  .test('one-of', 'Choose the clips or the production.', isOneOf)

/** Which proxies are compared: `all`, those that were equal before too, since a drive may have damaged one. */
export const recheckOrder = object({ all: boolean().default(false) }).noUnknown()

/** Whether clips are edited without proxies: single ones, or every clip of a production of which the other is true. */
export const withoutBody = object({
  ...whichClips,
  without: boolean().strict().required('Say whether they are edited without proxies.'),
})
  .noUnknown()
  .test('one-of', 'Choose the clips or the production.', isOneOf)

/** A clip with what its proxy is to be and, once it is made, how it compares: bytes, seconds, bits per second. */
export interface ProxyView {
  readonly clipId: string
  readonly clipName: string
  readonly loadLabel: string
  readonly frame: string
  readonly rate: string
  readonly seconds: number
  readonly sizeBytes: number
  readonly pictureMade: boolean
  /** It is edited without one. */
  readonly without: boolean
  /** What is out of the ordinary about the original, in a few words each. */
  readonly remarks: readonly string[]
  /** What it will have at most, and what will differ from the original besides the size. */
  readonly wanted: { readonly frame: string; readonly mostBytes: number; readonly changes: readonly string[] }
  readonly made: {
    readonly volumeName: string
    readonly path: string
    readonly sizeBytes: number
    readonly checks: readonly FileCheck[]
    readonly state: ProxyState
  } | null
}

/** Proxies of a production in figures, and where they stand. */
export interface ProxyCounts {
  /** Clips that can have one. */
  readonly wanted: number
  readonly equal: number
  readonly differ: number
  /** Made before their sound was compared with the original's. */
  readonly unchecked: number
  /** Clips that are edited without a proxy; none of the other figures counts them. */
  readonly without: number
  /** What those that are still to be made will have together, at most. */
  readonly openBytes: number
  /** The same as a few coded seconds of some clips let expect it; `null` before any were. */
  readonly expected: { readonly bytes: number; readonly clips: number } | null
}

/** Which clips are asked for, by how their proxy stands. */
export const PROXIES_SHOWN = ['all', 'none', 'unchecked', 'differs', 'equal', 'without'] as const

/** Which clips that can have a proxy are asked for. */
export const proxiesQuery = pageQuery(['name', 'size'], {
  /**
   * All clips, those without a proxy, or those whose proxy is to be checked, differs or is equal, or those that are
   * edited without one.
   */
  show: string()
    .oneOf(PROXIES_SHOWN, `Show ${PROXIES_SHOWN.join(', ')}.`)
    .default('all'),
  q: typedFilter,
})
export type ProxiesAsked = InferType<typeof proxiesQuery>

/** Station 4. 409 where no connected volume holds a proved copy of the original. */
export const proxiesApi = {
  /** Clips that can have a proxy, each with the one it has and its checks. */
  all: ask<Page<ProxyView>>()('proxies', '/productions/:id/proxies', proxiesQuery),
  counts: ask<ProxyCounts>()('proxies', '/productions/:id/proxies/counts'),
  /**
   * Codes a few seconds of some clips, to know what the open ones will have. 409 while it is under way or without a
   * copy.
   */
  estimate: order<Ordered>()('POST', '/productions/:id/proxies/estimate', {
    status: 202,
    changes: ['proxies', 'tasks'],
  }),
  /** Compares proxies with their originals: those that are to be checked, or all. 409 while it is under way. */
  recheck: order<Ordered>()('POST', '/productions/:id/proxies/recheck', {
    status: 202,
    changes: ['proxies', 'tasks'],
    body: recheckOrder,
  }),
  make: order<{ readonly taskIds: readonly string[] }>()('POST', '/proxies', {
    status: 202,
    changes: ['proxies', 'tasks'],
    body: proxyOrder,
  }),
  /** Nothing asks for a proxy of what is edited without one; it can be taken back. */
  doWithout: order()('POST', '/proxies/without', {
    changes: ['proxies', 'productions'],
    body: withoutBody,
  }),
}
