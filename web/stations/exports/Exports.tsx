import { useState } from 'react'
import { DESTINATIONS, destinationOf, type Destination } from '../../../core/exports/destination'
import { deliveryPlan, USUAL_CHOICE, type DeliveryChoice, type DeliveryPlan } from '../../../core/exports/plan'
import { isInvented, reframe } from '../../../core/exports/reframe'
import { framingSentence } from '../../../core/exports/sentence'
import { exportsApi } from '../../../contract/exports'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { ClipChoice } from '../../trade/ClipChoice'
import { CardFirst } from '../../trade/CardFirst'
import { Empty } from '../../parts/Empty'
import { isOpen, useStorage, useTasks } from '../../trade/queries'
import { Slide } from '../../parts/controls/Slide'
import { TaskLine } from '../../trade/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useClip } from '../../trade/useClip'
import { useSend } from '../../parts/asking/useSend'
import { preferredVolume, VolumeChoice } from '../../trade/VolumeChoice'
import { Choices } from './Choices'
import { CropStage, MOST_ZOOM } from './CropStage'
import { Deliverables } from './Deliverables'
import { Measure } from './Measure'
import { masterOf, type Master } from './master'
import { useFirstMaster } from './queries'

/** Station 6: one master into one destination's frame, without bars and without invented pixels. */
export default function Exports({ productionId }: { productionId: string }) {
  const [chosen, setChosen] = useState<string>()
  return (
    <Ask query={useFirstMaster(productionId)}>
      {({ rows: [first] }) =>
        first ? (
          <Loading clipId={chosen ?? first.id} productionId={productionId} onChoose={setChosen} />
        ) : (
          <Empty title="Nothing to frame yet." shows="exports" action={<CardFirst productionId={productionId} />}>
            Here one master is cut to each destination’s frame: a window on the real picture, the scale, the size of the
            file, and a check of what was rendered. A card is scanned and copied first.
          </Empty>
        )
      }
    </Ask>
  )
}

interface ChosenProps {
  readonly productionId: string
  readonly onChoose: (clipId: string) => void
}

/** The master with everything that was read of it: what a render does follows from that. */
function Loading({ clipId, ...props }: ChosenProps & { clipId: string }) {
  return (
    <Ask query={useClip(clipId)}>
      {(clip) => {
        const master = masterOf(clip)
        return master ? (
          <Framing key={clip.id} master={master} {...props} />
        ) : (
          <Empty title={`${clip.name} has no picture that can be read.`}>Choose another clip.</Empty>
        )
      }}
    </Ask>
  )
}

interface Placement {
  readonly zoom: number
  readonly centre: { readonly x: number; readonly y: number }
}

const middleOf = (master: Master): Placement => ({
  zoom: 1,
  centre: { x: master.widthPx / 2, y: master.heightPx / 2 },
})

function Framing({ master, productionId, onChoose }: ChosenProps & { master: Master }) {
  const { data: tasks = [] } = useTasks()
  const [destinationId, setDestinationId] = useState('tall-short')
  const [choice, setChoice] = useState<DeliveryChoice>(USUAL_CHOICE)
  const [at, setAt] = useState(master.seconds / 3)
  const [placed, setPlaced] = useState<Placement>(middleOf(master))
  const destination = destinationOf(destinationId) ?? DESTINATIONS[0]
  const task = tasks.find((one) => one.kind === 'render' && one.productionId === productionId)
  if (!destination) return null
  const { window } = reframe(master, destination, placed.zoom, placed.centre)
  const plan = deliveryPlan(master.facts, destination, window, choice)
  if (!plan) return null
  const busy = task !== undefined && isOpen(task)
  const why =
    plan.fault ??
    (isInvented(plan.scale)
      ? 'Take a larger window, a smaller destination, or a master with more pixels.'
      : 'Drag the window or use the arrow keys; it keeps the destination’s aspect, on even pixels.')
  return (
    <>
      <Answer slim why={why}>
        {framingSentence(plan, master.clip.name)}
      </Answer>
      <div className="grid gap-x-8 gap-y-6 lg:grid-cols-[1fr_20rem]">
        <div className="min-w-0">
          <CropStage
            key={master.clip.id}
            master={master}
            atSeconds={at}
            window={window}
            zoom={placed.zoom}
            onMove={(centre) => setPlaced({ ...placed, centre })}
            onZoom={(zoom) => setPlaced({ ...placed, zoom })}
          />
          <Slides
            master={master}
            at={at}
            zoom={placed.zoom}
            onAt={setAt}
            onZoom={(zoom) => setPlaced({ ...placed, zoom })}
          />
          <p className="mt-1 text-sm text-quiet">
            Dashed: strips at top and bottom that a destination’s own controls often cover. Keep faces and titles
            between them.
          </p>
        </div>
        <Orders
          productionId={productionId}
          master={master}
          destination={destination}
          plan={plan}
          choice={choice}
          busy={busy}
          onMaster={onChoose}
          onDestination={setDestinationId}
          onChoice={setChoice}
        />
      </div>
      {task && (busy || task.state === 'failed') && (
        <div className="mt-6 border-y border-rule py-3">
          <TaskLine task={task} />
        </div>
      )}
      <Deliverables productionId={productionId} />
    </>
  )
}

