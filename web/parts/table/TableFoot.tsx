import { Copy } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { csv, type CsvWay } from '../../../core/units/csv'
import { Button } from '../controls/Button'
import { Menu } from '../layers/Menu'
import { saveText } from '../save'
import { tableEntries } from './tableEntries'
import { textsOf, type Column } from './tableColumn'
import { Trouble } from '../Trouble'
import type { MorePages } from './usePages'

interface FootProps<Row, Sort extends string> {
  readonly columns: readonly Column<Row, Sort>[]
  readonly rows: readonly Row[]
  readonly pages: MorePages & { readonly all: () => Promise<readonly Row[]> }
  readonly fileName: string
  readonly selected: number
  readonly copied: number
  readonly onCopy: () => void
  readonly children: ReactNode
}

/** What is selected, what can be done with it, and the way into a spreadsheet. */
export function TableFoot<Row, Sort extends string>(props: FootProps<Row, Sort>) {
  const { columns, rows, pages, fileName, selected, copied, onCopy, children } = props
  const [saving, setSaving] = useState<'no' | 'yes' | Error>('no')
  const save = async (how: CsvWay) => {
    setSaving('yes')
    try {
      saveText(fileName, csv(textsOf(columns, await pages.all()), how), 'text/csv')
      setSaving('no')
    } catch (trouble) {
      setSaving(trouble instanceof Error ? trouble : new Error(String(trouble)))
    }
  }
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule pt-2 text-sm">
        <span className="text-quiet" aria-live="polite">
          {selected === 0
            ? `${rows.length}${pages.hasNextPage ? ' so far' : ''}; press a row to select it, with Ctrl or ` +
              'Shift for more'
            : `${selected} selected${copied === selected ? ', copied' : ''}`}
        </span>
        {selected > 0 && children}
        {selected > 0 && (
          <Button look="quiet" className="!min-h-7 !px-1 !py-0" onClick={onCopy}>
            <Copy className="size-3.5" aria-hidden /> Copy
          </Button>
        )}
        <span className="ml-auto">
          <Menu
            label={saving === 'yes' ? 'Asking for all of them …' : 'Save as CSV'}
            look="quiet"
            disabled={saving === 'yes'}
            entries={tableEntries('a row', (how) => void save(how))}
          />
        </span>
      </div>
      {saving instanceof Error && <Trouble error={saving} />}
    </>
  )
}
