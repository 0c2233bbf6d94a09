import { useInfiniteQuery, type InfiniteData } from '@tanstack/react-query'
import { useEffect } from 'react'
import { addressOf, type Endpoint, type Params } from '../../../contract/endpoint'
import { MOST_ROWS, type Page, type PageAsked } from '../../../contract/page'
import { call, type ApiProblem } from '../asking/api'

/** The pages of a list that were asked for so far, as one. */
export interface Pages<Row, First> {
  readonly rows: readonly Row[]
  /** The newest first page, with what it says of the whole list. */
  readonly first: First
}

export interface MorePages {
  readonly hasNextPage: boolean
  readonly isFetchingNextPage: boolean
  readonly fetchNextPage: () => unknown
}

/** Asks for the next page when the last row in sight comes near the end of those that are there. */
export function useNextPage(
  { hasNextPage, isFetchingNextPage, fetchNextPage }: MorePages,
  lastInSight: number,
  rows: number,
) {
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && lastInSight > rows - NEAR) void fetchNextPage()
  }, [hasNextPage, isFetchingNextPage, fetchNextPage, lastInSight, rows])
}

/** Rows before the end at which the next page is asked for, so that nobody waits for it. */
const NEAR = 30

interface PagesOptions<Query, Answer> {
  readonly query?: Partial<Query>
  /** How soon to ask again by itself, in milliseconds. */
  readonly again?: (pages: readonly Answer[]) => number | false
  /** Which showing of the page it is asked for: what an earlier one was told is not shown in it. */
  readonly showing?: number
  readonly enabled?: boolean
}

/** Asks for a list page by page. What it shows while another filter is asked is the list before. */
export function usePages<Path extends string, Query extends PageAsked, Answer extends Page<unknown>>(
  endpoint: Endpoint<Path, undefined, Query, Answer>,
  params: Params<Path>,
  { query = {}, again, showing, enabled = true }: PagesOptions<Query, Answer> = {},
) {
  const ask = (more: Partial<PageAsked>) => call(endpoint, { params, query: { ...query, ...more } })
  const answer = useInfiniteQuery({
    queryKey: [
      endpoint.topics[0],
      addressOf(endpoint, params, query),
      'pages',
      ...(showing === undefined ? [] : [showing]),
    ],
    queryFn: ({ pageParam }) => ask(pageParam === undefined ? {} : { after: pageParam }),
    enabled,
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last: Answer) => last.next ?? undefined,
    select: joined<Answer>,
    placeholderData: (before: InfiniteData<Answer, string | undefined> | undefined) =>
      showing === undefined ? before : undefined,
    ...(showing !== undefined && { gcTime: 0 }),
    refetchInterval: ({ state }) => again?.(state.data?.pages ?? []) ?? false,
  })
  /** Every row of the list, asked for anew from its beginning. Rejects with an ApiProblem. */
  async function all(): Promise<readonly Answer['rows'][number][]> {
    const rows: Answer['rows'][number][] = []
    for (let after: string | undefined; ;) {
      const page = await ask({ limit: MOST_ROWS, ...(after === undefined ? {} : { after }) })
      rows.push(...page.rows)
      if (page.next === null) return rows
      after = page.next
    }
  }
  return { ...answer, error: answer.error as ApiProblem | null, all }
}

function joined<Answer extends Page<unknown>>({
  pages,
}: InfiniteData<Answer, string | undefined>): Pages<Answer['rows'][number], Answer> {
  const [first] = pages
  if (!first) throw new Error('a list has at least one page')
  return { rows: pages.length === 1 ? first.rows : pages.flatMap((page) => page.rows), first }
}
