/** One thing compared between what was wanted and what a real file holds. */
export interface FileCheck {
  readonly name: string
  readonly wanted: string
  readonly found: string
  readonly pass: boolean
}

export const fileCheck = (name: string, pass: boolean, wanted: string, found: string): FileCheck => ({
  name,
  wanted,
  found,
  pass,
})

/** Whether every check passed; an empty list proves nothing. */
export const allPass = (checks: readonly FileCheck[]): boolean =>
  checks.length > 0 && checks.every((check) => check.pass)
