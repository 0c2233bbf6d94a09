import { useState } from 'react'
import {
  BARE_UNITS,
  KEPT_ROLES,
  DAY_ORDERS,
  MOST_KEPT_LINES,
  readKeptChart,
  rolesByHead,
  type KeptFault,
  type KeptReading,
  type KeptRole,
} from '../../../../core/copies/keptChart'
import { counted } from '../../../../core/units/quantity'
import { chartApi, type KeptChartIn } from '../../../../contract/chart'
import { useSend } from '../../../parts/asking/useSend'
import { Button } from '../../../parts/controls/Button'
import { Choice } from '../../../parts/controls/Choice'
import { Switch } from '../../../parts/controls/Switch'
import { Tick } from '../../../parts/controls/Tick'
import { Sheet } from '../../../parts/layers/Sheet'
import { Trouble } from '../../../parts/Trouble'

/** A table as it was opened, its first row naming the columns. */
export interface OpenedTable {
  readonly fileName: string
  readonly encoding: string
  readonly rows: readonly (readonly string[])[]
}

const ROLE_WORDS: Readonly<Record<(typeof KEPT_ROLES)[number], string>> = {
  none: 'left out',
  client: 'client',
  production: 'production',
  day: 'shoot day',
  load: 'card or load',
  camera: 'camera or recorder',
  bytes: 'size',
  formatted: 'formatted',
  on: 'names of its drives',
}

interface KeptChartSheetProps {
  readonly table: OpenedTable
  /** Names of drives that are known. */
  readonly volumes: readonly string[]
  readonly onClose: () => void
  readonly onCame: (came: KeptChartIn) => void
}

/** What each column of the table holds, what is understood of it, and every row that is not: before any of it comes in. */
export function KeptChartSheet({ table, volumes, onClose, onCame }: KeptChartSheetProps) {
  const { rows, fileName, encoding } = table
  const [head = []] = rows
  const [reading, setReading] = useState<KeptReading>({
    roles: rolesByHead(head, volumes),
    bareUnit: /\btb\b/i.test(head.join(' ')) ? 'TB' : 'GB',
    dayOrder: 'day first',
    repeats: true,
  })
  const [leftOut, setLeftOut] = useState(false)
  const send = useSend(chartApi.bringKeptChart)
  const change = (more: Partial<KeptReading>) => {
    setReading({ ...reading, ...more })
    setLeftOut(false)
  }
  const missing = (['production', 'load'] as const).filter((role) => !reading.roles.includes(role))
  const { lines, faults } = missing.length > 0 ? { lines: [], faults: [] } : readKeptChart(rows, reading)
  const tooMany = lines.length > MOST_KEPT_LINES
  const bring = () =>
    send.mutate(
      {
        params: {},
        body: { fileName, lines: lines.map((line) => ({ ...line, copies: line.copies.map((copy) => ({ ...copy })) })) },
      },
      { onSuccess: onCame },
    )
  return (
    <Sheet
      title="What this chart says"
      about={`From ${fileName}, read as ${encoding}. Nothing of it has come in yet.`}
      width="max-w-5xl"
      open
      onClose={onClose}
    >
      <Columns rows={rows} roles={reading.roles} volumes={volumes} onChange={(roles) => change({ roles })} />
      <div className="mb-4 flex flex-wrap items-end gap-x-5 gap-y-3">
        <Choice
          label="A size without a unit is in"
          className="w-48"
          value={reading.bareUnit}
          options={BARE_UNITS.map((unit) => ({ value: unit, label: unit === 'B' ? 'bytes' : unit }))}
          onChange={(unit) => change({ bareUnit: BARE_UNITS.find((one) => one === unit) ?? 'GB' })}
        />
        <Choice
          label="Days such as 3/4/2026"
          className="w-48"
          value={reading.dayOrder}
          options={DAY_ORDERS.map((order) => ({ value: order, label: order }))}
          onChange={(order) => change({ dayOrder: DAY_ORDERS.find((one) => one === order) ?? 'day first' })}
        />
        <Switch on={reading.repeats} onChange={(repeats) => change({ repeats })}>
          An empty client, production or day is that of the row above
        </Switch>
      </div>
      {missing.length > 0 && (
        <p className="mb-4 text-doubt">
          Say which column names the {missing.map((role) => ROLE_WORDS[role]).join(' and which the ')}.
        </p>
      )}
      <Faults faults={faults} isLeftOut={leftOut} onLeaveOut={setLeftOut} />
      {tooMany && (
        <p className="mb-4 text-stop">
          These are {counted(lines.length, 'line')}; bring in {counted(MOST_KEPT_LINES, 'line')} at once at most.
        </p>
      )}
      <Trouble error={send.error} />
      <div className="flex flex-wrap gap-3">
        <Button
          look="primary"
          disabled={send.isPending || lines.length === 0 || tooMany || (faults.length > 0 && !leftOut)}
          onClick={bring}
        >
          Bring in {counted(lines.length, 'line')}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Sheet>
  )
}

