import { counted } from '../../core/units/quantity'
import { gearApi, namedBody } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { Ask } from '../parts/asking/Ask'
import { Button } from '../parts/controls/Button'
import { FormField } from '../parts/form/fields'
import { useTyped } from '../parts/form/useTyped'
import { Leaving } from '../parts/layers/Leaving'
import { useLocker } from '../trade/queries'
import { Trouble } from '../parts/Trouble'
import { useSend } from '../parts/asking/useSend'
import { ClientSheet, RAW_WORDS } from './ClientSheet'
import { NamedList } from './NamedList'

/** Clients and channels that productions are made for. */
export function ClientBook() {
  return (
    <Ask query={useLocker()}>
      {({ clients }) => {
        const here = clients.filter((one) => !one.away)
        return (
          <>
            <Answer why="A client is added with its first production. A new name is used on all of its productions.">
              {here.length === 0 ? 'No client is known yet.' : `${counted(here.length, 'client')}.`}
            </Answer>
            <NamedList
              label="Clients"
              rows={clients}
              edit={(row, onClose) => <ClientSheet client={row} onClose={onClose} />}
              more={({ raw }) => (raw === 'all' ? undefined : <>{RAW_WORDS[raw]}</>)}
              put={gearApi.putClient}
              erase={gearApi.eraseClient}
            />
            <NewClient />
          </>
        )
      }}
    </Ask>
  )
}

function NewClient() {
  const send = useSend(gearApi.addClient)
  const { control, handleSubmit, watch, reset } = useTyped(namedBody, { name: '' })
  const isEmpty = watch('name').trim() === ''
  const save = handleSubmit((body) => send.mutate({ params: {}, body }, { onSuccess: () => reset() }))
  return (
    <form noValidate className="mt-6 max-w-3xl" onSubmit={(event) => void save(event)}>
      <Leaving when={!isEmpty} />
      <div className="flex flex-wrap items-end gap-3">
        <FormField
          control={control}
          name="name"
          label="Another client"
          className="-mb-[1.375rem] w-64"
          maxLength={60}
        />
        <Button type="submit" disabled={send.isPending || isEmpty}>
          Add the client
        </Button>
      </div>
      <Trouble error={send.error} />
    </form>
  )
}
