import { string } from 'yup'

/** Text as a person types it: spaces around it mean nothing. */
export const text = () => string().transform((value: unknown) => (typeof value === 'string' ? value.trim() : value))
