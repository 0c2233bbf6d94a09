import { yupResolver } from '@hookform/resolvers/yup'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { newProduction, productionsApi, type NewProduction } from '../../../contract/productions'
import { Button } from '../../parts/controls/Button'
import { Field } from '../../parts/controls/Field'
import { FormDay } from '../../parts/form/fields'
import { Sheet } from '../../parts/layers/Sheet'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

/** Names a new production and goes to its first station. */
export default function NewProductionSheet({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const send = useSend(productionsApi.add)
  const {
    control,
    register,
    handleSubmit,
    formState: { errors },
  } = useForm<NewProduction>({
    resolver: yupResolver(newProduction),
    defaultValues: { title: '', client: '', shootOn: '', timeZone: '' },
  })
  const save = handleSubmit((values) =>
    send.mutate(
      {
        params: {},
        body: { ...values, timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone },
      },
      {
        onSuccess: ({ id }) => {
          void navigate(`/p/${id}/shoot`)
        },
      },
    ),
  )
  return (
    <Sheet
      title="New production"
      about="One video for one client or channel. Everything but the title can wait."
      open
      onClose={onClose}
    >
      <form onSubmit={(event) => void save(event)} noValidate>
        <Field
          label="Title"
          fault={errors.title?.message}
          hint="It becomes the name of its folder on every volume."
          autoFocus
          {...register('title')}
        />
        <div className="grid gap-x-4 sm:grid-cols-2">
          <Field label="Client or channel" fault={errors.client?.message} {...register('client')} />
          <FormDay label="Shoot day" control={control} name="shootOn" />
        </div>
        <Trouble error={send.error} />
        <div className="flex gap-3">
          <Button look="primary" type="submit" disabled={send.isPending}>
            Make it
          </Button>
          <Button onClick={onClose}>Leave</Button>
        </div>
      </form>
    </Sheet>
  )
}
