import { typedNumber, valueOf, type Typed } from './typed'

/**
 * Reading and writing of bytes, bit rates and lengths of time as people type them. Powers of ten unless a unit says `i`
 * (IEC 80000-13).
 */

const DECIMAL = ['B', 'kB', 'MB', 'GB', 'TB', 'PB'] as const
const BINARY = ['B', 'KiB', 'MiB', 'GiB', 'TiB', 'PiB'] as const
const PREFIX: Record<string, number> = { '': 0, k: 1, m: 2, g: 3, t: 4, p: 5 }

/** Three significant figures, without a trailing `.0` on whole numbers above 100. */
function threeFigures(value: number): string {
  if (value >= 100) return value.toFixed(0)
  return value >= 10 ? value.toFixed(1) : value.toFixed(2)
}

function scaled(value: number, base: number, units: readonly string[]): string {
  const sign = value < 0 ? '−' : ''
  let size = Math.abs(value)
  let step = 0
  while (size >= base * 0.9995 && step < units.length - 1) {
    size /= base
    step += 1
  }
  return `${sign}${step === 0 ? String(Math.round(size)) : threeFigures(size)} ${units[step] ?? ''}`
}

/** Bytes in powers of ten: 45 000 000 000 is `45.0 GB`. */
export const formatBytes = (bytes: number): string => scaled(bytes, 1000, DECIMAL)

/** Bytes in powers of two, as many file browsers show them: 45 000 000 000 is `41.9 GiB`. */
export const formatBinaryBytes = (bytes: number): string => scaled(bytes, 1024, BINARY)

/** Bit rates in powers of ten: 100 000 000 is `100 Mb/s`. */
export const formatBitRate = (bitsPerSecond: number): string =>
  scaled(bitsPerSecond, 1000, ['b/s', 'kb/s', 'Mb/s', 'Gb/s', 'Tb/s'])

/** Transfer speeds: 47 400 000 is `47.4 MB/s`. */
export const formatByteRate = (bytesPerSecond: number): string => `${formatBytes(bytesPerSecond)}/s`

const HOW = {
  bytes: 'Write it as 128 GB.',
  bitRate: 'Write it as 100 Mb/s.',
  length: 'Write it as 12 min, 1h20 or 2:30.',
}

/** A figure times a factor, in whole units; a question or an impossible figure is a fault. */
function wholeOf(figure: string, factor: number, how: string): Typed<number> {
  const number = typedNumber(figure)
  if (!number) return { fault: how }
  if ('ask' in number) return { fault: number.ask }
  const value = Math.round(number.value * factor)
  return Number.isSafeInteger(value) ? { value } : { fault: 'That is more than can be counted.' }
}

/** `128 GB`, `1.5TB`, `512 GiB`, `900` (bytes). `1,000 GB` may be a thousand or one, and is a question. */
export function readBytes(text: string): Typed<number> {
  const match = /^\s*(\d.*?)\s*([kmgtp]?)(i?)\s*b?(?:ytes?)?\s*$/i.exec(text)
  if (!match) return { fault: HOW.bytes }
  const step = PREFIX[(match[2] ?? '').toLowerCase()] ?? 0
  return wholeOf(match[1] ?? '', (match[3] ? 1024 : 1000) ** step, HOW.bytes)
}

/** Bytes as typed; `undefined` when they cannot be read. */
export const parseBytes = (text: string): number | undefined => valueOf(readBytes(text))

/** What a bare figure means: camera menus give pictures in Mb/s and sound in kb/s. */
export type BareRate = 'Mb/s' | 'kb/s'

/**
 * `100 Mb/s`, `45mbit`, `75 MB/s`; in bits per second. A capital B means bytes. A bare `100` is in `bare`, so a bare
 * `256` in a field for sound is 256 kb/s.
 */
