import { shotRows, type NewShot, type ShotNames } from '../../../core/shoot/shots'
import { counted } from '../../../core/units/quantity'
import { Button } from '../../parts/controls/Button'
import { Sheet } from '../../parts/layers/Sheet'
import { Trouble } from '../../parts/Trouble'

/** What a table holds, before any of it is on the list. */
export interface ReadTable {
  readonly file: string
  readonly encoding: string
  readonly fresh: readonly NewShot[]
  /** Shots that are on the list already, and what was wrong line by line, in sentences. */
  readonly said: readonly string[]
}

interface ShotPreviewProps {
  readonly table: ReadTable
  readonly names: ShotNames
  readonly busy: boolean
  readonly error: Error | null
  readonly onAdd: () => void
  readonly onClose: () => void
}

/** Shows what would be added, whole, so that a wrong column or encoding is seen before it is on the list. */
export function ShotPreview({ table, names, busy, error, onAdd, onClose }: ShotPreviewProps) {
  const { file, encoding, fresh, said } = table
  const [head = [], ...all] = shotRows(fresh, names)
  const holds = head.map((_, column) => all.some((row) => row[column] !== ''))
  const [shown, ...rows] = [head, ...all].map((row) => row.filter((_, column) => holds[column]))
  return (
    <Sheet
      title={`${counted(fresh.length, 'shot')} to add`}
      about={`From ${file}, read as ${encoding}. Nothing is added yet.`}
      width="max-w-3xl"
      open
      onClose={onClose}
    >
      {said.length > 0 && (
        <ul
          aria-label="To know of this file"
          className="mb-4 max-h-40 overflow-y-auto border-l-4 border-doubt bg-sheet px-4 py-2"
        >
          {said.map((line) => (
            <li key={line} className="py-0.5">
              {line}
            </li>
          ))}
        </ul>
      )}
      <div
        className="mb-5 max-h-[50vh] overflow-auto border-y border-rule"
        tabIndex={0}
        role="region"
        aria-label="Shots of the file"
      >
        <table className="max-sm:min-w-[32rem]">
          <thead>
            <tr>
              {shown?.map((name) => (
                <th key={name} scope="col">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, at) => (
              <tr key={at}>
                {row.map((text, column) => (
                  <td key={column} className="max-w-72 break-words">
                    {text}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Trouble error={error} />
      <div className="flex flex-wrap gap-3">
        <Button look="primary" disabled={busy} onClick={onAdd} autoFocus>
          {fresh.length === 1 ? 'Add it at the end' : 'Add them at the end'}
        </Button>
        <Button onClick={onClose}>Add nothing</Button>
      </div>
    </Sheet>
  )
}
