import { Check, CircleHelp, Info, X } from 'lucide-react'
import type { FileCheck } from '../../core/media/check'
import { Wide } from '../parts/Wide'

function Result({ check: { pass, remark } }: { check: FileCheck }) {
  if (!pass) return <X className="size-4 text-stop" aria-label="fails" />
  if (remark === 'doubt') return <CircleHelp className="size-4 text-doubt" aria-label="passes, but is doubtful" />
  if (remark === 'note') return <Info className="size-4 text-quiet" aria-label="passes, with a note" />
  return <Check className="size-4 text-good" aria-label="passes" />
}

/** What was wanted of a file and what the real file holds, row by row. */
export function CheckTable({ checks }: { checks: readonly FileCheck[] }) {
  return (
    <Wide label="Checks">
      <table className="text-sm">
        <thead>
          <tr>
            <th className="w-8">
              <span className="sr-only">Result</span>
            </th>
            <th>Check</th>
            <th>Wanted</th>
            <th>In the file</th>
          </tr>
        </thead>
        <tbody>
          {checks.map((check) => (
            <tr key={check.name} data-pass={check.pass} data-remark={check.remark}>
              <td className="!py-1">
                <Result check={check} />
              </td>
              <td className="!py-1 font-semibold">{check.name}</td>
              <td className="figure !py-1">{check.wanted}</td>
              <td
                className={`figure !py-1 ${check.pass ? (check.remark === 'doubt' ? 'text-doubt' : '') : 'text-stop'}`}
              >
                {check.found}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  )
}
