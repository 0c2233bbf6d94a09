import type { ReactNode } from 'react'

/** An empty station says what it is for and offers the first step. */
export function Empty({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <div className="max-w-2xl border-t-2 border-ink pt-4">
      <h1>{title}</h1>
      <p className="mt-2 text-quiet">{children}</p>
      {action && <div className="mt-5 flex flex-wrap gap-3">{action}</div>}
    </div>
  )
}
