import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { postgresBin } from '../../scripts/lib/bootstrap.mjs'
import type { Station } from './station'

/** The books as they are now, as PostgreSQL's own statements. */
export const copyOfBooks = ({ databaseUrl }: Station): string =>
  execFileSync(join(postgresBin() ?? '', 'pg_dump'), ['--clean', '--if-exists', databaseUrl], {
    encoding: 'utf8',
    maxBuffer: 256 * 1024 ** 2,
  })

/**
 * Puts a copy of the books back, `more` statements after it, as somebody would whose database was lost; the worker runs
 * anew.
 */
export async function putBooksBack(station: Station, copy: string, more = ''): Promise<void> {
  station.worker().kill('SIGKILL')
  execFileSync('psql', ['-q', station.databaseUrl], { input: `${copy}\n${more}`, stdio: ['pipe', 'ignore', 'ignore'] })
  await station.startWorker()
}

const highest = ({ databaseUrl }: Station, column: string, table: string): number =>
  Number(
    execFileSync('psql', ['-tAc', `select coalesce(max(${column}), 0) from ${table}`, databaseUrl], {
      encoding: 'utf8',
    }),
  )

/** The newest state of the books, whether it was written on drives yet or not. */
export const newestMark = (station: Station): number => highest(station, 'number', 'books_mark')

/** The newest state of the books that stands on a drive. */
export const markOnDrives = (station: Station): number => highest(station, 'books_number', 'mount')
