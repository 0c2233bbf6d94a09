import type { Fault } from '../../contract/bench'

export interface BenchDevice {
  readonly capacityBytes: number
  readonly readBytesPerSecond: number
  readonly writeBytesPerSecond: number
  readonly plugged: boolean
  readonly fault: Fault | undefined
}
