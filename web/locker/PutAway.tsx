import { ArchiveRestore, Archive, Trash2 } from 'lucide-react'
import { useState } from 'react'
import type { Endpoint } from '../../contract/endpoint'
import { Confirm } from '../parts/layers/Confirm'
import { IconButton } from '../parts/controls/IconButton'
import { Trouble } from '../parts/Trouble'
import { useSend } from '../parts/asking/useSend'

interface PutAwayProps<Away extends string, Gone extends string> {
  readonly id: string
  readonly name: string
  readonly away: boolean
  /** What is known of it and stays, in words; nothing where it can be erased. */
  readonly holds: string
  readonly put: Endpoint<Away, { away: boolean }, undefined, undefined>
  /** Only what may hold nothing can be erased. */
  readonly erase?: Endpoint<Gone, undefined, undefined, undefined>
}

/** Puts something away or brings it back; what holds nothing can be erased. */
export function PutAway<Away extends `/${string}/:id/away`, Gone extends `/${string}/:id`>(
  props: PutAwayProps<Away, Gone>,
) {
  const { id, name, away, holds, put, erase } = props
  const send = useSend(put)
  const [asking, setAsking] = useState<'put' | 'erase'>()
  const to = (next: boolean) =>
    send.mutate({ params: { id } as never, body: { away: next } }, { onSuccess: () => setAsking(undefined) })
  if (away)
    return (
      <>
        <IconButton icon={ArchiveRestore} label={`Bring ${name} back`} hint="Bring it back" onClick={() => to(false)} />
        <Trouble error={send.error} />
      </>
    )
  return (
    <>
      <IconButton icon={Archive} label={`Put ${name} away`} hint="Put it away" onClick={() => setAsking('put')} />
      {erase && holds === '' && (
        <IconButton icon={Trash2} label={`Erase ${name}`} hint="Erase it" onClick={() => setAsking('erase')} />
      )}
      {asking === 'put' && (
        <Confirm
          title={`Put ${name} away?`}
          about="It is no longer offered for new work. It can be brought back at any time, here."
          action="Put it away"
          onAction={() => to(true)}
          busy={send.isPending}
          error={send.error}
          onClose={() => setAsking(undefined)}
        >
          <p className="mb-5">
            {holds ? `What is known stays: ${holds}, with every copy and proof.` : 'Nothing else uses it.'}
          </p>
        </Confirm>
      )}
      {asking === 'erase' && erase && <Erase id={id} name={name} erase={erase} onClose={() => setAsking(undefined)} />}
    </>
  )
}

interface EraseProps<Gone extends string> {
  readonly id: string
  readonly name: string
  readonly erase: Endpoint<Gone, undefined, undefined, undefined>
  readonly onClose: () => void
}

function Erase<Gone extends `/${string}/:id`>({ id, name, erase, onClose }: EraseProps<Gone>) {
  const send = useSend(erase)
  return (
    <Confirm
      title={`Erase ${name}?`}
      about="This cannot be taken back."
      action={`Erase ${name}`}
      onAction={() => send.mutate({ params: { id } as never }, { onSuccess: onClose })}
      busy={send.isPending}
      error={send.error}
      onClose={onClose}
    >
      <p className="mb-5">No load, copy or proof uses it. Plans that use it will lose it.</p>
    </Confirm>
  )
}
