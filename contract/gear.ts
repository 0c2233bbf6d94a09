import { boolean, number, object, string, type InferType } from 'yup'
import { CAMERA_KINDS, CHROMAS, type RecordingMode } from '../core/shoot/mode'
import type { PlanGear } from '../core/shoot/plan'
import { MEDIA_KINDS, type Camera, type GearCard } from '../core/shoot/gear'
import { frameRate, frameRateText, parseFrameRate, readFrameRate } from '../core/units/frameRate'
import { MEDIA, SITE_KINDS, type Medium, type SiteKind } from '../core/copies/medium'
import { RAW_KEPT, type RawKept } from '../core/copies/rule'
import { ask, order, type Made } from './endpoint'
import { id } from './id'
import { VOLUME_KINDS, type VolumeKind } from './storage'
import { text } from './text'

const bounded = (name: string, least: number, most: number) =>
  number()
    .typeError(`${name} must be a number.`)
    .integer(`${name} must be a whole number.`)
    .min(least, `${name} must be at least ${least}.`)
    .max(most, `${name} is too large.`)

/** A whole number between two bounds, with sentences that name it. */
export const whole = (name: string, least: number, most: number) =>
  bounded(name, least, most).required(`${name} is missing.`)

/** A whole number that may be left out. */
export const wholeOr = (name: string, least: number, most: number, otherwise: number) =>
  bounded(name, least, most).default(otherwise)

/** A whole number that may not be known. */
export const wholeOrNull = (name: string, least: number, most: number) =>
  bounded(name, least, most).nullable().default(null)

/** A frame rate as a fraction or as people write it. */
export const rateText = () =>
  string()
    .required('The frame rate is missing.')
    .test('rate', (typed, { createError }) => {
      const read = readFrameRate(typed ?? '')
      return 'value' in read || createError({ message: `The frame rate cannot be used. ${read.fault}` })
    })

const named = (what: string) => text().required(`Name the ${what}.`).max(60, 'Keep the name under 60 characters.')

/** A camera, recorder, phone or deck: its name, where it records to, and what it takes. */
export const cameraBody = object({
  name: named('camera'),
  kind: string().oneOf(CAMERA_KINDS, 'Choose what it is.').default('camera'),
  media: string().oneOf(MEDIA_KINDS, 'Choose what it records on.').default('cards'),
  internalBytes: wholeOr('Its internal medium', 0, 100e12, 0),
  slots: number<1 | 2>().oneOf([1, 2], 'It has one slot or two.').default(1),
  spans: boolean().default(true),
  batteryMinutes: wholeOr('The minutes of a battery', 0, 10_000, 0),
}).noUnknown()
export type CameraBody = InferType<typeof cameraBody>

/** The picture of a mode: pixels, an exact rate, a codec by its published name, bits, and how it is coded. */
const picture = object({
  widthPx: whole('The width', 16, 32_768),
  heightPx: whole('The height', 16, 32_768),
  rate: rateText(),
  codec: text().required('Name the codec.').max(40, 'Keep the codec under 40 characters.'),
  bitDepth: whole('The bit depth', 1, 32),
  chroma: string().oneOf(CHROMAS, 'Choose how colour is sampled.').required('Choose how colour is sampled.'),
  /** Of a coded picture; 0 where every sample is kept as it is. */
  bitsPerSecond: whole('The bit rate', 0, 100e9),
  /** Bits for each sample of a raw frame as it lies on the card; 0 where the picture is coded. */
  rawBitsPerSample: whole('The bits of a raw sample', 0, 64),
  rawHeaderBytes: wholeOr('The header of a raw frame', 0, 100e6, 0),
})
  .noUnknown()
  .test('coding', 'Give a bit rate, or the bits of a raw sample.', (one) =>
    one ? one.bitsPerSecond >= 1000 !== one.rawBitsPerSample > 0 : true,
  )

