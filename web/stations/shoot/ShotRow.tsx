import { zoneHere, zoneName } from '../../../core/units/day'
import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { format } from 'date-fns'
import { GripVertical, Pencil } from 'lucide-react'
import type { Shot, ShotNames } from '../../../core/shoot/shots'
import { useAtOnce } from '../../parts/asking/useAtOnce'
import { IconButton } from '../../parts/controls/IconButton'
import { Tick } from '../../parts/controls/Tick'

interface ShotRowProps {
  readonly shot: Shot
  readonly number: number
  readonly names: ShotNames
  readonly onOpen: () => void
  readonly onTick: (filmed: boolean) => Promise<unknown>
}

/** One shot: its tick, its name, what it is for, and a handle to move it by. */
export function ShotRow({ shot, number, names, onOpen, onTick }: ShotRowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: shot.id,
  })
  const [filmed, tick] = useAtOnce(shot.filmedAt !== null, onTick)
  const camera = names.cameras.find((one) => one.id === shot.cameraId)?.name
  const destinations = names.destinations.filter((one) => shot.deliverables.includes(one.id)).map((one) => one.name)
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`relative flex items-start gap-3 border-b border-rule py-2.5 ${isDragging ? 'z-10 bg-wash' : ''}`}
    >
      <Tick checked={filmed} onChange={tick} className="min-w-0 grow">
        <span className="figure mr-1.5 text-quiet">{number}</span>
        <span className={`font-semibold ${shot.filmedAt ? 'text-quiet line-through' : ''}`}>{shot.name}</span>
        <span className="block text-sm text-quiet">
          {[camera, destinations.join(', ')].filter(Boolean).join(' · ')}
          {shot.filmedAt &&
            ` · filmed ${format(shot.filmedAt, 'd MMM HH:mm')} ${zoneName(zoneHere(), Date.parse(shot.filmedAt))}`}
        </span>
        {shot.notes && <span className="block text-sm">{shot.notes}</span>}
      </Tick>
      <IconButton icon={Pencil} label={`Change ${shot.name}`} onClick={onOpen} />
      <button
        ref={setActivatorNodeRef}
        type="button"
        className="flex size-8 shrink-0 cursor-grab touch-none items-center justify-center rounded-box text-quiet hover:text-ink active:cursor-grabbing"
        {...attributes}
        {...listeners}
        aria-label={`Move ${shot.name}`}
      >
        <GripVertical className="size-4" aria-hidden />
      </button>
    </li>
  )
}
