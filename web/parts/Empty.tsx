import type { ReactNode } from 'react'
import { DemoPicture, type DemoPage } from './DemoPicture'

interface EmptyProps {
  readonly title: string
  readonly children: ReactNode
  readonly action?: ReactNode
  /** The page of the demo that shows what will be here. */
  readonly shows?: DemoPage
}

/** An empty station says what it is for, offers the first step, and shows what will be there. */
export function Empty({ title, children, action, shows }: EmptyProps) {
  return (
    <div className="grid items-start gap-x-10 gap-y-8 border-t-2 border-ink pt-4 lg:grid-cols-[minmax(0,28rem)_minmax(0,1fr)]">
      <div>
        <h1>{title}</h1>
        <p className="mt-2 text-quiet">{children}</p>
        {action && <div className="mt-5 flex flex-wrap gap-3">{action}</div>}
      </div>
      {shows && <DemoPicture of={shows} />}
    </div>
  )
}
