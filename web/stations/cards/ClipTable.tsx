import { createContext, useContext, useDeferredValue, useMemo, useState } from 'react'
import { codecName } from '../../../core/media/codecName'
import { timeIn } from '../../../core/units/day'
import { frameRateLabel, parseFrameRate } from '../../../core/units/frameRate'
import { formatBytes, formatLength } from '../../../core/units/quantity'
import { cardsApi, type ClipsAsked, type ClipSort, type ClipView, type LoadView } from '../../../contract/cards'
import { addressOf } from '../../../contract/endpoint'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { useProduction } from '../../trade/queries'
import { Narrow } from '../../parts/table/Narrow'
import { Table } from '../../parts/table/Table'
import type { Column, Sorting } from '../../parts/table/tableColumn'
import { usePages } from '../../parts/table/usePages'
import { ClipSheet } from './ClipSheet'
import { ReassignSheet } from './ReassignSheet'

const rateLabel = (rate: string | null) => {
  const parsed = rate ? parseFrameRate(rate) : undefined
  return parsed ? frameRateLabel(parsed) : ''
}
const codec = (clip: ClipView) => (clip.codec === null ? '' : codecName(clip.codec))
const frame = (clip: ClipView) => (clip.widthPx ? `${clip.widthPx}×${clip.heightPx}` : (clip.trouble ?? 'sound'))

/** What a clip is made of: `2 parts, with camera proxy and sidecar`, `48 frames`, `alone`. */
const filesOf = ({ parts, isRun, beside }: ClipView): string =>
  isRun ? beside : [parts > 1 ? `${parts} parts` : '', beside && `with ${beside}`].filter(Boolean).join(', ') || 'alone'

/**
 * What cells need, which are drawn far from where the sheet stands: how to open a clip’s properties, and the zone of
 * the shoot.
 */
const Around = createContext<{ readonly open: (clip: ClipView) => void; readonly timeZone: string }>({
  open: () => undefined,
  timeZone: 'UTC',
})

const COLUMNS: readonly Column<ClipView, ClipSort>[] = [
  { key: 'picture', header: 'Picture', width: 'w-32', cell: (clip) => <Picture clip={clip} /> },
  { key: 'name', header: 'Clip', sort: 'name', cell: (clip) => <Name clip={clip} />, text: (clip) => clip.path },
  {
    key: 'frame',
    width: 'w-28',
    header: 'Frame',
    sort: 'frame',
    className: 'figure',
    cell: (clip) => (clip.trouble ? '' : frame(clip)),
    text: frame,
  },
  {
    key: 'rate',
    width: 'w-20',
    header: 'Rate',
    sort: 'rate',
    right: true,
    className: 'figure',
    cell: (clip) => rateLabel(clip.rate),
    text: (clip) => clip.rate ?? '',
  },
  {
    key: 'length',
    width: 'w-28',
    header: 'Length',
    sort: 'length',
    right: true,
    className: 'figure',
    cell: (clip) =>
      clip.seconds !== null && (
        <>
          {formatLength(clip.seconds)}
          {clip.frames !== null && <span className="block text-quiet">{clip.frames} frames</span>}
        </>
      ),
    text: (clip) => (clip.seconds === null ? '' : String(clip.seconds)),
  },
  {
    key: 'codec',
    width: 'w-36',
    header: 'Codec',
    sort: 'codec',
    className: 'figure',
    cell: (clip) => (
      <>
        {codec(clip)}
        {clip.coding && <span className="block text-quiet">{clip.coding}</span>}
      </>
    ),
    text: codec,
  },
  {
    key: 'size',
    width: 'w-22',
    header: 'Bytes',
    sort: 'size',
    right: true,
    className: 'figure',
    cell: (clip) => formatBytes(clip.sizeBytes),
    text: (clip) => String(clip.sizeBytes),
  },
  {
    key: 'recorded',
    width: 'w-28',
    header: 'Recorded',
    sort: 'recorded',
    className: 'figure',
    cell: (clip) => <Recorded at={clip.recordedAt} />,
    text: (clip) => clip.recordedAt ?? '',
  },
]

/** In the zone of the shoot, whatever that of the browser is. */
function Recorded({ at }: { at: string | null }) {
  const { timeZone } = useContext(Around)
  return at && timeIn(timeZone, at)
}

