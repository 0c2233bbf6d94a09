import { useLocation } from 'react-router'
import { Sheet } from '../parts/layers/Sheet'
import { REVIEW_KEYS } from '../parts/player/reviewKeys'

const KEYS = [
  ['1 – 7', 'Go to a station of this production'],
  ['0', 'All productions'],
  ['n', 'Go to the next step; again: to its button, Enter presses it'],
  ['c', 'Take in the card that waits: read it, copy it twice, prove it'],
  ['/ or Ctrl K', 'Find anything'],
  ['?', 'These keys'],
  ['Tab, Enter, Space', 'Through everything on the page, press, choose'],
  ['Arrows', 'Move the crop window by 2 pixels, with Shift by 40; + and − change its size'],
  ['Ctrl Z', 'Take back what you changed last; with Shift do it again'],
  ['F8', 'To the news at the foot of the page; they stay while the focus is there'],
  ['Escape', 'Close what is open'],
] as const

/** The list of keys: those that work everywhere, and those of the desk that is open. */
export function KeyHelp({ onClose }: { onClose: () => void }) {
  const { pathname } = useLocation()
  return (
    <Sheet title="Keys" about="Everything works without a mouse." open onClose={onClose}>
      <KeyList keys={KEYS} />
      {pathname.endsWith('/cards/review') && (
        <>
          <h3 className="mt-6 mb-2 font-bold">Review</h3>
          <KeyList keys={REVIEW_KEYS} />
        </>
      )}
    </Sheet>
  )
}

const KeyList = ({ keys: all }: { keys: readonly (readonly [string, string])[] }) => (
  <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
    {all.map(([keys, what]) => (
      <div key={keys} className="contents">
        <dt className="figure whitespace-nowrap">{keys}</dt>
        <dd>{what}</dd>
      </div>
    ))}
  </dl>
)
