import { listSentence, verdictOf } from '../../../../core/copies/lists/verdict'
import { fileNameOf } from '../../../../core/units/filePath'
import { timeIn, zoneHere } from '../../../../core/units/day'
import { Older } from '../../../parts/table/Older'
import type { useChecks } from './queries'

interface EarlierProps {
  readonly checks: ReturnType<typeof useChecks>
  readonly shown: string | undefined
  readonly onShow: (id: string) => void
}

/** Folders that were compared before. */
export function Earlier({ checks, shown, onShow }: EarlierProps) {
  const rows = (checks.data?.rows ?? []).filter((one) => one.id !== shown)
  if (rows.length === 0) return null
  return (
    <section aria-label="Compared before" className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-2 text-lg">Compared before</h2>
      <ul>
        {rows.map((one) => (
          <li key={one.id} className="border-b border-rule py-2">
            <button type="button" onClick={() => onShow(one.id)} className="text-left">
              <span className="font-semibold text-accent underline underline-offset-4">
                {fileNameOf(one.folder)}
                {one.list !== '' && ` and ${fileNameOf(one.list)}`}
              </span>
              <span className="text-quiet">, {timeIn(zoneHere(), one.endedAt)}: </span>
              <span className={verdictOf(one) === 'equal' ? '' : 'text-stop'}>{listSentence(one).sentence}</span>
            </button>
          </li>
        ))}
      </ul>
      <Older pages={checks}>Show older ones</Older>
    </section>
  )
}
