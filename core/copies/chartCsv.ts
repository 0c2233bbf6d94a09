import { csv } from '../units/csv'

/**
 * Columns of the chart as comma-separated values, one row a copy; a load without any has one row. Their names and their
 * order stay; new ones come behind. Described in docs/chart.md.
 */
export const CHART_COLUMNS = [
  ...['client', 'production', 'shoot_date', 'load', 'camera', 'files', 'bytes'],
  ...['volume', 'site', 'mark', 'files_proved', 'oldest_proof', 'newest_proof'],
  ...['formatted', 'against', 'because', 'danger', 'load_id'],
] as const

/** A load with its copies, as the rows of the chart tell of it. */
export interface ChartLoad {
  readonly client: string | null
  readonly production: string
  /** As `2026-11-14`. */
  readonly shootOn: string | null
  readonly loadId: string
  readonly label: string
  readonly camera: string | null
  readonly fileCount: number
  readonly sizeBytes: number
  readonly copies: readonly {
    readonly volume: string
    readonly site: string
    readonly mark: number
    readonly filesCopied: number
    readonly provedFrom: string | null
    readonly provedTo: string | null
  }[]
  readonly formattedAt: string | null
  readonly formattedAgainst: string | null
  readonly formattedBecause: string | null
  readonly dangers: readonly string[]
}

const NO_COPY = ['', '', '', '', '', '']

/** Loads as lines of the table, without its head. */
export const chartCsv = (loads: readonly ChartLoad[]): string =>
  csv(
    loads.flatMap((load) => {
      const before = [load.client ?? '', load.production, load.shootOn ?? '', load.label, load.camera ?? '']
      const behind = [load.formattedAt, load.formattedAgainst, load.formattedBecause].map((text) => text ?? '')
      const copies = load.copies.map((copy) => [
        ...[copy.volume, copy.site, String(copy.mark), String(copy.filesCopied)],
        ...[copy.provedFrom ?? '', copy.provedTo ?? ''],
      ])
      return (copies.length === 0 ? [NO_COPY] : copies).map((copy) => [
        ...[...before, String(load.fileCount), String(load.sizeBytes), ...copy, ...behind],
        ...[load.dangers.join(' '), load.loadId],
      ])
    }),
  )

/** The line of names above them. */
export const chartCsvHead = (): string => csv([CHART_COLUMNS])
