import { object, string, type InferType } from 'yup'
import type { KnownPlace } from '../core/line/known'
import type { StationStatus } from '../core/line/line'
import type { Need, NextStep } from '../core/line/needs'
import { isDay, isTimeZone } from '../core/units/day'
import { text } from './text'
import { ask, order, type Made } from './endpoint'
import { awayBody } from './gear'
import { pageQuery, type Page } from './page'

/** A production to be made; without a zone it gets that of the server. */
export const newProduction = object({
  title: text().required('Give the production a title.').max(120, 'Keep the title under 120 characters.'),
  client: text().max(120, 'Keep the client under 120 characters.').default(''),
  shootOn: string()
    .test('day', 'Give the shoot day as year-month-day.', (day) => !day || isDay(day))
    .default(''),
  /** The person’s zone, by its IANA name; days are counted in it. */
  timeZone: string()
    .max(60, 'That is no time zone.')
    .test('zone', 'That is no time zone.', (zone) => !zone || isTimeZone(zone))
    .default(''),
}).noUnknown()
export type NewProduction = InferType<typeof newProduction>

/** What of a production can be changed; its folder on every volume keeps its name. */
export const productionChange = newProduction.pick(['title', 'client', 'shootOn'])

/** A production with the state of its seven stations and its next step. */
export interface ProductionView {
  readonly id: string
  /** Given back with a change (`If-Match`), so that it is made from what was seen. */
  readonly version: string
  readonly title: string
  readonly client: string
  /** Its folder on every volume, whatever its title becomes. */
  readonly folder: string
  readonly shootOn: string | null
  /** By its IANA name; days and times of this production are shown in it. */
  readonly timeZone: string
  readonly line: readonly StationStatus[]
  readonly next: NextStep
  /** Everything that it needs, the most endangered first; of very many the first. */
  readonly needs: readonly Need[]
  /** Of one that was finished before its files were read here, where they lie by the records; else `null`. */
  readonly known: readonly KnownPlace[] | null
}

/** Productions, which all stations belong to. */
export const productionsApi = {
  /**
   * Productions with their line of stations and their next step, the newest first. Each is made of all its loads, so
   * that a page of them is short: the first one is to be there at once.
   */
  all: ask<Page<ProductionView>>()('productions', '/productions', pageQuery(['made'], {}, { rows: 8, down: true })),
  one: ask<ProductionView>()('productions', '/productions/:id'),
  /** Makes one. 422 on `title` when another owns the folder of that name. */
  add: order<Made>()('POST', '/productions', { status: 201, changes: ['productions', 'gear'], body: newProduction }),
  change: order()('PUT', '/productions/:id', { changes: ['productions', 'gear'], body: productionChange }),
  /** Hides it from the overview, or brings it back; nothing of it is lost. */
  putAway: order()('PUT', '/productions/:id/away', { changes: ['productions', 'gear'], body: awayBody }),
}
