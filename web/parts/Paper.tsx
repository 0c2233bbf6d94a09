import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { dayWithName } from '../../core/units/day'
import type { ProductionView } from '../../contract/productions'
import { Ask } from './asking/Ask'
import { useProduction } from '../trade/queries'

interface PaperProps {
  readonly productionId: string
  /** What lies on the paper: `Carry list`. */
  readonly what: string
  readonly back: { readonly to: string; readonly name: string }
  /** What stands beside client and day, in words. */
  readonly more?: string
  readonly children: (production: ProductionView) => ReactNode
}

/** A page for printing: dark on white whatever the theme, without buttons, headed by the production it belongs to. */
export function Paper({ productionId, what, back, more, children }: PaperProps) {
  const production = useProduction(productionId)
  return (
    <PaperPage back={back}>
      <Ask query={production}>
        {(known) => (
          <>
            <PaperHead
              title={known.title}
              named={`${what} of ${known.title}`}
              about={
                <>
                  {what}
                  {known.client && `, for ${known.client}`}
                  {known.shootOn && `, shoot day ${dayWithName(known.shootOn)}`}
                  {more && `, ${more}`}
                </>
              }
            />
            {children(known)}
          </>
        )}
      </Ask>
    </PaperPage>
  )
}

interface PaperPageProps {
  readonly title?: string
  readonly about?: ReactNode
  readonly back: PaperProps['back']
  readonly children: ReactNode
}

/** The same for what belongs to no single production. */
export function PaperPage({ title, about, back, children }: PaperPageProps) {
  return (
    <main className="sheet-of-paper mx-auto min-h-screen max-w-[60rem] bg-paper p-8 text-ink print:p-0">
      <p className="mb-6" data-screen-only>
        This page is for printing: use your browser’s print command.{' '}
        <Link to={back.to} className="text-accent underline underline-offset-4">
          Back to {back.name}
        </Link>
      </p>
      {title !== undefined && <PaperHead title={title} named={title} about={about} />}
      {children}
    </main>
  )
}

function PaperHead({ title, named, about }: { title: string; named: string; about: ReactNode }) {
  return (
    <header className="mb-5 border-b-2 border-ink pb-2">
      <title>{`${named} – Yendra`}</title>
      <h1>{title}</h1>
      <p className="text-quiet">{about}</p>
    </header>
  )
}
