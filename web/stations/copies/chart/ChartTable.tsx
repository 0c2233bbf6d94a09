import { ChevronDown, ChevronRight } from 'lucide-react'
import { Fragment } from 'react'
import { Link } from 'react-router'
import { shortAge } from '../../../../core/copies/age'
import { DANGER_WORDS, DANGERS } from '../../../../core/copies/danger'
import { clockIn, dayIn, dayWithName, timeIn, zoneHere } from '../../../../core/units/day'
import { counted, formatBytes } from '../../../../core/units/quantity'
import type { ChartCopy, ChartHead, ChartLine, ChartProduction, SaidCopy } from '../../../../contract/chart'
import { Wide } from '../../../parts/Wide'
import { Mark } from '../../../trade/Mark'
import { OpenedLine } from './OpenedLine'

type Volume = ChartHead['volumes'][number]

interface ChartTableProps {
  readonly lines: readonly ChartLine[]
  /** When they were asked for, from which ages are counted. */
  readonly now: number
  readonly volumes: ChartHead['volumes']
  readonly opened?: string | null
  readonly onOpen?: (loadId: string | null) => void
  readonly onOnly?: ((productionId: string) => void) | undefined
}

/** Volumes by site, those that were put away last, and only where a line has a copy there. */
export function columnsOf(volumes: readonly Volume[], lines: readonly ChartLine[]): readonly Volume[] {
  const used = new Set(lines.flatMap((line) => [...line.copies, ...line.said].map((copy) => copy.volumeId)))
  const sites = [...new Set(volumes.map((volume) => volume.site))]
  return sites.flatMap((site) =>
    volumes.filter((volume) => volume.site === site && (!volume.away || used.has(volume.id))),
  )
}

/** Lines by production, in the order in which they come. */
export function groupsOf(lines: readonly ChartLine[]): readonly (readonly ChartLine[])[] {
  const groups = new Map<string, ChartLine[]>()
  for (const line of lines) {
    const key = line.production.id ?? `kept ${line.production.title.toLowerCase()}`
    groups.set(key, [...(groups.get(key) ?? []), line])
  }
  return [...groups.values()]
}

