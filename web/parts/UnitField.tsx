import type { InputHTMLAttributes, Ref } from 'react'
import { frameRateLabel, parseFrameRate } from '../../core/units/frameRate'
import { frameSizeText, parseFrameSize } from '../../core/units/frameSize'
import {
  formatBitRate,
  formatBytes,
  formatLength,
  parseBitRate,
  parseBytes,
  parseLength,
} from '../../core/units/quantity'
import { Field } from './Field'

/** How a quantity is read as people type it, said as it was understood, and how it can be written. */
interface Unit<T> {
  readonly read: (typed: string) => T | undefined
  readonly say: (value: T) => string
  readonly how: string
}

const unit = <T,>(read: Unit<T>['read'], say: Unit<T>['say'], how: string) => {
  const understood = (typed: string) => {
    const value = read(typed)
    return value === undefined ? undefined : say(value)
  }
  return { understood, how }
}

const UNITS = {
  bytes: unit(parseBytes, formatBytes, 'Write it as 128 GB.'),
  bitRate: unit(parseBitRate, formatBitRate, 'Write it as 100 Mb/s.'),
  length: unit(parseLength, formatLength, 'Write it as 12 min, 1h20 or 2:30.'),
  frameRate: unit(parseFrameRate, frameRateLabel, 'Write it as 25, 23.976 or 24000/1001.'),
  frameSize: unit(parseFrameSize, frameSizeText, 'Write it as 3840×2160.'),
}

interface UnitFieldProps extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string
  readonly unit: keyof typeof UNITS
  /** What stands in the field now. */
  readonly typed: string
  /** It cannot be used, though it may be readable. */
  readonly wrong: boolean
  readonly ref?: Ref<HTMLInputElement>
}

/** A field for a quantity, typed in whatever unit comes to mind; under it stands what was understood. */
export function UnitField({ unit: name, typed, wrong, ...rest }: UnitFieldProps) {
  const { understood, how } = UNITS[name]
  const said = understood(typed)
  const same = said?.replace(/\s/g, '').toLowerCase() === typed.replace(/\s/g, '').toLowerCase()
  return (
    <Field
      {...rest}
      fault={wrong ? how : undefined}
      hint={said === undefined || same ? undefined : `that is ${said}`}
    />
  )
}
