import { refreshLines } from '../../facts/chart'
import { AT_ONCE, broughtUpToDate } from '../rules/chartLines'
import type { Job, Work, WorkEnd } from '../work'

/** Reckons every line of the chart that is due, as after another rule for many loads. */
export const chart: Job<'chart'> = { kind: 'chart', run: runChart }

async function runChart({ db, host, control }: Work): Promise<WorkEnd> {
  let loads = 0
  for (;;) {
    await control.gate()
    const done = await refreshLines(db, host, AT_ONCE)
    if (done === 0) return { sentence: broughtUpToDate(loads), troubles: [] }
    loads += done
  }
}
