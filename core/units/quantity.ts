/** Reading and writing of bytes, bit rates and lengths of time as people type them. Powers of ten unless a unit says `i` (IEC 80000-13). */

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

/** `128 GB`, `1.5TB`, `512 GiB`, `900` (bytes); `undefined` when it is no amount of bytes. */
export function parseBytes(text: string): number | undefined {
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*([kmgtp]?)(i?)\s*b?(?:ytes?)?\s*$/i.exec(text)
  if (!match) return undefined
  const step = PREFIX[(match[2] ?? '').toLowerCase()] ?? 0
  const bytes = Math.round(Number((match[1] ?? '').replace(',', '.')) * (match[3] ? 1024 : 1000) ** step)
  return Number.isSafeInteger(bytes) ? bytes : undefined
}

/**
 * `100 Mb/s`, `45mbit`, `100` (taken as Mb/s, as camera menus do), `75 MB/s`; in bits per second.
 * A capital B means bytes.
 */
export function parseBitRate(text: string): number | undefined {
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*([kKmMgG]?)\s*(bit|b|B)?(?:ps|\/s)?\s*$/.exec(text)
  if (!match) return undefined
  const bare = !match[2] && !match[3]
  const step = bare ? 2 : (PREFIX[(match[2] ?? '').toLowerCase()] ?? 0)
  const bits = Number((match[1] ?? '').replace(',', '.')) * 1000 ** step * (match[3] === 'B' ? 8 : 1)
  return Number.isSafeInteger(Math.round(bits)) ? Math.round(bits) : undefined
}

/** `1h20`, `90 min`, `45s`, `2:30` (min:s), `1:02:03`, `20` (minutes); in seconds. */
export function parseLength(text: string): number | undefined {
  const clock = /^\s*(?:(\d+):)?(\d{1,3}):(\d{2})\s*$/.exec(text)
  if (clock) return Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3])
  const bare = /^\s*(\d+(?:[.,]\d+)?)\s*$/.exec(text)
  if (bare) return Number((bare[1] ?? '').replace(',', '.')) * 60
  const named =
    /^\s*(?:(\d+(?:[.,]\d+)?)\s*h)?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:m(?:in)?|$))?\s*(?:(\d+(?:[.,]\d+)?)\s*s)?\s*$/i.exec(
      text,
    )
  if (!named || !/\d/.test(text)) return undefined
  const [hours, minutes, seconds] = [named[1], named[2], named[3]].map((part) =>
    Number((part ?? '0').replace(',', '.')),
  )
  return (hours ?? 0) * 3600 + (minutes ?? 0) * 60 + (seconds ?? 0)
}

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
