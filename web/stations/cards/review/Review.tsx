import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { reviewFigures, reviewSentence, unmatchedSentence, type Verdict } from '../../../../core/cards/review/review'
import { frameRate, parseFrameRate } from '../../../../core/units/frameRate'
import type { Shot } from '../../../../core/shoot/shots'
import { copiesApi } from '../../../../contract/copies'
import {
  reviewApi,
  type ReviewAsked,
  type ReviewClip,
  type TakePart,
  type WatchView,
} from '../../../../contract/review'
import { shootApi } from '../../../../contract/shoot'
import { Answer } from '../../../parts/Answer'
import { Ask } from '../../../parts/asking/Ask'
import { Button } from '../../../parts/controls/Button'
import { Choice } from '../../../parts/controls/Choice'
import { isLayerOpen } from '../../../parts/layers/openLayers'
import { DemoPicture } from '../../../parts/DemoPicture'
import { Trouble } from '../../../parts/Trouble'
import { CardFirst } from '../../../trade/CardFirst'
import { useProduction } from '../../../trade/queries'
import { useAsk } from '../../../parts/asking/useAsk'
import { usePages } from '../../../parts/table/usePages'
import { usePlayer } from '../../../parts/player/usePlayer'
import { REVIEW, shortcutOf } from '../../../parts/shortcuts'
import { useSend } from '../../../parts/asking/useSend'
import { ClipList } from './ClipList'
import { Decide } from './Decide'
import { begunAt, endedAt, rangeAt } from './marks'
import { SelectsOut } from './SelectsOut'
import { useReviews, type Reviews } from './useReviews'
import { Watch } from './Watch'

const SHOWN: readonly { value: ReviewAsked['show']; label: string }[] = [
  { value: 'all', label: 'All clips' },
  { value: 'open', label: 'Not decided' },
  { value: 'keep', label: 'Kept' },
  { value: 'maybe', label: 'Maybe' },
  { value: 'reject', label: 'Rejected' },
]

const NO_SHOTS: readonly Shot[] = []

/** The desk at which clips are looked at, one after the other, and chosen from. */
export default function Review({ productionId }: { productionId: string }) {
  const [show, setShow] = useState<ReviewAsked['show']>('all')
  const pages = usePages(reviewApi.clips, { id: productionId }, { query: { show, sort: 'recorded' } })
  const sum = useAsk(reviewApi.sum, { id: productionId })
  const [asked, setAsked] = useSearchParams()
  const reviews = useReviews()
  const { data: shots = NO_SHOTS } = useAsk(shootApi.shots, { id: productionId })
  const clips = pages.data?.rows ?? []
  // The address follows a moment later; the next key must meet the clip that is open by then.
  const [opened, setOpened] = useState(asked.get('clip'))
  const current = clips.find((clip) => clip.files.some((file) => file.clipId === opened)) ?? clips[0]
  const open = useCallback(
    (clip: ReviewClip) => {
      setOpened(clip.id)
      setAsked({ clip: clip.id }, { replace: true })
    },
    [setAsked],
  )
  const { data: production } = useProduction(productionId)
  const isNaming = production?.next.what === 'names'
  const nextOpen = nextUndecided(clips, current, reviews)
  return (
    <Ask query={sum}>
      {(total) => (
        <>
          <Answer
            slim
            why={[reviewFigures(total), unmatchedSentence(total.unmatchedShots)].filter(Boolean).join(' ')}
            action={
              total.clips > 0 && (
                <>
                  <Choice
                    label="Show"
                    hideLabel
                    className="w-40"
                    value={show}
                    onChange={(value) => setShow(value as ReviewAsked['show'])}
                    options={SHOWN}
                  />
                  <Button
                    look={isNaming ? 'plain' : 'primary'}
                    disabled={!nextOpen && !pages.hasNextPage}
                    onClick={() => (nextOpen ? open(nextOpen) : void pages.fetchNextPage())}
                  >
                    {nextOpen || !pages.hasNextPage ? 'Next undecided' : 'Show more clips'}
                  </Button>
                </>
              )
            }
          >
            {reviewSentence(total)}
          </Answer>
          <Trouble error={reviews.error} />
          <Ask query={pages}>
            {() =>
              current ? (
                <div className="grid items-start gap-x-5 gap-y-5 lg:grid-cols-[15rem_minmax(0,1fr)]">
                  <div className="order-last lg:order-none">
                    <ClipList clips={clips} pages={pages} current={current} reviews={reviews} onOpen={open} />
                  </div>
                  <OneClip
                    key={`${current.id} ${current.length}`}
                    shots={shots}
                    clip={current}
                    clips={clips}
                    reviews={reviews}
                    onOpen={open}
                  />
                </div>
              ) : (
                <NoClip productionId={productionId} isEmpty={total.clips === 0} />
              )
            }
          </Ask>
          {total.clips > 0 && <SelectsOut productionId={productionId} kept={total.keep} isNaming={isNaming} />}
        </>
      )}
    </Ask>
  )
}

