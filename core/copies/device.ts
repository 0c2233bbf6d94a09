import type { Medium } from './medium'

/**
 * What a folder stands on. `disks` are the whole disks below its file system, by the system's block device tree;
 * `known` is false where the system cannot say (network shares, pools).
 */
export interface DeviceIdentity {
  /** Of the file system: two folders with the same one are on one device for certain. */
  readonly fileSystem: string
  readonly disks: readonly string[]
  readonly known: boolean
  /** Whether reading past the cache reaches a medium; memory and shares may answer from memory. */
  readonly pastCache: boolean
  /** The links that its bytes go through, its own cable first; places that share one share what it carries. */
  readonly bus?: readonly BusLink[]
  /** What it keeps its bytes on, where the system tells. */
  readonly medium?: Medium
  /** Its own switch, or the reader, keeps everybody from writing on it. */
  readonly writeProtected?: true
}

/** One link of a bus: where it is plugged in, and what it carries as it was negotiated. */
export interface BusLink {
  readonly port: string
  readonly bitsPerSecond: number
}

/** Whether two descriptions say the same of a device. */
export const sameDevice = (a: DeviceIdentity | undefined, b: DeviceIdentity | undefined): boolean =>
  a?.fileSystem === b?.fileSystem &&
  a?.disks.join() === b?.disks.join() &&
  a?.bus?.map((link) => link.port).join() === b?.bus?.map((link) => link.port).join() &&
  a?.known === b?.known &&
  a?.pastCache === b?.pastCache

export type DeviceRelation = 'same' | 'different' | 'unknown'

/** A place with the device that it stood on when it was last seen. */
export interface PlacedDevice {
  readonly device: DeviceIdentity | undefined
  /** Whether it is seen now. */
  readonly connected: boolean
}

/** Names such as `sdb` are given anew to whatever is plugged in; only serial numbers and their like last. */
export const NAMED_DISK = 'name:'

/** A disk image that counts as a drive of its own; else it is followed to the disk that it lies on. */
export const isImage = (disk: string): boolean => disk.startsWith(`${NAMED_DISK}loop`)

/**
 * How two places are related. Seen together, one file system or a shared disk is one device. Seen at different times,
 * numbers of file systems and names of disks say nothing: two drives may have had the same port one after the other.
 * One file system cannot be half connected, so there only lasting marks of a disk make two places one.
 */
export function deviceRelation(a: PlacedDevice, b: PlacedDevice): DeviceRelation {
  if (!a.device || !b.device) return 'unknown'
  const shared = a.device.disks.filter((disk) => b.device?.disks.includes(disk))
  const together = a.connected && b.connected
  if (together && (a.device.fileSystem === b.device.fileSystem || shared.length > 0)) return 'same'
  if (shared.some((disk) => !disk.startsWith(NAMED_DISK))) return 'same'
  if (shared.length > 0) return 'unknown'
  return a.device.known && b.device.known ? 'different' : 'unknown'
}
