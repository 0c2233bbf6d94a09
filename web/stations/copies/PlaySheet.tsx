import { useRef, useState } from 'react'
import { formatLength } from '../../../core/units/quantity'
import { cardsApi, type ClipsAsked, type ClipView } from '../../../contract/cards'
import { copiesApi, type CopyView, type LoadCopies } from '../../../contract/copies'
import { addressOf } from '../../../contract/endpoint'
import { Button } from '../../parts/controls/Button'
import { ClipChoice } from '../../trade/ClipChoice'
import { Sheet } from '../../parts/layers/Sheet'
import { playedSeconds } from '../../parts/player/played'
import { Trouble } from '../../parts/Trouble'
import { useAsk } from '../../parts/asking/useAsk'
import { useSend } from '../../parts/asking/useSend'
import { SampleSheet } from './SampleSheet'
import { SayWrong } from './SayWrong'

const ENOUGH_SECONDS = 1
/** Of a clip that is shorter: a browser may leave out the end of the last frame. */
const NEARLY_ALL = 0.9

interface PlaySheetProps {
  readonly load: LoadCopies
  readonly productionId: string
  readonly copy: CopyView
  /** The clip to begin with. */
  readonly clipId?: string | null
  /** It opened by itself, and plays when somebody presses. */
  readonly waits?: boolean
  readonly onClose: () => void
}

/** Lets the person see that a copy is good. */
export const PlaySheet = (props: PlaySheetProps) =>
  props.load.playable > 0 ? <Playable {...props} /> : <OwnProgram {...props} />

/** Nothing on the card can be played here, such as raw frames: the person looks with a program of their own. */
function OwnProgram({ load, copy, onClose }: PlaySheetProps) {
  const send = useSend(copiesApi.played)
  const said = () =>
    send.mutate(
      {
        params: { id: load.loadId },
        body: { volumeId: copy.volumeId, clipId: null, seconds: ENOUGH_SECONDS, asPreview: false },
      },
      { onSuccess: onClose },
    )
  return (
    <Sheet
      title={`Look at a file on ${copy.volumeName}`}
      about="Nothing on this card can be played here. Open a file from the copy in a program of your own, with the card out of the reader, and see that it is whole."
      open
      onClose={onClose}
    >
      <p className="mb-4">
        On {copy.volumeName}: <span className="figure break-all">{copy.folder}</span>
      </p>
      <Trouble error={send.error} />
      <div className="flex flex-wrap gap-3">
        <Button look="primary" disabled={send.isPending} onClick={said}>
          I opened a file, and it is whole
        </Button>
        <Button onClick={onClose}>Not yet</Button>
      </div>
      <SayWrong load={load} copy={copy} clipId={null} onSaid={onClose} />
    </Sheet>
  )
}

/** Begins with the largest clip that can be played: a fault meets it most likely. */
function Playable(props: PlaySheetProps) {
  const { load, copy, productionId, onClose } = props
  const from = { loadId: load.loadId, show: 'playable' } as const
  const { data, error } = useAsk(
    cardsApi.clips,
    { id: productionId },
    { query: { ...from, sort: 'size', down: true, limit: 1 } },
  )
  const meant = useAsk(cardsApi.clip, { id: props.clipId ?? '' }, { enabled: Boolean(props.clipId) })
  const first = props.clipId ? meant.data : data?.rows[0]
  const [sample, setSample] = useState(false)
  if (sample) return <SampleSheet {...props} />
  return (
    <Sheet
      title={`Play from ${copy.volumeName}`}
      about="Best with the card out of the reader, so that you surely watch the copy. Watch a second or more, and listen. The largest clip comes first: a fault meets it most likely."
      open
      onClose={onClose}
      width="max-w-3xl"
    >
      <Trouble error={error} />
      {load.playable > 1 && (
        <p className="mb-4">
          <Button onClick={() => setSample(true)}>Play a sample of it: a few seconds of the riskiest clips</Button>
        </p>
      )}
      {first && <Player {...props} from={from} first={first} />}
    </Sheet>
  )
}

interface PlayerProps extends PlaySheetProps {
  readonly from: Pick<ClipsAsked, 'loadId' | 'show'>
  readonly first: ClipView
}

const clipWords = (clip: ClipView) => `${clip.name}, ${formatLength(clip.seconds ?? 0)}`

/** Plays a clip from a copy; a second of it counts as spot-played. */
function Player({ load, copy, productionId, from, first, waits = false, onClose }: PlayerProps) {
  const send = useSend(copiesApi.played)
  const [clip, setClip] = useState(first)
  const [broken, setBroken] = useState(false)
  // Each clip is written down for itself.
  const told = useRef<string>(undefined)
  const film = useRef<HTMLVideoElement>(null)
  const [begun, setBegun] = useState(!waits)
  const follow = (film: HTMLVideoElement) => {
    const seconds = playedSeconds(film.played)
    if (told.current === clip.id || seconds < Math.min(ENOUGH_SECONDS, film.duration * NEARLY_ALL)) return
    told.current = clip.id
    send.mutate({
      params: { id: load.loadId },
      body: {
        ...{ volumeId: copy.volumeId, clipId: clip.id, asPreview: false },
        seconds: Math.max(ENOUGH_SECONDS, seconds),
      },
    })
  }
  return (
    <>
      <ClipChoice
        label="Clip"
        className="mb-3 max-w-sm"
        productionId={productionId}
        from={from}
        value={clip}
        onChange={(next) => {
          setBroken(false)
          send.reset()
          setClip(next)
        }}
        words={clipWords}
      />
      <video
        key={clip.id}
        ref={film}
        src={addressOf(copiesApi.play, { id: load.loadId, volumeId: copy.volumeId, clipId: clip.id })}
        controls
        autoPlay={begun}
        onPlay={() => setBegun(true)}
        className="aspect-video w-full bg-stage"
        onTimeUpdate={(event) => follow(event.currentTarget)}
        onEnded={(event) => follow(event.currentTarget)}
        onError={() => setBroken(true)}
        aria-label={`Player for the copy on ${copy.volumeName}`}
      />
      <p className="mt-2" aria-live="polite">
        {broken ? (
          <span className="text-stop">
            This clip does not play from the copy. If it plays from the card in the camera, copy again.
          </span>
        ) : send.isSuccess ? (
          <strong className="text-good">Written down: played from {copy.volumeName}.</strong>
        ) : (
          <span className="text-quiet">It is written down after one second of playing.</span>
        )}
      </p>
      <Trouble error={send.error} />
      <SayWrong load={load} copy={copy} clipId={clip.id} onSaid={onClose} />
      {waits && (
        <p className="mt-3">
          {send.isSuccess ? (
            <Button key="done" look="primary" autoFocus onClick={onClose}>
              It is whole: close
            </Button>
          ) : (
            <Button key="play" look="primary" autoFocus disabled={begun} onClick={() => void film.current?.play()}>
              Play it
            </Button>
          )}
        </p>
      )}
    </>
  )
}
