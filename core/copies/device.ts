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
}

/** Whether two descriptions say the same of a device. */
export const sameDevice = (a: DeviceIdentity | undefined, b: DeviceIdentity | undefined): boolean =>
  a?.fileSystem === b?.fileSystem &&
  a?.disks.join() === b?.disks.join() &&
  a?.known === b?.known &&
  a?.pastCache === b?.pastCache

export type DeviceRelation = 'same' | 'different' | 'unknown'

/** How two places are related: one file system or a shared disk is one device; what the system does not know stays open. */
export function deviceRelation(a: DeviceIdentity | undefined, b: DeviceIdentity | undefined): DeviceRelation {
  if (!a || !b) return 'unknown'
  if (a.fileSystem === b.fileSystem || a.disks.some((disk) => b.disks.includes(disk))) return 'same'
  return a.known && b.known ? 'different' : 'unknown'
}
