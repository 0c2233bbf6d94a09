import { array, string } from 'yup'
import { isUuid } from '../core/units/uuid'

const small = (value: unknown) => (typeof value === 'string' ? value.toLowerCase() : value)

/** A UUID, in the small letters in which everything is kept. Source: RFC 9562, section 4. */
export const id = (fault: string) => string().uuid(fault).transform(small)

/** One in an address, or nothing. */
export const idOrNothing = (fault: string) =>
  string()
    .test('id', fault, (one) => !one || isUuid(one))
    .default('')

/** Several of them, each once however often it was sent. */
export const ids = (fault: string) =>
  array()
    .of(id(fault).required(fault))
    .transform((value: unknown) => (Array.isArray(value) ? [...new Set(value.map(small))] : value))
