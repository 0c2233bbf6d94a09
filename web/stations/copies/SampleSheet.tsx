import { Check, ChevronRight, X } from 'lucide-react'
import { useEffect, useRef, useState, type RefObject } from 'react'
import { WHY_WORDS, type Piece } from '../../../core/copies/playSample'
import { counted, formatLength } from '../../../core/units/quantity'
import { copiesApi, type CopyView, type LoadCopies, type PlaySample } from '../../../contract/copies'
import { addressOf } from '../../../contract/endpoint'
import { Ask } from '../../parts/asking/Ask'
import { useAsk } from '../../parts/asking/useAsk'
import { useSend } from '../../parts/asking/useSend'
import { Button } from '../../parts/controls/Button'
import { Sheet } from '../../parts/layers/Sheet'
import { SAMPLE, shortcutOf } from '../../parts/shortcuts'
import { Trouble } from '../../parts/Trouble'
import { SayWrong } from './SayWrong'

interface SampleSheetProps {
  readonly load: LoadCopies
  readonly copy: CopyView
  readonly onClose: () => void
}

/** A few seconds of the clips in which a fault is likeliest, one after another, from one copy. */
export function SampleSheet({ load, copy, onClose }: SampleSheetProps) {
  const [seed, setSeed] = useState(() => crypto.randomUUID())
  const sample = useAsk(copiesApi.sample, { id: load.loadId, volumeId: copy.volumeId }, { query: { seed } })
  return (
    <Sheet
      title={`A sample from ${copy.volumeName}`}
      about="Three seconds at the beginning, in the middle and at the end of the clips in which a fault is likeliest. Watch, and listen. Space holds, ← and → go from piece to piece, x says that something is wrong."
      open
      onClose={onClose}
      width="max-w-3xl"
    >
      <CardOut load={load} copy={copy} />
      <Ask query={sample}>
        {({ clips }) => (
          <Clips
            key={seed}
            clips={clips}
            load={load}
            copy={copy}
            onClose={onClose}
            onAnother={() => setSeed(crypto.randomUUID())}
          />
        )}
      </Ask>
    </Sheet>
  )
}

/** Whoever watches with the card out surely watches the copy; whether it is out is seen. */
const CardOut = ({ load: { card }, copy }: Pick<SampleSheetProps, 'load' | 'copy'>) => (
  <p className={`mb-3 ${card ? 'font-semibold text-doubt' : 'text-quiet'}`} aria-live="polite">
    {card
      ? `The card is still in ${card.readerName}: take it out, so that you surely watch ${copy.volumeName}.`
      : `The card is in no reader: what plays comes from ${copy.volumeName}.`}
  </p>
)

type Drawn = PlaySample['clips'][number]

interface ClipsProps extends SampleSheetProps {
  readonly clips: readonly Drawn[]
  readonly onAnother: () => void
}

