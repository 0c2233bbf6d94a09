import { useState } from 'react'
import { formatBytes } from '../../core/units/quantity'
import { cardsApi, type ClipView } from '../../contract/cards'
import { gearApi, type ModeBody } from '../../contract/gear'
import { call, type ApiProblem } from '../parts/asking/api'
import { Button } from '../parts/controls/Button'
import { Choice } from '../parts/controls/Choice'
import { ClipChoice } from '../trade/ClipChoice'
import { useProductions } from '../trade/queries'
import { Trouble } from '../parts/Trouble'
import { useAsk } from '../parts/asking/useAsk'

/** Takes the figures of a mode from a clip that was filmed in it. Nothing while no clip was ever scanned. */
export function FromClip({ onMode }: { onMode: (mode: ModeBody) => void }) {
  const { data: productions } = useProductions()
  const filmed = (productions?.rows ?? []).filter(
    (one) => one.line.find((status) => status.station === 'cards')?.state !== 'empty',
  )
  const [production, setProduction] = useState<string>()
  const productionId = production ?? filmed[0]?.id
  const [clip, setClip] = useState<ClipView>()
  const { data } = useAsk(
    cardsApi.clips,
    { id: productionId ?? '' },
    { query: { show: 'all', limit: 1 }, enabled: productionId !== undefined },
  )
  const [error, setError] = useState<ApiProblem | null>(null)
  const chosen = clip ?? data?.rows[0]
  if (!productionId || !chosen) return null
  const take = () =>
    call(gearApi.modeOfClip, { params: { id: chosen.id } })
      .then((mode) => {
        setError(null)
        onMode(mode)
      })
      .catch((problem: unknown) => setError(problem as ApiProblem))
  return (
    <div className="mb-4 border-b border-rule pb-4">
      <div className="flex flex-wrap items-end gap-3">
        {filmed.length > 1 && (
          <Choice
            label="Production"
            className="w-48"
            value={productionId}
            onChange={(id) => {
              setProduction(id)
              setClip(undefined)
            }}
            options={filmed.map((one) => ({ value: one.id, label: one.title }))}
          />
        )}
        <ClipChoice
          label="Clip"
          className="w-64"
          productionId={productionId}
          from={{ show: 'all' }}
          value={chosen}
          onChange={setClip}
          words={(one) => `${one.name}, ${formatBytes(one.sizeBytes)}`}
        />
        <Button onClick={() => void take()}>Take its figures</Button>
      </div>
      <Trouble error={error} />
    </div>
  )
}
