import { number, object, string } from 'yup'

export const BENCH_FAULTS = ['none', 'flip-bit', 'truncate-write', 'read-error', 'unplug', 'full'] as const
export type BenchFault = (typeof BENCH_FAULTS)[number]

/** A fault that is switched on at a simulated device, to practise and to test. */
export interface Fault {
  readonly kind: Exclude<BenchFault, 'none'>
  /** Strikes when this many bytes have gone through the device. */
  readonly afterBytes: number
}

export const faultOrder = object({
  kind: string().oneOf(BENCH_FAULTS, 'Choose one of the faults.').required('Choose a fault.'),
  afterBytes: number().integer().min(0, 'Give 0 or more bytes.').default(0),
}).noUnknown()

export const insertOrder = object({ card: string().required('Choose a card.').max(80) }).noUnknown()

export interface BenchDeviceView {
  readonly id: string
  readonly name: string
  readonly role: 'reader' | 'volume'
  readonly plugged: boolean
  readonly card: string | null
  readonly capacityBytes: number
  readonly readBytesPerSecond: number
  readonly writeBytesPerSecond: number
  readonly fault: BenchFault
  readonly afterBytes: number
  readonly folder: string
}

export interface BenchView {
  readonly devices: readonly BenchDeviceView[]
  readonly cards: readonly { readonly name: string; readonly story: string; readonly inReader: string | null }[]
}
