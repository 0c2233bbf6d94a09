import type { QueryClient, QueryFilters } from '@tanstack/react-query'

/**
 * Asks again whatever a change may have touched. A question whose first answer is still on its way is asked once more
 * when that has come: it may have been read before the change.
 */
export async function askAgain(client: QueryClient, filters: QueryFilters = {}): Promise<void> {
  const underWay = client
    .getQueryCache()
    .findAll(filters)
    .filter(({ state }) => state.data === undefined && state.fetchStatus === 'fetching')
  for (const { promise, queryKey } of underWay)
    void promise?.catch(() => undefined).then(() => client.invalidateQueries({ queryKey, exact: true }))
  await client.invalidateQueries(filters)
}
