import { timeIn, zoneHere } from '../../../core/units/day'
import { formatBytes } from '../../../core/units/quantity'
import type { BagView } from '../../../contract/shelf'
import { Table } from '../../parts/table/Table'
import type { Column, Sorting } from '../../parts/table/tableColumn'
import type { useBags } from './queries'

export type BagSort = 'written'

const writtenAt = ({ writtenAt: at }: BagView) => timeIn(zoneHere(), at)
const proved = (bag: BagView) => (bag.verifiedAt ? 'read back, equal' : 'not past the cache')

const COLUMNS: readonly Column<BagView, BagSort>[] = [
  {
    key: 'bag',
    header: 'Bag',
    cell: ({ title, path }) => (
      <>
        <span className="font-bold">{title}</span>
        <span className="figure block truncate text-sm text-quiet" title={path}>
          {path}
        </span>
      </>
    ),
    text: ({ path }) => path,
  },
  {
    key: 'volume',
    width: 'w-40',
    header: 'Volume',
    cell: ({ volumeName, site }) => (
      <>
        {volumeName}
        <span className="block text-sm text-quiet">{site}</span>
      </>
    ),
    text: ({ volumeName, site }) => `${volumeName}, ${site}`,
  },
  {
    key: 'files',
    width: 'w-18',
    header: 'Files',
    right: true,
    className: 'figure',
    cell: (bag) => bag.fileCount,
    text: (bag) => String(bag.fileCount),
  },
  {
    key: 'bytes',
    width: 'w-24',
    header: 'Bytes',
    right: true,
    className: 'figure',
    cell: (bag) => formatBytes(bag.sizeBytes),
    text: (bag) => String(bag.sizeBytes),
  },
  {
    key: 'written',
    header: 'Written',
    width: 'w-42',
    sort: 'written',
    className: 'figure',
    cell: writtenAt,
    text: writtenAt,
  },
  {
    key: 'proved',
    width: 'w-40',
    header: 'Proved',
    cell: (bag) => <span className={bag.verifiedAt ? 'text-good' : 'text-doubt'}>{proved(bag)}</span>,
    text: proved,
  },
]
const ROW_PX = 58

interface BagTableProps {
  readonly bags: readonly BagView[]
  readonly pages: ReturnType<typeof useBags>
  readonly sorting: Sorting<BagSort>
  readonly onSort: (sorting: Sorting<BagSort>) => void
}

/** The bags of a production, and how anybody checks one in ten years. */
export function BagTable({ bags, pages, sorting, onSort }: BagTableProps) {
  if (bags.length === 0) return null
  return (
    <>
      <Table
        label="Bags"
        columns={COLUMNS}
        rows={bags}
        rowId={(bag) => bag.id}
        rowData={(bag) => ({ 'data-bag': bag.title })}
        rowPx={ROW_PX}
        sorting={sorting}
        onSort={onSort}
        pages={pages}
        fileName="Bags.csv"
      />
      <p className="mt-4 text-quiet">
        To check a bag without Yendra, open its folder and run{' '}
        <span className="figure text-ink">sha256sum -c manifest-sha256.txt</span>
      </p>
    </>
  )
}