/** Where somebody is in a sample, what was watched of it, and what does not play. */
function useSampled({ clips, load, copy }: Pick<ClipsProps, 'clips' | 'load' | 'copy'>) {
  const send = useSend(copiesApi.played)
  const [at, setAt] = useState({ clip: 0, piece: 0 })
  const [watched, setWatched] = useState<ReadonlySet<string>>(new Set())
  const [broken, setBroken] = useState<ReadonlySet<string>>(new Set())
  const [previews, setPreviews] = useState<ReadonlySet<string>>(
    () => new Set(clips.filter((clip) => clip.asPreview).map((clip) => clip.clipId)),
  )
  const seen = useRef(new Map<string, number>())
  const clip = clips[at.clip]
  const go = (by: 1 | -1) =>
    setAt((now) => {
      const pieces = clips[now.clip]?.pieces.length ?? 0
      if (by === 1 && now.piece + 1 < pieces) return { ...now, piece: now.piece + 1 }
      if (by === 1) return { clip: Math.min(clips.length, now.clip + 1), piece: 0 }
      if (now.piece > 0) return { ...now, piece: now.piece - 1 }
      const before = clips[now.clip - 1]
      return before ? { clip: now.clip - 1, piece: before.pieces.length - 1 } : now
    })
  /** A clip of which every piece came to its end is written down as played. */
  const ended = (seconds: number) => {
    if (!clip) return
    const { clipId, pieces } = clip
    seen.current.set(`${clipId} ${at.piece}`, seconds)
    const all = pieces.map((_, index) => seen.current.get(`${clipId} ${index}`) ?? 0)
    if (all.every((one) => one > 0) && !watched.has(clipId)) {
      setWatched(new Set([...watched, clipId]))
      send.mutate({
        params: { id: load.loadId },
        body: {
          ...{ volumeId: copy.volumeId, clipId, asPreview: previews.has(clipId) },
          seconds: Math.max(
            1,
            all.reduce((sum, one) => sum + one, 0),
          ),
        },
      })
    }
    go(1)
  }
  /** What the browser cannot play is shown as a preview; what does not even give that is broken. */
  const fails = ({ clipId }: Drawn) =>
    previews.has(clipId) ? setBroken(new Set([...broken, clipId])) : setPreviews(new Set([...previews, clipId]))
  return { at, clip, piece: clip?.pieces[at.piece], watched, broken, previews, go, ended, fails, error: send.error }
}

type Sampled = ReturnType<typeof useSampled>

function Clips({ clips, load, copy, onClose, onAnother }: ClipsProps) {
  const sampled = useSampled({ clips, load, copy })
  const { clip, piece, watched } = sampled
  return (
    <>
      {clip && piece ? (
        <Now key={clip.clipId} sampled={sampled} clip={clip} piece={piece} load={load} copy={copy} onClose={onClose} />
      ) : (
        <Over watched={watched.size} clips={clips.length} copy={copy} onClose={onClose} onAnother={onAnother} />
      )}
      <ClipList clips={clips} sampled={sampled} />
      <Trouble error={sampled.error} />
    </>
  )
}

interface NowProps extends SampleSheetProps {
  readonly sampled: Sampled
  readonly clip: Drawn
  readonly piece: Piece
}

/** The piece that plays now. */
function Now({ sampled, clip, piece, load, copy, onClose }: NowProps) {
  const { at, previews, broken, go, ended, fails } = sampled
  const [wrong, setWrong] = useState(false)
  const film = useRef<HTMLVideoElement>(null)
  useSampleKeys({
    play: () => void (film.current?.paused ? film.current.play() : film.current?.pause()),
    before: () => go(-1),
    after: () => go(1),
    wrong: () => {
      film.current?.pause()
      setWrong(true)
    },
  })
  const { clipId, name, why } = clip
  const asPreview = previews.has(clipId)
  const params = { id: load.loadId, volumeId: copy.volumeId, clipId }
  return (
    <>
      <p className="mb-2" aria-live="polite">
        <strong>{name}</strong>, {pieceWords(piece)} <span className="text-quiet">{WHY_WORDS[why]}.</span>
        {asPreview && (
          <span className="block text-doubt">
            A preview made from the copy: this browser cannot play the file itself.
          </span>
        )}
      </p>
      <PiecePlayer
        key={`${at.piece} ${asPreview}`}
        film={film}
        source={addressOf(copiesApi.play, params, asPreview ? piece : {})}
        piece={asPreview ? { fromSeconds: 0, seconds: piece.seconds } : piece}
        label={`Player for ${name} on ${copy.volumeName}`}
        onEnd={() => ended(piece.seconds)}
        onBroken={() => fails(clip)}
      />
      {broken.has(clipId) && (
        <p className="mt-2 text-stop">
          {name} does not play from the copy, not even as a preview. Say that something is wrong with it: then it is
          read again.
        </p>
      )}
      <SayWrong key={String(wrong)} begun={wrong} load={load} copy={copy} clipId={clipId} onSaid={onClose} />
    </>
  )
}

