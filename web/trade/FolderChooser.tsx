import { ArrowUp, Folder, HardDrive } from 'lucide-react'
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react'
import { formatBytes } from '../../core/units/quantity'
import { foldersApi, type FoldersView, type PlaceView } from '../../contract/folders'
import { Trouble } from '../parts/Trouble'
import { useAsk } from '../parts/asking/useAsk'

/** Arrows move through the rows; left goes up a level. */
function moveFocus(event: KeyboardEvent<HTMLElement>, onUp: () => void): void {
  const rows = [...event.currentTarget.querySelectorAll<HTMLElement>('button')]
  const at = rows.findIndex((row) => row === document.activeElement)
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key]
  if (to !== undefined) rows[Math.min(rows.length - 1, Math.max(0, to))]?.focus()
  else if (event.key === 'ArrowLeft') onUp()
  else if (event.key === 'ArrowRight' && at >= 0) rows[at]?.click()
  else return
  event.preventDefault()
}

interface FolderChooserProps {
  readonly onChange: (path: string) => void
  /** What is said of the folder in which one stands. */
  readonly says?: (view: FoldersView) => { readonly words: string; readonly isFault: boolean }
}

const mayBeAdded = ({ refusal }: FoldersView) => ({
  words: refusal?.sentence ?? 'This one can be added.',
  isFault: refusal !== null,
})

/** Drives first, then folders by name, one level at a time. What may not be registered says so while one walks. */
export function FolderChooser({ onChange, says = mayBeAdded }: FolderChooserProps) {
  // Where one stands; empty for the list of drives. Somebody who types a path is not followed letter by letter.
  const [at, setAt] = useState('')
  const list = useRef<HTMLDivElement>(null)
  const walking = useRef(false)
  const walkTo = (next: string) => {
    walking.current = true
    setAt(next)
    onChange(next)
  }
  const mounted = useAsk(foldersApi.mounted, {})
  const inside = useAsk(foldersApi.inside, {}, { query: { path: at }, enabled: at !== '', retry: false })
  const view = at === '' ? undefined : inside.data
  const isDrive = (mounted.data ?? []).some((place) => place.path === at)
  const up = () => {
    if (at !== '') walkTo(isDrive ? '' : (view?.above ?? ''))
  }
  // The row that was pressed is gone: the finger goes on at the first of the new ones.
  useEffect(() => {
    if (!walking.current || (at !== '' && !view)) return
    walking.current = false
    list.current?.querySelector('button')?.focus()
  }, [at, view])
  const said = view && says(view)
  const rows = at === '' ? (mounted.data ?? []) : (view?.folders ?? [])
  return (
    <div className="mb-4">
      <div
        ref={list}
        role="group"
        aria-label={at === '' ? 'Drives and cards' : `Folders in ${at}`}
        className="max-h-44 overflow-y-auto rounded-box border border-rule bg-sheet p-1"
        onKeyDown={(event) => moveFocus(event, up)}
      >
        {at !== '' && (
          <Row
            icon={<ArrowUp className="size-4" aria-hidden />}
            name={isDrive ? 'All drives' : 'One level up'}
            onPress={up}
          />
        )}
        {rows.map((place) => (
          <PlaceRow key={place.path} place={place} onPress={() => walkTo(place.path)} />
        ))}
        {at !== '' && view && rows.length === 0 && <p className="px-2.5 py-1.5 text-quiet">No folders in it.</p>}
        {view && view.more > 0 && (
          <p className="px-2.5 py-1.5 text-quiet">And {view.more} more: type the path of one of them.</p>
        )}
      </div>
      {at !== '' && <Trouble error={inside.error} />}
      <p className={`mt-1 min-h-5 text-sm ${said?.isFault ? 'text-doubt' : 'text-quiet'}`} aria-live="polite">
        {said ? said.words : at === '' ? 'Open the folder here, or type its path above.' : ''}
      </p>
    </div>
  )
}

function PlaceRow({ place, onPress }: { place: PlaceView; onPress: () => void }) {
  const { name, room, refusal } = place
  const more = room ? `${formatBytes(room.capacityBytes)}, ${formatBytes(room.freeBytes)} free` : ''
  const Icon = room ? HardDrive : Folder
  return (
    <Row
      icon={<Icon className="size-4" aria-hidden />}
      name={name}
      more={refusal?.kind === 'known' ? 'known already' : more}
      onPress={onPress}
    />
  )
}

interface RowProps {
  readonly icon: ReactNode
  readonly name: string
  readonly more?: string
  readonly onPress: () => void
}

const Row = ({ icon, name, more, onPress }: RowProps) => (
  <button
    type="button"
    onClick={onPress}
    className="flex min-h-8 w-full items-center gap-2.5 rounded-box px-2.5 py-1 text-left hover:bg-wash focus-visible:bg-wash"
  >
    <span className="text-quiet">{icon}</span>
    <span className="min-w-0 grow truncate">{name}</span>
    <span className="figure shrink-0 text-quiet">{more}</span>
  </button>
)
