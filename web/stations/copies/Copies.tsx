import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { Link } from 'react-router'
import type { LoadCopies } from '../../../contract/copies'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { CardFirst } from '../../trade/CardFirst'
import { Empty } from '../../parts/Empty'
import { Older } from '../../parts/table/Older'
import { LoadPanel } from './LoadPanel'
import { RuleHere } from './RuleHere'
import { useCopies } from './queries'
import { LookOf, TakingIn, useTakenIn } from './TakingIn'

const urgency = (load: LoadCopies) =>
  load.formattedAt ? 3 : load.clear.clear ? 2 : load.copies.filter((copy) => copy.mark >= 2).length >= 2 ? 1 : 0

/** The card that the answer is about. */
function askedName({ label, twins, asked }: LoadCopies): string {
  const backup = twins.find((one) => one.id === asked)
  return backup ? `“${backup.name}”, the backup card of “${label}”` : `“${label}”`
}

function NothingYet({ productionId }: { productionId: string }) {
  return (
    <Empty title="Nothing to copy yet." shows="copies" action={<CardFirst productionId={productionId} />}>
      Here a load is copied to two volumes at once, read back from each and compared, until one glance answers: is it
      copied, is it proved, may the card be formatted?
    </Empty>
  )
}

/** Station 3: is it copied, is it proved, may the card be formatted? */
export default function Copies({ productionId }: { productionId: string }) {
  const query = useCopies(productionId)
  const [chosen, setChosen] = useState<string>()
  const takenIn = useTakenIn()
  return (
    <Ask query={query}>
      {({ rows: loads }) => {
        const sorted = [...loads].sort((a, b) => urgency(a) - urgency(b))
        if (takenIn.looking) return <TakingIn taken={takenIn} />
        const load = loads.find((one) => one.loadId === (chosen ?? takenIn.loadId)) ?? sorted[0]
        if (!load) {
          return (
            <>
              <LookOf taken={takenIn} loads={loads} />
              <NothingYet productionId={productionId} />
            </>
          )
        }
        return (
          <>
            <LookOf taken={takenIn} loads={loads} />
            <Answer why={load.clear.caution} walk={`answer ${load.loadId}`}>
              {load.formattedAt || load.saidButThere || load.checking
                ? load.clear.sentence
                : `Clear to format ${askedName(load)}? ${load.clear.sentence}`}
            </Answer>
            {loads.length > 1 ? (
              <Tabs.Root value={load.loadId} onValueChange={setChosen} activationMode="manual">
                <Tabs.List aria-label="Loads" className="mb-5 flex flex-wrap gap-2">
                  {sorted.map((one) => (
                    <Tabs.Trigger
                      key={one.loadId}
                      value={one.loadId}
                      data-walk={one.loadId === load.loadId ? undefined : `load ${one.loadId}`}
                      className="min-h-8 rounded-box border border-rule px-3 py-1 font-semibold data-[state=active]:border-ink data-[state=active]:bg-wash"
                    >
                      {one.label}{' '}
                      <span className="font-normal text-quiet">
                        {one.formattedAt
                          ? 'formatted'
                          : one.checking
                            ? 'checking …'
                            : one.clear.clear
                              ? 'clear'
                              : 'not clear'}
                      </span>
                    </Tabs.Trigger>
                  ))}
                </Tabs.List>
                <Tabs.Content value={load.loadId} key={load.loadId} tabIndex={-1}>
                  <LoadPanel load={load} productionId={productionId} taken={load.loadId === takenIn.loadId} />
                </Tabs.Content>
              </Tabs.Root>
            ) : (
              <LoadPanel
                key={load.loadId}
                load={load}
                productionId={productionId}
                taken={load.loadId === takenIn.loadId}
              />
            )}
            <Older pages={query}>Show older loads</Older>
            <p className="mt-6">
              <Link to={`/print/${productionId}/copies`} className="text-accent underline underline-offset-4">
                The copy chart of all loads, for printing
              </Link>
              <Link to={`/chart?production=${productionId}`} className="ml-6 text-accent underline underline-offset-4">
                On the chart of everything
              </Link>
            </p>
            <RuleHere load={load} productionId={productionId} />
          </>
        )
      }}
    </Ask>
  )
}
