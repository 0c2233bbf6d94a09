import { useEffect, useState } from 'react'
import { editSentence, isTakenBack } from '../../core/units/edit'
import { Button } from '../parts/controls/Button'
import { hideLatest } from '../parts/asking/edits'
import { isLayerOpen } from '../parts/layers/openLayers'
import { EVERYWHERE, shortcutOf } from '../parts/shortcuts'
import { Trouble } from '../parts/Trouble'
import { useTakeBack } from '../parts/asking/useTakeBack'
import { isTyping } from './useKeys'

const STAYS_MS = 10_000

/** What was changed just now, with the button that takes it back; Ctrl Z takes back one after the other. */
export function EditNotice() {
  const { latest, error, busy, turn, takeBack, doAgain, hide } = useTakeBack()
  const [held, setHeld] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const pressed = shortcutOf(EVERYWHERE, event)
      if ((pressed !== 'takeBack' && pressed !== 'doAgain') || isTyping(event.target) || isLayerOpen()) return
      event.preventDefault()
      if (pressed === 'takeBack') takeBack()
      else doAgain()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [takeBack, doAgain])
  useEffect(() => {
    if (!latest || held || error) return
    const timer = setTimeout(hideLatest, STAYS_MS)
    return () => clearTimeout(timer)
  }, [latest, held, error])
  return (
    <div role="status" aria-label="What was changed" className="pointer-events-none px-4 sm:px-8">
      {(latest ?? error) && (
        <div
          className="pointer-events-auto mb-2 flex w-fit flex-wrap items-center gap-x-3 rounded-box border border-ink bg-sheet px-3 py-1"
          onPointerEnter={() => setHeld(true)}
          onPointerLeave={() => setHeld(false)}
          onFocus={() => setHeld(true)}
          onBlur={() => setHeld(false)}
        >
          {error ? <Trouble error={error} /> : latest && <span>{editSentence(latest)}</span>}
          {latest && !error && (
            <Button look="quiet" className="!px-1" disabled={busy} onClick={() => turn(latest.id)}>
              {isTakenBack(latest) ? 'Do it again' : 'Take it back'}
              <kbd className="figure inline-block text-quiet no-underline max-sm:hidden">
                {EVERYWHERE[isTakenBack(latest) ? 'doAgain' : 'takeBack'].shown}
              </kbd>
            </Button>
          )}
          {error && (
            <Button look="quiet" className="!px-1" onClick={hide}>
              I have read it
            </Button>
          )}
        </div>
      )}
    </div>
  )
}
