import { yupResolver } from '@hookform/resolvers/yup'
import {
  useForm,
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  type Resolver,
  type UseFormReturn,
} from 'react-hook-form'
import type { AnyObject, ObjectSchema } from 'yup'
import { valueOf, type Typed } from '../../../core/units/typed'

/** A form whose fields hold `Values` and that sends a `Body`. */
export type TypedForm<Values extends FieldValues, Body> = UseFormReturn<Values, unknown, Body>

/** A number as it was typed, with its unit. What cannot be read is `NaN`, which no schema takes. */
export const numberIn = (text: string, read: (text: string) => Typed<number>): number =>
  valueOf(read(text)) ?? Number.NaN

/** As `numberIn`; nothing typed is `otherwise`. */
export const numberOr = <Otherwise>(text: string, read: (text: string) => Typed<number>, otherwise: Otherwise) =>
  text.trim() === '' ? otherwise : numberIn(text, read)

/**
 * A form that is opened with `values` and sends a body of the API: `read` makes it of what stands in the fields, and
 * what the schema refuses is said under the field of that name.
 */
export function useTyped<Values extends FieldValues, Body extends AnyObject>(
  schema: ObjectSchema<Body>,
  values: Values,
  read?: (typed: Values) => Record<keyof Body, unknown>,
): TypedForm<Values, Body> {
  const reading = read ? schema.transform((typed: Values) => read(typed)) : schema
  return useForm<Values, unknown, Body>({
    mode: 'onChange',
    // A schema has a type for what comes out of it alone; what goes in is text, as the fields hold it.
    resolver: yupResolver(reading) as unknown as Resolver<Values, unknown, Body>,
    defaultValues: values as DefaultValues<Values>,
  })
}

/** What the schema says of the body as a whole, and of no field of it. */
export const bodyFault = (errors: FieldErrors): string | undefined => {
  const fault = errors['']
  return typeof fault?.message === 'string' ? fault.message : undefined
}
