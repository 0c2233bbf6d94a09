import {
  getCoreRowModel,
  useReactTable,
  type ColumnDef,
  type OnChangeFn,
  type RowSelectionState,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { useId, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react'
import { shortcutOf, TABLE } from '../shortcuts'
import { textsOf, type Column, type Sorting } from './tableColumn'
import { TableFoot } from './TableFoot'
import { FIRST_LINE, TableLine } from './TableLine'
import { useMarkedRows } from './useMarkedRows'
import { useNextPage, type MorePages } from './usePages'

interface TableProps<Row, Sort extends string> {
  readonly label: string
  readonly columns: readonly Column<Row, Sort>[]
  readonly rows: readonly Row[]
  readonly rowId: (row: Row) => string
  /** Attributes of a row, such as what it is called in tests. */
  readonly rowData?: (row: Row) => Readonly<Record<`data-${string}`, string>>
  readonly rowPx: number
  readonly sorting: Sorting<Sort>
  readonly onSort: (sorting: Sorting<Sort>) => void
  readonly pages: MorePages & { readonly all: () => Promise<readonly Row[]> }
  readonly fileName: string
  /** What can be done with the rows that are selected. */
  readonly actions?: (ids: readonly string[]) => ReactNode
  /** What Enter and a double press do with a row. */
  readonly onOpen?: (row: Row) => void
}

/**
 * A table of any length: the next page is asked for when its end comes near, and only the rows in sight are drawn. Rows
 * are selected by a press, with Ctrl and Shift, or with the arrows, Space and Ctrl A; copied with Ctrl C.
 */
export function Table<Row, Sort extends string>(props: TableProps<Row, Sort>) {
  const { label, columns, rows, rowId, rowData, rowPx, sorting, onSort, pages, actions, onOpen } = props
  const [selection, setSelection] = useState<RowSelectionState>({})
  const table = useTable(columns, rows, rowId, selection, setSelection)
  const shownRows = table.getRowModel().rows
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: shownRows.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowPx,
    overscan: 3,
  })
  const items = virtual.getVirtualItems()
  const { hasNextPage } = pages
  useNextPage(pages, items.at(-1)?.index ?? 0, shownRows.length)

  const id = useId()
  const idAt = (at: number) => `${id}-${shownRows[at]?.id ?? ''}`
  const marks = useMarkedRows({ rows: shownRows, setSelection })
  const { active } = marks
  const { copied, copy } = useCopying(
    columns,
    rows.filter((row) => selection[rowId(row)]),
  )
  const onKey = (event: KeyboardEvent) => {
    // Buttons of the head answer to their own keys.
    if (event.target !== box.current) return
    const row = shownRows[active]?.original
    const used = pressKey(event, marks, {
      rowsInSight: Math.floor((box.current?.clientHeight ?? rowPx) / rowPx),
      scrollTo: virtual.scrollToIndex,
      open: row && onOpen ? () => onOpen(row) : undefined,
      copy: () => void copy(),
    })
    if (used) event.preventDefault()
  }
  const selected = useMemo(() => shownRows.flatMap((row) => (selection[row.id] ? row.id : [])), [shownRows, selection])
  if (rows.length === 0) return null
  return (
    <>
      <div
        ref={box}
        role="grid"
        aria-label={label}
        aria-multiselectable
        aria-rowcount={hasNextPage ? -1 : rows.length + 1}
        aria-activedescendant={items.some((item) => item.index === active) ? idAt(active) : undefined}
        tabIndex={0}
        onKeyDown={onKey}
        className="max-h-[34rem] overflow-auto"
      >
        <table role="presentation" className="min-w-[62rem] table-fixed">
          <Heads columns={columns} sorting={sorting} onSort={onSort} />
          <tbody
            role="rowgroup"
            // A range of rows is meant, not of text.
            onMouseDown={(event) => event.shiftKey && event.preventDefault()}
            onClick={(event) => marks.pressAt(event, lineOf(event))}
            onDoubleClick={(event) => {
              const row = shownRows[lineOf(event)]
              if (row) onOpen?.(row.original)
            }}
          >
            <Gap px={items[0]?.start ?? 0} />
            {items.flatMap(({ index }) => {
              const row = shownRows[index]
              if (!row) return []
              const marked = { isActive: index === active, isSelected: selection[row.id] ?? false }
              const line = { id: idAt(index), at: index, row: row.original, columns, rowData, rowPx }
              return <TableLine key={row.id} {...line} {...marked} />
            })}
            <Gap px={virtual.getTotalSize() - (items.at(-1)?.end ?? 0)} />
          </tbody>
        </table>
      </div>
      <TableFoot {...props} selected={selected.length} copied={copied} onCopy={() => void copy()}>
        {actions?.(selected)}
      </TableFoot>
    </>
  )
}

