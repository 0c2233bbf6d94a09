import { number, object, string, type InferType } from 'yup'
import type { RecordingBudget } from '../core/shoot/recording'
import { readFrameRate } from '../core/units/frameRate'
import { text } from './text'
import { ask, order, type Made } from './endpoint'

const whole = (name: string, least: number, most: number) =>
  number()
    .typeError(`${name} must be a number.`)
    .integer(`${name} must be a whole number.`)
    .min(least, `${name} must be at least ${least}.`)
    .max(most, `${name} is too large.`)
    .required(`${name} is missing.`)

/** One camera's plan; sizes in pixels and bytes, rates in bits and bytes per second, the frame rate as a fraction. */
export const cameraPlan = object({
  camera: text().required('Name the camera.').max(60, 'Keep the name under 60 characters.'),
  widthPx: whole('The width', 16, 32_768),
  heightPx: whole('The height', 16, 32_768),
  rate: string()
    .required('The frame rate is missing.')
    .test('rate', (text, { createError }) => {
      const typed = readFrameRate(text ?? '')
      return 'value' in typed || createError({ message: `The frame rate cannot be used. ${typed.fault}` })
    }),
  videoBitsPerSecond: whole('The bit rate', 1000, 100e9),
  audioBitsPerSecond: whole('The sound bit rate', 0, 1e9),
  secondsPerTake: whole('The length of a take', 1, 604_800),
  takes: whole('The number of takes', 1, 10_000),
  cardBytes: whole('The card size', 1e6, 100e12),
  cardBytesPerSecond: whole('The card speed', 1e5, 100e9),
  fillLimit: number()
    .typeError('The fill limit must be a number.')
    .min(0.1, 'The fill limit must be at least 10 %.')
    .max(1, 'The fill limit is at most 100 %.')
    .required('The fill limit is missing.'),
}).noUnknown()
export type CameraPlan = InferType<typeof cameraPlan>

/** A camera’s plan with what it comes to: bytes, cards, and whether the card is fast enough. */
export interface CameraPlanView extends CameraPlan {
  readonly id: string
  readonly budget: RecordingBudget
}

/** Station 1. 404 for what is not known; 422 names the field. */
export const shootApi = {
  plans: ask<readonly CameraPlanView[]>()('productions', '/productions/:id/plans'),
  addPlan: order<Made>()('POST', '/productions/:id/plans', {
    status: 201,
    changes: ['productions'],
    body: cameraPlan,
  }),
  changePlan: order()('PUT', '/plans/:id', { changes: ['productions'], body: cameraPlan }),
  removePlan: order()('DELETE', '/plans/:id', { changes: ['productions'] }),
}