interface OrdersProps {
  readonly productionId: string
  readonly master: Master
  readonly destination: Destination
  readonly plan: DeliveryPlan
  readonly choice: DeliveryChoice
  /** One is being rendered. */
  readonly busy: boolean
  readonly onMaster: (clipId: string) => void
  readonly onDestination: (id: string) => void
  readonly onChoice: (choice: DeliveryChoice) => void
}

/** What is rendered, where it goes and onto which volume. */
function Orders(props: OrdersProps) {
  const { productionId, master, destination, plan, choice, busy, onMaster, onDestination, onChoice } = props
  const { clip } = master
  const send = useSend(exportsApi.render)
  const { data: storage } = useStorage(productionId)
  const [volume, setVolume] = useState<string>()
  const volumeId = volume ?? preferredVolume(storage?.volumes ?? [], 'edit')
  const body = { clipId: clip.id, destinationId: destination.id, volumeId, window: plan.window, ...choice }
  return (
    <div>
      <ClipChoice
        label="Master"
        className="mb-3"
        productionId={productionId}
        from={{ show: 'film' }}
        value={clip}
        onChange={(next) => onMaster(next.id)}
        words={(one) => `${one.name}, ${one.widthPx}×${one.heightPx}`}
      />
      <Choice
        label="Destination"
        className="mb-4"
        value={destination.id}
        onChange={onDestination}
        options={DESTINATIONS.map((one) => ({
          value: one.id,
          label: `${one.name}, ${one.widthPx}×${one.heightPx}`,
        }))}
      />
      <Measure master={master} plan={plan} />
      <Choices facts={master.facts} choice={choice} onChange={onChoice} />
      <div className="mt-4 flex flex-wrap items-end gap-3">
        {storage && <VolumeChoice label="Onto" volumes={storage.volumes} value={volumeId} onChange={setVolume} />}
        <Button
          look="primary"
          disabled={busy || send.isPending || !volumeId || plan.fault !== undefined}
          onClick={() => send.mutate({ params: {}, body })}
        >
          Render it
        </Button>
      </div>
      <Trouble error={send.error} />
    </div>
  )
}

interface SlidesProps {
  readonly master: Master
  readonly at: number
  readonly zoom: number
  readonly onAt: (seconds: number) => void
  readonly onZoom: (zoom: number) => void
}

/** Which frame is shown, and how close the window is. */
function Slides({ master, at, zoom, onAt, onZoom }: SlidesProps) {
  // Under the hand; the frame itself is fetched when it is let go.
  const [sliding, setSliding] = useState<number>()
  return (
    <div className="mt-2 grid gap-x-8 sm:grid-cols-2">
      <Slide
        label="Frame at"
        min={0}
        max={Math.max(0.04, master.seconds - 0.05)}
        step={0.04}
        value={sliding ?? at}
        onChange={setSliding}
        onSettled={(seconds) => {
          onAt(seconds)
          setSliding(undefined)
        }}
        words={`${(sliding ?? at).toFixed(2)} s`}
      />
      <Slide
        label="Closer"
        min={1}
        max={MOST_ZOOM}
        step={0.05}
        value={zoom}
        onChange={onZoom}
        words={`${Math.round(zoom * 100)} %`}
      />
    </div>
  )
}
