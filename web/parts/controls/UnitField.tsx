import type { InputHTMLAttributes, Ref } from 'react'
import { frameRateLabel, frameRateText, readFrameRate, type FrameRate } from '../../../core/units/frameRate'
import { frameSizeText, readFrameSize } from '../../../core/units/frameSize'
import {
  formatBitRate,
  formatBytes,
  formatLength,
  readBitRate,
  readBytes,
  readLength,
} from '../../../core/units/quantity'
import type { Typed } from '../../../core/units/typed'
import { Field } from './Field'

/**
 * How a quantity is read as people type it, and said as it was understood; what cannot be read says how to write it.
 */
const unit =
  <T,>(read: (typed: string) => Typed<T>, say: (value: T) => string) =>
  (typed: string): { said: string } | { fault: string } => {
    const understood = read(typed)
    return 'value' in understood ? { said: say(understood.value) } : understood
  }

const sayRate = (rate: FrameRate) => (rate.den === 1 ? frameRateLabel(rate) : frameRateText(rate))

const UNITS = {
  bytes: unit(readBytes, formatBytes),
  bitRate: unit((typed) => readBitRate(typed), formatBitRate),
  soundRate: unit((typed) => readBitRate(typed, 'kb/s'), formatBitRate),
  length: unit(readLength, formatLength),
  frameRate: unit(readFrameRate, sayRate),
  frameSize: unit(readFrameSize, frameSizeText),
}

interface UnitFieldProps extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string
  readonly unit: keyof typeof UNITS
  /** What stands in the field now. */
  readonly typed: string
  /** It cannot be used, though it may be readable. */
  readonly wrong: boolean
  readonly ref?: Ref<HTMLInputElement>
  /** Nothing typed is no fault. */
  readonly optional?: boolean
}

/** A field for a quantity, typed in whatever unit comes to mind; under it stands what was understood. */
export function UnitField({ unit: name, typed, wrong, optional = false, ...rest }: UnitFieldProps) {
  if (optional && typed.trim() === '') return <Field {...rest} />
  const understood = UNITS[name](typed)
  const said = 'said' in understood ? understood.said : undefined
  const same = said?.replace(/\s/g, '').toLowerCase() === typed.replace(/\s/g, '').toLowerCase()
  const fault = 'fault' in understood ? understood.fault : wrong ? 'This is too little or too much.' : undefined
  return <Field {...rest} fault={fault} hint={said === undefined || same ? undefined : `that is ${said}`} />
}
