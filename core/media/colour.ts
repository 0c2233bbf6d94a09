import type { VideoTrack } from './facts'

/** Names for people of what ITU-T H.273 numbers; keys are the demuxer's. */
const NAMES: Record<string, string> = {
  bt709: 'BT.709',
  bt470m: 'BT.470 M',
  bt470bg: 'BT.601 625 lines',
  smpte170m: 'BT.601 525 lines',
  smpte240m: 'ST 240',
  'iec61966-2-1': 'sRGB',
  bt2020: 'BT.2020',
  'bt2020-10': 'BT.2020',
  'bt2020-12': 'BT.2020',
  bt2020nc: 'BT.2020',
  bt2020c: 'BT.2020 constant luminance',
  smpte2084: 'PQ (BT.2100)',
  'arib-std-b67': 'HLG (BT.2100)',
  smpte432: 'P3',
  gbr: 'RGB',
}

/** The name of one colour tag for people; `undefined` where the file is silent. */
export const colourName = (code: string | undefined): string | undefined =>
  code === undefined ? undefined : (NAMES[code] ?? code)

const nameOf = (code: string | undefined) => colourName(code) ?? 'not stated'

/**
 * Matrix, transfer and primaries of a picture in words: `BT.709`, `not stated`, or each by itself where they differ.
 */
export function colourTags({ matrix, transfer, primaries }: VideoTrack): string {
  const [first, ...rest] = [matrix, transfer, primaries].map(nameOf)
  if (rest.every((name) => name === first)) return first ?? 'not stated'
  return `matrix ${first}, transfer ${rest[0]}, primaries ${rest[1]}`
}
