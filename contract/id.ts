import { array, string } from 'yup'

const small = (value: unknown) => (typeof value === 'string' ? value.toLowerCase() : value)

/** A UUID, in the small letters in which everything is kept. Source: RFC 9562, section 4. */
export const id = (fault: string) => string().uuid(fault).transform(small)

/** Several of them, each once however often it was sent. */
export const ids = (fault: string) =>
  array()
    .of(id(fault).required(fault))
    .transform((value: unknown) => (Array.isArray(value) ? [...new Set(value.map(small))] : value))