function Picture({ clip }: { clip: ClipView }) {
  return clip.pictureMade ? (
    <img
      src={addressOf(cardsApi.picture, { id: clip.id })}
      alt={`A frame of ${clip.name}`}
      loading="lazy"
      className="h-15 w-[6.7rem] rounded-box object-cover"
    />
  ) : (
    <span className="flex h-15 w-[6.7rem] items-center justify-center border border-dashed border-rule text-sm text-quiet">
      {clip.trouble ? 'unreadable' : clip.hasPicture ? 'no picture' : clip.isRun ? 'raw frames' : 'sound'}
    </span>
  )
}

function Name({ clip }: { clip: ClipView }) {
  const { open } = useContext(Around)
  const wrong = [clip.trouble, clip.cut].filter(Boolean).join('; ')
  return (
    <>
      <button
        type="button"
        className="figure cursor-pointer text-left font-semibold decoration-rule underline-offset-4 hover:underline"
        aria-label={`Properties of ${clip.name}`}
        // Rows are reached with the arrows; Enter opens the one that is marked.
        tabIndex={-1}
        onClick={(event) => {
          event.stopPropagation()
          open(clip)
        }}
      >
        <span className="line-clamp-2" title={clip.name}>
          {clip.name}
        </span>
      </button>
      <span className="block text-sm text-quiet">{clip.onCard ? filesOf(clip) : 'no longer on the card'}</span>
      {clip.givenTo !== null && <span className="block text-sm">reassigned to “{clip.givenTo}”</span>}
      {wrong === '' ? (
        clip.remarks.length > 0 && <span className="block text-sm">{clip.remarks.slice(0, 3).join(', ')}</span>
      ) : (
        <span className="block text-sm text-stop">{wrong}</span>
      )}
    </>
  )
}

const SHOWN: readonly { value: ClipsAsked['show']; label: string; none: string }[] = [
  { value: 'all', label: 'All clips', none: 'There is no clip.' },
  { value: 'wrong', label: 'Those in trouble', none: 'None of its clips is in trouble.' },
  { value: 'film', label: 'With a picture', none: 'None of its clips has a picture.' },
]
const ROW_PX = 74
const rowId = (clip: ClipView) => clip.id
const rowData = (clip: ClipView) => ({ 'data-clip': clip.name })

/** The clips of a load: sorted and narrowed down by the server, drawn as far as they are in sight. */
export function ClipTable({ load, productionId }: { load: LoadView; productionId: string }) {
  const [sorting, setSorting] = useState<Sorting<ClipSort>>({ sort: 'name', down: false })
  const [show, setShow] = useState<ClipsAsked['show']>('all')
  const [typed, setTyped] = useState('')
  const [opened, setOpened] = useState<ClipView>()
  const [giving, setGiving] = useState<readonly string[]>()
  const q = useDeferredValue(typed.trim())
  const pages = usePages(cardsApi.clips, { id: productionId }, { query: { loadId: load.id, show, q, ...sorting } })
  const timeZone = useProduction(productionId).data?.timeZone ?? 'UTC'
  const around = useMemo(() => ({ open: setOpened, timeZone }), [timeZone])
  const clips = load.productionId === productionId ? load.clips : load.clipsHere
  if (clips === 0) return null
  return (
    <Around value={around}>
      <Narrow count={clips} typed={typed} onType={setTyped} show={show} options={SHOWN} onShow={setShow} />
      <Ask query={pages}>
        {({ rows }) =>
          rows.length === 0 ? (
            <p className="border-t border-ink py-3 text-quiet">
              {q === ''
                ? SHOWN.find((one) => one.value === show)?.none
                : `No clip whose name has words that begin with “${q}”.`}
            </p>
          ) : (
            <Table
              label={`Clips of ${load.label}`}
              columns={COLUMNS}
              rows={rows}
              rowId={rowId}
              rowData={rowData}
              rowPx={ROW_PX}
              sorting={sorting}
              onSort={setSorting}
              pages={pages}
              fileName={`${load.label} clips.csv`}
              onOpen={setOpened}
              actions={(ids) => <Button onClick={() => setGiving(ids)}>Reassign to another production …</Button>}
            />
          )
        }
      </Ask>
      {giving && (
        <ReassignSheet
          clipIds={giving}
          productionId={productionId}
          owner={{ id: load.productionId, title: load.productionTitle }}
          onClose={() => setGiving(undefined)}
        />
      )}
      <ClipSheet clipId={opened?.id} name={opened?.name ?? ''} onClose={() => setOpened(undefined)} />
    </Around>
  )
}
