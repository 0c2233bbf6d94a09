import { array, boolean, number, object, string, type InferType } from 'yup'
import type { Mark } from '../core/copies/mark'
import type { LoadCopies } from './copies'
import { MOST_KEPT_LINES, MOST_LETTERS } from '../core/copies/keptChart'
import { isDay } from '../core/units/day'
import { ask, order, stream } from './endpoint'
import { text } from './text'
import { idOrNothing } from './id'
import { pageQuery, type Page } from './page'

/** What the chart is narrowed to; nothing of it is everything. */
const narrowed = {
  clientId: idOrNothing('That is no client.'),
  productionId: idOrNothing('That is no production.'),
  siteId: idOrNothing('That is no site.'),
  volumeId: idOrNothing('That is no volume.'),
  year: number()
    .typeError('That is no year.')
    .integer('That is no year.')
    .min(1900, 'That is no year of ours.')
    .max(9999, 'That is no year of ours.')
    .nullable()
    .default(null),
  danger: boolean().typeError('Say true or false.').default(false),
}
/** A line has a copy for each volume: of more the answer would be too large. */
export const MOST_LINES = 80
export const chartQuery = pageQuery(['place'], narrowed, { rows: 40 }).shape({
  limit: number()
    .typeError('Say how many lines.')
    .integer('Say how many lines.')
    .min(1, 'Ask for one line at least.')
    .max(MOST_LINES, `Ask for ${MOST_LINES} lines at most.`)
    .default(40),
})
export type ChartAsked = InferType<typeof chartQuery>

/** A copy of a load in the column of its volume. */
export interface ChartCopy {
  readonly volumeId: string
  readonly mark: Mark
  readonly filesCopied: number
  /** When its oldest and its newest proof that stands were made, as ISO times. */
  readonly provedFrom: string | null
  readonly provedTo: string | null
  /** Its folder is gone, or files of it are otherwise than they were proved. */
  readonly wrong: boolean
}

/** Where a chart that was kept by hand says that a load is: on a drive of that name, known here or not. */
export interface SaidCopy {
  readonly volumeId: string | null
  readonly name: string
  readonly said: string
}

/** One load on the chart, as its rows say: nothing was looked at for it. */
export interface ChartLine {
  /** Of the load, or of the line of a kept chart where no such load was taken in. */
  readonly id: string
  readonly loadId: string | null
  /** The chart that says of it what is not proved, and since when it came in. */
  readonly kept: { readonly fileName: string; readonly at: string } | null
  readonly said: readonly SaidCopy[]
  readonly production: ChartProduction
  readonly label: string
  readonly camera: string | null
  readonly fileCount: number | null
  readonly sizeBytes: number | null
  readonly copies: readonly ChartCopy[]
  readonly formattedAt: string | null
  /** What a kept chart says of a format. */
  readonly formattedSaid: string | null
  readonly formattedAgainst: string | null
  readonly formattedBecause: string | null
  /** When its copies were last seen, where all that a yes asks stands in the records; nothing was checked since. */
  readonly wouldBeClearAt: string | null
  /** The worst of what stands against it, as a place in `DANGERS`, and all of it in sentences, the worst first. */
  readonly danger: number
  readonly dangers: readonly string[]
}

/** A production as it heads its lines; one that only a kept chart knows has no id. */
export interface ChartProduction {
  readonly id: string | null
  readonly title: string
  readonly client: string | null
  readonly shootOn: string | null
  readonly away: boolean
  readonly loads: number
  readonly sizeBytes: number
}

/** The columns of the chart, what it can be narrowed to, and its sentence. */
export interface ChartHead {
  readonly volumes: readonly {
    readonly id: string
    readonly name: string
    readonly siteId: string
    readonly site: string
    readonly connected: boolean
    readonly away: boolean
  }[]
  readonly clients: readonly { readonly id: string; readonly name: string }[]
  readonly years: readonly number[]
  readonly worst: {
    readonly sentence: string
    readonly loadId: string
    readonly productionId: string
    readonly title: string
  } | null
  /** Other loads in danger, counted up to 99. */
  readonly others: number
  /** Loads that are still to be reckoned, counted up to 1,000: until then nobody says that nothing is in danger. */
  readonly due: number
  readonly loads: boolean
  /** Whether lines are known from a kept chart alone. */
  readonly kept: boolean
}