/** One way to record; `picture` is `null` for sound alone. */
export const modeBody = object({
  name: named('mode'),
  picture: picture.nullable().defined('Say what picture it records, or that it records none.'),
  audioBitsPerSecond: whole('The sound bit rate', 0, 1e9),
  /** What the camera writes of a proxy beside it; 0 when it writes none. */
  proxyBitsPerSecond: wholeOr('The bit rate of the camera proxy', 0, 10e9, 0),
  /** Its frame, where it is known. */
  proxyFrame: object({ widthPx: whole('The width', 16, 32_768), heightPx: whole('The height', 16, 32_768) })
    .noUnknown()
    .nullable()
    .default(null),
  /** What real clips came to in all; `null` until it was measured. */
  measuredBitsPerSecond: wholeOrNull('The measured bit rate', 1000, 200e9),
})
  .noUnknown()
  .test(
    'something',
    'A mode records a picture or sound: give one of them.',
    (one) => one.picture !== null || one.audioBitsPerSecond > 0,
  )
export type ModeBody = InferType<typeof modeBody>

export type ModeFigures = Omit<RecordingMode, 'id' | 'name'>

/** A mode as it is reckoned with. */
export function figuresOf({
  picture: sent,
  audioBitsPerSecond,
  proxyBitsPerSecond,
  proxyFrame,
  measuredBitsPerSecond,
}: ModeBody): ModeFigures {
  const rest = {
    ...{ audioBitsPerSecond, proxyBitsPerSecond },
    proxyFrame: proxyFrame ?? undefined,
    measuredBitsPerSecond: measuredBitsPerSecond ?? undefined,
  }
  if (!sent) return { picture: undefined, ...rest }
  const { widthPx, heightPx, codec, bitDepth, chroma } = sent
  const rate = parseFrameRate(sent.rate) ?? frameRate(25)
  const coding =
    sent.rawBitsPerSample > 0
      ? ({ kind: 'raw', bitsPerSample: sent.rawBitsPerSample, headerBytes: sent.rawHeaderBytes } as const)
      : ({ kind: 'coded', bitsPerSecond: sent.bitsPerSecond } as const)
  return { picture: { widthPx, heightPx, rate, codec, bitDepth, chroma, coding }, ...rest }
}

/** A mode as it is sent. */
export function modeBodyOf({ name, picture: known, ...rest }: Omit<RecordingMode, 'id'>): ModeBody {
  const more = {
    audioBitsPerSecond: rest.audioBitsPerSecond,
    proxyBitsPerSecond: rest.proxyBitsPerSecond,
    proxyFrame: rest.proxyFrame ?? null,
    measuredBitsPerSecond: rest.measuredBitsPerSecond ?? null,
  }
  if (!known) return { name, picture: null, ...more }
  const { coding, rate, ...frame } = known
  return {
    name,
    picture: {
      ...frame,
      rate: frameRateText(rate),
      bitsPerSecond: coding.kind === 'coded' ? coding.bitsPerSecond : 0,
      rawBitsPerSample: coding.kind === 'raw' ? coding.bitsPerSample : 0,
      rawHeaderBytes: coding.kind === 'raw' ? coding.headerBytes : 0,
    },
    ...more,
  }
}

/** A card by its name: room in bytes, and what it writes at least in bytes per second. */
export const cardBody = object({
  name: named('card'),
  capacityBytes: whole('The size of the card', 1e6, 100e12),
  bytesPerSecond: whole('The speed of the card', 1e5, 100e9),
}).noUnknown()
export type CardBody = InferType<typeof cardBody>

/** What belongs to no single production and has a name only. */
export const namedBody = object({
  name: text().required('Give it a name.').max(60, 'Keep the name under 60 characters.'),
}).noUnknown()

/** A client: its name, its rule of a yes, and what becomes of its raw footage; the last removes nothing by itself. */
export const clientBody = namedBody.shape({
  ruleId: id('That is no rule.').nullable().default(null),
  raw: string().oneOf(RAW_KEPT, 'Choose what becomes of raw footage.').default('all'),
})
export type ClientBody = InferType<typeof clientBody>

/** A site: its name, and what kind of place it is, which nobody guesses. */
export const siteBody = namedBody.shape({
  kind: string().oneOf(SITE_KINDS, 'Choose what kind of place it is.').nullable().default(null),
})
export type SiteBody = InferType<typeof siteBody>

