import { Pause, Play, Repeat, StepBack, StepForward } from 'lucide-react'
import { useQueries } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { ClipRange } from '../../../../core/cards/review/review'
import { fileAt } from '../../../../core/cards/review/takeReview'
import { isOpen, useTasks } from '../../../trade/queries'
import { secondsOfFrames, type FrameRate } from '../../../../core/units/frameRate'
import { cardsApi } from '../../../../contract/cards'
import { addressOf } from '../../../../contract/endpoint'
import {
  previewTitle,
  reviewApi,
  type ReviewClip,
  type TakePart,
  type Waveform,
  type WatchView,
} from '../../../../contract/review'
import { Button } from '../../../parts/controls/Button'
import { IconButton } from '../../../parts/controls/IconButton'
import type { Playback } from '../../../parts/player/playback'
import { RunFilm } from '../../../parts/player/runFilm'
import { StripFrame } from '../../../parts/player/StripFrame'
import { TaskLine } from '../../../trade/TaskLine'
import { Timeline } from '../../../parts/player/Timeline'
import { Trouble } from '../../../parts/Trouble'
import { askOf } from '../../../parts/asking/useAsk'
import type { Player } from '../../../parts/player/usePlayer'
import { useSend } from '../../../parts/asking/useSend'
import { clock, rangeAt } from './marks'

interface WatchProps {
  readonly clip: ReviewClip
  /** The one of its files that is shown. */
  readonly file: TakePart
  /** `undefined` until it is known. */
  readonly watch: WatchView | undefined
  readonly player: Player
  readonly ticks: FrameRate
  readonly ranges: readonly ClipRange[]
  readonly begun: number | undefined
}

/** As wide as the window is high enough for film, sound and buttons; never a slit. */
const FILM_PX = 'max(20rem, calc((100dvh - var(--foot, 0px) - 19.5rem) * 16 / 9))'

/** One take: its film, its sound under it, and where it is watched from. */
export function Watch(props: WatchProps) {
  const { clip, file, watch, player, ticks, ranges, begun } = props
  const peaks = usePeaks(clip, watch !== undefined && watch.from !== 'nowhere')
  const { frame, playback } = player
  const setFilm = useCallback((film: HTMLVideoElement | null) => playback.setFilm(film), [playback])
  const isThere = watch !== undefined && watch.from !== 'nowhere'
  const plays = isThere && (watch.how === 'file' || watch.how === 'preview')
  const isRun = isThere && watch.how === 'frames'
  const [drawn, setDrawn] = useState(0)
  const lengths = clip.files.map(({ length }) => length)
  return (
    <section aria-label={`Watching ${clip.name}`} className="mx-auto w-full min-w-0" style={{ maxWidth: FILM_PX }}>
      <div className="relative flex aspect-video w-full items-center justify-center bg-stage text-on-stage">
        {plays ? (
          <video
            key={`${file.clipId} ${watch.how}`}
            ref={setFilm}
            src={addressOf(reviewApi.film, { id: file.clipId })}
            preload="auto"
            playsInline
            className="absolute inset-0 size-full"
            aria-label={`Film of ${file.name}`}
          />
        ) : watch === undefined ? null : isRun ? (
          <Run clip={clip} seconds={secondsOfFrames(clip.length, ticks)} playback={playback} onRate={setDrawn} />
        ) : (
          <Instead file={file} watch={watch} />
        )}
        {plays && !clip.hasPicture && <span className="relative text-sm">Sound, without a picture</span>}
      </div>
      <Timeline
        label={`Place in ${clip.name}`}
        frame={frame}
        length={clip.length}
        step={clip.step}
        words={clock(frame, ticks)}
        peaks={peaks}
        seams={seamsOf(lengths)}
        ranges={ranges}
        begun={begun}
        onSeek={playback.seek}
        {...(clip.pictureMade &&
          !clip.isRun && {
            under: (share: number) => {
              const { file: at, start } = fileAt(lengths, share * clip.length)
              return (
                <StripFrame
                  clipId={clip.files[at]?.clipId ?? clip.id}
                  share={(share * clip.length - start) / Math.max(1, lengths[at] ?? 1)}
                  className="h-[4.5rem] w-32 rounded-box border border-ink"
                />
              )
            },
          })}
      />
      <Controls {...props} plays={plays} isRun={isRun} drawn={drawn} />
    </section>
  )
}

interface ControlsProps extends WatchProps {
  readonly plays: boolean
  readonly isRun: boolean
  /** Frames a second that are seen of a run. */
  readonly drawn: number
}

