/** Problem details of an answer that went wrong. Source: RFC 9457. */
export interface Problem {
  /** Stable name of the kind of problem, `/problems/…`. */
  readonly type: string
  readonly title: string
  readonly status: number
  /** A sentence for a person: what is wrong and what to do. */
  readonly detail: string
  /** The field of the request that is at fault, when one is. */
  readonly field?: string
}
