import { useState } from 'react'
import { Ask } from '../../parts/Ask'
import { useSettings } from '../../parts/queries'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/useSend'
import type { Settings } from '../../../contract/copies'

/** When cards may be formatted: the person's policy, and where they are now. */
export function Policy() {
  const send = useSend()
  // What was just chosen shows at once; the server's answer follows.
  const [chosen, setChosen] = useState<Partial<Settings>>({})
  return (
    <Ask query={useSettings()}>
      {(known) => {
        const settings = { ...known, ...chosen }
        const keep = (change: Partial<Settings>) => {
          setChosen({ ...chosen, ...change })
          send.mutate(
            { method: 'PUT', path: '/settings', body: { ...settings, ...change } },
            { onSettled: () => setChosen({}) },
          )
        }
        return (
          <fieldset className="mt-10 max-w-2xl border-t border-rule pt-4">
            <legend className="pr-3 font-bold">Your rule for formatting</legend>
            <label className="flex items-start gap-2.5 py-1">
              <input
                type="radio"
                name="policy"
                className="mt-1.5"
                checked={settings.policy === 'at-home-only'}
                onChange={() => keep({ policy: 'at-home-only' })}
              />
              <span>
                <strong>At home only.</strong> Cards are formatted at your own desk. Carry enough of them.
              </span>
            </label>
            <label className="flex items-start gap-2.5 py-1">
              <input
                type="radio"
                name="policy"
                className="mt-1.5"
                checked={settings.policy === 'reuse-on-the-job'}
                onChange={() => keep({ policy: 'reuse-on-the-job' })}
              />
              <span>
                <strong>Reuse on the job.</strong> For all-day shoots with too few cards: two verified copies, one
                played with the card out. A wrong format here loses a day that cannot be filmed again.
              </span>
            </label>
            {settings.policy === 'at-home-only' && (
              <label className="mt-2 flex items-center gap-2.5">
                <input
                  type="checkbox"
                  checked={settings.atHome}
                  onChange={(event) => keep({ atHome: event.target.checked })}
                />
                I am at my own desk now
              </label>
            )}
            <label className="mt-2 flex items-start gap-2.5">
              <input
                type="checkbox"
                className="mt-1.5"
                checked={settings.acceptMemory}
                onChange={(event) => keep({ acceptMemory: event.target.checked })}
              />
              <span>
                A copy that could only be read back through memory passes for verified. Shares and drives in memory
                answer so; the medium itself may still hold something else.
              </span>
            </label>
            <label className="mt-2 flex flex-wrap items-center gap-2.5">
              <span>A proof counts for</span>
              <select
                className="min-h-9 rounded-box border border-rule bg-sheet px-2 py-1"
                value={settings.proofHours}
                onChange={(event) => keep({ proofHours: Number(event.target.value) })}
              >
                {[...new Set([12, 24, 48, 72, 168, settings.proofHours])]
                  .sort((a, b) => a - b)
                  .map((hours) => (
                    <option key={hours} value={hours}>
                      {hours} hours
                    </option>
                  ))}
              </select>
            </label>
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
