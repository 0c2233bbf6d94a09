import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { format } from 'date-fns'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { useRef, useState } from 'react'
import { frameRateLabel, parseFrameRate } from '../../../core/units/frameRate'
import { formatBytes, formatLength } from '../../../core/units/quantity'
import { cardsApi, type ClipView } from '../../../contract/cards'
import { addressOf } from '../../../contract/endpoint'

const column = createColumnHelper<ClipView>()
const rateLabel = (rate: string | null) => {
  const parsed = rate ? parseFrameRate(rate) : undefined
  return parsed ? frameRateLabel(parsed) : ''
}

const COLUMNS = [
  column.accessor('name', {
    header: 'Clip',
    cell: ({ row: { original: clip } }) => (
      <>
        <span className="figure font-semibold">{clip.name}</span>
        <span className="block text-sm text-quiet">
          {!clip.onCard
            ? 'no longer on the card'
            : clip.sidecars > 0
              ? `with ${clip.sidecars} sidecar${clip.sidecars > 1 ? 's' : ''}`
              : 'alone'}
        </span>
        {clip.cut && <span className="block font-sans text-sm text-stop">{clip.cut}</span>}
      </>
    ),
  }),
  column.accessor('widthPx', {
    header: 'Frame',
    cell: ({ row: { original: clip } }) =>
      clip.widthPx ? (
        `${clip.widthPx}×${clip.heightPx}`
      ) : clip.trouble ? (
        <span className="font-sans text-stop">{clip.trouble}</span>
      ) : (
        'sound'
      ),
  }),
  column.accessor('rate', { header: 'Rate', cell: ({ getValue }) => rateLabel(getValue()), meta: 'right' }),
  column.accessor('seconds', {
    header: 'Length',
    cell: ({ row: { original: clip } }) =>
      clip.seconds === null ? (
        ''
      ) : (
        <>
          {formatLength(clip.seconds)}
          {clip.frames !== null && <span className="block text-quiet">{clip.frames} frames</span>}
        </>
      ),
    meta: 'right',
  }),
  column.accessor('codec', { header: 'Codec', cell: ({ getValue }) => codecName(getValue()) }),
  column.accessor('sizeBytes', { header: 'Bytes', cell: ({ getValue }) => formatBytes(getValue()), meta: 'right' }),
  column.accessor('recordedAt', {
    header: 'Recorded',
    cell: ({ getValue }) => {
      const at = getValue()
      return at ? format(new Date(at), 'yyyy-MM-dd HH:mm') : ''
    },
  }),
]

/** Codecs by their published standard. */
function codecName(codec: string | null): string {
  if (codec === null) return ''
  const names: Record<string, string> = {
    h264: 'H.264',
    hevc: 'H.265',
    av1: 'AV1',
    aac: 'AAC',
    mpeg2video: 'H.262',
    mjpeg: 'Motion JPEG',
    dvvideo: 'DV',
  }
  return names[codec] ?? (codec.startsWith('pcm_') ? `PCM ${codec.match(/\d+/)?.[0] ?? ''} bit` : codec)
}

const ROW_PX = 74

/** The clips of a load, sortable; only the rows in sight are drawn, so that ten thousand clips scroll as ten do. */
export function ClipTable({ clips }: { clips: readonly ClipView[] }) {
  const [sorting, setSorting] = useState<SortingState>([])
  const box = useRef<HTMLDivElement>(null)
  const table = useReactTable({
    data: clips as ClipView[],
    columns: COLUMNS,
    state: { sorting },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  })
  const { rows } = table.getRowModel()
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  const shown = virtual.getVirtualItems()
  if (clips.length === 0) return null
  const before = shown[0]?.start ?? 0
  const after = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0)
  return (
    <div ref={box} className="max-h-[34rem] overflow-auto" tabIndex={0} role="region" aria-label="Clips">
      <table className="min-w-[52rem]">
        <thead className="sticky top-0 z-10 bg-paper">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              <th className="w-28">
                <span className="sr-only">Picture</span>
              </th>
              {group.headers.map((header) => {
                const sorted = header.column.getIsSorted()
                return (
                  <th
                    key={header.id}
                    className={header.column.columnDef.meta === 'right' ? '!text-right' : ''}
                    aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                  >
                    <button
                      type="button"
                      onClick={header.column.getToggleSortingHandler()}
                      className="inline-flex items-center gap-1 font-semibold"
                    >
                      {flexRender(header.column.columnDef.header, header.getContext())}
                      {sorted === 'asc' && <ArrowUp className="size-3" aria-hidden />}
                      {sorted === 'desc' && <ArrowDown className="size-3" aria-hidden />}
                    </button>
                  </th>
                )
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {before > 0 && (
            <tr aria-hidden="true">
              <td colSpan={8} style={{ height: before, padding: 0, border: 0 }} />
            </tr>
          )}
          {shown.flatMap((item) => {
            const row = rows[item.index]
            if (!row) return []
            const clip = row.original
            return [
              <tr key={clip.id} style={{ height: ROW_PX }} data-clip={clip.name}>
                <td className="!py-1">
                  {clip.pictureMade ? (
                    <img
                      src={addressOf(cardsApi.picture, { id: clip.id })}
                      alt={`A frame of ${clip.name}`}
                      loading="lazy"
                      className="h-15 w-[6.7rem] rounded-box object-cover"
                    />
                  ) : (
                    <span className="flex h-15 w-[6.7rem] items-center justify-center border border-dashed border-rule text-sm text-quiet">
                      {clip.hasPicture ? 'no picture' : 'sound'}
                    </span>
                  )}
                </td>
                {row.getVisibleCells().map((cell) => (
                  <td
                    key={cell.id}
                    className={`figure !py-1 ${cell.column.columnDef.meta === 'right' ? 'text-right' : ''}`}
                  >
                    {flexRender(cell.column.columnDef.cell, cell.getContext())}
                  </td>
                ))}
              </tr>,
            ]
          })}
          {after > 0 && (
            <tr aria-hidden="true">
              <td colSpan={8} style={{ height: after, padding: 0, border: 0 }} />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  )
}
