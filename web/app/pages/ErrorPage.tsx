import { Link, useRouteError } from 'react-router'
import { Empty } from '../../parts/Empty'
import { usePageTitle } from '../usePageTitle'

const HOME = (
  <Link to="/" className="font-semibold text-accent underline underline-offset-4">
    All productions
  </Link>
)

/** An address that leads nowhere. */
export function NotFound() {
  usePageTitle('Nothing at this address')
  return (
    <Empty title="There is nothing at this address." action={HOME}>
      The production may have been removed, or the address was typed wrongly. Nothing is lost.
    </Empty>
  )
}

/** A page that broke: says so, and that files and copies are untouched. */
export function ErrorPage() {
  usePageTitle('This page broke')
  const error = useRouteError()
  return (
    <div className="mx-auto max-w-[76rem] px-4 py-16 sm:px-8">
      <Empty title="This page broke." action={HOME}>
        Your files and copies are untouched: they are worked on elsewhere, not by this page. Load it again; if it breaks
        twice, this is what it said:{' '}
        <span className="figure">{error instanceof Error ? error.message : String(error)}</span>
      </Empty>
    </div>
  )
}
