import { object, string, type InferType } from 'yup'
import type { NextStep, StationStatus } from '../core/line/line'
import { text } from './text'

export const newProduction = object({
  title: text().required('Give the production a title.').max(120, 'Keep the title under 120 characters.'),
  client: text().max(120, 'Keep the client under 120 characters.').default(''),
  shootOn: string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Give the shoot day as year-month-day.', excludeEmptyString: true })
    .default(''),
  /** The person’s zone, by its IANA name; days are counted in it. */
  timeZone: string().max(60, 'That is no time zone.').default(''),
}).noUnknown()
export type NewProduction = InferType<typeof newProduction>

export interface ProductionView {
  readonly id: string
  readonly title: string
  readonly client: string
  readonly shootOn: string | null
  readonly line: readonly StationStatus[]
  readonly next: NextStep
}
