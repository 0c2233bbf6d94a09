import { ListChecks, Printer, Table2 } from 'lucide-react'
import { Link } from 'react-router'
import { addressOf } from '../../../../contract/endpoint'
import { chartApi, type ChartHead } from '../../../../contract/chart'
import { usePageTitle } from '../../../app/usePageTitle'
import { Answer } from '../../../parts/Answer'
import { Ask } from '../../../parts/asking/Ask'
import { Button } from '../../../parts/controls/Button'
import { Older } from '../../../parts/table/Older'
import { ToRepair } from '../repair/ToRepair'
import { KeptCharts } from './KeptCharts'
import { ChartTable } from './ChartTable'
import { Narrowing } from './Narrowing'
import { ProofByNight } from './ProofByNight'
import { useChart, useChartHead, useNarrowed, type Narrowed } from './queries'

/** The chart that people keep by hand: every load, where each of its copies is, and how far it is proved. */
export default function Chart() {
  usePageTitle('Chart')
  const head = useChartHead()
  return (
    <Ask query={head}>
      {(known) => (known.loads || known.kept ? <Filled head={known} /> : <NothingYet head={known} />)}
    </Ask>
  )
}

function NothingYet({ head }: { head: ChartHead }) {
  return (
    <>
      <Answer why="One line for each card or recorder that was taken in, with a column for each volume.">
        Nothing stands on the chart yet: take in a card, or bring in the chart that you kept until now.
      </Answer>
      <KeptCharts head={head} />
    </>
  )
}

function Filled({ head }: { head: ChartHead }) {
  const { narrowed, narrow, opened, address } = useNarrowed()
  const lines = useChart(narrowed)
  const { worst } = head
  return (
    <>
      <Answer
        why={whyOf(head)}
        action={
          worst && (
            <Button
              look="primary"
              onClick={() => narrow({ ...NOTHING, production: worst.productionId, load: worst.loadId })}
            >
              Show it on the chart
            </Button>
          )
        }
      >
        {sentenceOf(head)}
      </Answer>
      <ToRepair loadId={null} />
      <ProofByNight />
      <Narrowing head={head} narrowed={narrowed} narrow={narrow} />
      <Ask query={lines}>
        {({ rows }) =>
          rows.length === 0 ? (
            <p className="py-4 text-quiet">
              {narrowed.danger ? 'Nothing of it is in danger.' : 'No load is of that kind.'}
            </p>
          ) : (
            <ChartTable
              lines={rows}
              now={lines.dataUpdatedAt}
              volumes={head.volumes}
              opened={opened}
              onOpen={(load) => narrow({ load })}
              onOnly={narrowed.productionId === '' ? (production) => narrow({ production }) : undefined}
            />
          )
        }
      </Ask>
      <Older pages={lines}>Show further loads</Older>
      <Ways narrowed={narrowed} address={address} />
      <KeptCharts head={head} />
    </>
  )
}

const NOTHING = { client: null, production: null, site: null, volume: null, year: null, danger: null } as const

function sentenceOf({ worst, due, kept }: ChartHead): string {
  if (worst) return worst.sentence
  if (due > 0) return 'The chart is being brought up to date.'
  return kept
    ? 'What was taken in is not in danger; some lines are known from a kept chart alone.'
    : 'Nothing on the chart is in danger.'
}

function whyOf({ others, due, worst }: ChartHead) {
  const whose = worst ? `Of “${worst.title}”.` : ''
  const more =
    worst && others > 0
      ? `${others === 99 ? '99 or more' : others} other load${others === 1 ? '' : 's'} on the chart ${others === 1 ? 'is' : 'are'} in danger too, each less or as much.`
      : ''
  const waits =
    due > 0
      ? `${due === 1000 ? '1,000 or more loads are' : due === 1 ? 'One load is' : `${due} loads are`} still being worked out.`
      : ''
  return (
    [whose, more, waits].filter((text) => text !== '').join(' ') ||
    (worst
      ? ''
      : 'Every load that was taken in has the copies that its rule asks for, at two sites, read within the time of their volumes.')
  )
}

function Ways({ narrowed, address }: { narrowed: Narrowed; address: string }) {
  const way = 'inline-flex items-center gap-1.5 text-accent underline underline-offset-4'
  const asked = Object.fromEntries(Object.entries(narrowed).filter(([, value]) => value !== '' && value !== false))
  return (
    <p className="mt-6 flex flex-wrap gap-x-6 gap-y-2">
      <Link to={`/print/chart${address === '' ? '' : `?${address}`}`} className={way}>
        <Printer className="size-4" aria-hidden />
        These lines on paper
      </Link>
      <a href={addressOf(chartApi.csv, {}, asked)} className={way} download>
        <Table2 className="size-4" aria-hidden />
        These lines as CSV
      </a>
      <Link to="/lists" className={way}>
        <ListChecks className="size-4" aria-hidden />
        Compare a folder with a checksum list
      </Link>
    </p>
  )
}
