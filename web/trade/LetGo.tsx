import { Unplug } from 'lucide-react'
import { useEffect } from 'react'
import { stateApi } from '../../contract/state'
import { Button } from '../parts/controls/Button'
import { Trouble } from '../parts/Trouble'
import { useSend } from '../parts/asking/useSend'

/** What is still in its place is written to again sooner or later. */
const HOLDS_MS = 60_000

/**
 * Letting go of cards or drives on one page: what came of it stays when the card or drive that it was pressed at is no
 * longer there.
 */
export function useLetGo(what: 'reader' | 'volume') {
  const { mutate, reset, isPending, variables, data, error } = useSend(
    what === 'reader' ? stateApi.letGoOfReader : stateApi.letGoOfVolume,
  )
  useEffect(() => {
    if (data === undefined || data.out) return
    const timer = setTimeout(reset, HOLDS_MS)
    return () => clearTimeout(timer)
  }, [data, reset])
  return { press: mutate, isPending, id: variables?.params.id, said: data, error }
}

export type Letting = ReturnType<typeof useLetGo>

interface LetGoProps {
  readonly letting: Pick<Letting, 'press' | 'isPending' | 'id'>
  readonly id: string
  readonly name: string
  readonly short?: boolean
}

/** Waits until everything is written and unmounts. */
export const LetGo = ({ letting, id, name, short = false }: LetGoProps) => (
  <Button
    look={short ? 'quiet' : 'plain'}
    className={short ? '!px-1.5' : ''}
    disabled={letting.isPending}
    aria-label={`Let go of ${name}`}
    onClick={() => letting.press({ params: { id } })}
  >
    <Unplug className="size-4" aria-hidden />
    <span className={short ? 'max-lg:sr-only' : ''}>
      {letting.isPending && letting.id === id ? 'Letting go …' : 'Let go'}
    </span>
  </Button>
)

interface LetGoSaidProps {
  readonly letting: Letting
  /** What is in its place now: of a card that was put in again, or a drive, it is no longer true. */
  readonly here: readonly string[]
}

/** That it may be pulled out, what is to be done first, or who holds it. */
export function LetGoSaid({ letting: { id, said, error }, here }: LetGoSaidProps) {
  const holds = said !== undefined && !(said.out && id !== undefined && here.includes(id))
  return (
    <>
      <p role="status" className={holds ? `my-3 font-bold ${said.out ? 'text-good' : 'text-doubt'}` : ''}>
        {holds && said.sentence}
      </p>
      <Trouble error={error} />
    </>
  )
}
