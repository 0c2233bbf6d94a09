import { counted, readBytes } from '../units/quantity'
import { isDay } from '../units/day'

/** What a column of a chart that somebody kept until now holds; `volume` stands before the name of a drive. */
export const KEPT_ROLES = ['none', 'client', 'production', 'day', 'load', 'camera', 'bytes', 'formatted', 'on'] as const
export type KeptRole = (typeof KEPT_ROLES)[number] | `volume ${string}`

export const BARE_UNITS = ['B', 'MB', 'GB', 'GiB', 'TB'] as const
export const DAY_ORDERS = ['day first', 'month first'] as const

/** How the table is read. */
export interface KeptReading {
  /** What each column holds, from the left. */
  readonly roles: readonly KeptRole[]
  /** What a size without a unit is in. */
  readonly bareUnit: (typeof BARE_UNITS)[number]
  /** How days with slashes are written. */
  readonly dayOrder: (typeof DAY_ORDERS)[number]
  /** An empty client, production or day is that of the row above. */
  readonly repeats: boolean
}

/** A load as a kept chart tells of it; a person said all of it, and nothing of it is proved. */
export interface KeptLine {
  readonly client: string
  readonly production: string
  /** As `2026-11-14`. */
  readonly shootOn: string | null
  readonly load: string
  readonly camera: string
  readonly sizeBytes: number | null
  /** What stands there of a format; empty where nothing does. */
  readonly formatted: string
  /** On which drives it is said to be, by their names, and what stands there. */
  readonly copies: readonly { readonly name: string; readonly said: string }[]
}

/** What is wrong with one row, which is counted as the file shows it, its head being the first. */
export interface KeptFault {
  readonly row: number
  readonly sentence: string
}

/** Texts of a kept chart are kept so long at most. */
export const MOST_LETTERS = 120
export const MOST_KEPT_LINES = 4000

const NO_COPY = /^\s*([-–—0]|no|none|n|false|n\/a)?\s*$/i

/** What columns most likely hold, by their heads and the names of drives that are known. */
export function rolesByHead(head: readonly string[], volumes: readonly string[]): KeptRole[] {
  const taken = new Set<KeptRole>()
  return head.map((name): KeptRole => {
    const plain = name.trim().toLowerCase()
    const volume = volumes.find((one) => one.toLowerCase() === plain)
    if (volume !== undefined) return `volume ${volume}`
    const role = HEADS.find(([, words]) => words.test(plain))?.[0] ?? 'none'
    if (taken.has(role) && role !== 'none') return 'none'
    taken.add(role)
    return role
  })
}

const HEADS: readonly (readonly [KeptRole, RegExp])[] = [
  ['client', /client|customer/],
  ['day', /date|day|shot on|filmed/],
  ['production', /production|project|title|film|video|job/],
  ['load', /^load$|card|reel|roll|magazine/],
  ['camera', /camera|recorder/],
  ['bytes', /bytes|size|^gb$|^tb$/],
  ['formatted', /format|wiped|reused/],
  ['on', /^drives?$|^volumes?$|copies|backup|where/],
]

/** Lines of a chart that was kept by hand, and every row that cannot be understood. The first row names the columns. */
export function readKeptChart(rows: readonly (readonly string[])[], reading: KeptReading) {
  const lines = new Map<string, KeptLine>()
  const faults: KeptFault[] = []
  const above = { client: '', production: '', day: '' }
  rows.slice(1).forEach((cells, at) => {
    const row = at + 2
    if (cells.every((cell) => cell.trim() === '')) return
    const found = lineOf(cells, reading, above)
    if ('fault' in found) faults.push({ row, sentence: `Row ${row}: ${found.fault}` })
    else {
      const key = `${found.production.toLowerCase()}\0${found.load.toLowerCase()}`
      const before = lines.get(key)
      if (before && before.sizeBytes !== null && found.sizeBytes !== null && before.sizeBytes !== found.sizeBytes)
        faults.push({
          row,
          sentence: `Row ${row}: “${found.load}” of “${found.production}” stands above already, with another size.`,
        })
      else lines.set(key, before ? joined(before, found) : found)
    }
  })
  return { lines: [...lines.values()], faults }
}

const joined = (a: KeptLine, b: KeptLine): KeptLine => ({
  client: a.client || b.client,
  production: a.production,
  shootOn: a.shootOn ?? b.shootOn,
  load: a.load,
  camera: a.camera || b.camera,
  sizeBytes: a.sizeBytes ?? b.sizeBytes,
  formatted: a.formatted || b.formatted,
  copies: [...a.copies, ...b.copies.filter((copy) => !a.copies.some((one) => one.name === copy.name))],
})

function lineOf(
  cells: readonly string[],
  { roles, bareUnit, dayOrder, repeats }: KeptReading,
  above: Record<'client' | 'production' | 'day', string>,
): KeptLine | { readonly fault: string } {
  if (cells.length > roles.length)
    return { fault: `it has ${counted(cells.length, 'cell')}, and the first row ${roles.length}.` }
  const cell = (role: KeptRole) => (cells[roles.indexOf(role)] ?? '').trim()
  const repeated = (role: keyof typeof above) => {
    const text = cell(role)
    if (text !== '' || !repeats) above[role] = text
    return above[role]
  }
  const [client, production, dayText, load] = [
    repeated('client'),
    repeated('production'),
    repeated('day'),
    cell('load'),
  ]
  if (cells.some((text) => text.length > MOST_LETTERS))
    return { fault: `a cell has more than ${MOST_LETTERS} letters.` }
  if (production === '') return { fault: 'it names no production.' }
  if (load === '') return { fault: 'it names no card or load.' }
  const day = dayText === '' ? null : readDay(dayText, dayOrder)
  if (day === undefined) return { fault: `“${dayText}” is no day. Write it as 2026-11-14.` }
  const size = cell('bytes')
  const bytes = size === '' ? { value: null } : readBytes(/^[\d.,\s]+$/.test(size) ? `${size} ${bareUnit}` : size)
  if ('fault' in bytes) return { fault: `“${size}” is no size. ${bytes.fault}` }
  return {
    ...{ client, production, shootOn: day, load, camera: cell('camera'), sizeBytes: bytes.value },
    formatted: NO_COPY.test(cell('formatted')) ? '' : cell('formatted'),
    copies: copiesOf(cells, roles),
  }
}

function copiesOf(cells: readonly string[], roles: readonly KeptRole[]) {
  const copies = new Map<string, string>()
  roles.forEach((role, at) => {
    const text = (cells[at] ?? '').trim()
    if (NO_COPY.test(text)) return
    if (role === 'on') for (const name of text.split(/[;,/+\n]/)) if (name.trim() !== '') copies.set(name.trim(), text)
    if (role.startsWith('volume ')) copies.set(role.slice('volume '.length), text)
  })
  return [...copies].map(([name, said]) => ({ name, said }))
}

/** A day as people write it: `2026-11-14`, `14.11.2026`, `14/11/2026` or `11/14/2026`; `undefined` when it is none. */
export function readDay(text: string, order: (typeof DAY_ORDERS)[number]): string | undefined {
  if (isDay(text)) return text
  const parts = /^(\d{1,2})([./])(\d{1,2})\2(\d{4})$/.exec(text)
  if (!parts) return undefined
  const isDayFirst = parts[2] === '.' || order === 'day first'
  const [day = '', month = ''] = isDayFirst ? [parts[1], parts[3]] : [parts[3], parts[1]]
  const iso = `${parts[4]}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`
  return isDay(iso) ? iso : undefined
}
