import type { Migration } from 'kysely'
import * as first from './0001-first'

/** In the order in which they run; a migration that has shipped is never changed. */
export const migrations: Record<string, Migration> = { '0001-first': first }
