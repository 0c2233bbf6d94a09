import { useState } from 'react'

export interface Draft<T> {
  /** What was typed, else what is kept. */
  readonly value: T
  readonly changed: boolean
  /** The version that what was typed was made from, as `Sent` wants it. */
  readonly seen: { readonly seen?: string }
  readonly change: (more: Partial<T>) => void
  /** Forgets what was typed. */
  readonly forget: () => void
}

/**
 * A page that is kept by a press: what is typed stays until then, whatever another window keeps meanwhile, and goes by
 * the version that it was made from.
 */
export function useDraft<T extends object>(kept: T, version: string): Draft<T> {
  const [draft, setDraft] = useState<{ readonly value: T; readonly seen: string }>()
  return {
    value: draft?.value ?? kept,
    changed: draft !== undefined && JSON.stringify(draft.value) !== JSON.stringify(kept),
    seen: draft ? { seen: draft.seen } : {},
    change: (more) =>
      setDraft((before) => ({ value: { ...(before?.value ?? kept), ...more }, seen: before?.seen ?? version })),
    forget: () => setDraft(undefined),
  }
}