const ClipList = ({ clips, sampled: { at, watched, broken } }: Pick<ClipsProps, 'clips'> & { sampled: Sampled }) => (
  <ol aria-label="Clips of the sample" className="mt-4 border-t border-rule">
    {clips.map((one, index) => (
      <li key={one.clipId} className="flex items-baseline gap-3 border-b border-rule py-1.5">
        <span className="flex w-5 shrink-0 justify-center self-center">
          {watched.has(one.clipId) ? (
            <Check className="size-4 text-good" aria-label="watched" />
          ) : broken.has(one.clipId) ? (
            <X className="size-4 text-stop" aria-label="does not play" />
          ) : index === at.clip ? (
            <ChevronRight className="size-4" aria-label="now" />
          ) : null}
        </span>
        <span className={index === at.clip ? 'font-semibold' : ''}>{one.name}</span>
        <span className="text-quiet">{WHY_WORDS[one.why].split(':')[0]}</span>
      </li>
    ))}
  </ol>
)

const pieceWords = ({ fromSeconds, seconds }: Piece) =>
  `${formatLength(Math.round(fromSeconds))} to ${formatLength(Math.round(fromSeconds + seconds))}.`

/** Keys that work while a sample is open, but not while somebody types what is wrong. */
function useSampleKeys(acts: Record<keyof typeof SAMPLE, () => void>) {
  const latest = useRef(acts)
  useEffect(() => {
    latest.current = acts
  })
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (['INPUT', 'TEXTAREA', 'VIDEO'].includes(target.tagName)) return
      const name = shortcutOf(SAMPLE, event)
      if (!name || (name === 'play' && target.tagName === 'BUTTON')) return
      event.preventDefault()
      latest.current[name]()
    }
    document.addEventListener('keydown', press)
    return () => document.removeEventListener('keydown', press)
  }, [])
}

interface PiecePlayerProps {
  readonly film: RefObject<HTMLVideoElement | null>
  readonly source: string
  readonly piece: Piece
  readonly label: string
  readonly onEnd: () => void
  readonly onBroken: () => void
}

/** A film may end a frame before its length. */
const NEARLY = 0.15

/** Plays one piece of a film and says when it came to its end. */
function PiecePlayer({ film, source, piece, label, onEnd, onBroken }: PiecePlayerProps) {
  const isOver = useRef(false)
  const end = () => {
    if (isOver.current) return
    isOver.current = true
    onEnd()
  }
  return (
    <video
      ref={film}
      src={source}
      autoPlay
      controls
      className="aspect-video w-full bg-stage"
      aria-label={label}
      onLoadedMetadata={(event) => {
        if (piece.fromSeconds > 0) event.currentTarget.currentTime = piece.fromSeconds
      }}
      onTimeUpdate={({ currentTarget: { currentTime } }) => {
        if (currentTime >= piece.fromSeconds + piece.seconds - NEARLY) end()
      }}
      onEnded={end}
      onError={onBroken}
    />
  )
}

interface OverProps extends Pick<ClipsProps, 'copy' | 'onClose' | 'onAnother'> {
  readonly watched: number
  readonly clips: number
}

function Over({ watched, clips, copy, onClose, onAnother }: OverProps) {
  return (
    <div className="py-2">
      <p className="mb-3" role="status">
        {clips === 0 ? (
          'Nothing of it can be played here.'
        ) : (
          <strong className={watched > 0 ? 'text-good' : ''}>
            Written down: {counted(watched, 'clip')} of {clips} played from {copy.volumeName}.
          </strong>
        )}
      </p>
      <div className="flex flex-wrap gap-3">
        <Button look="primary" autoFocus onClick={onClose}>
          {watched === clips ? 'They are whole: close' : 'Close'}
        </Button>
        <Button onClick={onAnother}>Another sample</Button>
      </div>
    </div>
  )
}
