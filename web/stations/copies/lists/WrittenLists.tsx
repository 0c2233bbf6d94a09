import { Download } from 'lucide-react'
import { ALGORITHM_WORDS } from '../../../../core/copies/lists/algorithm'
import { readingCommand } from '../../../../core/copies/lists/tools'
import { counted } from '../../../../core/units/quantity'
import { timeIn, zoneHere } from '../../../../core/units/day'
import { addressOf } from '../../../../contract/endpoint'
import { listsApi, type WrittenListView } from '../../../../contract/lists'
import { Older } from '../../../parts/table/Older'
import { useWritten } from './queries'

/** Lists that were written, with the command by which anybody checks each. */
export function WrittenLists() {
  const written = useWritten()
  const rows = written.data?.rows ?? []
  if (rows.length === 0) return null
  return (
    <section aria-label="Lists that were written" className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-1 text-lg">Lists that were written</h2>
      <p className="mb-2 max-w-3xl text-quiet">
        Each is checked without Yendra. A name that the program for xxHash cannot read is in a list of its own, by
        SHA-256.
      </p>
      <ul>
        {rows.map((one) => (
          <li key={one.id} className="border-b border-rule py-2">
            <Written one={one} />
          </li>
        ))}
      </ul>
      <Older pages={written}>Show older lists</Older>
    </section>
  )
}

function Written({ one }: { one: WrittenListView }) {
  const { id, name, path, algorithm, lines, folder, checkedIn, writtenAt } = one
  return (
    <>
      <p>
        {path === null ? (
          <a
            href={addressOf(listsApi.file, { id })}
            download={name}
            className="inline-flex items-center gap-1.5 font-semibold text-accent underline underline-offset-4"
          >
            <Download className="size-4" aria-hidden />
            {name}
          </a>
        ) : (
          <span className="font-semibold break-all">{path}</span>
        )}
        <span className="text-quiet">
          , {counted(lines, 'file')} of {folder} by {ALGORITHM_WORDS[algorithm]}, {timeIn(zoneHere(), writtenAt)}
          {path === null && `; put it into ${checkedIn} before it is checked`}
        </span>
      </p>
      <code className="figure block break-all text-quiet">{readingCommand(one)}</code>
    </>
  )
}
