import type { Edit } from '../core/units/edit'
import { order } from './endpoint'

/** Says of an answer, as URI-encoded JSON of an `Edit`, by which change what was done can be taken back. */
export const EDIT_HEADER = 'Yendra-Edit'

/** Shots, plans, verdicts, names, cameras and cards as people change them; never facts. */
export const editsApi = {
  /**
   * Puts everything that one change changed back as it was; what was taken back is done again by its own change. 409
   * where any of it was changed since.
   */
  takeBack: order<Edit>()('POST', '/edits/:id/back', {
    status: 200,
    changes: ['productions', 'review', 'gear', 'cards'],
  }),
}
