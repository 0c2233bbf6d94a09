import { useState } from 'react'
import { formatBytes } from '../../core/units/quantity'
import { Ask } from '../parts/asking/Ask'
import { Choice } from '../parts/controls/Choice'
import { Tick } from '../parts/controls/Tick'
import { PaperPage } from '../parts/Paper'
import { useGear, useVolumes } from '../trade/queries'
import { qrPath } from './qrPath'

interface Label {
  readonly id: string
  readonly name: string
  readonly what: 'drive' | 'card'
  readonly capacityBytes: number
  /** Where it is kept; empty for a card. */
  readonly site: string
}

const PAPERS = [
  { value: 'a4', label: 'A4, 24 labels a page' },
  { value: 'letter', label: 'Letter, 21 labels a page' },
] as const

/** Labels for drives and cards: cut out, and stuck on. */
export default function LabelPaper() {
  const volumes = useVolumes()
  const gear = useGear()
  const [paper, setPaper] = useState<(typeof PAPERS)[number]['value']>('a4')
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set())
  const turn = (id: string) => {
    const next = new Set(without)
    if (!next.delete(id)) next.add(id)
    setWithout(next)
  }
  return (
    <PaperPage back={{ to: '/locker/drives', name: 'the locker' }}>
      <title>Labels – Yendra</title>
      <Ask query={volumes}>
        {(drives) => (
          <Ask query={gear}>
            {({ cards }) => {
              const labels: Label[] = [
                ...drives
                  .filter((one) => !one.away && one.kind !== 'cloud')
                  .map(({ id, name, capacityBytes, site }) => ({
                    id,
                    name,
                    capacityBytes,
                    site,
                    what: 'drive' as const,
                  })),
                ...cards
                  .filter((one) => !one.away)
                  .map(({ id, name, capacityBytes }) => ({ id, name, capacityBytes, site: '', what: 'card' as const })),
              ]
              return (
                <>
                  <div data-screen-only>
                    <h1 className="mb-3">{sentenceOf(labels, without)}</h1>
                    <Choice
                      label="Paper"
                      className="mb-4 w-72"
                      value={paper}
                      options={[...PAPERS]}
                      onChange={(next) => setPaper(PAPERS.find(({ value }) => value === next)?.value ?? 'a4')}
                    />
                    <fieldset className="mb-6 grid gap-x-6 gap-y-1 sm:grid-cols-3">
                      <legend className="sr-only">What gets a label</legend>
                      {labels.map((one) => (
                        <Tick key={one.id} checked={!without.has(one.id)} onChange={() => turn(one.id)}>
                          {one.name}
                          <span className="text-quiet">, {one.what}</span>
                        </Tick>
                      ))}
                    </fieldset>
                  </div>
                  <ul
                    aria-label="Labels"
                    tabIndex={0}
                    className={`labels-${paper} grid overflow-x-auto print:overflow-visible grid-cols-[repeat(3,62mm)]`}
                  >
                    {labels
                      .filter((one) => !without.has(one.id))
                      .map((one) => (
                        <LabelOf key={one.id} label={one} />
                      ))}
                  </ul>
                </>
              )
            }}
          </Ask>
        )}
      </Ask>
    </PaperPage>
  )
}

function sentenceOf(labels: readonly Label[], without: ReadonlySet<string>): string {
  const count = labels.filter((one) => !without.has(one.id)).length
  if (labels.length === 0) return 'No drive and no card is known yet: add them first.'
  return count === 0 ? 'Nothing is ticked.' : `${count} ${count === 1 ? 'label' : 'labels'} to print.`
}

/** Long names are set smaller, so that they stay whole. */
const sizeOf = (name: string) =>
  name.length <= 9
    ? 'text-[20pt]'
    : name.length <= 20
      ? 'text-[14pt]'
      : name.length <= 36
        ? 'text-[10pt]'
        : 'text-[8pt]'

function LabelOf({ label: { id, name, what, capacityBytes, site } }: { label: Label }) {
  const { path, modules } = qrPath(`${name}\n${what} ${id}`)
  return (
    <li
      className="flex h-[34mm] break-inside-avoid items-center border border-dashed border-quiet bg-white text-black"
      data-label={name}
    >
      <svg
        viewBox={`0 0 ${modules} ${modules}`}
        className="size-[30mm] shrink-0"
        role="img"
        aria-label={`Code of ${name}`}
        shapeRendering="crispEdges"
      >
        <path d={path} />
      </svg>
      <div className="min-w-0 pr-[1.5mm]">
        <p className={`leading-[1.1] font-bold break-words ${sizeOf(name)}`}>{name}</p>
        <p className="mt-[1mm] text-[9pt] leading-tight">
          {formatBytes(capacityBytes)} {what}
        </p>
        {site !== '' && <p className="text-[9pt] leading-tight break-words">{site}</p>}
      </div>
    </li>
  )
}
