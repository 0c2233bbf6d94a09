import type { Request, Response, Router } from 'express'
import type { Schema } from 'yup'
import { isUuid } from '../../core/units/uuid'
import type { Endpoint, ParamNames, Params } from '../../contract/endpoint'
import { sentOnce } from './sentOnce'
import { invalid, notFound, ProblemError } from './problem'
import { storableFault } from './storable'

/** What somebody asked for, as the contract wants it. */
export interface Asked<Path extends string, Body, Query> {
  readonly params: Params<Path>
  readonly body: Body
  readonly query: Query
  readonly req: Request
  readonly res: Response
}

/** Answers an endpoint with JSON. Orders that carry the same Idempotency-Key are carried out once. */
export function serve<Path extends string, Body, Query, Answer>(
  router: Router,
  endpoint: Endpoint<Path, Body, Query, Answer>,
  answer: (asked: Asked<Path, Body, Query>) => Promise<Answer>,
): void {
  route(router, endpoint, async (asked) => {
    const { req, res } = asked
    res.status(endpoint.status)
    const made = endpoint.method === 'GET' ? await answer(asked) : await sentOnce(req, () => answer(asked))
    if (made === undefined) res.end()
    else res.json(made)
  })
}

/** Answers an endpoint with something other than JSON; the handler writes it. */
export function serveStream<Path extends string, Query>(
  router: Router,
  endpoint: Endpoint<Path, undefined, Query, never>,
  send: (asked: Asked<Path, undefined, Query>) => Promise<void>,
): void {
  route(router, endpoint, send)
}

function route<Path extends string, Body, Query, Answer>(
  router: Router,
  endpoint: Endpoint<Path, Body, Query, Answer>,
  handle: (asked: Asked<Path, Body, Query>) => Promise<void>,
): void {
  const method = endpoint.method.toLowerCase() as Lowercase<typeof endpoint.method>
  router[method](endpoint.path, async (req, res) => {
    await handle({
      params: paramsOf<Path>(req),
      body: await validated(endpoint.body, req.body),
      query: await validated(endpoint.query, questionOf(req), 'casts'),
      req,
      res,
    })
  })
}

/** The names in a path are ids; anything that is no id is simply not known. */
function paramsOf<Path extends string>(req: Request): Params<Path> {
  const params = req.params as Record<ParamNames<Path>, unknown>
  if (!Object.values(params).every((id) => typeof id === 'string' && isUuid(id))) throw notFound('That')
  return Object.fromEntries(
    Object.entries(params).map(([name, id]) => [name, String(id).toLowerCase()]),
  ) as Params<Path>
}

/** Each name stands in an address once, so that every value of it is a text. */
function questionOf({ query }: Request): Record<string, unknown> {
  const twice = Object.keys(query).find((name) => typeof query[name] !== 'string')
  if (twice !== undefined) throw invalid('A name stands in the address more than once. Give it once.', twice)
  return { ...query }
}

/**
 * What was sent, as its schema wants it; throws with the first field that is wrong. Text of addresses is turned into
 * numbers.
 */
async function validated<T>(schema: Schema<T> | undefined, sent: unknown, how?: 'casts'): Promise<T> {
  const value = sent ?? (sent === null ? null : {})
  const fault = storableFault(value)
  if (fault) throw invalid(fault.sentence, fault.field)
  if (!schema) return undefined as T
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new ProblemError(422, 'invalid', 'Something is missing or wrong', 'Send a JSON object with named fields.')
  if (!how) await schema.validate(value, { strict: true })
  // What is not known is refused, never left out in silence.
  return schema.validate(value, { stripUnknown: false })
}
