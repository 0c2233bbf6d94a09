import { Pencil } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import type { ProductionView } from '../../contract/productions'
import { IconButton } from '../parts/controls/IconButton'

// Forms are no part of the first screen.
const ChangeSheet = lazy(() => import('./ChangeSheet'))

/** A button that opens title, client and day of a production, and the way to put it away. */
export function ChangeProduction({ production }: { production: ProductionView }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <IconButton icon={Pencil} label={`Change ${production.title}`} data-screen-only onClick={() => setOpen(true)} />
      <Suspense>{open && <ChangeSheet production={production} onClose={() => setOpen(false)} />}</Suspense>
    </>
  )
}
