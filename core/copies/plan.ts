import { counted, formatBytes, formatLength } from '../units/quantity'
import { deviceRelation, type BusLink, type DeviceIdentity } from './device'

export interface FileCount {
  readonly files: number
  readonly sizeBytes: number
}

/** How fast a place was in earlier copies, in bytes per second; `undefined` before the first one. */
export interface PlaceSpeed {
  readonly readBytesPerSecond: number | undefined
  readonly writeBytesPerSecond: number | undefined
}

/** A volume that is to get a copy, as it is known before. */
export interface CopyTarget extends PlaceSpeed {
  readonly id: string
  readonly name: string
  /** `undefined` while it is not connected. */
  readonly freeBytes: number | undefined
  readonly device: DeviceIdentity | undefined
  /** Proved there, and listed since as it was proved. */
  readonly proved: FileCount
  /** Files that differ or collide, or were changed since they were proved: nothing is written over them. */
  readonly inTheWay: FileCount
  /** Lie there under their names, proved or not, and need no more room. */
  readonly thereBytes: number
}

export interface CopyQuestion {
  /** What is to lie on every volume. */
  readonly wanted: FileCount
  readonly card: PlaceSpeed & { readonly name: string; readonly device: DeviceIdentity | undefined }
  readonly targets: readonly CopyTarget[]
  /** How fast this computer makes checksums, all of them one after the other; `undefined` before it was measured. */
  readonly hashBytesPerSecond: number | undefined
}

/** What a copy will do on one volume. */
export interface PlannedCopy {
  readonly volumeId: string
  readonly name: string
  readonly connected: boolean
  /** Read again and left as they are. */
  readonly keep: FileCount
  readonly copy: FileCount
  /** A person settles these. */
  readonly conflict: FileCount
  /** Room that is lacking; others that stand on the same drive count with it. */
  readonly missingBytes: number
  /** Volumes on the same drive, by name, that share its room. */
  readonly sharesRoomWith: readonly string[]
}

export interface CopyPlan {
  readonly volumes: readonly PlannedCopy[]
  /** How long it will take, in seconds; `undefined` while a place has never been measured. */
  readonly seconds: number | undefined
  /** What it will wait for most of the time, by name. */
  readonly bottleneck: string | undefined
}

/**
 * What a copy would do, before it does it. Every file is read from the card once, written, and read back from each
 * volume; what a volume keeps is read there again. Places work side by side, so that the slowest one says how long it
 * takes. 10 GB to a drive that writes and reads 100 MB/s: 200 s, and a card that reads 90 MB/s is waited for 111 s of
 * them.
 */
export function copyPlan({ wanted, card, targets, hashBytesPerSecond }: CopyQuestion): CopyPlan {
  const volumes = targets.map((target) => planned(wanted, target, targets))
  const able = volumes.filter((volume) => volume.connected && volume.missingBytes === 0)
  const most = Math.max(0, ...able.map((volume) => volume.copy.sizeBytes))
  const targetOf = (volume: PlannedCopy) => targets.find((target) => target.id === volume.volumeId)
  const times = [
    { name: card.name, seconds: most === 0 ? 0 : secondsFor(most, card.readBytesPerSecond) },
    ...able.map((volume) => {
      const speed = targetOf(volume)
      const back = secondsFor(volume.copy.sizeBytes + volume.keep.sizeBytes, speed?.readBytesPerSecond)
      const there = secondsFor(volume.copy.sizeBytes, speed?.writeBytesPerSecond)
      return { name: volume.name, seconds: back === undefined || there === undefined ? undefined : back + there }
    }),
  ]
  const known = times.flatMap(({ name, seconds }) => (seconds === undefined ? [] : [{ name, seconds }]))
  if (able.length === 0 || known.length < times.length) return { volumes, seconds: undefined, bottleneck: undefined }
  const slowest = slowestOf(known)
  const moved = (volume: PlannedCopy) => 2 * volume.copy.sizeBytes + volume.keep.sizeBytes
  const bus = slowestOf(
    busTimes([
      { name: card.name, bus: card.device?.bus ?? [], bytes: most },
      ...able.map((volume) => ({
        ...{ name: volume.name, bus: targetOf(volume)?.device?.bus ?? [], bytes: moved(volume) },
      })),
    ]),
  )
  const hashed = most + able.reduce((sum, volume) => sum + volume.copy.sizeBytes + volume.keep.sizeBytes, 0)
  const hash = { name: 'the checksums', seconds: hashBytesPerSecond ? hashed / hashBytesPerSecond : 0 }
  // What a place was measured at has its cable in it: where the cable could hardly carry more, it is the cable.
  const named = hash.seconds > slowest.seconds ? hash : bus.seconds >= CABLE_SHARE * slowest.seconds ? bus : slowest
  const seconds = Math.max(slowest.seconds, bus.seconds, hash.seconds)
  return { volumes, seconds, bottleneck: seconds > 0 ? named.name : undefined }
}

interface Timed {
  readonly name: string
  readonly seconds: number
}

const slowestOf = (times: readonly Timed[]): Timed =>
  times.reduce((a, b) => (b.seconds > a.seconds ? b : a), { name: '', seconds: 0 })

const CABLE_SHARE = 0.85
/**
 * What of a link’s bits is left for the bytes of files: 480 Mb/s carry about 45 MB/s, 5 Gb/s about 470. From memory.
 */
const PAYLOAD = 0.75