function NoClip({ productionId, isEmpty }: { productionId: string; isEmpty: boolean }) {
  if (!isEmpty) return <p className="border-t border-ink py-3 text-quiet">No clip matches.</p>
  return (
    <div className="max-w-3xl space-y-5">
      <CardFirst productionId={productionId} />
      <DemoPicture of="review" />
    </div>
  )
}

/** The clip after this one, and around, that nobody has decided on. */
function nextUndecided(clips: readonly ReviewClip[], current: ReviewClip | undefined, reviews: Reviews) {
  const at = clips.findIndex((clip) => clip.id === current?.id)
  return [...clips.slice(at + 1), ...clips.slice(0, Math.max(0, at))].find((clip) => reviews.of(clip).verdict === null)
}

/** The first shot of the list for which no clip of those that are known was chosen. */
function expectedShot(shots: readonly Shot[], clips: readonly ReviewClip[], reviews: Reviews): Shot | undefined {
  const found = new Set(clips.map((clip) => reviews.of(clip).shotId))
  return shots.find((shot) => !found.has(shot.id))
}

interface OneClipProps {
  readonly shots: readonly Shot[]
  readonly clip: ReviewClip
  readonly clips: readonly ReviewClip[]
  readonly reviews: Reviews
  readonly onOpen: (clip: ReviewClip) => void
}

const NOWHERE: WatchView = { from: 'nowhere', place: '', volumeId: null, how: 'file' }
/** A copy of which so much was watched counts as played. */
const ENOUGH_SECONDS = 1

