import { copiesApi, type LoadCopies } from '../../../contract/copies'
import { Button } from '../../parts/controls/Button'
import { Hint } from '../../parts/layers/Hint'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

/** What was said by mistake is taken back; both stay written down. */
export function TakeBack({ load }: { load: LoadCopies }) {
  const send = useSend(copiesApi.unformatted)
  return (
    <div className="mb-6">
      <Button
        look={load.saidButThere ? 'primary' : 'quiet'}
        className={load.saidButThere ? '' : '!px-0'}
        disabled={send.isPending}
        onClick={() => send.mutate({ params: { id: load.loadId }, body: { twinId: load.asked } })}
      >
        It is not formatted: take that back
      </Button>
      <Trouble error={send.error} />
    </div>
  )
}

/** Reads the card whole, where comparing it at one place in each clip is not enough for somebody. */
export function ReadCard({ load, busy, wanted }: { load: LoadCopies; busy: boolean; wanted: boolean }) {
  const send = useSend(copiesApi.readCard)
  return (
    <>
      <Hint words="Reads every file of the card, and compares it with what was copied">
        <Button
          look={wanted ? 'primary' : 'plain'}
          disabled={busy || send.isPending}
          onClick={() => send.mutate({ params: { id: load.loadId } })}
        >
          Read the card whole
        </Button>
      </Hint>
      <Trouble error={send.error} />
    </>
  )
}
