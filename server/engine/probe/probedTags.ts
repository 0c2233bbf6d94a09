import { ascii, type ByteSource } from '../../../core/media/bytes'
import type { Broadcast, RecordedFrom } from '../../../core/media/facts'
import { figure, tag, type Probed, type ProbedStream } from './probed'

interface Tagged {
  readonly format: NonNullable<Probed['format']>
  readonly streams: readonly ProbedStream[]
}

/** Zero times from unset clocks say nothing. */
const EARLIEST = Date.parse('1990-01-01')

/** The first date that says something, best source first. */
export function recordedOf({ format, streams }: Tagged): { at: string; from: RecordedFrom } | undefined {
  const of = (name: string) => tag(format.tags, name)
  const header = of('creation_time') ?? streams.map((stream) => tag(stream.tags, 'creation_time')).find(Boolean)
  const wave = of('date') && /^\d\d:\d\d:\d\d$/.test(header ?? '') ? `${of('date')}T${header}` : undefined
  const candidates: readonly (readonly [string | undefined, string])[] = [
    [of('com.apple.quicktime.creationdate'), 'the date the camera wrote with its zone'],
    [wave, 'the broadcast extension of the sound file'],
    [header, 'the header of the file'],
    [of('date_recorded') ?? of('date'), 'a tag of the file'],
  ]
  for (const [text, source] of candidates) {
    const match = /^(\d{4}-\d\d-\d\d)[T ](\d\d:\d\d:\d\d(?:\.\d+)?)\s*(Z|[+-]\d\d:?\d\d)?$/.exec(text?.trim() ?? '')
    if (!match) continue
    const zone = match[3]?.replace(/^([+-]\d\d)(\d\d)$/, '$1:$2')
    const at = Date.parse(`${match[1]}T${match[2]}${zone ?? 'Z'}`)
    if (at > EARLIEST) return { at: new Date(at).toISOString(), from: { source, zone: zone === 'Z' ? 'UTC' : zone } }
  }
  return undefined
}

export function timecodeOf({ format, streams }: Tagged): { text: string; from: string } | undefined {
  const isTrack = (stream: ProbedStream) => stream.codec_tag_string === 'tmcd'
  const of = (stream: ProbedStream | undefined) => tag(stream?.tags, 'timecode')
  const candidates: readonly (readonly [string | undefined, string])[] = [
    [of(streams.find((stream) => isTrack(stream) && of(stream))), 'the timecode track'],
    [tag(format.tags, 'timecode'), 'the header of the file'],
    [of(streams.find((stream) => !isTrack(stream) && of(stream))), 'the picture track'],
  ]
  const found = candidates.find(([text]) => text)
  return found?.[0] ? { text: found[0], from: found[1] } : undefined
}

export function broadcastOf(tags: Record<string, string> | undefined): Broadcast | undefined {
  const timeReference = figure(tag(tags, 'time_reference'))
  return timeReference === undefined
    ? undefined
    : { timeReference, description: tag(tags, 'description') ?? tag(tags, 'comment') ?? '' }
}

/**
 * What the first bytes say beside the container's name: the form of a RIFF file, the document type of EBML (RFC 8794,
 * 11.2.4).
 */
export async function brandOf(file: ByteSource): Promise<string | undefined> {
  const head = await file.read(0, 64)
  if (['RIFF', 'RF64', 'BW64'].includes(ascii(head, 0, 4))) return `${ascii(head, 0, 4)} ${ascii(head, 8, 4)}`.trim()
  for (let at = 0; at + 3 < head.length; at += 1)
    if (head[0] === 0x1a && head[at] === 0x42 && head[at + 1] === 0x82)
      return ascii(head, at + 3, (head[at + 2] ?? 0x80) & 0x7f)
  return undefined
}
