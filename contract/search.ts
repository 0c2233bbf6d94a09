import { object, string } from 'yup'
import { ask } from './endpoint'

/** What is typed into the palette: a name, or the beginnings of its words. */
export const searchQuery = object({
  q: string().trim().max(100, 'Keep it under 100 characters.').default(''),
}).noUnknown()

/** Something that was found, and where it leads. */
export interface SearchHit {
  readonly kind: 'production' | 'clip' | 'volume'
  readonly id: string
  readonly name: string
  /** Client of a production, load of a clip, place of a volume. */
  readonly more: string
  /** Where it leads to; `null` for volumes, which every production shows. */
  readonly productionId: string | null
}

/** Finding anything by name. */
export const searchApi = {
  /**
   * At most 20 of each kind whose names have words that begin with what is typed; nothing typed finds the newest
   * productions.
   */
  find: ask<readonly SearchHit[]>()('productions', '/search', searchQuery),
}
