import { Printer } from 'lucide-react'
import { Link } from 'react-router'
import { carryList, carrySentence, CAUTIONS, type CarryGroup } from '../../../core/shoot/carry'
import { Answer } from '../../parts/Answer'
import { WithBudget } from './WithBudget'

/** What goes into the bag, by name. */
export default function Carry({ productionId }: { productionId: string }) {
  return (
    <WithBudget productionId={productionId}>
      {(budget) => {
        const groups = carryList(budget)
        return (
          <>
            <Answer
              why={
                budget.cameras.length === 0
                  ? 'Plan a camera first: the list follows from the plan.'
                  : 'It follows from the plan: cards by name, devices with their batteries, one battery more than they need.'
              }
              action={
                budget.cameras.length > 0 && (
                  <Link
                    to={`/print/${productionId}/carry`}
                    data-primary=""
                    className="inline-flex min-h-9 items-center gap-2 rounded-box border border-accent bg-accent px-3.5 py-1 font-semibold text-accent-ink"
                  >
                    <Printer className="size-4" aria-hidden />
                    Print the list
                  </Link>
                )
              }
            >
              {budget.cameras.length === 0 ? 'Nothing is planned yet.' : carrySentence(groups)}
            </Answer>
            {budget.cameras.length > 0 && <CarryGroups groups={groups} />}
            <Cautions />
          </>
        )
      }}
    </WithBudget>
  )
}

/** The groups side by side, each thing with a box to tick by hand. */
export function CarryGroups({ groups }: { groups: readonly CarryGroup[] }) {
  return (
    <div className="gap-x-12 sm:columns-2">
      {groups.map(({ title, lines }) => (
        <section key={title} aria-label={title} className="mb-6 break-inside-avoid">
          <h2 className="border-b border-ink pb-1">{title}</h2>
          <ul>
            {lines.map(({ what, more, open }) => (
              <li key={`${what} ${more}`} className="flex items-baseline gap-2.5 border-b border-rule py-1.5">
                <span
                  aria-hidden
                  className={`relative top-0.5 size-4 shrink-0 border ${open ? 'border-dashed border-stop' : 'border-quiet'}`}
                />
                <span>
                  <span className={`font-semibold ${open ? 'text-stop' : ''}`}>{what}</span>
                  {more && <span className="text-quiet"> {more}</span>}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

export const Cautions = () => (
  <ul className="mt-2 max-w-3xl list-disc pl-5 text-sm text-quiet">
    {CAUTIONS.map((one) => (
      <li key={one}>{one}</li>
    ))}
  </ul>
)
