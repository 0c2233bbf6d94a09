import { useMemo, useState } from 'react'
import { sortedBy } from './sorted'
import { Table } from './Table'
import type { Column, Sorting } from './tableColumn'

/** A column of a list that is known as a whole, which the page itself can sort. */
export interface WholeColumn<Row> extends Omit<Column<Row>, 'sort'> {
  /** What rows are sorted by. */
  readonly value?: (row: Row) => string | number
}

interface WholeTableProps<Row> {
  readonly label: string
  readonly columns: readonly WholeColumn<Row>[]
  readonly rows: readonly Row[]
  readonly rowId: (row: Row) => string
  readonly rowData?: (row: Row) => Readonly<Record<`data-${string}`, string>>
  readonly rowPx: number
  readonly fileName: string
}

/** The table for a list of which every row is there already: in its own order until a column is chosen. */
export function WholeTable<Row>({ columns, rows, ...rest }: WholeTableProps<Row>) {
  const [sorting, setSorting] = useState<Sorting<string>>({ sort: '', down: false })
  const sortable = useMemo(
    () => columns.map(({ value, ...column }): Column<Row> => (value ? { ...column, sort: column.key } : column)),
    [columns],
  )
  const value = columns.find((column) => column.key === sorting.sort)?.value
  const sorted = useMemo(() => (value ? sortedBy(rows, value, sorting.down) : rows), [rows, value, sorting.down])
  const pages = {
    ...{ hasNextPage: false, isFetchingNextPage: false, fetchNextPage: () => undefined },
    all: () => Promise.resolve(sorted),
  }
  return <Table {...rest} columns={sortable} rows={sorted} sorting={sorting} onSort={setSorting} pages={pages} />
}