interface KeyUse {
  readonly rowsInSight: number
  readonly scrollTo: (at: number) => void
  readonly open: (() => void) | undefined
  readonly copy: () => void
}

/** Does what a key of the table says; whether it says anything. */
function pressKey(event: KeyboardEvent, marks: ReturnType<typeof useMarkedRows>, use: KeyUse): boolean {
  const pressed = shortcutOf(TABLE, event)
  if (!pressed || (pressed === 'open' && !use.open)) return false
  if (pressed === 'open') use.open?.()
  else if (pressed === 'copy') use.copy()
  else {
    const at = marks.press(pressed, event, use.rowsInSight - 1)
    if (at !== undefined) use.scrollTo(at)
  }
  return true
}

/** Copies rows as text, their columns apart by tabs; `copied` is how many were. */
function useCopying<Row, Sort extends string>(columns: readonly Column<Row, Sort>[], chosen: readonly Row[]) {
  const [copied, setCopied] = useState(0)
  const copy = async () => {
    const lines = textsOf(columns, chosen).map((line) => line.join('\t'))
    await navigator.clipboard.writeText(lines.join('\n'))
    setCopied(chosen.length)
  }
  return { copied, copy }
}

/** The rows as the table library keeps them: who is chosen, by id. Sorting is the server's. */
function useTable<Row, Sort extends string>(
  columns: readonly Column<Row, Sort>[],
  rows: readonly Row[],
  rowId: (row: Row) => string,
  selection: RowSelectionState,
  setSelection: OnChangeFn<RowSelectionState>,
) {
  const defs = useMemo(
    () => columns.map((column): ColumnDef<Row> => ({ id: column.key, header: column.header })),
    [columns],
  )
  return useReactTable({
    data: rows as Row[],
    columns: defs,
    state: { rowSelection: selection },
    onRowSelectionChange: setSelection,
    getRowId: rowId,
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
    enableMultiRowSelection: true,
  })
}

/** Which row was pressed, from 0; −1 between them. */
const lineOf = ({ target }: MouseEvent) =>
  Number((target as Element).closest('[aria-rowindex]')?.getAttribute('aria-rowindex') ?? FIRST_LINE - 1) - FIRST_LINE

/** Rows that are not drawn keep their height. */
const Gap = ({ px }: { px: number }) =>
  px > 0 ? (
    <tr role="presentation">
      <td role="presentation" style={{ height: px, padding: 0, border: 0 }} />
    </tr>
  ) : null

interface HeadsProps<Row, Sort extends string> extends Omit<HeadProps<Row, Sort>, 'column'> {
  readonly columns: readonly Column<Row, Sort>[]
}

const Heads = <Row, Sort extends string>({ columns, ...sorted }: HeadsProps<Row, Sort>) => (
  <thead role="rowgroup" className="sticky top-0 z-10 bg-paper">
    <tr role="row">
      {columns.map((column) => (
        <Head key={column.key} column={column} {...sorted} />
      ))}
    </tr>
  </thead>
)

interface HeadProps<Row, Sort extends string> {
  readonly column: Column<Row, Sort>
  readonly sorting: Sorting<Sort>
  readonly onSort: (sorting: Sorting<Sort>) => void
}

function Head<Row, Sort extends string>({ column, sorting, onSort }: HeadProps<Row, Sort>) {
  const { header, sort, right, width = '' } = column
  const here = sort !== undefined && sorting.sort === sort
  const Arrow = sorting.down ? ArrowDown : ArrowUp
  return (
    <th
      role="columnheader"
      className={`first:pl-2 ${right ? '!text-right' : ''} ${width}`}
      aria-sort={sort === undefined ? undefined : here ? (sorting.down ? 'descending' : 'ascending') : 'none'}
    >
      {sort === undefined ? (
        header
      ) : (
        <button
          type="button"
          onClick={() => onSort({ sort, down: here && !sorting.down })}
          className="inline-flex min-h-6 items-center gap-1 font-semibold"
        >
          {header}
          {here && <Arrow className="size-3" aria-hidden />}
        </button>
      )}
    </th>
  )
}
