import { yupResolver } from '@hookform/resolvers/yup'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { productionChange, productionsApi, type ProductionView } from '../../contract/productions'
import { Button } from '../parts/controls/Button'
import { Field } from '../parts/controls/Field'
import { FormDay } from '../parts/form/fields'
import { Sheet } from '../parts/layers/Sheet'
import { Trouble } from '../parts/Trouble'
import { useSend } from '../parts/asking/useSend'

/** Title, client and day of a production, and the way to put it away. */
export default function ChangeSheet({ production, onClose }: { production: ProductionView; onClose: () => void }) {
  // What it was when the sheet was opened, whatever another window keeps meanwhile.
  const [{ id, version, title, client, shootOn, folder }] = useState(production)
  const navigate = useNavigate()
  const change = useSend(productionsApi.change)
  const putAway = useSend(productionsApi.putAway)
  const {
    control,
    register,
    handleSubmit,
    formState: { errors },
  } = useForm({ resolver: yupResolver(productionChange), defaultValues: { title, client, shootOn: shootOn ?? '' } })
  const save = handleSubmit((body) => change.mutate({ params: { id }, body, seen: version }, { onSuccess: onClose }))
  return (
    <Sheet
      title={`Change ${title}`}
      about={`Its folder on every volume stays “${folder}”, so that nothing that was copied moves.`}
      open
      onClose={onClose}
    >
      <form onSubmit={(event) => void save(event)} noValidate>
        <Field label="Title" fault={errors.title?.message} {...register('title')} />
        <div className="grid gap-x-4 sm:grid-cols-2">
          <Field label="Client or channel" fault={errors.client?.message} {...register('client')} />
          <FormDay label="Shoot day" control={control} name="shootOn" />
        </div>
        <Trouble error={change.error ?? putAway.error} />
        <div className="flex flex-wrap gap-3">
          <Button look="primary" type="submit" disabled={change.isPending}>
            Save the change
          </Button>
          <Button
            disabled={putAway.isPending}
            onClick={() =>
              putAway.mutate({ params: { id }, body: { away: true } }, { onSuccess: () => void navigate('/') })
            }
          >
            Put it away
          </Button>
        </div>
        <p className="mt-3 text-sm text-quiet">
          Put away, it leaves the overview and can be brought back there. Its loads, copies and proofs stay.
        </p>
      </form>
    </Sheet>
  )
}
