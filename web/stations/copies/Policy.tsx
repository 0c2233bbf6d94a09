import { useState } from 'react'
import { Ask } from '../../parts/asking/Ask'
import { Choice } from '../../parts/controls/Choice'
import { OneOf } from '../../parts/controls/OneOf'
import { Switch } from '../../parts/controls/Switch'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { copiesApi, type Settings } from '../../../contract/copies'
import { useSettings } from './queries'

const USUAL_HOURS = [12, 24, 48, 72, 168]

const POLICIES = [
  {
    value: 'at-home-only',
    words: (
      <>
        <strong>At home only.</strong> Cards are formatted at your own desk. Carry enough of them.
      </>
    ),
  },
  {
    value: 'reuse-on-the-job',
    words: (
      <>
        <strong>Reuse on the job.</strong> For all-day shoots with too few cards: two verified copies, one played with
        the card out. A wrong format here loses a day that cannot be filmed again.
      </>
    ),
  },
] as const

/** When cards may be formatted: the person's policy, and where they are now. */
export function Policy() {
  const send = useSend(copiesApi.setSettings)
  // What was just chosen shows at once; the server's answer follows.
  const [chosen, setChosen] = useState<Partial<Settings>>({})
  return (
    <Ask query={useSettings()}>
      {(known) => {
        const settings = { ...known, ...chosen }
        const keep = (change: Partial<Settings>) => {
          setChosen({ ...chosen, ...change })
          send.mutate({ params: {}, body: { ...settings, ...change } }, { onSettled: () => setChosen({}) })
        }
        return (
          <fieldset className="mt-10 max-w-2xl border-t border-rule pt-4">
            <legend className="pr-3 font-bold">Your rule for formatting</legend>
            <OneOf
              label="Your rule for formatting"
              value={settings.policy}
              onChange={(policy) => keep({ policy })}
              options={POLICIES}
            />
            {settings.policy === 'at-home-only' && (
              <Switch className="mt-2" on={settings.atHome} onChange={(atHome) => keep({ atHome })}>
                I am at my own desk now
              </Switch>
            )}
            <Switch className="mt-2" on={settings.acceptMemory} onChange={(acceptMemory) => keep({ acceptMemory })}>
              Count a copy as verified even if it could only be read back from memory. Network shares and memory drives
              answer from memory: the drive itself may still hold something else.
            </Switch>
            <Choice
              label="A proof counts for"
              className="mt-3 w-44"
              value={String(settings.proofHours)}
              onChange={(hours) => keep({ proofHours: Number(hours) })}
              options={[...new Set([...USUAL_HOURS, settings.proofHours])]
                .sort((a, b) => a - b)
                .map((hours) => ({ value: String(hours), label: `${hours} hours` }))}
            />
            <p className="mt-1 text-quiet">
              After that a sample is read again first, and a drive that cannot be seen counts no more.
            </p>
            <Trouble error={send.error} />
          </fieldset>
        )
      }}
    </Ask>
  )
}
