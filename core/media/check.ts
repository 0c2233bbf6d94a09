import { counted } from '../units/quantity'

/** One thing compared between what was wanted and what a real file holds. */
export interface FileCheck {
  readonly name: string
  readonly wanted: string
  readonly found: string
  readonly pass: boolean
  /** What passes may still be doubted, or have a note beside it. */
  readonly remark?: 'doubt' | 'note'
}

export const fileCheck = (name: string, pass: boolean, wanted: string, found: string): FileCheck => ({
  name,
  wanted,
  found,
  pass,
})

/** A check that passes and has something to say. */
export const remarked = (check: FileCheck, remark: 'doubt' | 'note'): FileCheck =>
  check.pass ? { ...check, remark } : check

/** A file that was decoded from end to end: as many frames as it lists, and nothing to complain of. */
export const decodedChecks = (
  listed: number,
  { frames, errors }: { readonly frames: number; readonly errors: number },
): FileCheck[] => [
  fileCheck('Decoded frames', frames === listed, String(listed), String(frames)),
  fileCheck('Decoding', errors === 0, 'no errors', counted(errors, 'error')),
]

/** What the checks come to, in words: `passes all 20 checks`, `passes, with 1 doubt`, `2 of 20 checks fail`. */
export function checksText(checks: readonly FileCheck[]): string {
  const failed = checks.filter((check) => !check.pass).length
  const doubts = checks.filter((check) => check.remark === 'doubt').length
  if (failed > 0) return `${failed} of ${checks.length} checks fail`
  return doubts > 0
    ? `fails no check, ${doubts === 1 ? '1 doubt' : `${doubts} doubts`}`
    : `passes all ${checks.length} checks`
}

/** Whether every check passed; an empty list proves nothing. */
export const allPass = (checks: readonly FileCheck[]): boolean =>
  checks.length > 0 && checks.every((check) => check.pass)
