import { counted, formatBytes, formatLength } from '../units/quantity'
import { USUAL_CYCLE_DAYS } from './danger'

const DAY_MS = 86_400_000
const MINUTES = 1440

/** When copies are read again by themselves, and how much of it; minutes are those after midnight. */
export interface CycleHours {
  readonly on: boolean
  readonly fromMinute: number
  /** Before `fromMinute` it is the next day; the same minute is all day long. */
  readonly toMinute: number
  /** Within one night, on all drives together. */
  readonly mostBytes: number
  /** A sample of the newest load in the first idle minutes after a drive was connected. */
  readonly atStart: boolean
}

/** From one to six the computer is not worked with. Common practice, no source. */
export const USUAL_HOURS: CycleHours = { on: true, fromMinute: 60, toMinute: 360, mostBytes: 500e9, atStart: true }

/** Where a moment lies in the hours: when they began, and when they end; `undefined` outside of them. */
export function hoursAt(hours: CycleHours, at: Date): { readonly from: Date; readonly to: Date } | undefined {
  for (const dayBefore of [0, 1]) {
    const from = new Date(at)
    from.setDate(from.getDate() - dayBefore)
    from.setHours(0, hours.fromMinute, 0, 0)
    const to = new Date(from)
    if (hours.toMinute <= hours.fromMinute) to.setDate(to.getDate() + 1)
    to.setHours(0, hours.toMinute, 0, 0)
    if (from <= at && at < to) return { from, to }
  }
  return undefined
}

/** How long one night is, in seconds, where no clock is put forward or back. */
export const nightSeconds = ({ fromMinute, toMinute }: CycleHours): number =>
  (((toMinute - fromMinute + MINUTES - 1) % MINUTES) + 1) * 60

/** What is read a tenth of the cycle before its end is read within it, also when a few nights are missed. */
export const EARLY = 0.1

/** What was proved before this is due. */
export const dueBefore = (now: number, cycleDays: number): number => now - cycleDays * (1 - EARLY) * DAY_MS

/** A file of a copy as its last proof is known. */
export interface AgedFile {
  readonly sizeBytes: number
  readonly provedAt: number
}

/**
 * Files that are due, the oldest proof first, as many as the bytes allow; always one, so that the largest comes to its
 * turn as well.
 */
export function dueFiles<File extends AgedFile>(files: readonly File[], before: number, mostBytes: number): File[] {
  const due = files.filter((file) => file.provedAt < before).sort((a, b) => a.provedAt - b.provedAt)
  const taken: File[] = []
  let bytes = 0
  for (const file of due) {
    if (taken.length > 0 && bytes + file.sizeBytes > mostBytes) break
    taken.push(file)
    bytes += file.sizeBytes
  }
  return taken
}

/** So many copies of a volume are counted. */
export const MOST_COUNTED = 100

/** What is due on one volume. */
export interface DueVolume {
  readonly name: string
  readonly connected: boolean
  readonly copies: number
  readonly bytes: number
  /** Copies that were not read within the cycle. */
  readonly late: number
  readonly cycleDays: number
  readonly readBytesPerSecond: number | undefined
}

export interface CycleState {
  readonly hours: CycleHours
  readonly volumes: readonly DueVolume[]
  /** Bytes that were read tonight already. */
  readonly readBytes: number
  /** Whether it is night now. */
  readonly isNight: boolean
  /** Anything is proved at all. */
  readonly proved: boolean
}

const clock = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`

/** Where the reading by night stands, in one sentence or two, what is late first; `''` where nothing is proved. */
export function cycleSentence({ hours, volumes, readBytes, isNight, proved }: CycleState): string {
  if (!proved) return ''
  const late = volumes.filter((volume) => volume.late > 0)
  const away = volumes.filter((volume) => !volume.connected && volume.copies > 0)
  const copies = (n: number) => (n === 1 ? '1 copy' : `${n}${n === MOST_COUNTED ? ' or more' : ''} copies`)
  const first =
    late.length === 0
      ? `All was read within ${allDays(volumes)}.`
      : `${late.map((one) => `${copies(one.late)} on ${one.name}`).join(' and ')} ` +
        `${late.reduce((sum, one) => sum + one.late, 0) === 1 ? 'was' : 'were'} not read within ${allDays(late)}.`
  const connect = away.length === 0 ? '' : ` Connect ${away.map((one) => one.name).join(' and ')}, then it is read.`
  if (!hours.on) return `${first} Nothing is read by night.`
  return `${first}${tonight(hours, volumes, readBytes, isNight)}${connect}`
}

const allDays = (volumes: readonly DueVolume[]): string => {
  const days = [...new Set(volumes.map((volume) => volume.cycleDays))]
  return days.length > 1 ? 'the cycle of each volume' : counted(days[0] ?? USUAL_CYCLE_DAYS, 'day')
}

function tonight(hours: CycleHours, volumes: readonly DueVolume[], readBytes: number, isNight: boolean): string {
  const here = volumes.filter((volume) => volume.connected && volume.bytes > 0)
  if (here.length === 0) return ''
  const wanted = here.reduce((sum, volume) => sum + volume.bytes, 0)
  const left = Math.max(0, hours.mostBytes - readBytes)
  if (isNight && left === 0) return ` ${formatBytes(readBytes)} were read tonight, as much as you allow.`
  const known = here.every((volume) => volume.readBytesPerSecond !== undefined)
  // They are read one after the other.
  const seconds = here.reduce((sum, volume) => sum + volume.bytes / (volume.readBytesPerSecond ?? Infinity), 0)
  const share = Math.min(1, left / wanted, seconds > 0 ? nightSeconds(hours) / seconds : 1)
  const names = here.map((volume) => `${volume.name}, ${formatBytes(volume.bytes)}`).join('; ')
  const time = known ? `, about ${formatLength(Math.ceil((seconds * share) / 60) * 60)}` : ''
  const part = share < 1 ? `, of which ${formatBytes(Math.floor(wanted * share))} in one night` : ''
  return ` ${isNight ? 'Now' : `Tonight from ${clock(hours.fromMinute)}`}: ${names}${part}${time}.`
}

/** Smaller files say more of seeking than of the drive. */
const LARGE_FILES = 16e6
/** Of what we read, others may move so much beside. */
const BESIDE = 0.1

/**
 * Whether the speed of a reading says something of the drive: large files, and hardly anything else that was moved on
 * it meanwhile; not where nobody can tell.
 */
export const tellsSpeed = (read: { files: number; bytes: number; othersBytes: number | undefined }): boolean =>
  read.files > 0 &&
  read.bytes / read.files >= LARGE_FILES &&
  read.othersBytes !== undefined &&
  read.othersBytes <= read.bytes * BESIDE

/** So many readings are known before one is called slow. */
const LEAST_READINGS = 3
const SLOW = 0.5

/** A drive that reads at less than half of its own earlier speed, in a sentence; the median of those it had. */
export function slowSentence(name: string, now: number | undefined, before: readonly number[]): string | undefined {
  if (now === undefined || before.length < LEAST_READINGS) return undefined
  const sorted = [...before].sort((a, b) => a - b)
  const usual = sorted[Math.floor(sorted.length / 2)] ?? 0
  if (now >= usual * SLOW) return undefined
  return (
    `${name} reads ${formatBytes(Math.round(now))} a second, less than half of the ${formatBytes(Math.round(usual))} it had ` +
    'before: a drive that becomes slow may be about to fail. See that what it holds lies elsewhere as well.'
  )
}
