/** Faults that can be switched on at a simulated device, to practise and to test. */
export const FAULT_KINDS = ['flip-bit', 'truncate-write', 'read-error', 'unplug', 'full'] as const
export type FaultKind = (typeof FAULT_KINDS)[number]

export interface Fault {
  readonly kind: FaultKind
  /** Strikes when this many bytes have gone through the device. */
  readonly afterBytes: number
}

export interface BenchDevice {
  readonly capacityBytes: number
  readonly readBytesPerSecond: number
  readonly writeBytesPerSecond: number
  readonly plugged: boolean
  readonly fault: Fault | undefined
}
