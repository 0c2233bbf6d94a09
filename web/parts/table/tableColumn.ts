import type { ReactNode } from 'react'

export interface Column<Row, Sort extends string = string> {
  readonly key: string
  readonly header: string
  /** Sorted by the server under this name. */
  readonly sort?: Sort
  /** Figures stand on the right. */
  readonly right?: boolean
  /** Width as a class; the columns without one share what is left. */
  readonly width?: string
  readonly className?: string
  readonly cell: (row: Row) => ReactNode
  /** The same in plain text, for a spreadsheet; a column without it is left out there. */
  readonly text?: (row: Row) => string
}

export interface Sorting<Sort extends string> {
  readonly sort: Sort
  readonly down: boolean
}

/** The head and the rows in plain text, for a spreadsheet. */
export function textsOf<Row, Sort extends string>(
  columns: readonly Column<Row, Sort>[],
  rows: readonly Row[],
): readonly (readonly string[])[] {
  const told = columns.filter((column) => column.text)
  return [told.map((column) => column.header), ...rows.map((row) => told.map((column) => column.text?.(row) ?? ''))]
}
