import { memo, type ReactNode } from 'react'
import type { Column } from './tableColumn'

interface LineProps<Row, Sort extends string> {
  readonly columns: readonly Column<Row, Sort>[]
  /** Attributes of a row, such as what it is called in tests. */
  readonly rowData?: ((row: Row) => Readonly<Record<`data-${string}`, string>>) | undefined
  readonly rowPx: number
  readonly id: string
  readonly at: number
  readonly row: Row
  readonly isActive: boolean
  readonly isSelected: boolean
}

/** A row, drawn again only when something of it changed: scrolling draws those that come into sight. */
export const TableLine = memo(function TableLine<Row, Sort extends string>(props: LineProps<Row, Sort>) {
  const { id, at, row, columns, rowData, rowPx, isActive, isSelected } = props
  return (
    <tr
      id={id}
      role="row"
      aria-rowindex={at + FIRST_LINE}
      aria-selected={isSelected}
      style={{ height: rowPx }}
      className={`cursor-default aria-selected:bg-wash ${isActive ? 'shadow-[inset_3px_0_0_var(--accent)]' : ''}`}
      {...rowData?.(row)}
    >
      {columns.map(({ key, right, className = '', cell }) => (
        <td
          key={key}
          role="gridcell"
          className={`!py-1 wrap-anywhere first:pl-2 ${right ? 'text-right' : ''} ${className}`}
        >
          {cell(row)}
        </td>
      ))}
    </tr>
  )
}) as <Row, Sort extends string>(props: LineProps<Row, Sort>) => ReactNode

/** Rows are numbered as a reader of the whole grid counts them: from 1, the head first. */
export const FIRST_LINE = 2