/** What of a volume can be changed: its name, what it is used for, what it keeps bytes on, where it is kept, and its cycle. */
export const volumeBody = object({
  name: named('volume'),
  kind: string().oneOf(VOLUME_KINDS, 'Choose what kind of volume it is.').required('Choose what kind of volume it is.'),
  site: text().required('Say where it is kept.').max(60, 'Keep the place under 60 characters.'),
  medium: string().oneOf(MEDIA, 'Choose what it keeps its bytes on.').nullable().default(null),
  /** Within how many days every file on it is to be read again; as before where nothing is said. */
  cycleDays: number()
    .typeError('Say the days as a number.')
    .integer('Say whole days.')
    .min(1, 'At least one day.')
    .max(3650, 'At most ten years: 3650 days.')
    .nullable()
    .default(null),
}).noUnknown()

/** Whether something is put away: hidden from lists and choices, with all its facts kept. */
export const awayBody = object({ away: boolean().required('Say whether it is put away.') }).noUnknown()

/** How carefully recordings are planned, for every production. */
export const planRules = object({
  fillLimit: number()
    .typeError('The fill limit must be a number.')
    .min(0.1, 'The fill limit must be at least 10 %.')
    .max(1, 'The fill limit is at most 100 %.')
    .required('The fill limit is missing.'),
  spareCards: whole('The number of spare cards', 0, 20),
  /** What a take may run over: 1.2 is a fifth. */
  factor: number()
    .typeError('The safety factor must be a number.')
    .min(1, 'The safety factor must be at least 1.')
    .max(5, 'The safety factor is at most 5.')
    .required('The safety factor is missing.'),
  mains: number<50 | 60>().oneOf([50, 60], 'The mains have 50 or 60 Hz.').required('The mains have 50 or 60 Hz.'),
}).noUnknown()
export type PlanRulesBody = InferType<typeof planRules>

export interface ModeView extends ModeBody {
  readonly id: string
  /** Given back with a change (`If-Match`), so that it is made from what was seen. */
  readonly version: string
  readonly away: boolean
}

export interface CameraView extends Omit<Camera, 'modes'> {
  readonly version: string
  readonly modes: readonly ModeView[]
  readonly away: boolean
  /** What it holds that cannot be erased, in words; empty where it can. */
  readonly holds: string
}

/** A load as a card of the gear book names it. */
export interface CardLoadView {
  readonly id: string
  readonly productionId: string
  readonly label: string
  readonly sizeBytes: number
}

export interface CardView extends GearCard {
  readonly version: string
  readonly away: boolean
  readonly holds: string
  /** The load that is on it, as far as Yendra knows. */
  readonly load: CardLoadView | null
  /** A newer load of its name that is not known to be formatted, and of which nobody has said on which card it lies. */
  readonly perhaps: CardLoadView | null
  /** Productions that count on it, not yet filmed. */
  readonly plannedFor: readonly {
    readonly productionId: string
    readonly title: string
    readonly shootOn: string | null
    readonly cameraId: string
  }[]
}

/** Everything of the gear book, put away or not. */
export interface GearView {
  readonly cameras: readonly CameraView[]
  readonly cards: readonly CardView[]
  readonly rules: PlanRulesBody
  readonly rulesVersion: string
}

/**
 * The gear book as a production’s plan is reckoned with it: a card that holds what was filmed for this very production
 * is where it belongs, and one that another production counts on that day is not to be had. Modes and cameras that were
 * put away still count where they are planned.
 */
export const planGear = (
  { cameras, cards }: Pick<GearView, 'cameras' | 'cards'>,
  { id, shootOn }: { readonly id: string; readonly shootOn: string | null },
): PlanGear => ({
  cameras: cameras.map((camera) => ({
    ...camera,
    modes: camera.modes.map((mode) => ({ ...figuresOf(mode), id: mode.id, name: mode.name, away: mode.away })),
  })),
  // What was put away is not at hand, but for what this production filmed on it.
  cards: cards
    .filter((card) => !card.away || card.load?.productionId === id)
    .map((card) => ({
      ...card,
      state: card.load?.productionId === id ? 'clear' : card.state,
      promisedTo: card.plannedFor.find((one) => one.productionId !== id && shootOn !== null && one.shootOn === shootOn)
        ?.title,
    })),
})

