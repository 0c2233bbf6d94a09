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

/** Puts a copy of the books back, `more` statements after it, as somebody would whose database was lost; the worker runs anew. */
export async function putBooksBack(station: Station, copy: string, more = ''): Promise<void> {
  station.worker().kill('SIGKILL')
  execFileSync('psql', ['-q', station.databaseUrl], { input: `${copy}\n${more}`, stdio: ['pipe', 'ignore', 'ignore'] })
  await station.startWorker()
}

/** How many states of the books were written on drives. */
export const marksOf = ({ databaseUrl }: Station): number =>
  Number(execFileSync('psql', ['-tAc', 'select count(*) from books_mark', databaseUrl], { encoding: 'utf8' }))
