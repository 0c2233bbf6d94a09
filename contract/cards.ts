import { object, string } from 'yup'
import type { Finding } from '../core/cards/findings'
import { text } from './text'

export const scanOrder = object({
  productionId: string().uuid('Choose a production.').required('Choose a production.'),
  label: text().max(80, 'Keep the label under 80 characters.').default(''),
}).noUnknown()

export const newReader = object({
  name: text().required('Name the reader.').max(60, 'Keep the name under 60 characters.'),
  path: string().required('Give the folder where the card appears.').matches(/^\//, 'Give a path that starts with /.'),
}).noUnknown()

export const findingAnswer = object({
  key: string().required('Say which question is answered.').max(20_000),
  /** `null` takes an answer back. */
  answer: text()
    .max(200, 'Keep the answer under 200 characters.')
    .nullable()
    .defined('Write an answer.')
    .test('not-empty', 'Write an answer.', (answer) => answer !== ''),
}).noUnknown()

export interface ReaderView {
  readonly id: string
  readonly name: string
  readonly path: string
  readonly simulated: boolean
  /** What lies in it: nothing, a card, or a folder that cannot be reached. */
  readonly state: 'empty' | 'card' | 'unreachable'
  readonly cardName: string | null
  /** The load that this card is known to hold, when it was looked at since it was inserted. */
  readonly loadId: string | null
  /** How it differs from what was looked at, in words. */
  readonly difference: string | null
}

export interface ClipView {
  readonly id: string
  readonly path: string
  readonly name: string
  readonly widthPx: number | null
  readonly heightPx: number | null
  readonly rate: string | null
  readonly frames: number | null
  readonly seconds: number | null
  readonly codec: string | null
  readonly sizeBytes: number
  readonly sidecars: number
  readonly recordedAt: string | null
  readonly trouble: string | null
  /** What is missing of its end, in words. */
  readonly cut: string | null
  /** False when it was deleted in the camera since; copies of it are kept. */
  readonly onCard: boolean
  readonly hasPicture: boolean
  readonly pictureMade: boolean
}

export interface LoadView {
  readonly id: string
  readonly productionId: string
  readonly label: string
  readonly scannedAt: string
  readonly fileCount: number
  readonly sizeBytes: number
  readonly sentence: string
  readonly findings: readonly Finding[]
  readonly clips: readonly ClipView[]
}
