import { FileSpreadsheet, Table2 } from 'lucide-react'
import type { CsvWay } from '../../../core/units/csv'
import type { MenuEntry } from '../layers/Menu'

/** A table as a file, in two ways; `line` says what a line of it is. */
export const tableEntries = (line: string, save: (how: CsvWay) => void): readonly MenuEntry[] => [
  { label: 'As a table', note: `CSV, a line ${line}`, icon: Table2, onSelect: () => save('plain') },
  {
    label: 'For a spreadsheet',
    note: 'CSV with a mark at its beginning, where letters like ü come out wrong without',
    icon: FileSpreadsheet,
    onSelect: () => save('marked'),
  },
]
