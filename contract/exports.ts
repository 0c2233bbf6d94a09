import { number, object, string } from 'yup'
import { COLOUR_CHOICES } from '../core/exports/colours'
import { FIELD_CHOICES, USUAL_CHOICE } from '../core/exports/plan'
import type { CropWindow } from '../core/exports/reframe'
import type { FileCheck } from '../core/media/check'
import { id } from './id'
import { ask, order, type Ordered } from './endpoint'
import { pageQuery, type Page } from './page'

const even = (name: string) =>
  number()
    .integer(`${name} must be whole.`)
    .min(0, `${name} starts outside the picture.`)
    .max(1e6, `${name} lies outside of every picture.`)
    .required()

/**
 * One deliverable: which clip, which destination, which window of its picture as it is shown, and what is chosen
 * beside.
 */
export const renderOrder = object({
  clipId: id('Choose a master.').required('Choose a master.'),
  destinationId: string().max(100, 'There is no such destination.').required('Choose a destination.'),
  volumeId: id('Choose the volume for the file.').required('Choose the volume for the file.'),
  window: object({
    x: even('The left edge'),
    y: even('The top edge'),
    widthPx: even('The width'),
    heightPx: even('The height'),
  })
    .noUnknown()
    .required(),
  /** Of an interlaced master: one frame a frame, or one a field. */
  fields: string()
    .oneOf(FIELD_CHOICES, `Choose ${FIELD_CHOICES.join(' or ')}.`)
    .default(USUAL_CHOICE.fields),
  /** What colours are taken for: as the file states and as is usual where it does not, or as chosen. */
  colours: string()
    .oneOf(COLOUR_CHOICES, `Choose ${COLOUR_CHOICES.join(', ')}.`)
    .default(USUAL_CHOICE.colours),
  /** Number of the sound track in the file; `null` takes the default one. */
  soundTrack: number()
    .integer('Choose one of the tracks.')
    .min(0, 'Choose one of the tracks.')
    .nullable()
    .default(null),
}).noUnknown()

/** A finished file with the checks of what is really in it; sizes in bytes, the window in pixels of the master. */
export interface DeliverableView {
  readonly id: string
  readonly clipName: string
  readonly destinationName: string
  readonly window: CropWindow
  readonly volumeId: string
  readonly volumeName: string
  readonly path: string
  readonly sizeBytes: number
  readonly predictedBytes: number
  readonly madeAt: string
  readonly checks: readonly FileCheck[]
  readonly pass: boolean
}

/** Station 6. 422 for a window that does not lie in the picture; 409 while just this is being rendered. */
export const exportsApi = {
  /** Finished files of a production, the newest first. */
  deliverables: ask<Page<DeliverableView>>()(
    'exports',
    '/productions/:id/deliverables',
    pageQuery(['made'], {}, { rows: 40, down: true }),
  ),
  /** Renders one deliverable. 422 on `window` when it is no window of this master. */
  render: order<Ordered>()('POST', '/exports', { status: 202, changes: ['exports', 'tasks'], body: renderOrder }),
}
