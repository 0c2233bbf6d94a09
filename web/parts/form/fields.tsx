import type { ComponentProps, ReactNode } from 'react'
import { useController, type Control, type FieldPath, type FieldValues } from 'react-hook-form'
import { Choice, type Option } from '../controls/Choice'
import { DayField } from '../controls/DayField'
import { Field } from '../controls/Field'
import { Tick } from '../controls/Tick'
import { UnitField } from '../controls/UnitField'

interface Bound<Values extends FieldValues, Body> {
  readonly control: Control<Values, unknown, Body>
  readonly name: FieldPath<Values>
}

type Rest<Props, Own extends string> = Omit<Props, Own | 'name' | 'value' | 'onChange' | 'fault' | 'typed' | 'wrong'>

/** A text field of a form; what is wrong stands under it. */
export function FormField<Values extends FieldValues, Body>({
  control,
  name,
  ...rest
}: Bound<Values, Body> & Rest<ComponentProps<typeof Field>, never>) {
  const { field, fieldState } = useController({ control, name })
  return <Field {...rest} {...field} fault={fieldState.error?.message} />
}

/** The name of something, which comes first and has the focus. */
export const FormName = <Values extends FieldValues, Body>({
  most = 60,
  ...bound
}: Bound<Values, Body> & { readonly most?: number }) => <FormField {...bound} label="Name" maxLength={most} autoFocus />

/** A quantity of a form, typed in whatever unit comes to mind. */
export function FormUnit<Values extends FieldValues, Body>({
  control,
  name,
  ...rest
}: Bound<Values, Body> & Rest<ComponentProps<typeof UnitField>, never>) {
  const { field, fieldState } = useController({ control, name })
  return <UnitField {...rest} {...field} typed={String(field.value)} wrong={fieldState.error !== undefined} />
}

/** A day of the calendar, in a form. */
export function FormDay<Values extends FieldValues, Body>({
  control,
  name,
  label,
}: Bound<Values, Body> & { readonly label: string }) {
  const { field, fieldState } = useController({ control, name })
  return <DayField {...field} label={label} value={field.value ?? ''} fault={fieldState.error?.message} />
}

/** One of a few, in a form. */
export function FormChoice<Values extends FieldValues, Body>({
  control,
  name,
  onChosen,
  ...rest
}: Bound<Values, Body> & {
  readonly label: string
  readonly options: readonly Option[]
  readonly className?: string
  /** What else changes with it. */
  readonly onChosen?: (value: string) => void
}) {
  const { field } = useController({ control, name })
  const choose = (value: string) => {
    field.onChange(value)
    onChosen?.(value)
  }
  return <Choice {...rest} value={String(field.value)} onChange={choose} />
}

/** Yes or no, in a form. */
export function FormTick<Values extends FieldValues, Body>({
  control,
  name,
  children,
}: Bound<Values, Body> & { readonly children: ReactNode }) {
  const { field } = useController({ control, name })
  return (
    <Tick checked={Boolean(field.value)} onChange={field.onChange}>
      {children}
    </Tick>
  )
}
