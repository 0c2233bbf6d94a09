import { Pause, Play, Repeat, StepBack, StepForward } from 'lucide-react'
import { useCallback, useDeferredValue } from 'react'
import type { ClipRange } from '../../../../core/cards/review'
import { isOpen, useTasks } from '../../../parts/queries'
import { secondsOfFrames, type FrameRate } from '../../../../core/units/frameRate'
import { cardsApi } from '../../../../contract/cards'
import { addressOf } from '../../../../contract/endpoint'
import { previewTitle, reviewApi, type ReviewClip, type WatchView } from '../../../../contract/review'
import { Button } from '../../../parts/Button'
import { IconButton } from '../../../parts/IconButton'
import { StripFrame } from '../../../parts/StripFrame'
import { TaskLine } from '../../../parts/TaskLine'
import { Timeline } from '../../../parts/Timeline'
import { Trouble } from '../../../parts/Trouble'
import { useAsk } from '../../../parts/useAsk'
import type { Player } from '../../../parts/usePlayer'
import { useSend } from '../../../parts/useSend'
import { clock, rangeAt } from './marks'

interface WatchProps {
  readonly clip: ReviewClip
  readonly watch: WatchView
  readonly player: Player
  readonly ticks: FrameRate
  readonly ranges: readonly ClipRange[]
  readonly begun: number | undefined
}

const NO_PEAKS: readonly number[] = []

/** One clip: its film, its sound under it, and where it is watched from. */
export function Watch({ clip, watch, player, ticks, ranges, begun }: WatchProps) {
  const { data: wave } = useAsk(
    reviewApi.wave,
    { id: clip.id },
    { enabled: clip.withSound && watch.from !== 'nowhere' },
  )
  const { frame, playing, speed, looped, playback } = player
  const setFilm = useCallback((film: HTMLVideoElement | null) => playback.setFilm(film), [playback])
  const under = rangeAt(ranges, frame)
  const plays = watch.from !== 'nowhere' && (watch.how === 'file' || watch.how === 'preview')
  return (
    <section aria-label={`Watching ${clip.name}`} className="min-w-0">
      <div className="relative flex aspect-video w-full items-center justify-center bg-stage text-on-stage">
        {plays ? (
          <video
            key={`${clip.id} ${watch.how}`}
            ref={setFilm}
            src={addressOf(reviewApi.film, { id: clip.id })}
            preload="auto"
            playsInline
            className="absolute inset-0 size-full"
            aria-label={`Film of ${clip.name}`}
          />
        ) : watch.how === 'frames' && watch.from !== 'nowhere' ? (
          <Still clip={clip} seconds={secondsOfFrames(frame, ticks)} />
        ) : (
          <Instead clip={clip} watch={watch} />
        )}
        {plays && !clip.hasPicture && <span className="relative text-sm">Sound, without a picture</span>}
      </div>
      <Timeline
        label={`Place in ${clip.name}`}
        frame={frame}
        length={clip.length}
        step={clip.step}
        words={clock(frame, ticks)}
        peaks={wave?.peaks ?? NO_PEAKS}
        ranges={ranges}
        begun={begun}
        onSeek={playback.seek}
        {...(clip.pictureMade &&
          !clip.isRun && {
            under: (share: number) => (
              <StripFrame clipId={clip.id} share={share} className="h-[4.5rem] w-32 rounded-box border border-ink" />
            ),
          })}
      />
      <div className="mt-2 flex flex-wrap items-center gap-x-1 gap-y-2">
        <IconButton icon={StepBack} label="One frame back" hint="←" onClick={() => playback.step(-1)} />
        <IconButton
          icon={playing ? Pause : Play}
          label={playing ? 'Hold' : 'Play'}
          hint="Space"
          disabled={!plays}
          onClick={playback.toggle}
        />
        <IconButton icon={StepForward} label="One frame on" hint="→" onClick={() => playback.step(1)} />
        <IconButton
          icon={Repeat}
          label={looped ? 'Play on' : 'Play this range again and again'}
          hint="l"
          aria-pressed={looped !== undefined}
          disabled={!looped && !under}
          className={looped ? 'text-accent' : ''}
          onClick={() => playback.loop(looped ? undefined : under)}
        />
        <span className="figure ml-2">{clock(frame, ticks)}</span>
        <span className="figure text-quiet">of {clock(clip.length, ticks)}</span>
        {speed !== 1 && <span className="figure ml-3">{speed}× speed</span>}
        {clip.trouble === null && <span className="ml-auto text-sm text-quiet">{placeWords(watch)}</span>}
      </div>
    </section>
  )
}

const placeWords = ({ from, place, how }: WatchView): string =>
  from === 'nowhere'
    ? 'Connected nowhere'
    : `${how === 'preview' ? 'A preview of the ' : 'The '}${from === 'copy' ? `copy on ${place}` : `card in ${place}`}`

/** One frame of a run, which is a file of its own. */
function Still({ clip, seconds }: { clip: ReviewClip; seconds: number }) {
  const at = useDeferredValue(seconds)
  return (
    <img
      src={addressOf(cardsApi.frame, { id: clip.id }, { at })}
      alt={`Frame of ${clip.name}`}
      className="absolute inset-0 size-full object-contain"
    />
  )
}

/** Why nothing is played, and what to do about it. */
function Instead({ clip, watch }: Pick<WatchProps, 'clip' | 'watch'>) {
  const make = useSend(reviewApi.preview)
  const { data: tasks = [] } = useTasks()
  const ordered = make.data?.taskId
  const task = tasks.find(
    (one) =>
      isOpen(one) &&
      (one.id === ordered ||
        (one.kind === 'preview' && one.loadId === clip.loadId && one.title === previewTitle(clip.name))),
  )
  if (clip.trouble !== null)
    return (
      <p className="max-w-sm p-4 text-center">
        It cannot be watched: {clip.trouble}. It is copied as it is; keep its card until that is settled.
      </p>
    )
  if (watch.from === 'nowhere')
    return <p className="max-w-sm p-4 text-center">Put its card in, or connect a volume with a copy, to watch it.</p>
  if (task)
    return (
      <div className="w-4/5 bg-paper p-4 text-ink">
        <TaskLine task={task} />
      </div>
    )
  return (
    <div className="max-w-sm p-4 text-center">
      <p className="mb-3">No browser plays this coding. A small preview can be made; the original stays as it is.</p>
      <Button disabled={make.isPending} onClick={() => make.mutate({ params: { id: clip.id } })}>
        Make a preview
      </Button>
      <Trouble error={make.error} />
    </div>
  )
}
