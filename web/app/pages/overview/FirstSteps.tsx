import { Check } from 'lucide-react'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { zoneHere } from '../../../../core/units/day'
import { fileNameOf } from '../../../../core/units/filePath'
import { cardsApi } from '../../../../contract/cards'
import { productionsApi } from '../../../../contract/productions'
import { storageApi, type Registered } from '../../../../contract/storage'
import { Answer } from '../../../parts/Answer'
import { ApiProblem, call } from '../../../parts/asking/api'
import { Button } from '../../../parts/controls/Button'
import { Field } from '../../../parts/controls/Field'
import { DemoPicture } from '../../../parts/DemoPicture'
import { Trouble } from '../../../parts/Trouble'
import { FolderChooser } from '../../../trade/FolderChooser'

const PLACES = ['card', 'edit', 'archive'] as const
type Place = (typeof PLACES)[number]

const WORDS: Record<Place, { readonly label: string; readonly hint: string; readonly missing: string }> = {
  card: {
    label: 'First card, or a folder of footage',
    hint: 'Yendra only reads it.',
    missing: 'Say where the card appears when it is in the reader.',
  },
  edit: {
    label: 'First drive',
    hint: 'The one you edit on.',
    missing: 'Say where the first drive is.',
  },
  archive: {
    label: 'Second drive',
    hint: 'Another drive, not another folder of the first.',
    missing: 'Say where the second drive is: one copy is not enough before a card is formatted.',
  },
}

const TITLE = 'First production'

const nameOf = (path: string) => fileNameOf(path).slice(0, 60)

/** Registers one of the three; the name on its label is a good first name. */
function add(place: Place, path: string, sure: boolean): Promise<Registered> {
  const known = { name: nameOf(path), path, sure }
  return place === 'card'
    ? call(cardsApi.addReader, { params: {}, body: known })
    : call(storageApi.addVolume, { params: {}, body: { ...known, kind: place, site: 'desk' } })
}

const isUnlikely = (error: ApiProblem | undefined) => error?.problem.type === '/problems/not-sure'

/** What is known of one of the three. */
interface Given {
  readonly path: string
  readonly error?: ApiProblem
  /** Names of what lies on the same drive; only once it is added. */
  readonly sharesWith?: readonly string[]
}

const NONE: Given = { path: '' }

const isOneDevice = ({ edit, archive }: Record<Place, Given>): boolean =>
  archive.sharesWith?.includes(nameOf(edit.path)) === true

/** The three as they are typed, and the order that registers them one after the other and begins a production. */
function useBeginning() {
  const navigate = useNavigate()
  const [given, setGiven] = useState<Record<Place, Given>>({ card: NONE, edit: NONE, archive: NONE })
  const [at, setAt] = useState<Place>('card')
  const [busy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState<Error>()
  const newest = useRef(given)
  const isTold = useRef(false)
  const put = (place: Place, one: Given) => {
    newest.current = { ...newest.current, [place]: one }
    setGiven(newest.current)
  }
  /** What was added stays; false where one was refused, and why stands under it. */
  const addAll = async (): Promise<boolean> => {
    for (const place of PLACES) {
      const { path, error, sharesWith } = newest.current[place]
      if (sharesWith) continue
      const folder = path.trim().replace(/(?<=.)\/+$/, '')
      try {
        if (folder === '') throw missing(place)
        const { sharesDriveWith } = await add(place, folder, isUnlikely(error))
        put(place, { path: folder, sharesWith: sharesDriveWith })
      } catch (refused) {
        if (!(refused instanceof ApiProblem)) throw refused
        put(place, { path, error: refused })
        setAt(place)
        return false
      }
    }
    return true
  }
  const begin = async () => {
    setBusy(true)
    setTrouble(undefined)
    try {
      if (!(await addAll())) return
      // Said once, before the page is left.
      if (isOneDevice(newest.current) && !isTold.current) {
        isTold.current = true
        return
      }
      const { id } = await call(productionsApi.add, {
        params: {},
        body: { title: TITLE, client: '', shootOn: '', timeZone: zoneHere() },
      })
      void navigate(`/p/${id}/cards`)
    } catch (error) {
      setTrouble(error instanceof Error ? error : new Error(String(error)))
    } finally {
      setBusy(false)
    }
  }
  return { given, at, setAt, busy, trouble, put, begin }
}

/** Where nothing is known yet: a card and two drives, and the first production is begun with them. */
export default function FirstSteps({ onNew }: { onNew: () => void }) {
  const { given, at, setAt, busy, trouble, put, begin } = useBeginning()
  const shares = isOneDevice(given)
  return (
    <>
      <Answer why="With them the first card can be copied twice and proved. Everything else can wait, and can be changed later.">
        Begin with one card and two drives.
      </Answer>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void begin()
        }}
        noValidate
        className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
      >
        <div className="space-y-3">
          {PLACES.map((place) => (
            <PlaceField
              key={place}
              place={place}
              given={given[place]}
              isFirst={place === 'card'}
              onFocus={() => setAt(place)}
              onChange={(path) => put(place, { path })}
            />
          ))}
          {shares && (
            <p role="status" className="border-l-4 border-doubt bg-sheet px-3 py-2">
              Both drives lie on one device: one broken device takes both along, and they count as one copy. Add another
              drive at Storage.
            </p>
          )}
          <Trouble error={trouble ?? null} />
          <div className="flex flex-wrap gap-3">
            <Button look="primary" type="submit" disabled={busy}>
              {shares
                ? 'Go on all the same'
                : isUnlikely(given[at].error)
                  ? 'It is meant: go on'
                  : `Begin “${TITLE}” with them`}
            </Button>
            <Button onClick={onNew}>Only name a production</Button>
          </div>
          <p className="text-sm text-quiet">
            To look around with made-up footage first, stop this and run <span className="figure">npm start</span>{' '}
            without <span className="figure">--empty</span>.
          </p>
        </div>
        <div>
          <p className="mb-1 text-sm font-semibold">Choose: {WORDS[at].label.toLowerCase()}</p>
          <FolderChooser key={at} onChange={(path) => put(at, { path })} />
          <DemoPicture of="overview" />
        </div>
      </form>
    </>
  )
}

const missing = (place: Place) =>
  new ApiProblem({
    type: '/problems/invalid',
    title: 'It is missing',
    status: 422,
    detail: WORDS[place].missing,
  })

interface PlaceFieldProps {
  readonly place: Place
  readonly given: Given
  readonly isFirst: boolean
  readonly onFocus: () => void
  readonly onChange: (path: string) => void
}

function PlaceField({ place, given: { path, error, sharesWith }, isFirst, onFocus, onChange }: PlaceFieldProps) {
  const isAdded = sharesWith !== undefined
  return (
    <Field
      label={WORDS[place].label}
      placeholder={place === 'card' ? '/media/you/CARD' : '/media/you/Drive'}
      autoFocus={isFirst}
      autoComplete="off"
      spellCheck={false}
      value={path}
      readOnly={isAdded}
      fault={error?.message}
      hint={
        isAdded ? (
          <span className="inline-flex items-center gap-1 text-good">
            <Check className="size-4" aria-hidden /> Added
          </span>
        ) : (
          WORDS[place].hint
        )
      }
      onFocus={onFocus}
      onChange={(event) => onChange(event.target.value)}
    />
  )
}
