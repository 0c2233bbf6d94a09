import Papa from 'papaparse'
import { FileUp, Printer, Smartphone } from 'lucide-react'
import { useRef, useState, type ChangeEvent } from 'react'
import { shotPage } from '../../../core/shoot/shotPage'
import { shotRows, shotsFromRows, shotsNotOn, type Shot, type ShotNames } from '../../../core/shoot/shots'
import { csv } from '../../../core/units/csv'
import { fileTitle } from '../../../core/units/fileTitle'
import { counted } from '../../../core/units/quantity'
import { tableText } from '../../../core/units/tableText'
import { shootApi, ticksBody } from '../../../contract/shoot'
import { Button } from '../../parts/controls/Button'
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

const MOST_BYTES = 2_000_000

/** How the list leaves for the location and comes back: on paper, as a table, and as a page for a phone. */
export function ShotPapers({ productionId, shots, names }: ShotPapersProps) {
  const { data: production } = useProduction(productionId)
  const { data: day } = useDay(productionId)
  const add = useSend(shootApi.addShots)
  const give = useSend(shootApi.giveTicks)
  const [said, setSaid] = useState<readonly string[]>([])
  const [fault, setFault] = useState<Error | null>(null)
  const [preview, setPreview] = useState<ReadTable>()
  const table = useRef<HTMLInputElement>(null)
  const ticks = useRef<HTMLInputElement>(null)
  const title = production?.title ?? 'Production'
  const file = fileTitle(title)

  const opened = (
    event: ChangeEvent<HTMLInputElement>,
    read: (text: string, file: string, encoding: string) => void,
  ) => {
    const chosen = event.target.files?.[0]
    event.target.value = ''
    if (!chosen) return
    setSaid([])
    setFault(null)
    if (chosen.size > MOST_BYTES) {
      setFault(new Error(`${chosen.name} is far too large for a shot list. Choose another file.`))
      return
    }
    chosen
      .arrayBuffer()
      .catch(() => {
        throw new Error(`${chosen.name} could not be read. Choose it again.`)
      })
      .then((bytes) => {
        const { text, encoding } = tableText(new Uint8Array(bytes))
        read(text, chosen.name, encoding)
      })
      .catch((error: unknown) => setFault(error instanceof Error ? error : new Error(String(error))))
  }

  const readTable = (text: string, name: string, encoding: string) => {
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: true })
    const read = shotsFromRows(data, names)
    if (read.shots.length === 0) {
      setFault(new Error('No shot is in this file. It needs one shot per line, its name first.'))
      return
    }
    const fresh = shotsNotOn(shots, read.shots)
    const known = read.shots.length - fresh.length
    const already =
      known > 0 ? [`${counted(known, 'shot')} of the file ${known === 1 ? 'is' : 'are'} on the list already.`] : []
    if (fresh.length === 0) setSaid([...already, ...read.faults])
    else setPreview({ file: name, encoding: encoding.toUpperCase(), fresh, said: [...already, ...read.faults] })
  }

  const addAll = ({ fresh, said: known }: ReadTable) =>
    add.mutate(
      {
        params: { id: productionId },
        body: { shots: fresh.map((shot) => ({ ...shot, deliverables: [...shot.deliverables] })), passes: 1 },
      },
      {
        onSuccess: () => {
          setPreview(undefined)
          setSaid([`${counted(fresh.length, 'shot')} added at the end.`, ...known])
        },
      },
    )

  const readTicks = (text: string) => {
    const given = ticksOf(text)
    if (!given) {
      setFault(new Error('These are no ticks of a shot list. Choose the file that the phone gave back.'))
      return
    }
    give.mutate(
      { params: { id: productionId }, body: given },
      {
        onSuccess: ({ changed, unknown }) =>
          setSaid([
            `${counted(changed, 'shot')} changed${unknown > 0 ? `; ${counted(unknown, 'shot')} of the file ${unknown === 1 ? 'is' : 'are'} no longer on the list` : ''}.`,
          ]),
      },
    )
  }

  const when = [day?.shootOn, day?.place].filter(Boolean).join(', ')
  return (
    <section aria-label="To the location and back" className="mt-6">
      <div className="flex flex-wrap gap-3">
        {shots.length > 0 && (
          <>
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
                  onSelect: () =>
                    saveText(
                      `${file} shots.html`,
                      shotPage({ productionId, title, when, file: `${file} ticks.json`, shots, ...names }),
                      'text/html',
                    ),
                },
                ...tableEntries('a shot', (how) =>
                  saveText(`${file} shots.csv`, csv(shotRows(shots, names), how), 'text/csv'),
                ),
              ]}
            />
            <Button onClick={() => ticks.current?.click()}>
              <FileUp className="size-4" aria-hidden />
              Take ticks back
            </Button>
          </>
        )}
        <Button onClick={() => table.current?.click()}>
          <FileUp className="size-4" aria-hidden />
          Add from CSV
        </Button>
      </div>
      <input
        ref={table}
        type="file"
        accept=".csv,text/csv,text/plain"
        aria-label="Shots as CSV"
        hidden
        onChange={(event) => opened(event, readTable)}
      />
      <input
        ref={ticks}
        type="file"
        accept=".json,application/json"
        aria-label="Ticks of a phone"
        hidden
        onChange={(event) => opened(event, readTicks)}
      />
      {preview && (
        <ShotPreview
          table={preview}
          names={names}
          busy={add.isPending}
          error={add.error}
          onAdd={() => addAll(preview)}
          onClose={() => setPreview(undefined)}
        />
      )}
      <Trouble error={fault ?? (preview ? null : add.error) ?? give.error} />
      {said.length > 0 && (
        <div role="status" className="mt-3 max-w-2xl">
          {said.slice(0, MOST_SAID).map((line) => (
            <p key={line}>{line}</p>
          ))}
          {said.length > MOST_SAID && <p className="text-quiet">And {said.length - MOST_SAID} more.</p>}
        </div>
      )}
    </section>
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
