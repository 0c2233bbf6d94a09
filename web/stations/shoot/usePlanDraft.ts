import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { RecordingPlan } from '../../../core/shoot/plan'
import { shootApi, type PlanView } from '../../../contract/shoot'
import { call, type ApiProblem } from '../../parts/asking/api'
import { askAgain } from '../../parts/asking/askAgain'
import { editBegins } from '../../parts/asking/edits'

/** So long nobody types before a plan is kept. */
const REST_MS = 500

export interface PlanDraft {
  readonly plan: RecordingPlan
  readonly change: (next: (plan: RecordingPlan) => RecordingPlan) => void
  readonly state: 'kept' | 'waiting' | 'keeping'
  readonly error: ApiProblem | null
  /** Forgets what could not be kept, and shows the plan as it is. */
  readonly reload: () => void
}

const bodyOf = (plan: RecordingPlan, version: number) => ({
  version,
  takes: [...plan.takes],
  cameras: plan.cameras.map((one) => ({ ...one, cardIds: [...one.cardIds] })),
})

/**
 * A plan under the fingers: everything follows at once, and it is kept as soon as nobody types. Two windows cannot
 * overwrite each other: a plan goes by its version.
 */
export function usePlanDraft(productionId: string, view: PlanView): PlanDraft {
  const client = useQueryClient()
  const [draft, setDraft] = useState<RecordingPlan>()
  const [state, setState] = useState<PlanDraft['state']>('kept')
  const [error, setError] = useState<ApiProblem | null>(null)
  /** The draft as the last key left it, the version it was made from, and whether some of it is not kept yet. */
  const own = useRef({ plan: undefined as RecordingPlan | undefined, version: 0, dirty: false, busy: false })
  const over = useRef<() => void>(undefined)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const again = useRef<() => Promise<void>>(() => Promise.resolve())

  const keep = useCallback(async () => {
    clearTimeout(timer.current)
    const now = own.current
    if (now.busy) return
    now.busy = true
    try {
      while (now.dirty && now.plan) {
        now.dirty = false
        setState('keeping')
        const sent = { params: { id: productionId }, body: bodyOf(now.plan, now.version), outlives: true }
        now.version = (await call(shootApi.setPlan, sent)).version
      }
      setError(null)
      await Promise.all(shootApi.setPlan.topics.map((topic) => askAgain(client, { queryKey: [topic] })))
      if (!now.dirty) {
        over.current?.()
        now.plan = undefined
        setDraft(undefined)
        setState('kept')
      } else timer.current = setTimeout(() => void again.current(), REST_MS)
    } catch (problem) {
      now.dirty = true
      over.current?.()
      setError(problem as ApiProblem)
      setState('waiting')
    } finally {
      now.busy = false
    }
  }, [client, productionId])
  useEffect(() => void (again.current = keep), [keep])

  const change = useCallback<PlanDraft['change']>(
    (next) => {
      const now = own.current
      if (!now.plan) now.version = view.version
      const { takes, cameras } = now.plan ?? view
      now.plan = next({ takes, cameras })
      now.dirty = true
      over.current?.()
      over.current = editBegins()
      setDraft(now.plan)
      setState('waiting')
      clearTimeout(timer.current)
      timer.current = setTimeout(() => void keep(), REST_MS)
    },
    [view, keep],
  )

  // Whoever leaves the page in mid-sentence finds it kept.
  useEffect(() => {
    const leave = () => {
      if (own.current.dirty) void keep()
    }
    window.addEventListener('pagehide', leave)
    return () => {
      window.removeEventListener('pagehide', leave)
      leave()
    }
  }, [keep])

  const reload = () => {
    clearTimeout(timer.current)
    over.current?.()
    own.current = { plan: undefined, version: 0, dirty: false, busy: false }
    setDraft(undefined)
    setError(null)
    setState('kept')
    void askAgain(client, { queryKey: ['productions'] })
  }
  return { plan: draft ?? view, change, state, error, reload }
}