/** A client or site, a volume or a reader, as the locker lists it. */
export interface NamedView {
  readonly id: string
  readonly version: string
  readonly name: string
  readonly away: boolean
  /** What it holds that stays, in words. */
  readonly holds: string
}

export interface LockerView {
  readonly clients: readonly (NamedView & { readonly ruleId: string | null; readonly raw: RawKept })[]
  readonly sites: readonly (NamedView & { readonly kind: SiteKind | null })[]
  readonly volumes: readonly (NamedView & {
    readonly kind: VolumeKind
    readonly site: string
    /** As a person said, and as the system tells on this computer, which comes first. */
    readonly medium: Medium | null
    readonly mediumSeen: Medium | null
    readonly cycleDays: number
    readonly capacityBytes: number
  })[]
  readonly readers: readonly (NamedView & { readonly path: string })[]
  /** Productions that were put away. */
  readonly productions: readonly NamedView[]
}

const CHANGES = ['gear', 'productions'] as const
const erase = <Path extends string>(path: Path) => order()('DELETE', path, { changes: CHANGES })
const put = <Path extends string>(path: Path) =>
  order()('PUT', path, { changes: [...CHANGES, 'storage', 'cards'], body: awayBody })
const rename = <Path extends string>(path: Path) =>
  order()('PUT', path, { changes: [...CHANGES, 'storage', 'cards', 'copies'], body: namedBody })

/**
 * Gear, and everything else that belongs to no single production. 404 for what is not known; 409 where facts hang on
 * it; 422 names the field.
 */
export const gearApi = {
  all: ask<GearView>()('gear', '/gear'),
  locker: ask<LockerView>()('gear', '/locker'),
  addCamera: order<Made>()('POST', '/cameras', { status: 201, changes: CHANGES, body: cameraBody }),
  changeCamera: order()('PUT', '/cameras/:id', { changes: CHANGES, body: cameraBody }),
  putCamera: put('/cameras/:id/away'),
  eraseCamera: erase('/cameras/:id'),
  addMode: order<Made>()('POST', '/cameras/:id/modes', { status: 201, changes: CHANGES, body: modeBody }),
  changeMode: order()('PUT', '/modes/:id', { changes: CHANGES, body: modeBody }),
  putMode: put('/modes/:id/away'),
  /** A mode as a real clip shows it: frame, rate, codec, bits and what it came to. 404 without a readable clip. */
  modeOfClip: ask<ModeBody>()('cards', '/clips/:id/mode'),
  addCard: order<Made>()('POST', '/cards', { status: 201, changes: CHANGES, body: cardBody }),
  changeCard: order()('PUT', '/cards/:id', { changes: CHANGES, body: cardBody }),
  putCard: put('/cards/:id/away'),
  eraseCard: erase('/cards/:id'),
  setRules: order()('PUT', '/rules', { changes: CHANGES, body: planRules }),
  addClient: order<Made>()('POST', '/clients', { status: 201, changes: CHANGES, body: namedBody }),
  changeClient: order()('PUT', '/clients/:id', { changes: [...CHANGES, 'copies'], body: clientBody }),
  putClient: put('/clients/:id/away'),
  eraseClient: erase('/clients/:id'),
  changeSite: order()('PUT', '/sites/:id', { changes: [...CHANGES, 'storage', 'cards', 'copies'], body: siteBody }),
  putSite: put('/sites/:id/away'),
  /** Name, use and place of a volume; what lies on it stays as it is. */
  changeVolume: order()('PUT', '/volumes/:id/about', {
    changes: [...CHANGES, 'storage', 'cards', 'copies'],
    body: volumeBody,
  }),
  putVolume: put('/volumes/:id/away'),
  renameReader: rename('/readers/:id'),
  putReader: put('/readers/:id/away'),
}
