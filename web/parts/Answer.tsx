import type { ReactNode } from 'react'

/** Top of every screen: the answer in one sentence, why, and what to do. */
export function Answer({ children, why, action }: { children: ReactNode; why?: ReactNode; action?: ReactNode }) {
  return (
    <div className="mb-6 flex flex-wrap items-end justify-between gap-x-8 gap-y-4">
      <div className="max-w-3xl">
        <h1>{children}</h1>
        {why && <p className="mt-1.5 text-quiet">{why}</p>}
      </div>
      {action && <div className="flex flex-wrap items-center gap-3">{action}</div>}
    </div>
  )
}