const SHOWN_ROWS = 5

interface ColumnsProps {
  readonly rows: OpenedTable['rows']
  readonly roles: readonly KeptRole[]
  readonly volumes: readonly string[]
  readonly onChange: (roles: readonly KeptRole[]) => void
}

/** The first rows, each column under what it holds; no two columns hold the same. */
function Columns({ rows, roles, volumes, onChange }: ColumnsProps) {
  const [head = [], ...all] = rows
  const optionsOf = (name: string) => {
    const drives = [...volumes, ...(name.trim() === '' || volumes.includes(name.trim()) ? [] : [name.trim()])]
    return [
      ...KEPT_ROLES.map((role) => ({ value: role as string, label: ROLE_WORDS[role] })),
      ...drives.map((drive) => ({ value: `volume ${drive}`, label: `on ${drive}` })),
    ]
  }
  const choose = (column: number, value: string) =>
    onChange(
      roles.map((role, at) =>
        at === column ? (value as KeptRole) : role === value && value !== 'none' ? 'none' : role,
      ),
    )
  return (
    <div className="mb-4 overflow-x-auto" tabIndex={0} role="region" aria-label="Columns of the file">
      <table className="text-sm">
        <thead>
          <tr>
            {head.map((name, column) => (
              <th key={column} className="min-w-32 align-bottom">
                <Choice
                  label={name.trim() === '' ? `Column ${column + 1}` : name}
                  value={roles[column] ?? 'none'}
                  options={optionsOf(name)}
                  onChange={(value) => choose(column, value)}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {all.slice(0, SHOWN_ROWS).map((row, at) => (
            <tr key={at}>
              {head.map((_, column) => (
                <td key={column} className={roles[column] === 'none' ? 'text-quiet' : ''}>
                  {row[column]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

const SHOWN_FAULTS = 100

interface FaultsProps {
  readonly faults: readonly KeptFault[]
  readonly isLeftOut: boolean
  readonly onLeaveOut: (leaveOut: boolean) => void
}

function Faults({ faults, isLeftOut, onLeaveOut }: FaultsProps) {
  if (faults.length === 0) return null
  return (
    <div className="mb-4">
      <p className="mb-1 font-semibold text-stop">
        {counted(faults.length, 'row')} cannot be understood. Mend {faults.length === 1 ? 'it' : 'them'} in the file and
        open it again, or leave {faults.length === 1 ? 'it' : 'them'} out.
      </p>
      <ul
        aria-label="Rows that cannot be understood"
        tabIndex={0}
        className="mb-2 max-h-40 overflow-y-auto border-l-4 border-stop bg-sheet px-4 py-2"
      >
        {faults.slice(0, SHOWN_FAULTS).map((fault) => (
          <li key={fault.row}>{fault.sentence}</li>
        ))}
        {faults.length > SHOWN_FAULTS && <li className="text-quiet">and {faults.length - SHOWN_FAULTS} more</li>}
      </ul>
      <Tick checked={isLeftOut} onChange={() => onLeaveOut(!isLeftOut)}>
        Leave {faults.length === 1 ? 'this row' : `these ${faults.length} rows`} out
      </Tick>
    </div>
  )
}
