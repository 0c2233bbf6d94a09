import { useState } from 'react'
import { Link } from 'react-router'
import { productionsApi } from '../../../contract/productions'
import { counted } from '../../../core/units/quantity'
import { Button } from '../../parts/controls/Button'
import { useLocker } from '../../trade/queries'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

/** Productions that were put away, folded up until somebody looks for one. */
export function AwayProductions() {
  const { data } = useLocker()
  const send = useSend(productionsApi.putAway)
  const [open, setOpen] = useState(false)
  const away = data?.productions ?? []
  if (away.length === 0) return null
  return (
    <section aria-label="Put away" className="mt-6">
      <Button look="quiet" className="!px-0 text-quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
        {counted(away.length, 'production')} put away
      </Button>
      {open && (
        <ul className="border-t border-rule">
          {away.map(({ id, name, holds }) => (
            <li key={id} className="flex items-center justify-between gap-4 border-b border-rule py-2">
              <Link to={`/p/${id}/storage`} className="hover:underline">
                <span className="font-bold">{name}</span> <span className="text-quiet">{holds}</span>
              </Link>
              <Button
                aria-label={`Bring ${name} back`}
                disabled={send.isPending}
                onClick={() => send.mutate({ params: { id }, body: { away: false } })}
              >
                Bring it back
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Trouble error={send.error} />
    </section>
  )
}
