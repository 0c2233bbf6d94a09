import { useSearchParams } from 'react-router'
import { listsApi } from '../../../../contract/lists'
import { useAsk } from '../../../parts/asking/useAsk'
import { usePages } from '../../../parts/table/usePages'

export const useChecks = () => usePages(listsApi.checks, {})
export const useWritten = () => usePages(listsApi.written, {})
export const useNear = (path: string) =>
  useAsk(listsApi.near, {}, { query: { path }, enabled: path.startsWith('/'), retry: false })

/** The folder and the comparison that the address names. */
export function useListAddress() {
  const [params, setParams] = useSearchParams()
  const show = (check: string) => setParams(check === '' ? {} : { check }, { replace: true })
  return { folder: params.get('folder') ?? '', check: params.get('check') ?? '', show }
}
