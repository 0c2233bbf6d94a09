import { array, boolean, number, object, string, type InferType } from 'yup'
import { minutesOf } from '../core/shoot/day'
import type { Learned } from '../core/shoot/measured'
import type { RecordingPlan } from '../core/shoot/plan'
import { MOST_PASSES, type Shot } from '../core/shoot/shots'
import { DESTINATIONS } from '../core/exports/destination'
import { isDay, isTimeZone } from '../core/units/day'
import { id, ids } from './id'
import { ask, order, type Made } from './endpoint'
import { whole, wholeOr, wholeOrNull } from './gear'
import { text } from './text'

const chosen = (what: string) => id(`Choose ${what}.`).required(`Choose ${what}.`)

/** So many takes of one length from so many angles, in one mode of one camera. */
const plannedTakes = object({
  cameraId: chosen('a camera'),
  modeId: chosen('a recording mode'),
  secondsPerTake: whole('The length of a take', 1, 86_400),
  takes: whole('The number of takes', 1, 1000),
  angles: whole('The number of angles', 1, 50),
  factor: number()
    .typeError('The safety factor must be a number.')
    .min(1, 'The safety factor must be at least 1.')
    .max(5, 'The safety factor is at most 5.')
    .required('The safety factor is missing.'),
}).noUnknown()

const plannedCards = object({
  cameraId: chosen('a camera'),
  bothSlots: boolean().required('Say whether both slots are written.'),
  cardBytes: whole('The card size', 1e9, 100e12),
  cardBytesPerSecond: whole('The card speed', 1e5, 100e9),
  cardIds: ids('Choose a card.').max(200, 'No camera takes so many cards.').required('Say which cards go in.'),
}).noUnknown()

/** The whole plan of a production, and which version it was made from. */
export const planBody = object({
  version: whole('The version', 0, 1e9),
  takes: array().of(plannedTakes).max(200, 'A plan has at most 200 rows.').required('Say what is filmed.'),
  cameras: array().of(plannedCards).max(50, 'A plan has at most 50 cameras.').required('Say what is recorded on.'),
}).noUnknown()
export type PlanBody = InferType<typeof planBody>

/**
 * What cannot be planned so, in words, though each part of it could: a camera twice, or one that records on nothing.
 */
export function planFault({ takes, cameras }: Pick<PlanBody, 'takes' | 'cameras'>): string | undefined {
  const ids = new Set(cameras.map((one) => one.cameraId))
  if (ids.size < cameras.length) return 'Each camera stands in a plan once.'
  return takes.every((row) => ids.has(row.cameraId)) ? undefined : 'Say of each camera that films what it records on.'
}

/** A plan with what was learned, for how long the evening will be. */
export interface PlanView extends PlanBody {
  /** The day it is for; cards that are planned for two shoots of one day are short. */
  readonly shootOn: string | null
  /** Each camera as it was planned for its last shoot, elsewhere. */
  readonly last: Pick<RecordingPlan, 'takes' | 'cameras'>
  /** Emptying cards, in bytes per second. */
  readonly offload: Learned<object>
  /** Bytes after export for each byte of raw frames on a card. */
  readonly expansion: Learned<object>
  /** Productions whose plan can be copied, the newest first. */
  readonly earlier: readonly { readonly id: string; readonly title: string }[]
}

const deliverable = string().oneOf(
  DESTINATIONS.map((one) => one.id),
  'There is no such destination.',
)

/** When a shot was filmed; `null` until it is. */
const moment = string()
  .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, 'Give the time as ISO 8601 in UTC.')
  .test('time', 'Give the time as ISO 8601 in UTC.', (at) => !at || !Number.isNaN(Date.parse(at)))
  .nullable()

/** A shot to be filmed. */
export const shotBody = object({
  name: text().required('Name the shot.').max(120, 'Keep the name under 120 characters.'),
  cameraId: id('Choose a camera.').nullable().default(null),
  deliverables: array().of(deliverable.required()).max(20, 'So many destinations are not known.').default([]),
  notes: text().max(500, 'Keep the notes under 500 characters.').default(''),
}).noUnknown()
export type ShotBody = InferType<typeof shotBody>

/** A shot to be added; one that comes from another list may be filmed already. */
const newShot = shotBody.shape({ filmedAt: moment.default(null) }).noUnknown()

/** Shots to be added at the end: one, the passes of one performance, or a whole list. */
export const shotsBody = object({
  shots: array().of(newShot).min(1, 'Name a shot.').max(500, 'Add at most 500 shots at once.').required('Name a shot.'),
  passes: wholeOr('The number of passes', 1, MOST_PASSES, 1),
}).noUnknown()

/** A shot that goes to another place: before another one, or to the end. */
export const shotPlace = object({
  before: id('That is no shot.').nullable().defined('Say before which shot it goes.'),
}).noUnknown()

/** Ticks as a phone gives them back. */
export const ticksBody = object({
  productionId: chosen('the production of the list'),
  ticks: array()
    .of(object({ shotId: chosen('a shot'), filmedAt: moment.defined('Say when it was filmed, or null.') }).noUnknown())
    .max(2000, 'A list has at most 2000 ticks.')
    .required('There are no ticks in this file.'),
}).noUnknown()

export type ShotTick = InferType<typeof ticksBody>['ticks'][number]

export interface ShotView extends Shot {
  readonly version: string
}

