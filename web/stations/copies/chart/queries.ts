import { useQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { chartApi, MOST_LINES, type ChartAsked, type ChartLine } from '../../../../contract/chart'
import { call } from '../../../parts/asking/api'
import { askOf, useAsk } from '../../../parts/asking/useAsk'
import { useIsFresh, useShowing } from '../../../parts/asking/useShowing'
import { usePages } from '../../../parts/table/usePages'

export type Narrowed = Pick<ChartAsked, 'clientId' | 'productionId' | 'siteId' | 'volumeId' | 'year' | 'danger'>

const NAMES = { clientId: 'client', productionId: 'production', siteId: 'site', volumeId: 'volume' } as const

/** What the chart is narrowed to stands in its address, so that it can be sent on and printed. */
export function useNarrowed() {
  const [search, setSearch] = useSearchParams()
  const year = search.get('year')
  const narrowed: Narrowed = {
    clientId: search.get(NAMES.clientId) ?? '',
    productionId: search.get(NAMES.productionId) ?? '',
    siteId: search.get(NAMES.siteId) ?? '',
    volumeId: search.get(NAMES.volumeId) ?? '',
    year: year !== null && /^\d{4}$/.test(year) ? Number(year) : null,
    danger: search.has('danger'),
  }
  const narrow = (change: Readonly<Record<string, string | null>>) =>
    setSearch(
      (before) => {
        for (const [name, value] of Object.entries(change))
          if (value === null) before.delete(name)
          else before.set(name, value)
        return before
      },
      { replace: true },
    )
  return { narrowed, narrow, opened: search.get('load'), address: search.toString() }
}

export const useChartHead = () => useAsk(chartApi.head, {})
export const useChart = (narrowed: Narrowed) => usePages(chartApi.page, {}, { query: narrowed })

/** Every line, for paper. */
export const useWholeChart = (narrowed: Narrowed) =>
  useQuery({
    queryKey: ['chart', 'whole', narrowed],
    gcTime: 0,
    queryFn: async () => {
      const lines: ChartLine[] = []
      for (let after: string | undefined; ;) {
        const query = { ...narrowed, limit: MOST_LINES, ...(after === undefined ? {} : { after }) }
        const page = await call(chartApi.page, { params: {}, query })
        lines.push(...page.rows)
        if (page.next === null) return lines
        after = page.next
      }
    },
  })

/** A yes is no longer shown when it is older. */
const FRESH_MS = 45_000

/** One load, checked for this showing of it; nothing where the check is not there or has grown old. */
export function useChecked(loadId: string) {
  const showing = useShowing()
  const asked = askOf(chartApi.load, { id: loadId })
  const query = useQuery({
    ...asked,
    queryKey: [...asked.queryKey, showing],
    gcTime: 0,
    refetchInterval: ({ state }) => (state.data?.clear.clear ? 10_000 : false),
  })
  const isFresh = useIsFresh(query.dataUpdatedAt, FRESH_MS)
  return { ...query, data: isFresh && !query.isError ? query.data : undefined }
}

export const useFiles = (loadId: string, troubled: boolean) =>
  usePages(chartApi.files, { id: loadId }, { query: { troubled, limit: 30 } })
export const useJournal = (loadId: string) => usePages(chartApi.journal, { id: loadId })
