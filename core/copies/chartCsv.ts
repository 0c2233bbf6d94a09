import { csv } from '../units/csv'

/**
 * Columns of the chart as comma-separated values, one row a copy; a load without any has one row. Their names and their
 * order stay; new ones come behind. Described in docs/chart.md.
 */
export const CHART_COLUMNS = [
  ...['client', 'production', 'shoot_date', 'load', 'camera', 'files', 'bytes'],
  ...['volume', 'site', 'mark', 'files_proved', 'oldest_proof', 'newest_proof'],
  ...['formatted', 'against', 'because', 'danger', 'load_id', 'said'],
] as const

/** A load with its copies, as the rows of the chart tell of it. */
export interface ChartLoad {
  readonly client: string | null
  readonly production: string
  /** As `2026-11-14`. */
  readonly shootOn: string | null
  /** None of what only a kept chart knows. */
  readonly loadId: string | null
  readonly label: string
  readonly camera: string | null
  readonly fileCount: number | null
  readonly sizeBytes: number | null
  /** where a kept chart says that it is, by the names of drives, and what stands there. */
  readonly said: readonly { readonly name: string; readonly said: string }[]
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

const NOTHING = ['', '', '', '', '', '']

/** Loads as lines of the table, without its head. */
export const chartCsv = (loads: readonly ChartLoad[]): string =>
  csv(
    loads.flatMap((load) => {
      const before = [
        load.client,
        load.production,
        load.shootOn,
        load.label,
        load.camera,
        load.fileCount,
        load.sizeBytes,
      ]
      const behind = [
        load.formattedAt,
        load.formattedAgainst,
        load.formattedBecause,
        load.dangers.join(' '),
        load.loadId,
      ]
      const proved = load.copies.map((copy) => ({
        cells: [copy.volume, copy.site, copy.mark, copy.filesCopied, copy.provedFrom, copy.provedTo],
        said: '',
      }))
      const told = load.said.map(({ name, said }) => ({ cells: [name, ...NOTHING.slice(1)], said }))
      const copies = [...proved, ...told]
      return (copies.length === 0 ? [{ cells: NOTHING, said: '' }] : copies).map(({ cells, said }) =>
        [...before, ...cells, ...behind, said].map((cell) => String(cell ?? '')),
      )
    }),
  )

/** The line of names above them. */
export const chartCsvHead = (): string => csv([CHART_COLUMNS])
