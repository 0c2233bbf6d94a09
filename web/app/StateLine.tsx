import { useState } from 'react'
import { stateApi } from '../../contract/state'
import { Button } from '../parts/controls/Button'
import { useAsk } from '../parts/asking/useAsk'

const AGAIN_MS = 15_000

/** What goes on and what waits, in one sentence, asked again while something does. */
export const useStateNow = () => useAsk(stateApi.state, {}, { refetchInterval: AGAIN_MS })

/** What must be known of this computer: it slept, or its disk is nearly full. */
export function Notices() {
  const { data } = useStateNow()
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set())
  const open = (data?.notices ?? []).filter((notice) => !seen.has(notice))
  return open.map((notice) => (
    <p
      key={notice}
      role="status"
      data-screen-only
      className="mb-3 flex items-center justify-between gap-4 border-l-4 border-doubt bg-sheet px-3 py-2"
    >
      {notice}
      <Button look="quiet" onClick={() => setSeen(new Set([...seen, notice]))}>
        I have read it
      </Button>
    </p>
  ))
}
