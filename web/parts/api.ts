import type { Problem } from '../../contract/problem'

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

async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new ApiProblem(UNREACHABLE)
  })
  if (response.status === 204) return undefined as T
  const body: unknown = await response.json().catch(() => undefined)
  if (!response.ok) throw new ApiProblem((body as Problem | undefined) ?? { ...UNREACHABLE, status: response.status })
  return body as T
}

export const getJson = <T>(path: string) => ask<T>(path)

export const sendJson = <T = void>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: object = {},
  key: string = crypto.randomUUID(),
) =>
  ask<T>(path, {
    method,
    headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key },
    body: JSON.stringify(body),
  })