/** One line a load, under the production that it was taken in for, with a column for each volume. */
export function ChartTable({ lines, now, volumes, opened, onOpen, onOnly }: ChartTableProps) {
  const columns = columnsOf(volumes, lines)
  const width = columns.length + 3
  return (
    <Wide label="The chart">
      <table className="w-full [&_td]:!py-1.5 [&_td]:!pr-4 [&_th]:!pr-4" aria-label="Chart">
        <ChartHeads columns={columns} />
        <tbody>
          {groupsOf(lines).map((group) => (
            <Fragment key={group[0]?.id}>
              <ProductionLine production={group[0]?.production} width={width} onOnly={onOnly} />
              {group.map((line) => (
                <Fragment key={line.id}>
                  <Line
                    line={line}
                    columns={columns}
                    now={now}
                    isOpen={opened === line.id}
                    onOpen={onOpen && (() => onOpen(opened === line.id ? null : line.id))}
                  />
                  {opened === line.id && (
                    <tr>
                      <td colSpan={width} className="bg-sheet !px-4 !py-4">
                        <OpenedLine line={line} volumes={volumes} />
                      </td>
                    </tr>
                  )}
                </Fragment>
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
    </Wide>
  )
}

/** Sites above their volumes. */
export function ChartHeads({ columns }: { columns: readonly Volume[] }) {
  const sites = [...new Set(columns.map((volume) => volume.site))]
  return (
    <thead>
      <tr className="text-sm text-quiet">
        <td colSpan={2} className="!border-0" />
        {sites.map((site) => (
          <th
            key={site}
            colSpan={columns.filter((volume) => volume.site === site).length}
            scope="colgroup"
            className="!border-0 font-normal"
          >
            {site}
          </th>
        ))}
        <td className="!border-0" />
      </tr>
      <tr>
        <th>Load</th>
        <th className="text-right">Bytes</th>
        {columns.map((volume) => (
          <th key={volume.id}>
            {volume.name}
            <span className="block text-sm font-normal text-quiet" data-screen-only>
              {volume.away ? 'put away' : volume.connected ? 'connected' : 'not seen now'}
            </span>
          </th>
        ))}
        <th>Card</th>
      </tr>
    </thead>
  )
}

interface ProductionLineProps {
  readonly production: ChartProduction | undefined
  readonly width: number
  readonly onOnly: ((productionId: string) => void) | undefined
}

export function ProductionLine({ production, width, onOnly }: ProductionLineProps) {
  if (!production) return null
  const { id, title, client, shootOn, loads, sizeBytes, away } = production
  const about = [
    client,
    shootOn && dayWithName(shootOn),
    away && 'put away',
    `${counted(loads, 'load')}, ${formatBytes(sizeBytes)}`,
  ]
  return (
    <tr data-production={title}>
      <th colSpan={width} scope="rowgroup" className="!pt-4 text-left">
        {id === null ? (
          <span className="text-base font-bold">{title}</span>
        ) : (
          <Link to={`/p/${id}/copies`} className="text-base font-bold underline decoration-rule underline-offset-4">
            {title}
          </Link>
        )}{' '}
        <span className="font-normal text-quiet">{about.filter(Boolean).join(' · ')}</span>
        {onOnly && id !== null && (
          <button
            type="button"
            className="ml-3 font-normal text-accent underline underline-offset-4"
            onClick={() => onOnly(id)}
            data-screen-only
          >
            Only this production
          </button>
        )}
      </th>
    </tr>
  )
}

interface LineProps {
  readonly line: ChartLine
  readonly columns: readonly Volume[]
  readonly now: number
  readonly isOpen: boolean
  readonly onOpen: (() => void) | undefined
}

export function Line({ line, columns, now, isOpen, onOpen }: LineProps) {
  const Sign = isOpen ? ChevronDown : ChevronRight
  const name = (
    <>
      <span className="font-semibold">{line.label}</span>
      {line.camera && line.camera !== line.label && <span className="text-quiet max-sm:hidden">, {line.camera}</span>}
    </>
  )
  return (
    <tr data-load={line.label} data-danger={line.dangers.length > 0 ? '' : undefined}>
      <td className="min-w-28">
        {onOpen ? (
          <button
            type="button"
            aria-expanded={isOpen}
            className="inline-flex min-h-8 items-center gap-1.5 text-left"
            onClick={onOpen}
          >
            <Sign className="size-4 shrink-0 text-quiet" aria-hidden />
            <span>{name}</span>
          </button>
        ) : (
          name
        )}
      </td>
      <td className="figure text-right whitespace-nowrap">
        {line.sizeBytes === null ? '' : formatBytes(line.sizeBytes)}
      </td>
      {columns.map(({ id }) => (
        <td key={id}>
          <Copy
            copy={line.copies.find((one) => one.volumeId === id)}
            said={line.said.find((one) => one.volumeId === id)}
            now={now}
          />
        </td>
      ))}
      <td className="min-w-44 text-sm">
        <CardWords line={line} now={now} />
      </td>
    </tr>
  )
}

/** Mark and age of the newest proof; what is amiss is said in a word. */
interface CopyProps {
  readonly copy: ChartCopy | undefined
  readonly said: SaidCopy | undefined
  readonly now: number
}

function Copy({ copy, said, now }: CopyProps) {
  if (!copy && said) return <Said said={said.said} />
  if (!copy) return <span className="text-quiet">–</span>
  return (
    <span
      className="flex items-center gap-1.5 whitespace-nowrap"
      title={copy.provedTo === null ? undefined : `proved ${timeIn(zoneHere(), copy.provedTo)}`}
    >
      <Mark mark={copy.mark} label="spoken" />
      {copy.wrong ? (
        <strong className="text-sm text-stop">amiss</strong>
      ) : (
        copy.provedTo !== null && <span className="figure text-quiet">{shortAge(copy.provedTo, now)}</span>
      )}
    </span>
  )
}

/** What only a kept chart says stands in quotation marks, without any mark of ours. */
const Said = ({ said }: { said: string }) => (
  <q className="text-sm text-quiet italic" title="as a kept chart says; nothing of it is proved">
    {said.length > SHOWN_LETTERS ? `${said.slice(0, SHOWN_LETTERS)} …` : said}
  </q>
)
const SHOWN_LETTERS = 12

/** What the records say of the card, never as a yes, since nothing was looked at; and what stands against the load. */
function CardWords({ line, now }: { line: ChartLine; now: number }) {
  const elsewhere = line.said.flatMap((copy) => (copy.volumeId === null ? copy.name : []))
  return (
    <>
      {line.loadId === null ? 'from a kept chart' : cardSentence(line, now)}
      {line.formattedSaid && (
        <>
          , formatted: <Said said={line.formattedSaid} />
        </>
      )}
      {elsewhere.length > 0 && <span className="block text-quiet">said on {elsewhere.join(', ')}</span>}
      {line.danger > 0 && (
        <span className={`block font-semibold ${line.danger >= WORST ? 'text-stop' : 'text-doubt'}`}>
          {line.loadId === null ? 'nothing of it is proved' : DANGER_WORDS[line.danger]}
        </span>
      )}
    </>
  )
}

const WORST = DANGERS.indexOf('wrong')

function cardSentence(
  { formattedAt, formattedAgainst, formattedBecause, wouldBeClearAt }: ChartLine,
  now: number,
): string {
  if (formattedAgainst) return `formatted against the answer${formattedBecause ? `: ${formattedBecause}` : ''}`
  if (formattedAt) return 'formatted'
  if (!wouldBeClearAt) return 'keep it'
  const [zone, at] = [zoneHere(), Date.parse(wouldBeClearAt)]
  const seen = dayIn(zone, at) === dayIn(zone, now) ? clockIn(zone, at) : timeIn(zone, at)
  return `clear when seen at ${seen}; open to check`
}
