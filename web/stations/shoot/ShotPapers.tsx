import Papa from 'papaparse'
import { Printer, Smartphone } from 'lucide-react'
import { useState } from 'react'
import { dayWithName } from '../../../core/units/day'
import { shotPage } from '../../../core/shoot/shotPage'
import { shotRows, shotsFromRows, shotsNotOn, type Shot, type ShotNames } from '../../../core/shoot/shots'
import { csv } from '../../../core/units/csv'
import { fileTitle } from '../../../core/units/fileTitle'
import { counted } from '../../../core/units/quantity'
import { shootApi, ticksBody } from '../../../contract/shoot'
import { OpenFile, type OpenedFile } from '../../parts/OpenFile'
import { Menu } from '../../parts/layers/Menu'
import { useProduction } from '../../trade/queries'
import { saveText } from '../../parts/save'
import { tableEntries } from '../../parts/table/tableEntries'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { useDay } from './queries'
import { ShotPreview, type ReadTable } from './ShotPreview'

interface ShotPapersProps {
  readonly productionId: string
  readonly shots: readonly Shot[]
  readonly names: ShotNames
}

/** How the list leaves for the location and comes back: on paper, as a table, and as a page for a phone. */
export function ShotPapers({ productionId, shots, names }: ShotPapersProps) {
  const [said, setSaid] = useState<readonly string[]>([])
  const [fault, setFault] = useState<Error | null>(null)
  const table = useShotTable({ productionId, shots, names, onSaid: setSaid })
  const ticks = useTicksBack(productionId, setSaid)
  const anew = () => {
    setSaid([])
    setFault(null)
  }
  return (
    <section aria-label="To the location and back" className="mt-6">
      <div className="flex flex-wrap gap-3">
        {shots.length > 0 && (
          <>
            <TakeAlong productionId={productionId} shots={shots} names={names} />
            <OpenFile
              label="Ticks of a phone"
              accept=".json,application/json"
              onBegin={anew}
              onFault={setFault}
              onRead={({ text }) => ticks.read(text)}
            >
              Take ticks back
            </OpenFile>
          </>
        )}
        <OpenFile
          label="Shots as CSV"
          accept=".csv,text/csv,text/plain"
          onBegin={anew}
          onFault={setFault}
          onRead={table.read}
        >
          Add from CSV
        </OpenFile>
      </div>
      {table.preview && (
        <ShotPreview
          table={table.preview}
          names={names}
          busy={table.busy}
          error={table.error}
          onAdd={table.addAll}
          onClose={table.close}
        />
      )}
      <Trouble error={fault ?? (table.preview ? null : table.error) ?? ticks.error} />
      <Said lines={said} />
    </section>
  )
}

function TakeAlong({ productionId, shots, names }: ShotPapersProps) {
  const { data: production } = useProduction(productionId)
  const { data: day } = useDay(productionId)
  const title = production?.title ?? 'Production'
  const file = fileTitle(title)
  const when = [day?.shootOn && dayWithName(day.shootOn), day?.place].filter(Boolean).join(', ')
  const page = () => shotPage({ productionId, title, when, file: `${file} ticks.json`, shots, ...names })
  return (
    <Menu
      label="Take it along"
      entries={[
        {
          label: 'On paper',
          note: 'to print, with boxes to tick',
          icon: Printer,
          to: `/print/${productionId}/shots`,
        },
        {
          label: 'On a phone',
          note: 'one page that works without a network and gives its ticks back',
          icon: Smartphone,
          onSelect: () => saveText(`${file} shots.html`, page(), 'text/html'),
        },
        ...tableEntries('a shot', (how) => saveText(`${file} shots.csv`, csv(shotRows(shots, names), how), 'text/csv')),
      ]}
    />
  )
}

/** Shots from a table: what of it is new is shown before any of it is added. */
function useShotTable({ productionId, shots, names, onSaid }: ShotPapersProps & { onSaid: (lines: string[]) => void }) {
  const add = useSend(shootApi.addShots)
  const [preview, setPreview] = useState<ReadTable>()
  const read = ({ text, name, encoding }: OpenedFile) => {
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: true })
    const found = shotsFromRows(data, names)
    if (found.shots.length === 0)
      throw new Error('No shot is in this file. It needs one shot per line, its name first.')
    const fresh = shotsNotOn(shots, found.shots)
    const known = found.shots.length - fresh.length
    const already =
      known > 0 ? [`${counted(known, 'shot')} of the file ${known === 1 ? 'is' : 'are'} on the list already.`] : []
    const said = [...already, ...found.faults]
    if (fresh.length === 0) onSaid(said)
    else setPreview({ file: name, encoding: encoding.toUpperCase(), fresh, said })
  }
  const close = () => setPreview(undefined)
  const addAll = () => {
    if (!preview) return
    const { fresh, said } = preview
    add.mutate(
      {
        params: { id: productionId },
        body: { shots: fresh.map((shot) => ({ ...shot, deliverables: [...shot.deliverables] })), passes: 1 },
      },
      {
        onSuccess: () => {
          close()
          onSaid([`${counted(fresh.length, 'shot')} added at the end.`, ...said])
        },
      },
    )
  }
  return { read, preview, addAll, close, busy: add.isPending, error: add.error }
}

/** What was ticked on a phone without a network. */
function useTicksBack(productionId: string, onSaid: (lines: string[]) => void) {
  const give = useSend(shootApi.giveTicks)
  const read = (text: string) => {
    const given = ticksOf(text)
    if (!given) throw new Error('These are no ticks of a shot list. Choose the file that the phone gave back.')
    give.mutate(
      { params: { id: productionId }, body: given },
      {
        onSuccess: ({ changed, unknown }) =>
          onSaid([
            `${counted(changed, 'shot')} ` +
              `changed${unknown > 0 ? `; ${counted(unknown, 'shot')} of the file ${unknown === 1 ? 'is' : 'are'} no longer on the list` : ''}.`,
          ]),
      },
    )
  }
  return { read, error: give.error }
}

function Said({ lines }: { lines: readonly string[] }) {
  if (lines.length === 0) return null
  return (
    <div role="status" className="mt-3 max-w-2xl">
      {lines.slice(0, MOST_SAID).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {lines.length > MOST_SAID && <p className="text-quiet">And {lines.length - MOST_SAID} more.</p>}
    </div>
  )
}

const MOST_SAID = 12

function ticksOf(text: string) {
  try {
    return ticksBody.validateSync(JSON.parse(text), { strict: true })
  } catch {
    return undefined
  }
}
