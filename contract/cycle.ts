import { boolean, number, object } from 'yup'
import type { CycleHours } from '../core/copies/cycle'
import { ask, order } from './endpoint'

const minute = (what: string) =>
  number()
    .integer(`Say ${what} as hours and minutes.`)
    .min(0, `Say ${what} as hours and minutes.`)
    .max(1439, `Say ${what} as hours and minutes.`)
    .required(`Say ${what}.`)

/** When copies are read again by themselves, minutes after midnight, and how many bytes in one night. */
export const cycleHours = object({
  on: boolean().required('Say whether anything is read by night.'),
  fromMinute: minute('when it begins'),
  toMinute: minute('when it ends'),
  mostBytes: number()
    .integer('Say how much as bytes.')
    .min(1e9, 'Allow at least 1 GB in a night.')
    .max(1e15, 'No computer reads that much in a night.')
    .required('Say how much may be read in a night.'),
  atStart: boolean().required('Say whether a sample is read after a drive was connected.'),
}).noUnknown()

export interface CycleView {
  readonly hours: CycleHours
  /** Where it stands; `''` while nothing is proved. */
  readonly sentence: string
}

/** Proof that does not age: copies are read again within the cycle of their volume. */
export const cycleApi = {
  one: ask<CycleView>()('chart', '/proof-by-night'),
  set: order()('PUT', '/proof-by-night', { changes: ['chart'], body: cycleHours }),
}
