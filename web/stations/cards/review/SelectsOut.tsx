import { Clapperboard, PencilLine, Printer, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { selectRows, selectsTimeline } from '../../../../core/cards/review/selects'
import { csv, type CsvWay } from '../../../../core/units/csv'
import { fileTitle } from '../../../../core/units/fileTitle'
import { counted, formatBytes } from '../../../../core/units/quantity'
import { reviewApi } from '../../../../contract/review'
import { call, type ApiProblem } from '../../../parts/asking/api'
import { Button } from '../../../parts/controls/Button'
import { Menu } from '../../../parts/layers/Menu'
import { useProduction } from '../../../trade/queries'
import { saveText } from '../../../parts/save'
import { tableEntries } from '../../../parts/table/tableEntries'
import { Trouble } from '../../../parts/Trouble'
import { useAsk } from '../../../parts/asking/useAsk'
import { useSend } from '../../../parts/asking/useSend'
import { Names } from './Names'

interface SelectsOutProps {
  readonly productionId: string
  readonly kept: number
  /** To name them is the next step. */
  readonly isNaming: boolean
}

/** What is kept, for an editing program, a spreadsheet or paper; and what was made to watch it. */
export function SelectsOut({ productionId, kept, isNaming }: SelectsOutProps) {
  const { data: production } = useProduction(productionId)
  const { data: previews } = useAsk(reviewApi.previews, {})
  const remove = useSend(reviewApi.removePreviews)
  const [naming, setNaming] = useState(false)
  const [fault, setFault] = useState<ApiProblem | null>(null)
  const title = production?.title ?? ''
  const save = (ending: 'otio' | 'csv', how?: CsvWay) =>
    void call(reviewApi.selects, { params: { id: productionId } }).then((selects) => {
      setFault(null)
      const name = `${fileTitle(title)} selects.${ending}`
      if (ending === 'csv') saveText(name, csv(selectRows(selects), how), 'text/csv')
      else saveText(name, selectsTimeline(title, selects), 'application/json')
    }, setFault)
  return (
    <section aria-label="Selects out" className="mt-6">
      <div className="flex flex-wrap items-center gap-3">
        {kept > 0 && (
          <>
            <Button look={isNaming ? 'primary' : 'plain'} onClick={() => setNaming(true)}>
              <PencilLine className="size-4" aria-hidden />
              Name them
            </Button>
            <Menu
              label="Pass them on"
              entries={[
                {
                  label: 'For an editing program',
                  note: 'OpenTimelineIO: the kept pieces one after the other, each at its own timecode',
                  icon: Clapperboard,
                  onSelect: () => save('otio'),
                },
                ...tableEntries('a piece', (how) => save('csv', how)),
                {
                  label: 'Contact sheet',
                  note: 'to print, with frames',
                  icon: Printer,
                  to: `/print/${productionId}/selects`,
                },
              ]}
            />
          </>
        )}
        {previews && previews.files > 0 && (
          <span className="ml-auto flex items-center gap-1 text-sm text-quiet">
            {counted(previews.files, 'preview')}, {formatBytes(previews.sizeBytes)}
            <Button look="quiet" disabled={remove.isPending} onClick={() => remove.mutate({ params: {} })}>
              <Trash2 className="size-4" aria-hidden />
              Remove previews
            </Button>
          </span>
        )}
      </div>
      <Trouble error={fault ?? remove.error} />
      {naming && <Names productionId={productionId} onClose={() => setNaming(false)} />}
    </section>
  )
}
