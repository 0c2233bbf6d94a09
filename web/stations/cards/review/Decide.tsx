import { X } from 'lucide-react'
import { useEffect, useState, type RefObject } from 'react'
import { VERDICTS, type ClipRange, type ClipReview } from '../../../../core/cards/review/review'
import { secondsOfFrames, type FrameRate } from '../../../../core/units/frameRate'
import { formatLength } from '../../../../core/units/quantity'
import type { ReviewClip } from '../../../../contract/review'
import type { Shot } from '../../../../core/shoot/shots'
import { Button } from '../../../parts/controls/Button'
import { Choice } from '../../../parts/controls/Choice'
import { IconButton } from '../../../parts/controls/IconButton'
import { REVIEW } from '../../../parts/shortcuts'
import { clock } from './marks'
import { VERDICT_WORDS, VerdictMark } from './VerdictMark'

interface DecideProps {
  readonly clip: ReviewClip
  readonly review: ClipReview
  readonly ticks: FrameRate
  readonly noteBox: RefObject<HTMLTextAreaElement | null>
  readonly shots: readonly Shot[]
  /** The one that no clip has been found for yet. */
  readonly nextShot: Shot | undefined
  readonly onChange: (patch: Partial<ClipReview>) => void
  readonly onGo: (range: ClipRange) => void
  /** Where a piece was begun whose end is not set yet. */
  readonly begun: number | undefined
  /** A piece begins, or ends, with the frame that is shown. */
  readonly onBegin: () => void
  readonly onEnd: () => void
}

/** A choice cannot be empty. */
const NO_SHOT = 'none'

/** What is said of a clip: whether it is kept, which pieces of it, and a note. */
export function Decide(props: DecideProps) {
  const { clip, review, noteBox, onChange } = props
  return (
    <section aria-label={`What is said of ${clip.name}`} className="min-w-0">
      <div role="group" aria-label="Verdict" className="grid grid-cols-3 gap-2">
        {VERDICTS.map((verdict) => {
          const chosen = review.verdict === verdict
          return (
            <Button
              key={verdict}
              aria-pressed={chosen}
              aria-keyshortcuts={REVIEW[verdict].shown}
              className={`!px-2 ${chosen ? '!border-accent bg-wash' : ''}`}
              onClick={() => onChange({ verdict: chosen ? null : verdict })}
            >
              <VerdictMark verdict={verdict} />
              {VERDICT_WORDS[verdict]}
            </Button>
          )
        })}
      </div>
      {clip.files.length > 1 && (
        <p className="mt-2 text-sm text-quiet">
          One take in {clip.files.length} files
          {clip.files.some(({ loadId }) => loadId !== clip.loadId) && `, on ${clip.loadLabel}`}: it is kept or left as a
          whole.
        </p>
      )}
      <Ranges {...props} />
      <ShotOf {...props} />
      <Note key={clip.id} value={review.note} box={noteBox} onKeep={(note) => onChange({ note })} />
    </section>
  )
}

/** The pieces of a clip that are wanted. */
function Ranges({ clip, review, ticks, begun, onBegin, onEnd, onChange, onGo }: DecideProps) {
  return (
    <>
      <h2 className="mt-5 border-b border-ink pb-1 text-base font-bold">Ranges</h2>
      <div role="group" aria-label="A piece" className="mt-2 grid grid-cols-2 gap-2">
        <Button
          aria-pressed={begun !== undefined}
          aria-keyshortcuts={REVIEW.begin.shown}
          disabled={clip.length === 0}
          className={`!px-2 ${begun !== undefined ? '!border-accent bg-wash' : ''}`}
          onClick={onBegin}
        >
          Begins here
        </Button>
        <Button aria-keyshortcuts={REVIEW.end.shown} disabled={clip.length === 0} className="!px-2" onClick={onEnd}>
          Ends here
        </Button>
      </div>
      {begun !== undefined && <p className="py-2 text-sm text-quiet">Begun at {clock(begun, ticks)}.</p>}
      {review.ranges.length === 0 && begun === undefined ? (
        <p className="py-2 text-sm text-quiet">
          The whole clip. By keys: <kbd className="figure">{REVIEW.begin.shown}</kbd> where a piece begins,{' '}
          <kbd className="figure">{REVIEW.end.shown}</kbd> where it ends.
        </p>
      ) : (
        <ol aria-label="Ranges">
          {review.ranges.map((range) => (
            <li key={range.from} className="flex items-center gap-1 border-b border-rule">
              <button
                type="button"
                className="figure grow cursor-pointer py-1.5 text-left text-sm hover:underline"
                onClick={() => onGo(range)}
              >
                {clock(range.from, ticks)} – {clock(range.to - 1, ticks)}
                <span className="block font-sans text-quiet">
                  {formatLength(secondsOfFrames(range.to - range.from, ticks))}
                </span>
              </button>
              <IconButton
                icon={X}
                label={`Remove the range from ${clock(range.from, ticks)}`}
                onClick={() => onChange({ ranges: review.ranges.filter((one) => one !== range) })}
              />
            </li>
          ))}
        </ol>
      )}
    </>
  )
}

/** Which shot of the list a clip is. */
function ShotOf({ review, shots, nextShot, onChange }: DecideProps) {
  const expected = review.shotId === null && review.verdict !== 'reject' ? nextShot : undefined
  return (
    <>
      {shots.length > 0 && (
        <Choice
          label="Shot"
          className="mt-5"
          value={review.shotId ?? NO_SHOT}
          options={[
            { value: NO_SHOT, label: 'None of the list' },
            ...shots.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(value) => onChange({ shotId: value === NO_SHOT ? null : value })}
        />
      )}
      {expected && (
        <p className="mt-1 flex flex-wrap items-center gap-x-2 text-sm text-quiet">
          Next on the list: {expected.name}
          <Button look="quiet" className="!min-h-7 !px-1" onClick={() => onChange({ shotId: expected.id })}>
            It is this one
          </Button>
        </p>
      )}
    </>
  )
}

interface NoteProps {
  readonly value: string
  readonly box: RefObject<HTMLTextAreaElement | null>
  readonly onKeep: (note: string) => void
}

const REST_MS = 600

/** Kept when nobody types any more, and when it is left. */
function Note({ value, box, onKeep }: NoteProps) {
  const [typed, setTyped] = useState<string>()
  useEffect(() => {
    if (typed === undefined || typed === value) return
    const timer = setTimeout(() => onKeep(typed), REST_MS)
    return () => clearTimeout(timer)
  }, [typed, value, onKeep])
  return (
    <label className="mt-5 block">
      <span className="mb-1 block text-sm font-semibold">Note</span>
      <textarea
        ref={box}
        rows={3}
        maxLength={2000}
        className="w-full rounded-box border border-rule bg-sheet px-2.5 py-1.5"
        value={typed ?? value}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => typed !== undefined && typed !== value && onKeep(typed)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') event.currentTarget.blur()
        }}
      />
    </label>
  )
}
