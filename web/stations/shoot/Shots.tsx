import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { Plus } from 'lucide-react'
import { useState } from 'react'
import { DESTINATIONS } from '../../../core/exports/destination'
import { shotsSentence, type ShotNames } from '../../../core/shoot/shots'
import { shootApi, type ShotView } from '../../../contract/shoot'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { useGear } from '../../trade/queries'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { useShots } from './queries'
import { ShotForm } from './ShotForm'
import { ShotPapers } from './ShotPapers'
import { ShotRow } from './ShotRow'

/** The shot list: what must be filmed, in which order, and what is filmed already. */
export default function Shots({ productionId }: { productionId: string }) {
  const shots = useShots(productionId)
  const { data: gear } = useGear()
  const [open, setOpen] = useState<{ shot: ShotView | undefined }>()
  const names: ShotNames = { cameras: gear?.cameras ?? [], destinations: DESTINATIONS }
  const add = () => setOpen({ shot: undefined })
  return (
    <Ask query={shots}>
      {(all) => (
        <>
          <Answer
            why="Name each shot as its clip will be called: a clip that is matched to it gets this name. Drag a shot by its handle, or lift it with Space and move it with the arrows."
            action={
              <Button look="primary" onClick={add}>
                <Plus className="size-4" aria-hidden />
                Add a shot
              </Button>
            }
          >
            {shotsSentence(all)}
          </Answer>
          {all.length > 0 && <ShotList shots={all} names={names} onOpen={(shot) => setOpen({ shot })} />}
          <ShotPapers productionId={productionId} shots={all} names={names} />
          {open && (
            <ShotForm
              productionId={productionId}
              shot={open.shot}
              cameras={gear?.cameras.filter((camera) => !camera.away || camera.id === open.shot?.cameraId) ?? []}
              onClose={() => setOpen(undefined)}
            />
          )}
        </>
      )}
    </Ask>
  )
}

const HOW_TO_MOVE = 'Space lifts the shot, the arrows move it, Space puts it down, Escape leaves it where it was.'

/** What is said to those who do not see a shot move. */
function spoken(shots: readonly ShotView[]): Announcements {
  const name = (id: UniqueIdentifier) => shots.find((shot) => shot.id === id)?.name ?? 'The shot'
  const place = (id: UniqueIdentifier | undefined) => `place ${shots.findIndex((shot) => shot.id === id) + 1}`
  return {
    onDragStart: ({ active }) => `${name(active.id)} is lifted from ${place(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id ? `${name(active.id)} is moved to ${place(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) => (over ? `${name(active.id)} lies at ${place(over.id)}.` : undefined),
    onDragCancel: ({ active }) => `${name(active.id)} stays at ${place(active.id)}.`,
  }
}

interface ShotListProps {
  readonly shots: readonly ShotView[]
  readonly names: ShotNames
  readonly onOpen: (shot: ShotView) => void
}

function ShotList({ shots, names, onOpen }: ShotListProps) {
  const move = useSend(shootApi.moveShot)
  const tick = useSend(shootApi.tickShot)
  // Until the server has answered, the shot stands where it was put.
  const [moved, setMoved] = useState<{ readonly from: readonly ShotView[]; readonly shots: readonly ShotView[] }>()
  const shown = moved?.from === shots ? moved.shots : shots
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const onEnd = ({ active, over }: DragEndEvent) => {
    const from = shown.findIndex((shot) => shot.id === active.id)
    const to = shown.findIndex((shot) => shot.id === over?.id)
    const shot = shown[from]
    if (!shot || to < 0 || from === to) return
    const rest = shown.filter((one) => one !== shot)
    const next = [...rest.slice(0, to), shot, ...rest.slice(to)]
    setMoved({ from: shots, shots: next })
    move.mutate(
      { params: { id: shot.id }, body: { before: next[to + 1]?.id ?? null } },
      { onError: () => setMoved(undefined) },
    )
  }
  return (
    <>
      <Trouble error={move.error ?? tick.error} />
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onEnd}
        accessibility={{ announcements: spoken(shown), screenReaderInstructions: { draggable: HOW_TO_MOVE } }}
      >
        <SortableContext items={shown.map((shot) => shot.id)} strategy={verticalListSortingStrategy}>
          <ol aria-label="Shots" className="border-t border-ink">
            {shown.map((shot, at) => (
              <ShotRow
                key={shot.id}
                shot={shot}
                number={at + 1}
                names={names}
                onOpen={() => onOpen(shot)}
                onTick={(filmed) =>
                  tick.mutateAsync({
                    params: { id: shot.id },
                    body: { filmedAt: filmed ? new Date().toISOString() : null },
                  })
                }
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </>
  )
}
