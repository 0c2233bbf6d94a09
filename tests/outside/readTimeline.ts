import { object, array, string, number, boolean, mixed, type AnyObjectSchema } from 'yup'

/**
 * A reader of OpenTimelineIO (JSON) that shares no line with the writer: each object by its schema's fields, and then
 * every item where it lies on its track. Source: the format's published serialised data documentation, from memory.
 */

/** What one item of a track shows: when on the timeline, and which part of which file; `file` is none for a gap. */
export interface PlacedItem {
  readonly name: string
  readonly fromSeconds: number
  readonly toSeconds: number
  readonly file: Buffer | undefined
  /** Where in the file it begins, counted from the file's first frame. */
  readonly inFileSeconds: number
}

export interface ReadTrack {
  readonly kind: string
  readonly items: readonly PlacedItem[]
}

const schemaOf = (name: string, fields: Parameters<AnyObjectSchema['shape']>[0]) =>
  object({ OTIO_SCHEMA: string().oneOf([name]).required(), ...fields }).noUnknown()

const rational = schemaOf('RationalTime.1', { rate: number().positive().required(), value: number().required() })
const range = schemaOf('TimeRange.1', { start_time: rational.required(), duration: rational.required() })
const item = {
  metadata: object().required(),
  name: string().defined(),
  effects: array().length(0).required(),
  markers: array().length(0).required(),
  enabled: boolean().oneOf([true]).required(),
}
const media = schemaOf('ExternalReference.1', {
  metadata: object().required(),
  name: string().defined(),
  available_range: range.required(),
  available_image_bounds: mixed().nullable(),
  target_url: string().required(),
})
const clip = schemaOf('Clip.2', {
  ...item,
  source_range: range.required(),
  media_references: object().required(),
  active_media_reference_key: string().required(),
})
const gap = schemaOf('Gap.1', { ...item, source_range: range.required() })
const track = schemaOf('Track.1', {
  ...item,
  kind: string().oneOf(['Video', 'Audio']).required(),
  source_range: mixed().nullable(),
  children: array().required(),
})
const stack = schemaOf('Stack.1', { ...item, source_range: mixed().nullable(), children: array().required() })
const timeline = schemaOf('Timeline.1', {
  metadata: object().required(),
  name: string().defined(),
  global_start_time: rational.nullable(),
  tracks: object().required(),
})

interface Rational {
  readonly rate: number
  readonly value: number
}
interface Range {
  readonly start_time: Rational
  readonly duration: Rational
}
const strict = <T>(schema: AnyObjectSchema, value: unknown): T => schema.validateSync(value, { strict: true }) as T
const seconds = ({ value, rate }: Rational) => value / rate
const endOf = (of: Range) => seconds(of.start_time) + seconds(of.duration)

/** Bytes of the path of a file URL (RFC 8089, RFC 3986 section 2.1). */
function fileOf(url: string): Buffer {
  if (!url.startsWith('file:///')) throw new Error(`${url} is no address of a file.`)
  const path = url.slice('file://'.length)
  if (/[?#]/.test(path)) throw new Error(`${url} ends before its name does.`)
  return Buffer.concat(
    [...path.matchAll(/%([0-9A-Fa-f]{2})|[^%]/g)].map(([sign, hex]) =>
      hex === undefined ? Buffer.from(sign, 'latin1') : Buffer.from(hex, 'hex'),
    ),
  )
}

function placed(child: unknown, fromSeconds: number): PlacedItem {
  const isGap = (child as { OTIO_SCHEMA?: string }).OTIO_SCHEMA === 'Gap.1'
  const read = strict<{
    name: string
    source_range: Range
    media_references?: Record<string, unknown>
    active_media_reference_key?: string
  }>(isGap ? gap : clip, child)
  const at = { name: read.name, fromSeconds, toSeconds: fromSeconds + seconds(read.source_range.duration) }
  if (isGap) return { ...at, file: undefined, inFileSeconds: 0 }
  const of = strict<{ available_range: Range; target_url: string }>(
    media,
    read.media_references?.[read.active_media_reference_key ?? ''],
  )
  const inFileSeconds = seconds(read.source_range.start_time) - seconds(of.available_range.start_time)
  if (inFileSeconds < -1e-6 || endOf(read.source_range) > endOf(of.available_range) + 1e-6)
    throw new Error(`${read.name} shows what its file does not have.`)
  return { ...at, file: fileOf(of.target_url), inFileSeconds }
}

/** The tracks of a timeline, their items one after the other; throws where the text is none. */
export function readTimeline(text: string): ReadTrack[] {
  const whole = strict<{ tracks: unknown }>(timeline, JSON.parse(text))
  return strict<{ children: unknown[] }>(stack, whole.tracks).children.map((child) => {
    const { kind, children } = strict<{ kind: string; children: unknown[] }>(track, child)
    let at = 0
    const items = children.map((one) => {
      const next = placed(one, at)
      at = next.toSeconds
      return next
    })
    return { kind, items }
  })
}
