/** What a finding of a check by a list says, the gravest first. */
export const LIST_FINDINGS = [
  'different',
  'unsteady',
  'missing',
  'unreadable',
  'changed',
  'no-file',
  'refused',
  'unknown-algorithm',
  'no-line',
  'bag',
  'extra',
  'elsewhere',
] as const
export type ListFinding = (typeof LIST_FINDINGS)[number]
