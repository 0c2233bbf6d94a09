import Papa from 'papaparse'
import { useState } from 'react'
import { counted } from '../../../../core/units/quantity'
import { timeIn, zoneHere } from '../../../../core/units/day'
import { chartApi, type KeptChartIn, type KeptChartView, type ChartHead } from '../../../../contract/chart'
import { useAsk } from '../../../parts/asking/useAsk'
import { useSend } from '../../../parts/asking/useSend'
import { Button } from '../../../parts/controls/Button'
import { OpenFile } from '../../../parts/OpenFile'
import { Trouble } from '../../../parts/Trouble'
import { KeptChartSheet, type OpenedTable } from './KeptChartSheet'

/** Charts that somebody kept by hand until now: brought in, and taken back. */
export function KeptCharts({ head }: { head: ChartHead }) {
  const { data: imports = [] } = useAsk(chartApi.kept, {})
  const [table, setTable] = useState<OpenedTable>()
  const [came, setCame] = useState<KeptChartIn>()
  const [fault, setFault] = useState<Error | null>(null)
  return (
    <section aria-label="Kept by hand" className="mt-6 border-t border-rule pt-4">
      <h2 className="mb-1 text-lg">A chart that you kept until now</h2>
      <p className="mb-3 max-w-3xl text-quiet">
        As CSV, in whatever columns. What it says stands on the chart in quotation marks, and counts for no yes.
      </p>
      <OpenFile
        label="A chart as CSV"
        accept=".csv,text/csv,text/plain"
        onBegin={() => {
          setCame(undefined)
          setFault(null)
        }}
        onRead={({ text, name, encoding }) => setTable(tableOf(text, name, encoding))}
        onFault={setFault}
      >
        Bring it in
      </OpenFile>
      <Trouble error={fault} />
      {came && (
        <p role="status" className="mt-3">
          {cameWords(came)}
        </p>
      )}
      {imports.length > 0 && (
        <ul aria-label="Charts that came in" className="mt-4 grid gap-1.5">
          {imports.map((one) => (
            <Import key={one.id} kept={one} />
          ))}
        </ul>
      )}
      {table && (
        <KeptChartSheet
          table={table}
          volumes={head.volumes.map((volume) => volume.name)}
          onClose={() => setTable(undefined)}
          onCame={(next) => {
            setCame(next)
            setTable(undefined)
          }}
        />
      )}
    </section>
  )
}

function tableOf(text: string, fileName: string, encoding: string): OpenedTable {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: false })
  const rows = data.filter((row, at) => at < data.length - 1 || row.some((cell) => cell !== ''))
  if (rows.length < 2)
    throw new Error('There is no line in this file. Its first row names the columns, and each other one is a load.')
  return { fileName, encoding: encoding.toUpperCase(), rows }
}

function cameWords({ added, already, known }: KeptChartIn): string {
  const parts = [
    added === 0 ? 'Nothing was changed' : `${counted(added, 'line')} came in`,
    already > 0 && `${counted(already, 'line')} a kept chart said already, word by word`,
    known > 0 && `${counted(known, 'line')} ${known === 1 ? 'is' : 'are'} of loads that were taken in`,
  ]
  return `${parts.filter(Boolean).join('; ')}.`
}

function Import({ kept: { id, fileName, at, lines, takenBackAt } }: { kept: KeptChartView }) {
  const back = useSend(chartApi.takeKeptChartBack)
  return (
    <li className="flex flex-wrap items-center gap-x-4">
      <span>
        “{fileName}”, {counted(lines, 'line')}, {timeIn(zoneHere(), at)}
        {takenBackAt && <span className="text-quiet">, taken back {timeIn(zoneHere(), takenBackAt)}</span>}
      </span>
      {!takenBackAt && (
        <Button
          look="quiet"
          disabled={back.isPending}
          aria-label={`Take “${fileName}” back`}
          onClick={() => back.mutate({ params: { id } })}
        >
          Take it back
        </Button>
      )}
      <Trouble error={back.error} />
    </li>
  )
}