/** How long each link of the bus is busy at least, with all that goes through it. */
function busTimes(
  places: readonly { readonly name: string; readonly bus: readonly BusLink[]; readonly bytes: number }[],
): Timed[] {
  const links = new Map(places.flatMap((place) => place.bus.map((link) => [link.port, link] as const)))
  return [...links.values()].map(({ port, bitsPerSecond }) => {
    const sharing = places.filter((place) => place.bytes > 0 && place.bus.some((link) => link.port === port))
    const bytes = sharing.reduce((sum, place) => sum + place.bytes, 0)
    const names = sharing.map((place) => place.name).join(' and ')
    const speed = bitsPerSecond >= 1e9 ? `${bitsPerSecond / 1e9} Gb/s` : `${bitsPerSecond / 1e6} Mb/s`
    return {
      name: `the ${sharing.length > 1 ? `bus that ${names} share` : `cable of ${names}`} (USB, ${speed})`,
      seconds: (bytes * 8) / (bitsPerSecond * PAYLOAD),
    }
  })
}

/** `undefined` where something is to be moved and nobody knows how fast. */
const secondsFor = (bytes: number, bytesPerSecond: number | undefined): number | undefined =>
  bytes === 0 ? 0 : bytesPerSecond === undefined || bytesPerSecond <= 0 ? undefined : bytes / bytesPerSecond

const neededBytes = (wanted: FileCount, target: CopyTarget) => Math.max(0, wanted.sizeBytes - target.thereBytes)

function planned(wanted: FileCount, target: CopyTarget, all: readonly CopyTarget[]): PlannedCopy {
  const { proved: keep, inTheWay: conflict, freeBytes } = target
  const here = { device: target.device, connected: true }
  // Those before it take their part of a drive that they share.
  const beside = all
    .slice(0, all.indexOf(target))
    .filter(
      (other) =>
        other.freeBytes !== undefined && deviceRelation({ device: other.device, connected: true }, here) === 'same',
    )
  const needed = [target, ...beside].reduce((sum, one) => sum + neededBytes(wanted, one), 0)
  return {
    volumeId: target.id,
    name: target.name,
    connected: freeBytes !== undefined,
    keep,
    conflict,
    copy: {
      files: Math.max(0, wanted.files - keep.files - conflict.files),
      sizeBytes: Math.max(0, wanted.sizeBytes - keep.sizeBytes - conflict.sizeBytes),
    },
    missingBytes: freeBytes === undefined ? 0 : Math.max(0, needed - freeBytes),
    sharesRoomWith: beside.map((other) => other.name),
  }
}

/** Why nothing will be copied to a volume; `undefined` when something can be. */
export function planFault({ name, connected, missingBytes, sharesRoomWith }: PlannedCopy): string | undefined {
  if (!connected) return `${name} is not connected: nothing was copied there.`
  if (missingBytes === 0) return undefined
  const shared = sharesRoomWith.length > 0 ? `, together with ${sharesRoomWith.join(' and ')} on the same drive` : ''
  return (
    `${name} is full: ${formatBytes(missingBytes)} (${missingBytes} bytes) are missing${shared}. ` +
    'Nothing was copied there; make room or choose another volume.'
  )
}

/** `Copies 700 files, 38.2 GB, and reads 1 again; about 6 min, mostly waiting for Tide 1.` */
export function planWords({ volumes, seconds, bottleneck }: CopyPlan): string {
  const parts = volumes.map(({ name, copy, keep, conflict, connected, missingBytes }) => {
    if (!connected) return `${name} is not connected`
    if (missingBytes > 0) return `${name} lacks ${formatBytes(missingBytes)}`
    const says = [
      copy.files > 0 ? `gets ${counted(copy.files, 'file')}, ${formatBytes(copy.sizeBytes)}` : '',
      keep.files > 0 ? `keeps ${keep.files} and has them read again` : '',
      conflict.files > 0 ? `has ${counted(conflict.files, 'other file')} in the way` : '',
    ].filter(Boolean)
    return `${name} ${says.length > 0 ? says.join(', ') : 'has nothing to get'}`
  })
  const time =
    seconds === undefined
      ? 'how long it takes is known after the first copy'
      : `about ${formatLength(Math.ceil(seconds))}${bottleneck ? `, waiting mostly for ${bottleneck}` : ''}`
  return `${parts.join('; ')}: ${time}.`
}

/** Volumes on which fewer files lie as proved than when the copy was ordered, a sentence each. */
export const fewerKept = (ordered: CopyPlan, now: CopyPlan): string[] =>
  changed(ordered, now, (before, volume) => {
    const fewer = before.keep.files - volume.keep.files
    return fewer > 0 ? `${counted(fewer, 'file')} fewer ${fewer === 1 ? 'lies' : 'lie'} there as proved` : undefined
  })

/** Volumes on which more is in the way than when the copy was ordered, a sentence each. */
export const moreInTheWay = (ordered: CopyPlan, now: CopyPlan): string[] =>
  changed(ordered, now, (before, volume) => {
    const more = volume.conflict.files - before.conflict.files
    return more > 0 ? `${counted(more, 'more file')} in the way` : undefined
  })

const changed = (
  ordered: CopyPlan,
  now: CopyPlan,
  said: (before: PlannedCopy, volume: PlannedCopy) => string | undefined,
): string[] =>
  now.volumes.flatMap((volume) => {
    const before = ordered.volumes.find((one) => one.volumeId === volume.volumeId)
    const words = before?.connected && volume.connected ? said(before, volume) : undefined
    return words === undefined ? [] : [`${volume.name}: ${words} than when this was ordered.`]
  })
