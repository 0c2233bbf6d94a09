import type { ComponentType } from 'react'
import { NavLink, useParams } from 'react-router'
import { usePageTitle } from '../app/usePageTitle'
import { NotFound } from '../app/pages/ErrorPage'
import { CardBook } from './CardBook'
import { ClientBook } from './ClientBook'
import { DriveBook } from './DriveBook'
import { GearBook } from './GearBook'
import { RuleBook } from './RuleBook'
import { SiteBook } from './SiteBook'

interface Tab {
  readonly id: string
  readonly name: string
  readonly Page: ComponentType
}

const TABS: readonly Tab[] = [
  { id: 'gear', name: 'Gear', Page: GearBook },
  { id: 'cards', name: 'Cards', Page: CardBook },
  { id: 'drives', name: 'Drives and readers', Page: DriveBook },
  { id: 'sites', name: 'Sites', Page: SiteBook },
  { id: 'clients', name: 'Clients', Page: ClientBook },
  { id: 'rules', name: 'Rules', Page: RuleBook },
]

/** Everything that belongs to no single production. */
export default function Locker() {
  const { tab = 'gear' } = useParams()
  const open = TABS.find((one) => one.id === tab)
  usePageTitle(open?.name ?? 'Not found', 'Locker')
  if (!open) return <NotFound />
  return (
    <>
      <p className="mb-1 text-lg font-bold">
        Locker <span className="text-base font-normal text-quiet">what belongs to no single production</span>
      </p>
      <nav aria-label="Locker" className="mb-6 overflow-x-auto border-b border-rule">
        <ul className="flex gap-x-5">
          {TABS.map(({ id, name }) => (
            <li key={id}>
              <NavLink
                to={`/locker/${id}`}
                aria-current={id === open.id ? 'page' : undefined}
                className={`inline-flex min-h-8 items-center border-b-2 whitespace-nowrap ${id === open.id ? 'border-accent font-semibold' : 'border-transparent text-quiet hover:text-ink'}`}
              >
                {name}
              </NavLink>
            </li>
          ))}
        </ul>
      </nav>
      <open.Page />
    </>
  )
}
