import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { cardsApi, type ReaderView } from '../../contract/cards'
import { Button } from '../parts/controls/Button'
import { Choice } from '../parts/controls/Choice'
import { Field } from '../parts/controls/Field'
import { useProductions } from './queries'
import { Trouble } from '../parts/Trouble'
import { useSend } from '../parts/asking/useSend'

interface TakeInProps {
  readonly reader: ReaderView
  /** The production whose cards are open; it is not meant by that alone. */
  readonly here?: string
  /** Its name can be given, and it can be scanned alone. */
  readonly whole?: boolean
  readonly children?: ReactNode
}

/** Takes a card in that nobody has scanned: for which production, and with one press all of it. */
export function TakeIn({ reader, here, whole = false, children }: TakeInProps) {
  const navigate = useNavigate()
  const send = useSend(cardsApi.look)
  const { data } = useProductions()
  const [chosen, setChosen] = useState<string>()
  const [typed, setTyped] = useState<string>()
  const { id, proposed, looking, stay } = reader
  const listed = (data?.rows ?? []).map(({ id: value, title }) => ({ value, label: title }))
  const own = proposed?.production
  const productions =
    own && !listed.some(({ value }) => value === own.id) ? [{ value: own.id, label: own.title }, ...listed] : listed
  const target = chosen ?? own?.id ?? (listed.length === 1 ? listed[0]?.value : undefined)
  const label = typed ?? proposed?.label ?? ''
  const busy = looking || send.isPending
  const take = async (copy: boolean) => {
    if (target === undefined) return
    const sent = { params: { id }, body: { productionId: target, label, copy, stay } }
    // The line that was pressed goes as soon as the scan begins, often before its answer comes: the answer leads on all
    // the same.
    const begun = await send.mutateAsync(sent).catch(() => undefined)
    if (!begun) return
    setTyped(undefined)
    if (copy) void navigate(`/p/${target}/copies?take=${id}&look=${begun.taskId}`)
    else if (target !== here) void navigate(`/p/${target}/cards`)
  }
  return (
    <>
      {whole && (
        <Field
          label="Call it"
          className="-mb-[1.375rem] w-44"
          maxLength={80}
          value={label}
          onChange={(event) => setTyped(event.target.value)}
        />
      )}
      {productions.length > 1 && (
        <Choice
          walk={`for ${id}`}
          label="For which production"
          hideLabel={!whole}
          className="w-56"
          value={target ?? ''}
          placeholder="Choose a production"
          isNext={target === undefined}
          onChange={setChosen}
          options={productions}
        />
      )}
      <Button look="primary" data-take-in disabled={busy || target === undefined} onClick={() => void take(true)}>
        Take it in
        <kbd className="figure font-normal max-sm:hidden" aria-hidden>
          c
        </kbd>
      </Button>
      {whole && (
        <Button data-walk={`scan ${id}`} disabled={busy || target === undefined} onClick={() => void take(false)}>
          Scan the card
        </Button>
      )}
      {children}
      <Trouble error={send.error} />
    </>
  )
}