export function readBitRate(text: string, bare: BareRate = 'Mb/s'): Typed<number> {
  const match = /^\s*(\d.*?)\s*([kKmMgG]?)(i?)\s*([bB]its?|b|B)?(?:ps|\/s)?\s*$/.exec(text)
  if (!match) return { fault: HOW.bitRate }
  const unitless = !match[2] && !match[4]
  const step = unitless ? (bare === 'kb/s' ? 1 : 2) : (PREFIX[(match[2] ?? '').toLowerCase()] ?? 0)
  const factor = (match[3] ? 1024 : 1000) ** step * (match[4] === 'B' ? 8 : 1)
  return wholeOf(match[1] ?? '', factor, HOW.bitRate)
}

/** A bit rate as typed; `undefined` when it cannot be read. */
export const parseBitRate = (text: string, bare?: BareRate): number | undefined => valueOf(readBitRate(text, bare))

/** `1h20`, `90 min`, `45s`, `2:30` (min:s), `1:02:03`, `20` (minutes); in seconds. */
export function readLength(text: string): Typed<number> {
  const clock = /^\s*(?:(\d{1,4}):)?(\d{1,3}):(\d{2})\s*$/.exec(text)
  if (clock) return { value: Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3]) }
  const named =
    /^\s*(?:(\d[\d.,]*)\s*h(?:ours?|rs?)?)?\s*(?:(\d[\d.,]*)\s*(?:m(?:in(?:utes?)?)?|$))?\s*(?:(\d[\d.,]*)\s*s(?:ec(?:onds?)?)?)?\s*$/i.exec(
      text,
    )
  if (!named || !/\d/.test(text)) return { fault: HOW.length }
  let value = 0
  for (const [at, factor] of [3600, 60, 1].entries()) {
    const part = named[at + 1]
    const number = part === undefined ? { value: 0 } : typedNumber(part)
    if (!number) return { fault: HOW.length }
    if ('ask' in number) return { fault: number.ask }
    value += number.value * factor
  }
  return Number.isSafeInteger(Math.round(value)) ? { value } : { fault: HOW.length }
}

/** A length as typed; `undefined` when it cannot be read. */
export const parseLength = (text: string): number | undefined => valueOf(readLength(text))

/** A figure as it can be typed again without loss: in the largest unit that needs at most two decimals. */
function exact(value: number, units: readonly string[]): string {
  const fits = (step: number) => step === 0 || value % (1000 ** step / 100) === 0
  const step =
    value === 0
      ? 0
      : Math.max(
          0,
          units.findLastIndex((_, at) => value >= 1000 ** at && fits(at)),
        )
  return `${value / 1000 ** step} ${units[step] ?? ''}`
}

/** `128 GB` of 128 000 000 000, `1234 kb/s` of 1 234 000: what reading it again gives back. */
export const exactBytes = (bytes: number): string => exact(bytes, DECIMAL)
export const exactBitRate = (bitsPerSecond: number): string => exact(bitsPerSecond, ['b/s', 'kb/s', 'Mb/s', 'Gb/s'])

/** A length in words: 10 240 s is `2 h 50 min 40 s`; 4.2 s is `4.2 s`. */
export function formatLength(seconds: number): string {
  if (seconds < 60) return `${Number(seconds.toFixed(seconds < 10 ? 2 : 1))} s`
  const whole = Math.round(seconds)
  const parts = [
    [Math.floor(whole / 3600), 'h'],
    [Math.floor((whole % 3600) / 60), 'min'],
    [whole % 60, 's'],
  ] as const
  return parts
    .filter(([count]) => count > 0)
    .map(([count, unit]) => `${count} ${unit}`)
    .join(' ')
}

/** `3 clips`, `1 clip`. */
export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`

const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
]

/** A small count in words, for a sentence: `two`; larger ones in figures. */
export const inWords = (count: number): string => NUMBERS[count] ?? String(count)

/** A text that begins a sentence. */
export const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

const ENDINGS = ['th', 'st', 'nd', 'rd']

/** A whole number as a place in a row: `second`, `third`, `4th`, `21st`, `112th`. */
export function ordinal(count: number): string {
  if (count === 2) return 'second'
  if (count === 3) return 'third'
  const isTeen = Math.floor((count % 100) / 10) === 1
  return `${count}${(isTeen ? undefined : ENDINGS[count % 10]) ?? 'th'}`
}
