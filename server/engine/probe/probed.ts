/** What ffprobe prints as JSON; the fields that are read of it, and the small readings of single fields. */

export interface ProbedStream {
  index?: number
  id?: string
  codec_type?: string
  codec_name?: string
  codec_tag_string?: string
  profile?: string
  level?: number
  width?: number
  height?: number
  coded_width?: number
  coded_height?: number
  field_order?: string
  r_frame_rate?: string
  avg_frame_rate?: string
  time_base?: string
  start_time?: string
  nb_frames?: string
  duration?: string
  pix_fmt?: string
  sample_aspect_ratio?: string
  bit_rate?: string
  color_range?: string
  color_space?: string
  color_transfer?: string
  color_primaries?: string
  channels?: number
  channel_layout?: string
  sample_rate?: string
  bits_per_sample?: number
  bits_per_raw_sample?: string
  disposition?: { attached_pic?: number; default?: number }
  tags?: Record<string, string>
  side_data_list?: { displaymatrix?: string }[]
}

export interface Probed {
  streams?: ProbedStream[]
  format?: {
    format_name?: string
    start_time?: string
    duration?: string
    size?: string
    bit_rate?: string
    tags?: Record<string, string>
  }
}

/** A figure as printed; `undefined` for `N/A` and what is missing. */
export const figure = (text: string | number | undefined): number | undefined => {
  const value = Number(text)
  return text !== undefined && text !== '' && Number.isFinite(value) ? value : undefined
}

/** Names of tags come in any case: `timecode` in one container, `TIMECODE` in another. */
export function tag(tags: Record<string, string> | undefined, name: string): string | undefined {
  const found = Object.entries(tags ?? {}).find(([key]) => key.toLowerCase() === name)
  return found?.[1]
}

/** `undefined` where the file does not say. */
export const stated = (text: string | undefined): string | undefined =>
  text === undefined || text === '' || text === 'unknown' || text === 'unspecified' || text === 'reserved'
    ? undefined
    : text

export const isAttachedPicture = (stream: ProbedStream): boolean => stream.disposition?.attached_pic === 1
