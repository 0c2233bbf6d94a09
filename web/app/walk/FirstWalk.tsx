import { Popover } from 'radix-ui'
import { useEffect, useRef, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { WALK } from '../../../core/line/walk'
import { Button } from '../../parts/controls/Button'
import { isLayerOpen } from '../../parts/layers/openLayers'
import { useWalk, type Walk } from './useWalk'
import { leaveWalk } from './walking'

const LOOK_MS = 200

interface Pointed {
  readonly element: HTMLElement | undefined
  /** It leads to the page, where the step itself is done. */
  readonly isWay: boolean
  /** Something lies over the page and speaks for itself. */
  readonly isCovered: boolean
}

const NOTHING: Pointed = { element: undefined, isWay: false, isCovered: false }

const isSeen = (element: HTMLElement) => element.getClientRects().length > 0

/** What is pointed at: the control of the step, on another page the first link that leads there. */
function find({ targets, path }: Walk, pathname: string): Pointed {
  const first = (selector: string) => [...document.querySelectorAll<HTMLElement>(selector)].find(isSeen)
  const isCovered = isLayerOpen()
  const control = targets.map(first).find((element) => element !== undefined)
  if (control) return { element: control, isWay: false, isCovered }
  return { element: pathname === path ? undefined : first(`a[href="${path}"]`), isWay: true, isCovered }
}

/** Follows the page, which is drawn and changed by others, and marks what is pointed at. */
function usePointed(walk: Walk): Pointed {
  const { pathname } = useLocation()
  const [pointed, setPointed] = useState(NOTHING)
  const wanted = useRef({ walk, pathname })
  useEffect(() => {
    wanted.current = { walk, pathname }
  })
  useEffect(() => {
    const look = () => {
      const now = find(wanted.current.walk, wanted.current.pathname)
      setPointed((before) =>
        before.element === now.element && before.isCovered === now.isCovered && before.isWay === now.isWay
          ? before
          : now,
      )
    }
    const timer = setInterval(look, LOOK_MS)
    return () => clearInterval(timer)
  }, [])
  const { element } = pointed
  const isMarked = !walk.isWaiting
  useEffect(() => {
    if (!element || !isMarked) return
    element.setAttribute('data-pointed', '')
    element.scrollIntoView({ block: 'center' })
    return () => element.removeAttribute('data-pointed')
  }, [element, isMarked])
  return pointed
}

/** Five steps from the card to the answer: each is shown where it is done. It is left at any time. */
export default function FirstWalk() {
  const walk = useWalk()
  const { element, isWay, isCovered } = usePointed(walk)
  if (isCovered) return null
  if (!element || walk.isWaiting)
    return (
      <section
        aria-label="First walk"
        className="fixed inset-x-4 bottom-[calc(var(--foot,0px)+1rem)] z-30 mx-auto max-w-md rounded-box border-2 border-accent bg-sheet px-4 py-3"
      >
        <Words walk={walk} isWay={isWay && !walk.isWaiting} />
      </section>
    )
  return (
    <Popover.Root open modal={false}>
      <Popover.Anchor virtualRef={{ current: element }} />
      <Popover.Portal>
        <Popover.Content
          role="region"
          aria-label="First walk"
          sideOffset={10}
          collisionPadding={12}
          className="z-30 w-80 max-w-[calc(100vw-1.5rem)] rounded-box border-2 border-accent bg-sheet px-4 py-3 text-ink"
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <Words walk={walk} isWay={isWay} />
          <Popover.Arrow className="fill-accent" width={14} height={7} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

function Words({ walk: { number, title, why, path, isWaiting, step }, isWay }: { walk: Walk; isWay: boolean }) {
  return (
    <>
      <p className="text-sm text-quiet">
        {number} of {WALK.length}
      </p>
      <p className="font-bold" aria-live="polite">
        {title}
      </p>
      <p className="mt-0.5">{why}</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {isWay && !isWaiting && (
          <Link to={path} className="font-semibold text-accent underline underline-offset-4">
            Go there
          </Link>
        )}
        <Button look={step === 'answer' ? 'plain' : 'quiet'} className="!px-1 text-sm" onClick={leaveWalk}>
          {step === 'answer' ? 'End of the walk' : 'Leave the walk'}
        </Button>
      </div>
    </>
  )
}