/** From frame to frame, on and on, or one range again and again; and where the film comes from. */
function Controls({ clip, file, watch, player, ticks, ranges, plays, isRun, drawn }: ControlsProps) {
  const { frame, playing, speed, looped, playback } = player
  const under = rangeAt(ranges, frame)
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-1 gap-y-2">
      <IconButton icon={StepBack} label="One frame back" hint="←" onClick={() => playback.step(-1)} />
      <IconButton
        icon={playing ? Pause : Play}
        label={playing ? 'Hold' : 'Play'}
        hint="Space"
        disabled={!plays && !isRun}
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
      {isRun && drawn > 0 && (
        <span className="ml-3 text-sm text-quiet">{drawnWords(drawn, ticks.num / ticks.den)}</span>
      )}
      {file.trouble === null && watch && (
        <span className="ml-auto text-sm text-quiet">
          {clip.files.length > 1 && `File ${player.file + 1} of ${clip.files.length}. `}
          {placeWords(watch)}
        </span>
      )}
    </div>
  )
}

/** Where one file of a take goes on in the next. */
const seamsOf = (lengths: readonly number[]): readonly number[] =>
  lengths.slice(1).map((_, at) => lengths.slice(0, at + 1).reduce((sum, length) => sum + length, 0))

/** Peaks of a take in several files are drawn from so many pieces in all. */
const PEAKS = 1000

/** The sound of a take, each file as soon as it is known. */
function usePeaks(clip: ReviewClip, isThere: boolean): readonly number[] {
  const waves = useQueries({
    queries: clip.files.map(({ clipId, trouble }) =>
      askOf(reviewApi.wave, { id: clipId }, { enabled: clip.withSound && isThere && trouble === null }),
    ),
    combine: takeWaves,
  })
  return useMemo(() => {
    const [only] = waves
    if (waves.length < 2) return only ?? []
    if (waves.every((wave) => wave.length === 0)) return []
    const lengths = clip.files.map(({ length }) => length)
    return Array.from({ length: PEAKS }, (_, at) => {
      const frame = (at / PEAKS) * clip.length
      const { file, start } = fileAt(lengths, frame)
      const wave = waves[file] ?? []
      return wave[Math.floor(((frame - start) / Math.max(1, lengths[file] ?? 1)) * wave.length)] ?? 0
    })
  }, [waves, clip.files, clip.length])
}

const NO_PEAKS: readonly number[] = []
const takeWaves = (asked: readonly { readonly data: Waveform | undefined }[]): readonly (readonly number[])[] =>
  asked.map(({ data }) => data?.peaks ?? NO_PEAKS)

const placeWords = ({ from, place, how }: WatchView): string =>
  from === 'nowhere'
    ? 'Connected nowhere'
    : `${how === 'preview' ? 'A preview of the ' : 'The '}${from === 'copy' ? `copy on ${place}` : `card in ${place}`}`

/** How many frames a second are seen of how many there are. */
const drawnWords = (drawn: number, perSecond: number): string =>
  `${Math.min(Math.round(perSecond), Math.round(drawn))} of ${Math.round(perSecond)} a second`

interface RunProps {
  readonly clip: ReviewClip
  readonly seconds: number
  readonly playback: Playback
  readonly onRate: (perSecond: number) => void
}

/** Frames that are a file each, drawn by the server one after the other. */
function Run({ clip, seconds, playback, onRate }: RunProps) {
  const picture = useRef<HTMLImageElement>(null)
  useEffect(() => {
    const film = new RunFilm(
      seconds,
      async (at) => {
        const image = picture.current
        if (!image) return
        image.src = addressOf(cardsApi.frame, { id: clip.id }, { at })
        await image.decode()
      },
      onRate,
    )
    film.currentTime = 0
    playback.setFilm(film)
    return () => {
      film.pause()
      playback.setFilm(null)
      onRate(0)
    }
  }, [clip.id, seconds, playback, onRate])
  return <img ref={picture} alt={`Frame of ${clip.name}`} className="absolute inset-0 size-full object-contain" />
}

/** Why nothing is played, and what to do about it. */
function Instead({ file, watch }: { file: TakePart; watch: WatchView }) {
  const make = useSend(reviewApi.preview)
  const { data: tasks = [] } = useTasks()
  const ordered = make.data?.taskId
  const task = tasks.find(
    (one) =>
      isOpen(one) &&
      (one.id === ordered ||
        (one.kind === 'preview' && one.loadId === file.loadId && one.title === previewTitle(file.name))),
  )
  if (file.trouble !== null)
    return (
      <p className="max-w-sm p-4 text-center">
        It cannot be watched: {file.trouble}. It is copied as it is; keep its card until that is settled.
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
      <Button disabled={make.isPending} onClick={() => make.mutate({ params: { id: file.clipId } })}>
        Make a preview
      </Button>
      <Trouble error={make.error} />
    </div>
  )
}