/** One file of a load, and how it stands on each volume that has or had it. */
export interface ChartFile {
  readonly id: number
  readonly path: string
  readonly sizeBytes: number
  readonly onCard: boolean
  readonly on: readonly { readonly volumeId: string; readonly standing: string; readonly provedAt: string }[]
}

/** Something that was done to a load, seen of it or said of it. */
export interface JournalEntry {
  readonly id: string
  readonly at: string
  readonly kind: 'task' | 'seen' | 'said' | 'note'
  readonly sentence: string
}

const word = () => text().max(MOST_LETTERS, `Keep it under ${MOST_LETTERS} letters.`)
const named = (fault: string) => word().min(1, fault).required(fault)
/** Lines of a chart that somebody kept by hand. */
export const keptChartBody = object({
  fileName: named('Say which file it was.'),
  lines: array()
    .of(
      object({
        client: word().default(''),
        production: named('A line names no production.'),
        shootOn: string()
          .nullable()
          .default(null)
          .test('day', 'That is no day.', (day) => day == null || isDay(day)),
        load: named('A line names no load.'),
        camera: word().default(''),
        sizeBytes: number()
          .integer('That is no size.')
          .min(0, 'That is no size.')
          .max(1e15, 'That is no size of a card.')
          .nullable()
          .default(null),
        formatted: word().default(''),
        copies: array()
          .of(object({ name: named('A copy names no drive.'), said: word().default('') }).noUnknown())
          .max(60, 'A line names more drives than anybody has.')
          .default([]),
      })
        .noUnknown()
        .required('That is no line.'),
    )
    .min(1, 'There is no line in it.')
    .max(MOST_KEPT_LINES, `Bring in ${MOST_KEPT_LINES} lines at once at most.`)
    .required('Send its lines.'),
}).noUnknown()

/** What came of bringing a chart in. */
export interface KeptChartIn {
  /** Lines that say what was not there in these words. */
  readonly added: number
  readonly already: number
  /** Of all its lines, those of which a load was taken in. */
  readonly known: number
}

export interface KeptChartView {
  readonly id: string
  readonly fileName: string
  readonly at: string
  readonly lines: number
  readonly takenBackAt: string | null
}

/** The chart of all loads. 404 for what is not known. */
export const chartApi = {
  head: ask<ChartHead>()('chart', '/chart/head'),
  page: ask<Page<ChartLine>>()('chart', '/chart', chartQuery),
  /** The lines as comma-separated values, one row a copy; docs/chart.md names the columns. */
  csv: stream('/chart.csv', chartQuery.omit(['after', 'limit', 'sort', 'down'])),
  /** One load with its copies; what comes near a yes is scanned first. */
  load: ask<LoadCopies>()('copies', '/loads/:id/copies'),
  files: ask<Page<ChartFile>>()(
    'chart',
    '/loads/:id/copied-files',
    pageQuery(['place'], { troubled: narrowed.danger }),
  ),
  /** Brings a chart in that was kept by hand, all of it or nothing; the same again changes nothing. */
  bringKeptChart: order<KeptChartIn>()('POST', '/chart/kept', { status: 200, changes: ['chart'], body: keptChartBody }),
  /** Charts that came in, the newest first. */
  kept: ask<readonly KeptChartView[]>()('chart', '/chart/kept'),
  takeKeptChartBack: order()('POST', '/chart/kept/:id/back', { changes: ['chart'] }),
  journal: ask<Page<JournalEntry>>()('chart', '/loads/:id/journal', pageQuery(['at'], {}, { rows: 30, down: true })),
}
