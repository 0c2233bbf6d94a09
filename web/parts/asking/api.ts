import type { Edit } from '../../../core/units/edit'
import { EDIT_HEADER } from '../../../contract/edits'
import { addressOf, type Endpoint, type Params } from '../../../contract/endpoint'
import type { Problem } from '../../../contract/problem'
import { NEWS_HEADER } from '../../../contract/tasks'
import { editBegins, noteEdit } from './edits'
import { noteNews } from './news'

/** An answer that went wrong, with the sentence for the person. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

const UNREACHABLE: Problem = {
  type: '/problems/unreachable',
  title: 'Yendra does not answer',
  status: 503,
  detail: 'The start command is not running, or is just starting. Nothing is lost; this page goes on by itself.',
}

/** What is sent to an endpoint: the names in its path, its query and its body. */
export interface Sent<Path extends string, Body, Query> {
  readonly params: Params<Path>
  readonly query?: Partial<Query>
  readonly body?: Body
  /** One press is one key: an order that is sent twice is carried out once. */
  readonly key?: string
  /** The version of what was seen when the change began: it is refused where that is another one by now. */
  readonly seen?: string
  /** It is carried out even when the page is left meanwhile. */
  readonly outlives?: boolean
}

/** Calls an endpoint. Rejects with an ApiProblem that holds the sentence for the person. */
export async function call<Path extends string, Body, Query, Answer>(
  endpoint: Endpoint<Path, Body, Query, Answer>,
  { params, query, body, key, seen, outlives = false }: Sent<Path, Body, Query>,
): Promise<Answer> {
  const init: RequestInit =
    endpoint.method === 'GET'
      ? {}
      : {
          method: endpoint.method,
          headers: {
            'Content-Type': 'application/json',
            'Idempotency-Key': key ?? crypto.randomUUID(),
            ...(seen !== undefined && { 'If-Match': `"${seen}"` }),
          },
          body: JSON.stringify(body ?? {}),
          keepalive: outlives,
        }
  const over = endpoint.method === 'GET' ? undefined : editBegins()
  const response = await fetch(addressOf(endpoint, params, query), init).catch(() => undefined)
  noteNews(response?.headers.get(NEWS_HEADER) ?? null)
  try {
    const edit = response?.ok ? response.headers.get(EDIT_HEADER) : undefined
    if (edit) noteEdit(JSON.parse(decodeURIComponent(edit)) as Edit)
  } finally {
    // Only now, or whoever waits to take this change back would find the one before it.
    over?.()
  }
  if (!response) throw new ApiProblem(UNREACHABLE)
  if (response.status === 204) return undefined as Answer
  const answer: unknown = await response.json().catch(() => undefined)
  if (!response.ok) throw new ApiProblem((answer as Problem | undefined) ?? { ...UNREACHABLE, status: response.status })
  return answer as Answer
}
