import { Link } from 'react-router'
import { proposeVolumes } from '../../../core/copies/proposal'
import { unattendedApi, type UnattendedRule } from '../../../contract/unattended'
import type { VolumeView } from '../../../contract/storage'
import { Ask } from '../../parts/asking/Ask'
import { Switch } from '../../parts/controls/Switch'
import { Tick } from '../../parts/controls/Tick'
import { Trouble } from '../../parts/Trouble'
import { useAsk } from '../../parts/asking/useAsk'
import { useAtOnce } from '../../parts/asking/useAtOnce'
import { useSend } from '../../parts/asking/useSend'

interface Here {
  readonly productionId: string
  readonly volumes: readonly VolumeView[]
}

/** The rule for the tired: off until it is switched on, here. */
export function Unattended({ productionId, volumes }: Here) {
  return (
    <section aria-labelledby="unattended" className="mt-10 max-w-3xl border-t border-rule pt-5">
      <h2 id="unattended" className="mb-1">
        While nobody watches
      </h2>
      <Ask query={useAsk(unattendedApi.one, {})}>
        {({ rule }) => <Rule rule={rule} productionId={productionId} volumes={volumes} />}
      </Ask>
    </section>
  )
}

function Rule({ rule: kept, productionId, volumes }: Here & { rule: UnattendedRule }) {
  const send = useSend(unattendedApi.set)
  const [rule, choose] = useAtOnce(kept, (body) => send.mutateAsync({ params: {}, body }))
  const isHere = rule.on && rule.productionId === productionId
  const usual = rule.volumeIds.length >= 2 && isHere ? rule.volumeIds : proposeVolumes(volumes, 0)
  const names = usual.map((id) => volumes.find((one) => one.id === id)?.name ?? 'a volume that is away')
  const put = (on: boolean, volumeIds: readonly string[]) => {
    // Asked while a hand is on it: a browser shows no notice later of its own accord.
    if (on && 'Notification' in window && Notification.permission === 'default') void Notification.requestPermission()
    choose({ on, productionId, volumeIds: [...volumeIds] })
  }
  const toggle = (id: string) => put(true, usual.includes(id) ? usual.filter((one) => one !== id) : [...usual, id])
  return (
    <>
      <p className="mb-3 text-quiet">
        A card of a camera that is known by an earlier load is scanned and copied to two volumes as soon as it appears,
        for this production. It is never said to be clear: you play a clip and decide.
      </p>
      <Switch
        className="font-semibold"
        on={isHere}
        disabled={!isHere && usual.length < 2}
        onChange={(on) => put(on, usual)}
      >
        Scan and copy cards by themselves
        {names.length >= 2 && <span className="font-normal text-quiet">, to {names.join(' and ')}</span>}
      </Switch>
      {isHere && (
        <>
          <div className="mt-3 flex flex-wrap gap-x-6 gap-y-2">
            {volumes.map((volume) => (
              <Tick key={volume.id} checked={usual.includes(volume.id)} onChange={() => toggle(volume.id)}>
                {volume.name}
              </Tick>
            ))}
          </div>
          <p className="mt-4">
            <Link to="/watch" className="font-semibold text-accent underline underline-offset-4">
              The big screen, to be read from across the room
            </Link>
          </p>
        </>
      )}
      {rule.on && !isHere && <p className="mt-2 text-doubt">It is on for another production now.</p>}
      <Trouble error={send.error} />
    </>
  )
}
