import { useEffect } from 'react'
import { useBlocker } from 'react-router'
import type { ApiProblem } from '../asking/api'
import { Button } from '../controls/Button'
import { Confirm } from './Confirm'
import { Trouble } from '../Trouble'

/** What is asked before something that was typed and not kept is gone. */
export const UNKEPT = {
  title: 'Leave without saving?',
  about: 'What you changed here is not saved yet.',
  leave: 'Leave it',
} as const

/** Asks before a page is left on which something was changed and not kept. */
export function Leaving({ when }: { when: boolean }) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => when && currentLocation.pathname !== nextLocation.pathname,
  )
  useEffect(() => {
    if (!when) return
    const ask = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [when])
  if (blocker.state !== 'blocked') return null
  return (
    <Confirm
      title={UNKEPT.title}
      about={UNKEPT.about}
      action={UNKEPT.leave}
      onAction={blocker.proceed}
      busy={false}
      error={null}
      onClose={blocker.reset}
    >
      {null}
    </Confirm>
  )
}

interface OutdatedProps {
  readonly send: { readonly error: ApiProblem | null; readonly reset: () => void }
  readonly onLook: () => void
}

/** What went wrong where a page was to be kept, and the way to what another window kept meanwhile. */
export function Outdated({ send: { error, reset }, onLook }: OutdatedProps) {
  const look = () => {
    onLook()
    reset()
  }
  return (
    <>
      <Trouble error={error} />
      {error?.problem.type === '/problems/changed-elsewhere' && (
        <Button className="mb-5" onClick={look}>
          Show it as it is now
        </Button>
      )}
    </>
  )
}
