import { Pencil } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import type { Endpoint } from '../../contract/endpoint'
import { namedBody, type NamedView } from '../../contract/gear'
import { FormName } from '../parts/form/fields'
import { useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
import { IconButton } from '../parts/controls/IconButton'
import { useSend } from '../parts/asking/useSend'
import { PutAway } from './PutAway'

interface NamedListProps<Row extends NamedView> {
  readonly label: string
  readonly rows: readonly Row[]
  readonly more?: (row: Row) => ReactNode
  /** The sheet that opens to change one of them. */
  readonly edit: (row: Row, onClose: () => void) => ReactNode
  readonly put: Endpoint<`/${string}/:id/away`, { away: boolean }, undefined, undefined>
  readonly erase?: Endpoint<`/${string}/:id`, undefined, undefined, undefined>
}

/** Things with a name: change them, put them away, bring them back. What is put away comes last. */
export function NamedList<Row extends NamedView>({ label, rows, more, edit, put, erase }: NamedListProps<Row>) {
  const [open, setOpen] = useState<Row>()
  return (
    <>
      <ul aria-label={label} className="max-w-3xl border-t border-ink">
        {[...rows]
          .sort((a, b) => Number(a.away) - Number(b.away))
          .map((row) => (
            <li key={row.id} className="flex items-center gap-3 border-b border-rule py-2">
              <span className="min-w-0 grow">
                <span className={`font-bold ${row.away ? 'text-quiet' : ''}`}>{row.name}</span>{' '}
                <span className="text-quiet">
                  {more?.(row)}
                  {row.away && ' put away'}
                </span>
                {row.holds && <span className="block text-sm text-quiet">{row.holds}</span>}
              </span>
              <IconButton icon={Pencil} label={`Change ${row.name}`} onClick={() => setOpen(row)} />
              <PutAway {...row} put={put} erase={erase} />
            </li>
          ))}
      </ul>
      {open && edit(open, () => setOpen(undefined))}
    </>
  )
}

interface RenameProps {
  readonly row: NamedView
  readonly rename: Endpoint<`/${string}/:id`, { name: string }, undefined, undefined>
  readonly onClose: () => void
}

/** Another name for something that has nothing but a name. */
export function Rename({ row, rename, onClose }: RenameProps) {
  const send = useSend(rename)
  const [seen] = useState(row.version)
  const { control, handleSubmit } = useTyped(namedBody, { name: row.name })
  return (
    <FormSheet
      title={`Rename ${row.name}`}
      about="Only its name changes; everything known of it stays."
      onClose={onClose}
      onSave={handleSubmit((body) => send.mutate({ params: { id: row.id }, body, seen }, { onSuccess: onClose }))}
      save="Save the name"
      busy={send.isPending}
      error={send.error}
    >
      <FormName control={control} name="name" />
    </FormSheet>
  )
}
