import { number, object, string } from 'yup'
import { ask, order } from './endpoint'

/** What a simulated device can be made to do wrong, to practise. */
export const BENCH_FAULTS = ['none', 'flip-bit', 'truncate-write', 'read-error', 'unplug', 'full'] as const
export type BenchFault = (typeof BENCH_FAULTS)[number]

/** A fault that is switched on at a simulated device, to practise and to test. */
export interface Fault {
  readonly kind: Exclude<BenchFault, 'none'>
  /** Strikes when this many bytes have gone through the device. */
  readonly afterBytes: number
}

/** Arms a fault; `afterBytes` counts from the next byte that is moved. */
export const faultOrder = object({
  kind: string().oneOf(BENCH_FAULTS, 'Choose one of the faults.').required('Choose a fault.'),
  afterBytes: number()
    .integer()
    .min(0, 'Give 0 or more bytes.')
    .max(1e15, 'That is more than any device here holds.')
    .default(0),
}).noUnknown()

/** Which card goes into a reader. */
export const insertOrder = object({ card: string().required('Choose a card.').max(80) }).noUnknown()

/** A simulated device as the bench shows it: sizes in bytes, speeds in bytes per second. */
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

/** All simulated devices, and the cards that can be put into the readers. */
export interface BenchView {
  readonly devices: readonly BenchDeviceView[]
  readonly cards: readonly { readonly name: string; readonly story: string; readonly inReader: string | null }[]
}

const changes = ['bench', 'cards', 'copies', 'storage', 'productions'] as const

/** The bench: simulated readers, cards and drives. 404 for a device that is none of the bench. */
export const benchApi = {
  all: ask<BenchView>()('bench', '/bench'),
  insert: order()('POST', '/bench/:id/insert', { changes, body: insertOrder }),
  eject: order()('POST', '/bench/:id/eject', { changes }),
  plug: order()('POST', '/bench/:id/plug', { changes }),
  unplug: order()('POST', '/bench/:id/unplug', { changes }),
  /** Arms a fault at a simulated device, or takes it away. */
  fault: order()('POST', '/bench/:id/fault', { changes, body: faultOrder }),
}
