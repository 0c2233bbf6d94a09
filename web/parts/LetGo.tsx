import { Unplug } from 'lucide-react'
import { stateApi } from '../../contract/state'
import { Button } from './Button'
import { Trouble } from './Trouble'
import { useSend } from './useSend'

interface LetGoProps {
  readonly what: 'reader' | 'volume'
  readonly id: string
  readonly name: string
  readonly short?: boolean
}

/** Waits until everything is written, unmounts, and says that it may be pulled out, or who holds it. */
export function LetGo({ what, id, name, short = false }: LetGoProps) {
  const send = useSend(what === 'reader' ? stateApi.letGoOfReader : stateApi.letGoOfVolume)
  return (
    <>
      <Button
        look={short ? 'quiet' : 'plain'}
        className={short ? '!px-1.5' : ''}
        disabled={send.isPending}
        aria-label={`Let go of ${name}`}
        onClick={() => send.mutate({ params: { id } })}
      >
        <Unplug className="size-4" aria-hidden />
        <span className={short ? 'max-lg:sr-only' : ''}>{send.isPending ? 'Letting go …' : 'Let go'}</span>
      </Button>
      {send.data && (
        <span role="status" className="block text-sm whitespace-normal text-good">
          {send.data.sentence}
        </span>
      )}
      <Trouble error={send.error} />
    </>
  )
}