/** One clip under the hands: the film, and what is said of it. */
function OneClip({ shots, clip, clips, reviews, onOpen }: OneClipProps) {
  const [begun, setBegun] = useState<number>()
  const note = useRef<HTMLTextAreaElement>(null)
  const ticks = parseFrameRate(clip.ticks) ?? frameRate(25)
  const review = reviews.of(clip)
  const change = (patch: Parameters<Reviews['change']>[1]) => reviews.change(clip, patch)
  const played = usePlayed()
  const lengths = clip.files.map((file) => file.length)
  const player = usePlayer({ ticks, lengths, step: clip.step, onWatched: played.onWatched })
  const { frame, looped, playback } = player
  const file = clip.files[player.file] ?? NO_FILE
  const { data: watch, isLoading } = useWatch(file)
  // The next file is known by the time this one ends.
  useWatch(clip.files[player.file + 1] ?? file)
  useEffect(() => played.from(file, watch), [played, file, watch])
  const go = (by: 1 | -1) => {
    const next = clips[clips.findIndex((one) => one.id === clip.id) + by]
    if (next) onOpen(next)
  }
  const begin = () => {
    if (clip.length === 0) return
    const shortened = begunAt(review.ranges, frame)
    if (shortened) change({ ranges: shortened })
    else setBegun(frame)
  }
  const end = () => {
    if (clip.length === 0) return
    change({ ranges: endedAt(review.ranges, frame, begun, clip) })
    setBegun(undefined)
  }
  const say = (verdict: Verdict) => change({ verdict: review.verdict === verdict ? null : verdict })
  const acts: Record<keyof typeof REVIEW, () => void> = {
    keep: () => say('keep'),
    maybe: () => say('maybe'),
    reject: () => say('reject'),
    begin,
    end,
    remove: () => {
      setBegun(undefined)
      const under = rangeAt(review.ranges, frame)
      if (under) change({ ranges: review.ranges.filter((range) => range !== under) })
    },
    loop: () => playback.loop(looped ? undefined : rangeAt(review.ranges, frame)),
    note: () => note.current?.focus(),
    before: () => go(-1),
    after: () => go(1),
    undecided: () => {
      const next = nextUndecided(clips, clip, reviews)
      if (next) onOpen(next)
    },
  }
  const onKey = (event: KeyboardEvent): boolean => {
    const pressed = shortcutOf(REVIEW, event)
    if (!pressed) return playback.key(event)
    acts[pressed]()
    return true
  }
  useDeskKeys(onKey)
  if (isLoading && frame === 0) return <p className="text-quiet">One moment …</p>
  return (
    <div className="grid min-w-0 items-start gap-x-5 gap-y-5 xl:grid-cols-[minmax(0,1fr)_16rem]">
      <Watch clip={clip} file={file} watch={watch} player={player} ticks={ticks} ranges={review.ranges} begun={begun} />
      <Decide
        clip={clip}
        review={review}
        ticks={ticks}
        noteBox={note}
        shots={shots}
        nextShot={expectedShot(shots, clips, reviews)}
        onChange={change}
        onGo={(range) => playback.seek(range.from)}
        begun={begun}
        onBegin={begin}
        onEnd={end}
      />
    </div>
  )
}

const NO_FILE: TakePart = { clipId: '', loadId: '', name: '', trouble: '', length: 0 }

/** Where a file is watched from; nowhere until that is known, and where it cannot be read. */
function useWatch({ clipId, trouble }: TakePart) {
  const asked = useAsk(reviewApi.watch, { id: clipId }, { enabled: trouble === null })
  return { isLoading: asked.isLoading, data: asked.data ?? (asked.isLoading ? undefined : NOWHERE) }
}

/** Writes down that a copy was played, once a second of the file itself was watched from it. */
function usePlayed() {
  const { mutate } = useSend(copiesApi.played)
  const now = useRef<{ file: TakePart; watch: WatchView | undefined; seconds: number }>(undefined)
  const told = useRef(new Set<string>())
  const from = useCallback((file: TakePart, watch: WatchView | undefined) => {
    const seconds = now.current?.file.clipId === file.clipId ? now.current.seconds : 0
    now.current = { file, watch, seconds }
  }, [])
  const onWatched = useCallback(
    (passed: number) => {
      if (!now.current) return
      now.current.seconds += passed
      const { file, watch, seconds } = now.current
      const volumeId = watch?.volumeId ?? null
      if (volumeId === null || watch?.how !== 'file' || seconds < ENOUGH_SECONDS) return
      if (told.current.has(file.clipId)) return
      told.current.add(file.clipId)
      mutate({ params: { id: file.loadId }, body: { volumeId, clipId: file.clipId, seconds, asPreview: false } })
    },
    [mutate],
  )
  return useMemo(() => ({ from, onWatched }), [from, onWatched])
}

/** What has a use for these keys of its own: what is typed into, and buttons that Space and Enter press. */
const keepsKey = (target: EventTarget | null, key: string): boolean =>
  target instanceof HTMLElement &&
  (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    (['Enter', ' '].includes(key) && target.closest('button, [role="combobox"]') !== null) ||
    (key === 'Enter' && target.closest('a') !== null) ||
    (key.startsWith('Arrow') && target.closest('[role="combobox"], [role="slider"]') !== null))

/** Listens to keys of the desk while nothing else is open. */
function useDeskKeys(act: (event: KeyboardEvent) => boolean): void {
  const newest = useRef(act)
  useEffect(() => {
    newest.current = act
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isLayerOpen() || keepsKey(event.target, event.key)) return
      if (newest.current(event)) event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
