import {
  DndContext,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import { GripVertical } from 'lucide-react'
import { useRef, useState, type KeyboardEvent } from 'react'
import { counted, formatBytes } from '../../../../core/units/quantity'
import { cardsApi } from '../../../../contract/cards'
import { addressOf } from '../../../../contract/endpoint'
import { sortedApi, type SortedClip, type SortedView } from '../../../../contract/sorted'
import { FOLDERS, shortcutOf } from '../../../parts/shortcuts'
import { Trouble } from '../../../parts/Trouble'
import { useSend } from '../../../parts/asking/useSend'

/** Clips by the folder that they go into: dragged there, or sent by a key. */
export function FolderBoard({ view, productionId }: { view: SortedView; productionId: string }) {
  const send = useSend(sortedApi.putByHand)
  const [marked, setMarked] = useState<string>()
  const list = useRef<HTMLDivElement>(null)
  // A finger scrolls; held for a moment, it drags.
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 6 } }),
  )
  const { template } = view.settings
  const folders = template.map((folder) => ({
    ...folder,
    clips: view.clips.filter((clip) => clip.folder === folder.path),
  }))
  const order = folders.flatMap((folder) => folder.clips)
  const at = Math.max(
    0,
    order.findIndex((clip) => clip.id === marked),
  )
  const put = (clipId: string, folder: string | null) =>
    send.mutate({ params: { id: productionId }, body: { clipIds: [clipId], folder } })
  const mark = (clip: SortedClip | undefined) => {
    if (!clip) return
    setMarked(clip.id)
    list.current?.querySelector<HTMLElement>(`[data-clip="${clip.id}"]`)?.focus()
  }
  const press = (event: KeyboardEvent, clip: SortedClip) => {
    const pressed = shortcutOf(FOLDERS, event)
    if (!pressed) return
    if (pressed === 'down') mark(order[at + 1])
    else if (pressed === 'up') mark(order[at - 1])
    else if (pressed === 'rules') put(clip.id, null)
    else {
      const takes = pressed === 'aRoll' ? 'a-roll' : 'b-roll'
      const folder = template.find((one) => one.takes === takes)?.path
      if (folder === undefined) return
      put(clip.id, folder)
    }
    event.preventDefault()
    event.stopPropagation()
  }
  const drop = ({ active, over }: DragEndEvent) => {
    const clip = order.find((one) => one.id === active.id)
    if (clip && over && over.id !== clip.folder) put(clip.id, String(over.id))
  }
  return (
    <section aria-labelledby="board">
      <h2 id="board" className="mb-1">
        Folders
      </h2>
      <p className="mb-3 text-quiet">
        Drag a clip to another folder, or mark it and press <kbd>{FOLDERS.aRoll.shown}</kbd> for A-roll,{' '}
        <kbd>{FOLDERS.bRoll.shown}</kbd> for B-roll, <kbd>{FOLDERS.rules.shown}</kbd> to leave it to the rules.
      </p>
      <Trouble error={send.error} />
      <div ref={list}>
        <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={drop}>
          {folders.map(({ path, clips }) => (
            <Folder key={path} path={path} clips={clips}>
              {clips.map((clip) => (
                <Row
                  key={clip.id}
                  clip={clip}
                  isMarked={clip.id === (order[at]?.id ?? '')}
                  onFocus={() => setMarked(clip.id)}
                  onKeyDown={(event) => press(event, clip)}
                />
              ))}
            </Folder>
          ))}
        </DndContext>
      </div>
      {view.moreClips > 0 && (
        <p className="mt-2 text-quiet">and {counted(view.moreClips, 'more clip')}, sorted by the rules</p>
      )}
    </section>
  )
}

interface FolderProps {
  readonly path: string
  readonly clips: readonly SortedClip[]
  readonly children: React.ReactNode
}

function Folder({ path, clips, children }: FolderProps) {
  const { setNodeRef, isOver } = useDroppable({ id: path })
  const bytes = clips.reduce((sum, clip) => sum + clip.sizeBytes, 0)
  return (
    <div ref={setNodeRef} className={`border-t border-rule ${isOver ? 'bg-wash' : ''}`}>
      <p className="flex justify-between gap-4 py-1.5">
        <span className={`figure ${clips.length > 0 ? 'font-semibold' : 'text-quiet'}`}>{path}</span>
        <span className="figure text-quiet">
          {clips.length > 0 ? `${counted(clips.length, 'clip')}, ${formatBytes(bytes)}` : 'empty'}
        </span>
      </p>
      {clips.length > 0 && (
        <ul role="listbox" aria-label={path} className="mb-3">
          {children}
        </ul>
      )}
    </div>
  )
}

interface RowProps {
  readonly clip: SortedClip
  readonly isMarked: boolean
  readonly onFocus: () => void
  readonly onKeyDown: (event: KeyboardEvent) => void
}

function Row({ clip, isMarked, onFocus, onKeyDown }: RowProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: clip.id })
  return (
    <li
      ref={setNodeRef}
      role="option"
      aria-selected={isMarked}
      tabIndex={isMarked ? 0 : -1}
      data-clip={clip.id}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      className={`flex cursor-grab items-center gap-3 rounded-box py-1 pr-2 pl-1 ${isDragging ? 'relative z-10 bg-sheet shadow' : isMarked ? 'bg-wash' : ''}`}
      onFocus={onFocus}
      onKeyDown={onKeyDown}
      {...listeners}
    >
      <GripVertical className="size-4 shrink-0 text-quiet" aria-hidden />
      {clip.pictureMade ? (
        <img
          src={addressOf(cardsApi.picture, { id: clip.id })}
          alt=""
          loading="lazy"
          draggable={false}
          className="h-9 w-16 shrink-0 rounded-box object-cover"
        />
      ) : (
        <span className="flex h-9 w-16 shrink-0 items-center justify-center border border-dashed border-rule text-sm text-quiet">
          sound
        </span>
      )}
      <span className="min-w-0 grow">
        <span className="block truncate font-semibold">{clip.name}</span>
        <span className="block truncate text-sm text-quiet">
          <span className="figure">{clip.fileName}</span> of {clip.load}
          {clip.files > 1 && `, ${clip.files} files`}
          {clip.byHand && ', by hand'}
        </span>
      </span>
      <span className="figure shrink-0 text-quiet">{formatBytes(clip.sizeBytes)}</span>
    </li>
  )
}
