import { useState } from 'react'
import { LIST_FINDINGS, type ListFinding } from '../../../../core/copies/lists/finding'
import { findingWords } from '../../../../core/copies/lists/verdict'
import { listsApi, type FindingView, type ListCheckView } from '../../../../contract/lists'
import { Trouble } from '../../../parts/Trouble'
import { Older } from '../../../parts/table/Older'
import { usePages } from '../../../parts/table/usePages'

const LOOK: Readonly<Record<ListFinding, string>> = {
  different: 'text-stop',
  unsteady: 'text-stop',
  missing: 'text-stop',
  unreadable: 'text-stop',
  changed: 'text-doubt',
  'no-file': 'text-doubt',
  refused: 'text-doubt',
  'unknown-algorithm': 'text-doubt',
  'no-line': 'text-doubt',
  bag: 'text-stop',
  extra: 'text-quiet',
  elsewhere: 'text-quiet',
}

/** What was found, kind by kind, the gravest first and open. */
export function Found({ check }: { check: ListCheckView }) {
  const kinds = LIST_FINDINGS.filter((kind) => (check.found[kind] ?? 0) > 0)
  if (kinds.length === 0) return null
  return (
    <section aria-label="What was found" className="mb-8 border-t border-ink">
      {kinds.map((kind, at) => (
        <FoundKind key={kind} check={check} kind={kind} opened={at === 0 && LOOK[kind] !== 'text-quiet'} />
      ))}
    </section>
  )
}

function FoundKind({ check, kind, opened }: { check: ListCheckView; kind: ListFinding; opened: boolean }) {
  const [open, setOpen] = useState(opened)
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)} className="border-b border-rule py-2">
      <summary className={`font-semibold ${LOOK[kind]}`}>{findingWords(kind, check.found[kind] ?? 0)}</summary>
      {open && <Lines check={check} kind={kind} />}
    </details>
  )
}

function Lines({ check, kind }: { check: ListCheckView; kind: ListFinding }) {
  const pages = usePages(listsApi.findings, { id: check.id }, { query: { kind, limit: 50 } })
  const rows = pages.data?.rows ?? []
  const more = (check.found[kind] ?? 0) - rows.length
  return (
    <>
      <Trouble error={pages.error} />
      <ul aria-label={findingWords(kind, check.found[kind] ?? 0)} className="mt-1.5 grid gap-1">
        {rows.map((one) => (
          <Line key={one.id} one={one} />
        ))}
      </ul>
      <Older pages={pages}>Show further ones</Older>
      {!pages.hasNextPage && rows.length > 0 && more > 0 && (
        <p className="mt-1 text-quiet">And {more} more; the first thousand of a kind are kept.</p>
      )}
    </>
  )
}

const Line = ({ one: { path, line, detail } }: { one: FindingView }) => (
  <li className="break-all">
    {path}
    <span className="text-quiet">
      {line !== null && <>, line {line}</>}
      {detail !== '' && <>: {detail}</>}
    </span>
  </li>
)
