import { MARK_WORDS, type Mark as MarkValue } from '../../core/copies/mark'

/**
 * The sign for how far a copy has come, after the copper roves of a clinker hull: a dot where one will go, half a
 * rove, a whole one, and one set in its frame. Told apart by shape alone at 12 px and in black and white.
 */
export function Mark({ mark, label = 'shown' }: { mark: MarkValue; label?: 'shown' | 'spoken' }) {
  const word = MARK_WORDS[mark]
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <svg viewBox="0 0 12 12" className="size-3.5 shrink-0" role="img" aria-label={`${word}, ${mark} of 3`}>
        {mark === 0 && <circle cx="6" cy="6" r="2.2" fill="none" stroke="currentColor" strokeWidth="1.2" />}
        {mark === 1 && <path d="M1 5.5h10L6 11z" fill="currentColor" />}
        {mark === 2 && <path d="m6 .8 5.2 5.2L6 11.2.8 6z" fill="currentColor" />}
        {mark === 3 && (
          <>
            <rect x=".6" y=".6" width="10.8" height="10.8" fill="none" stroke="currentColor" strokeWidth="1.2" />
            <path d="M6 2.6 9.4 6 6 9.4 2.6 6z" fill="currentColor" />
          </>
        )}
      </svg>
      {label === 'shown' && <span aria-hidden="true">{word}</span>}
    </span>
  )
}