/** The day of the shoot. */
export const dayBody = object({
  shootOn: string()
    .test('day', 'Give the shoot day as year-month-day.', (day) => !day || isDay(day))
    .default(''),
  timeZone: string()
    .required('Choose a time zone.')
    .max(60, 'That is no time zone.')
    .test('zone', 'That is no time zone.', (zone) => !zone || isTimeZone(zone)),
  place: text().max(200, 'Keep the place under 200 characters.').default(''),
  calls: array()
    .of(
      object({
        at: string()
          .required('Give the time as 09:30.')
          .test('time', 'Give the time as 09:30.', (at) => minutesOf(at ?? '') !== undefined),
        what: text().required('Say what begins then.').max(120, 'Keep it under 120 characters.'),
        minutes: whole('The minutes', 0, 1440),
      }).noUnknown(),
    )
    .max(100, 'A day has at most 100 calls.')
    .required('Say what happens when.'),
}).noUnknown()
export type DayBody = InferType<typeof dayBody>

export interface DayView extends DayBody {
  /** Given back with a change (`If-Match`), so that it is made from what was seen. */
  readonly version: string
  readonly clocksOff: readonly { readonly camera: string; readonly load: string }[]
}

/** What one mode came to on loads of this and earlier productions; bits per second. */
export interface MeasuredMode {
  readonly cameraId: string
  readonly camera: string
  readonly modeId: string
  readonly mode: string
  readonly nominal: number
  /** What the gear book reckons with. */
  readonly inUse: number
  readonly learned: Learned<{
    readonly label: string
    readonly production: string
    readonly bitsPerSecond: number
    readonly seconds: number
  }>
}

export interface MeasuredView {
  readonly modes: readonly MeasuredMode[]
  /** Bytes after export for each byte on the card. */
  readonly expansion: Learned<{
    readonly id: string
    readonly label: string
    readonly sizeBytes: number
    readonly exportedBytes: number
    /** Typed by a person, who may take it away again. */
    readonly typed: boolean
  }>
  /** Emptying cards, in bytes per second. */
  readonly offload: Learned<{
    readonly id: string
    readonly label: string
    readonly sizeBytes: number
    readonly typed: boolean
    readonly seconds: number
  }>
  /** Loads of which nobody has said which camera filmed them. */
  readonly unknownLoads: number
}

/** What a card came to that was emptied by hand or exported: the time it took, what became of raw frames, or both. */
export const offloadBody = object({
  label: text().required('Name what was emptied.').max(80, 'Keep the name under 80 characters.'),
  sizeBytes: whole('The bytes on the card', 1, 1e15),
  seconds: wholeOrNull('The time it took', 1, 8_640_000),
  exportedBytes: wholeOrNull('The bytes after export', 1, 1e15),
})
  .noUnknown()
  .test(
    'something',
    'Give the time it took, the bytes after export, or both.',
    (one) => one.seconds !== null || one.exportedBytes !== null,
  )

/** Which physical card a load lies on, and which camera filmed it; `null` where nobody knows. */
export const loadGear = object({
  cardId: id('Choose a card.').nullable().defined('Choose a card.'),
  cameraId: id('Choose a camera.').nullable().defined('Choose a camera.'),
}).noUnknown()

/** Station 1. 404 for what is not known; 409 where it was changed elsewhere meanwhile; 422 names the field. */
export const shootApi = {
  plan: ask<PlanView>()('productions', '/productions/:id/plan'),
  /** Changes the whole plan. 409 `changed-elsewhere` when it is no longer the version that was changed. */
  setPlan: order<{ readonly version: number }>()('PUT', '/productions/:id/plan', {
    status: 200,
    changes: ['productions', 'gear'],
    body: planBody,
  }),
  /** Copies the plan of another production over this one’s; cards that are promised to another day are left out. */
  copyPlan: order()('POST', '/productions/:id/plan/from/:otherId', { changes: ['productions', 'gear'] }),
  shots: ask<readonly ShotView[]>()('productions', '/productions/:id/shots'),
  addShots: order()('POST', '/productions/:id/shots', { status: 201, changes: ['productions'], body: shotsBody }),
  changeShot: order()('PUT', '/shots/:id', { changes: ['productions'], body: shotBody }),
  moveShot: order()('PUT', '/shots/:id/place', { changes: ['productions'], body: shotPlace }),
  tickShot: order()('PUT', '/shots/:id/filmed', {
    changes: ['productions'],
    body: object({ filmedAt: moment.defined('Say when it was filmed, or null.') }).noUnknown(),
  }),
  removeShot: order()('DELETE', '/shots/:id', { changes: ['productions'] }),
  /** Takes over the ticks of a list that was carried on a phone. 422 when it is the list of another production. */
  giveTicks: order<{ readonly changed: number; readonly unknown: number }>()('POST', '/productions/:id/ticks', {
    status: 200,
    changes: ['productions'],
    body: ticksBody,
  }),
  day: ask<DayView>()('productions', '/productions/:id/day'),
  setDay: order()('PUT', '/productions/:id/day', { changes: ['productions'], body: dayBody }),
  measured: ask<MeasuredView>()('gear', '/productions/:id/measured'),
  addOffload: order<Made>()('POST', '/productions/:id/offloads', {
    status: 201,
    changes: ['gear', 'productions'],
    body: offloadBody,
  }),
  removeOffload: order()('DELETE', '/offloads/:id', { changes: ['gear', 'productions'] }),
  /** Writes down which card a load lies on and which camera filmed it. */
  setLoadGear: order()('PUT', '/loads/:id/gear', { changes: ['gear', 'cards', 'productions'], body: loadGear }),
}
