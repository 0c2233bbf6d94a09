import type { ReactNode } from 'react'

interface AnswerProps {
  readonly children: ReactNode
  readonly why?: ReactNode
  readonly action?: ReactNode
  /** In one line, where the room is for a picture. */
  readonly slim?: boolean
  /** What the first walk calls it. */
  readonly walk?: string
}

/** Top of every screen: the answer in one sentence, why, and what to do. */
export function Answer({ children, why, action, slim = false, walk }: AnswerProps) {
  return (
    <div className={`flex flex-wrap items-end justify-between gap-x-8 ${slim ? 'mb-3 gap-y-2' : 'mb-6 gap-y-4'}`}>
      <div className={slim ? 'min-w-0 flex-[1_1_24rem]' : 'max-w-3xl'}>
        <h1 className={slim ? 'text-xl' : 'w-fit'} data-walk={walk}>
          {children}
        </h1>
        {why && <p className={slim ? 'text-sm text-quiet' : 'mt-1.5 text-quiet'}>{why}</p>}
      </div>
      {action && <div className="flex flex-wrap items-center gap-3">{action}</div>}
    </div>
  )
}
