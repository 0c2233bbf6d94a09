import type { InferType, Schema } from 'yup'
import type { Topic } from './topics'

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

/** 200 answers, 201 something was made, 202 a task was ordered, 204 it is done and there is nothing to say. */
export type GoodStatus = 200 | 201 | 202 | 204

/** The names after colons in a path: `'id' | 'clipId'` for `/loads/:id/clips/:clipId`. */
export type ParamNames<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamNames<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never

/** Values for them; each is an id. */
export type Params<Path extends string> = Readonly<Record<ParamNames<Path>, string>>

/**
 * One endpoint of the API: the server routes by it, the browser calls by it, and no path is written twice. Paths lie
 * under `/api`.
 */
export interface Endpoint<Path extends string = string, Body = unknown, Query = unknown, Answer = unknown> {
  readonly method: Method
  readonly path: Path
  readonly status: GoodStatus
  /** What is asked for, or what is changed by it. */
  readonly topics: readonly Topic[]
  /** Of the JSON that is sent along. */
  readonly body?: Schema<Body>
  /** Of the part of the address after `?`. */
  readonly query?: Schema<Query>
  /** Never there: it carries the type of the answer. */
  readonly answer?: Answer
}

type Inferred<S> = S extends Schema ? InferType<S> : undefined

/** A question: `ask<LoadView[]>()('cards', '/productions/:id/loads')`. */
export const ask =
  <Answer>() =>
  <Path extends string, Query extends Schema | undefined = undefined>(topic: Topic, path: Path, query?: Query) =>
    ({ method: 'GET', path, status: 200, topics: [topic], query }) as Endpoint<Path, undefined, Inferred<Query>, Answer>

/** A change: `order<Made>()('POST', '/volumes', { status: 201, changes: ['storage'], body: newVolume })`. */
export const order =
  <Answer = undefined>() =>
  <Path extends string, Body extends Schema | undefined = undefined>(
    method: Exclude<Method, 'GET'>,
    path: Path,
    { status = 204, changes, body }: { status?: GoodStatus; changes: readonly Topic[]; body?: Body },
  ) =>
    ({ method, path, status, topics: changes, body }) as Endpoint<Path, Inferred<Body>, undefined, Answer>

/** A picture or a film, which a page shows by its address. */
export const stream = <Path extends string, Query extends Schema | undefined = undefined>(path: Path, query?: Query) =>
  ({ method: 'GET', path, status: 200, topics: [], query }) as Endpoint<Path, undefined, Inferred<Query>, never>

/** The address of an endpoint with its names filled in: `/api/clips/6f…/frame?at=1.5`. */
export function addressOf<Path extends string, Query>(
  { path }: { readonly path: Path; readonly query?: Schema<Query> },
  params: Params<Path>,
  query?: Partial<Query>,
): string {
  const filled = path.replaceAll(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent((params as Record<string, string>)[name] ?? ''),
  )
  const asked = Object.entries((query ?? {}) as Record<string, string | number | boolean | null>).flatMap(
    ([name, value]) => (value === undefined || value === null ? [] : [[name, String(value)]]),
  )
  return `/api${filled}${asked.length > 0 ? `?${new URLSearchParams(asked).toString()}` : ''}`
}

/** What a person gets who ordered work: the task that does it. */
export interface Ordered {
  readonly taskId: string
}

/** What was made, by its id. */
export interface Made {
  readonly id: string
}
