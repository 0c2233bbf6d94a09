import { Check, X } from 'lucide-react'
import type { FileCheck } from '../../core/media/check'
import { Wide } from './Wide'

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
            <tr key={check.name} data-pass={check.pass}>
              <td className="!py-1">
                {check.pass ? (
                  <Check className="size-4 text-good" aria-label="passes" />
                ) : (
                  <X className="size-4 text-stop" aria-label="fails" />
                )}
              </td>
              <td className="!py-1 font-semibold">{check.name}</td>
              <td className="figure !py-1">{check.wanted}</td>
              <td className={`figure !py-1 ${check.pass ? '' : 'text-stop'}`}>{check.found}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  )
}
