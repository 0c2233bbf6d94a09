import { object, string, type StringSchema } from 'yup'
import { CHROMAS } from '../../core/shoot/mode'
import { frameRateLabel, frameRateText, parseFrameRate } from '../../core/units/frameRate'
import { frameSizeText, parseFrameSize } from '../../core/units/frameSize'
import { exactBitRate, exactBytes, parseBitRate, parseBytes } from '../../core/units/quantity'
import type { ModeBody } from '../../contract/gear'

const KINDS = ['coded', 'raw', 'sound'] as const
type Kind = (typeof KINDS)[number]

/** The form's own fields: text as typed. */
export interface TypedMode {
  name: string
  kind: Kind
  frame: string
  rate: string
  codec: string
  depth: string
  chroma: (typeof CHROMAS)[number]
  video: string
  sample: string
  header: string
  sound: string
  proxy: string
  proxyFrame: string
  measured: string
}

export const EMPTY_MODE: TypedMode = {
  name: '',
  kind: 'coded',
  frame: '3840×2160',
  rate: '25',
  codec: 'H.264',
  depth: '8',
  chroma: '4:2:0',
  video: '100 Mb/s',
  sample: '12',
  header: '0 B',
  sound: '256 kb/s',
  proxy: '',
  proxyFrame: '',
  measured: '',
}

/** Figures as they were typed, not rounded: a change of one field must not change another. */
export function typedOf(mode: ModeBody): TypedMode {
  const rest = {
    name: mode.name,
    sound: exactBitRate(mode.audioBitsPerSecond),
    proxy: mode.proxyBitsPerSecond > 0 ? exactBitRate(mode.proxyBitsPerSecond) : '',
    proxyFrame: mode.proxyFrame ? frameSizeText(mode.proxyFrame) : '',
    measured: mode.measuredBitsPerSecond === null ? '' : exactBitRate(mode.measuredBitsPerSecond),
  }
  const { picture } = mode
  if (!picture) return { ...EMPTY_MODE, ...rest, kind: 'sound' }
  const rate = parseFrameRate(picture.rate)
  const raw = picture.rawBitsPerSample > 0
  return {
    ...rest,
    kind: raw ? 'raw' : 'coded',
    frame: frameSizeText(picture),
    rate: rate ? frameRateLabel(rate) : picture.rate,
    codec: picture.codec,
    depth: String(picture.bitDepth),
    chroma: picture.chroma,
    video: raw ? EMPTY_MODE.video : exactBitRate(picture.bitsPerSecond),
    sample: raw ? String(picture.rawBitsPerSample) : EMPTY_MODE.sample,
    header: exactBytes(picture.rawHeaderBytes),
  }
}

const wholeIn = (text: string, least: number, most: number) => {
  const value = /^\s*\d{1,3}\s*$/.test(text) ? Number(text) : Number.NaN
  return value >= least && value <= most ? value : undefined
}

/** A field that `read` can make something of; it counts for some kinds of modes only. */
const readable = (
  read: (text: string) => unknown,
  fault: string,
  kinds: readonly Kind[] = KINDS,
): StringSchema<string> =>
  string()
    .defined()
    .test('readable', fault, (text, { parent }: { parent: TypedMode }) =>
      kinds.includes(parent.kind) ? read(text) !== undefined : true,
    )

const orNothing =
  <T>(read: (text: string) => T | undefined) =>
  (text: string): T | null | undefined =>
    text.trim() === '' ? null : read(text)

const readDepth = (text: string) => wholeIn(text, 1, 32)
const readSample = (text: string) => wholeIn(text, 1, 64)
const readSound = (text: string) => parseBitRate(text, 'kb/s')
const readRate = orNothing((text) => parseBitRate(text))
const readFrame = orNothing(parseFrameSize)
const PICTURE = ['coded', 'raw'] as const
const UNREADABLE = 'This cannot be read.'

/** Which fields have to be readable for which kind of mode. */
export const typedMode = object({
  name: string().trim().required('Give it a name.'),
  kind: string().oneOf(KINDS).required(),
  frame: readable(parseFrameSize, UNREADABLE, PICTURE),
  rate: readable(parseFrameRate, UNREADABLE, PICTURE),
  codec: readable((text) => text.trim() || undefined, 'By its published name.', PICTURE),
  depth: readable(readDepth, 'From 1 to 32.', PICTURE),
  chroma: string().oneOf(CHROMAS).required(),
  video: readable((text) => parseBitRate(text), UNREADABLE, ['coded']),
  sample: readable(readSample, 'From 1 to 64.', ['raw']),
  header: readable(parseBytes, UNREADABLE, ['raw']),
  sound: readable(readSound, UNREADABLE),
  proxy: readable(readRate, UNREADABLE),
  proxyFrame: readable(readFrame, UNREADABLE),
  measured: readable(readRate, UNREADABLE),
})

/** The mode that was typed; `undefined` while one of its fields cannot be used. */
export function modeTyped(typed: TypedMode): ModeBody | undefined {
  if (!typedMode.isValidSync(typed)) return undefined
  const { kind, name, codec, chroma } = typed
  const frame = parseFrameSize(typed.frame)
  const rate = parseFrameRate(typed.rate)
  return {
    name: name.trim(),
    picture:
      kind !== 'sound' && frame && rate
        ? {
            ...frame,
            rate: frameRateText(rate),
            codec,
            bitDepth: readDepth(typed.depth) ?? 8,
            chroma,
            bitsPerSecond: kind === 'coded' ? (parseBitRate(typed.video) ?? 0) : 0,
            rawBitsPerSample: kind === 'raw' ? (readSample(typed.sample) ?? 0) : 0,
            rawHeaderBytes: kind === 'raw' ? (parseBytes(typed.header) ?? 0) : 0,
          }
        : null,
    audioBitsPerSecond: readSound(typed.sound) ?? 0,
    proxyBitsPerSecond: readRate(typed.proxy) ?? 0,
    proxyFrame: readFrame(typed.proxyFrame) ?? null,
    measuredBitsPerSecond: readRate(typed.measured) ?? null,
  }
}
