import { secondsOfFrames, type FrameRate } from '../../units/frameRate'
import { parseTimecode, timecodeAfter, timecodeText } from '../../units/timecode'
import { usedRanges, type ClipRange, type Verdict } from './review'

/** A kept clip as it leaves for an editing program. */
export interface Select {
  readonly clipId: string
  /** As it was named, else as the camera named it. */
  readonly name: string
  readonly path: string
  readonly load: string
  readonly note: string
  readonly rate: FrameRate
  /** How many frames it has; of sound thousandths of a second. */
  readonly length: number
  /** None is the whole clip. */
  readonly ranges: readonly ClipRange[]
  /** Address of its first frame, as the file says. */
  readonly timecode: string | undefined
  readonly hasPicture: boolean
  readonly hasSound: boolean
  readonly verdict: Verdict
  /** The shot of the list that it is matched to, `''` without one. */
  readonly shot: string
  readonly sizeBytes: number
  /** Where a copy lies: `file:///…` on a connected volume, else a path below the production’s folder. */
  readonly url: string
}

/** One range of a kept clip, with the address of its first frame on the clip’s own clock. */
export interface Piece {
  readonly select: Select
  readonly range: ClipRange
  readonly seconds: number
  /** Numbered from 1 where a clip has several. */
  readonly name: string
}

/** The pieces of kept clips in order: one a range, or the whole clip. */
export const piecesOf = (selects: readonly Select[]): Piece[] =>
  selects.flatMap((select) => {
    const ranges = usedRanges({ frames: select.length, review: select })
    return ranges.map((range, at) => ({
      select,
      range,
      seconds: secondsOfFrames(range.to - range.from, select.rate),
      name: ranges.length > 1 ? `${select.name} ${at + 1}` : select.name,
    }))
  })

/** The frame that a clip’s own clock begins with: its timecode’s, 0 without one. */
function firstFrame({ timecode, rate }: Select): number {
  const read = timecode === undefined ? undefined : parseTimecode(timecode, Math.round(rate.num / rate.den))
  return read?.frame ?? 0
}

/** The address of a frame by the clip’s own timecode; `undefined` where it has none. */
export function addressAt({ timecode, rate }: Select, frame: number): string | undefined {
  const read = timecode === undefined ? undefined : parseTimecode(timecode, Math.round(rate.num / rate.den))
  return read && timecodeText(timecodeAfter(read, frame))
}

/**
 * Rows of a table of pieces, its header first; in and out are the first and the last frame of a piece, counted from 0.
 */
export const selectRows = (selects: readonly Select[]): string[][] => [
  [
    'name',
    'file',
    'load',
    'verdict',
    'shot',
    'first frame',
    'last frame',
    'rate',
    'seconds',
    'timecode in',
    'timecode out',
    'note',
    'where',
  ],
  ...piecesOf(selects).map(({ select, range, seconds, name }) => [
    name,
    select.path,
    select.load,
    select.verdict,
    select.shot,
    String(range.from),
    String(range.to - 1),
    `${select.rate.num}/${select.rate.den}`,
    seconds.toFixed(3),
    addressAt(select, range.from) ?? '',
    addressAt(select, range.to - 1) ?? '',
    select.note,
    select.url,
  ]),
]

const rational = (value: number, { num, den }: FrameRate) => ({
  OTIO_SCHEMA: 'RationalTime.1',
  rate: num / den,
  value,
})
const timeRange = (from: number, frames: number, rate: FrameRate) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  duration: rational(frames, rate),
  start_time: rational(from, rate),
})

/** What items of a timeline have in common. */
const item = (schema: string, name: string, metadata: object = {}) => ({
  OTIO_SCHEMA: schema,
  metadata,
  name,
  effects: [],
  markers: [],
  enabled: true,
})

function otioClip({ select, range, name }: Piece) {
  const first = firstFrame(select)
  return {
    ...item('Clip.2', name, { yendra: { note: select.note, load: select.load, camera_name: select.path } }),
    source_range: timeRange(first + range.from, range.to - range.from, select.rate),
    media_references: {
      DEFAULT_MEDIA: {
        OTIO_SCHEMA: 'ExternalReference.1',
        metadata: {},
        name: select.name,
        available_range: timeRange(first, select.length, select.rate),
        available_image_bounds: null,
        target_url: select.url,
      },
    },
    active_media_reference_key: 'DEFAULT_MEDIA',
  }
}

/** Nothing for as long as a piece lasts. */
const otioGap = ({ select, range, name }: Piece) => ({
  ...item('Gap.1', name),
  source_range: timeRange(0, range.to - range.from, select.rate),
})

/**
 * Kept pieces one after the other as an OpenTimelineIO timeline (JSON): films on one track with their own sound on a
 * second, a gap where a film is silent, and sound recordings on a third. A piece is given on its clip’s own clock, so
 * that it begins at the timecode where that has one. Source: the format’s published description of its schemas, from
 * memory.
 */
export function selectsTimeline(title: string, selects: readonly Select[]): string {
  const pieces = piecesOf(selects)
  const track = (name: string, kind: 'Video' | 'Audio', children: readonly object[]) => ({
    ...item('Track.1', name),
    source_range: null,
    kind,
    children,
  })
  const films = pieces.filter(({ select }) => select.hasPicture)
  const sound = pieces.filter(({ select }) => !select.hasPicture)
  const tracks = [
    track('Kept films', 'Video', films.map(otioClip)),
    ...(films.some(({ select }) => select.hasSound)
      ? [
          track(
            'Sound of the films',
            'Audio',
            films.map((piece) => (piece.select.hasSound ? otioClip(piece) : otioGap(piece))),
          ),
        ]
      : []),
    ...(sound.length > 0 ? [track('Kept sound', 'Audio', sound.map(otioClip))] : []),
  ]
  return `${JSON.stringify(
    {
      OTIO_SCHEMA: 'Timeline.1',
      metadata: {},
      name: title,
      global_start_time: null,
      tracks: { ...item('Stack.1', 'tracks'), source_range: null, children: tracks },
    },
    null,
    2,
  )}\n`
}
