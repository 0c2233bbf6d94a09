import type { VideoTrack } from '../../../core/media/facts'

/** Names that the coder takes for the demuxer's; what is not here is not written. */
const TRANSFERS: Record<string, string> = {
  bt709: 'bt709',
  bt470m: 'gamma22',
  bt470bg: 'gamma28',
  smpte170m: 'smpte170m',
  smpte240m: 'smpte240m',
  linear: 'linear',
  'iec61966-2-4': 'iec61966-2-4',
  'iec61966-2-1': 'iec61966-2-1',
  'bt2020-10': 'bt2020-10',
  'bt2020-12': 'bt2020-12',
  smpte2084: 'smpte2084',
  'arib-std-b67': 'arib-std-b67',
}
const MATRICES = new Set(['bt709', 'fcc', 'bt470bg', 'smpte170m', 'smpte240m', 'bt2020nc', 'bt2020c'])
const PRIMARIES = new Set(['bt709', 'bt470m', 'bt470bg', 'smpte170m', 'smpte240m', 'film', 'bt2020', 'smpte432'])

export type ColourTags = Pick<VideoTrack, 'matrix' | 'transfer' | 'primaries' | 'range'>

/** Options that write colour tags into a stream; what is not stated stays so. */
export function tagOptions({ matrix, transfer, primaries, range }: ColourTags): string[] {
  const written = TRANSFERS[transfer ?? '']
  return [
    ...(matrix && MATRICES.has(matrix) ? ['-colorspace', matrix] : []),
    ...(written ? ['-color_trc', written] : []),
    ...(primaries && PRIMARIES.has(primaries) ? ['-color_primaries', primaries] : []),
    ...(range ? ['-color_range', range === 'full' ? 'pc' : 'tv'] : []),
  ]
}
